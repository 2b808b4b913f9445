import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Form } from 'react-aria-components'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Way, wayQuery } from '../../../../api/openup'
import { messageOf } from '../../../../api/problem'
import { Button } from '../../../../kit/Button'
import { Field } from '../../../../kit/Field'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { useFilters } from '../../../../kit/useFilters'
import { space } from '../../../../theme'

/** The fewest steps to a part, by each procedure of the model and each log, side by side. */
export function WayToPart({ machineId }: { machineId: number }) {
  const [parameters, setParameters] = useFilters()
  const to = parameters.get('way') ?? ''
  const [typed, setTyped] = useState(to)
  const setTo = (part: string) => { setParameters(part ? { way: part } : {}) }
  const ways = useQuery(wayQuery(machineId, to))
  return (
    <Part title="Way to a part">
      <Asking onSubmit={(event) => { event.preventDefault(); setTo(typed.trim()) }}>
        <Field label="Part or board" value={typed} onChange={setTyped} maxLength={100} mono placeholder="BT1" />
        <Button type="submit" isPending={ways.isFetching}>Show the way</Button>
      </Asking>
      {ways.error && <Notice tone="stop" word="Not told.">{messageOf(ways.error)}</Notice>}
      {ways.data?.length === 0 && <p><Faint>No procedure of the model and no log of the machine tells yet how it is taken
        apart.</Faint></p>}
      {ways.data && ways.data.length > 0 && (
        <>
          <section aria-label="Before anything">
            <p><strong>Before the first step of anything</strong></p>
            <ol>{ways.data[0]?.first.map((one, i) => <li key={one}>{i + 1}. {one}</li>)}</ol>
          </section>
          <p><Link to={`/bench/${String(machineId)}/way?to=${encodeURIComponent(to)}`}>On paper, with a box for each
            step</Link></p>
          <Ways>{ways.data.map((way, i) => <One key={`${way.by} ${String(i)}`} way={way} />)}</Ways>
        </>
      )}
    </Part>
  )
}

function One({ way }: { way: Way }) {
  return (
    <section aria-label={way.by}>
      <p><Faint>{way.by}</Faint></p>
      <p><Mark kind={way.state === 'known' ? 'done' : 'attention'} /> <strong>{way.words}</strong></p>
      <ol>
        {way.steps.map(({ n, step, assumed }) => (
          <li key={n}>{n}. {step.off} <Faint>{[step.connectors.length > 0 && `unplug ${step.connectors.join(', ')}`,
            ...step.tabs.map((tab) => `mind: ${tab}`), assumed && 'nobody said what it needs: all before it are counted']
            .filter(Boolean).join('; ')}</Faint></li>
        ))}
      </ol>
      {way.look.length > 0 && <p>On the way look at: {way.look.join('; ')}.</p>}
    </section>
  )
}

const Asking = styled(Form)`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: ${space(1)};
`
const Ways = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: ${space(2)};
`
