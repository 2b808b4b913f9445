import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'

import { messageOf } from '../../../../api/problem'
import { differenceQuery, type SetupDifference } from '../../../../api/setup'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { color, font } from '../../../../theme'
import { Numbered } from './Numbered'

type Props = { machineId: number; from: number; to: number }

/** What makes one configuration into another, as a list of what is done. */
export function Difference({ machineId, from, to }: Props) {
  const told = useQuery(differenceQuery(machineId, from, to))
  if (told.error) return <Notice tone="stop" word="Not read.">{messageOf(told.error)}</Notice>
  if (!told.data) return <p role="status">Comparing …</p>
  return (
    <section aria-label="What leads there">
      <Changes told={told.data} />
      {told.data.changes.length > 0 && <Link to={`/bench/${String(machineId)}/configuration/${String(to)}?from=${String(from)}`}>
        Print as a list to tick off</Link>}
    </section>
  )
}

/** The changes in the order in which they are made. */
export function Changes({ told: { changes, from, to } }: { told: SetupDifference }) {
  if (changes.length === 0) return <p><Mark kind="done" /> Nothing that is written down differs: {from}, and {to}.</p>
  return (
    <Steps>
      {changes.map((one, i) => (
        <li key={i}>
          {one.open && <Mark kind="unknown" />} {one.do}
          {one.of === 'file' && <pre>{(one.text ?? []).filter(({ kind }) => kind !== 'same').map(({ kind, text }, n) =>
            <span key={n}>{kind === 'added' ? '+ ' : '- '}{text}{'\n'}</span>)}</pre>}
        </li>
      ))}
    </Steps>
  )
}

const Steps = styled(Numbered)`
  pre { margin: 4px 0; padding: 4px 8px; overflow: auto; border: 1px solid ${color.line};
    font: 14px/20px ${font.mono}; }
`
