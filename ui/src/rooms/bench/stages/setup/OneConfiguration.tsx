import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { type Configuration, type Setup, useChangeConfiguration, useVoidConfiguration } from '../../../../api/setup'
import { Button, Buttons } from '../../../../kit/Button'
import { EditRecord } from '../../../../kit/EditRecord'
import { Choice } from '../../../../kit/Field'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { color, font, space } from '../../../../theme'
import { ConfigurationForm } from './ConfigurationForm'
import { Difference } from './Difference'
import { Meanings } from './Meanings'

type Props = { configuration: Configuration; all: Configuration[]; today: Setup['cards']; isNewest: boolean
  mayWrite: boolean }

/** A configuration: what each setting means, what the firmware keeps, and what leads back to it. */
export function OneConfiguration({ configuration, all, today, isNewest, mayWrite }: Props) {
  const { id, machineId, title, kind, on, cards = [], meanings, firmware, media, files = [], note } = configuration
  const [editing, setEditing] = useState(false)
  const [against, setAgainst] = useState('')
  const change = useChangeConfiguration(id)
  const voiding = useVoidConfiguration()
  if (editing)
    return <EditRecord keptAs={`configuration ${String(id)}`} record={configuration} change={change}
      newerIn={(newer) => newer.configuration} names={{ title: 'name', on: 'day', firmware: 'firmware', media: 'media',
        note: 'note', kind: 'kind' }} onDone={() => { setEditing(false) }}>
      {(form) => <ConfigurationForm {...form} today={today} start={configuration} />}
    </EditRecord>
  const others = all.filter((one) => one.id !== id)
  return (
    <Framed aria-label={title}>
      <details open={isNewest}>
        <summary><b>{title}</b> <Faint>{kind === 'other' || kind === title.toLowerCase() ? '' : `${kind ?? ''}, `}{on}</Faint></summary>
        {note && <p>{note}</p>}
        {cards.map((card, i) => (
          <div key={i}>
            <h4>{card.title}{card.slot && <Faint> slot {card.slot}</Faint>}</h4>
            <Meanings meanings={meanings[i] ?? []} />
          </div>
        ))}
        {firmware && <div><h4>Kept by the firmware</h4><Lines>{firmware}</Lines></div>}
        {media && <div><h4>In the drives</h4><Lines>{media}</Lines></div>}
        {files.map(({ name, text }) => <details key={name}><summary>{name}</summary><Lines>{text}</Lines></details>)}
      </details>
      <Buttons>
        <Choice label="What leads here from" value={against} onChange={setAgainst} options={[{ value: '', text: 'choose' },
          { value: '0', text: 'how it is today' },
          ...others.map((one) => ({ value: String(one.id), text: `${one.title}, ${one.on ?? ''}` }))]} />
        {mayWrite && <>
          <Button $small $tone="quiet" aria-label={`Edit ${title}`} onPress={() => { setEditing(true) }}>Edit</Button>
          <Button $small $tone="quiet" aria-label={`Delete ${title}`} isPending={voiding.isPending}
            onPress={() => { voiding.mutate(configuration) }}>Delete</Button>
        </>}
        <Link to={`/bench/${String(machineId)}/configuration/${String(id)}`}>Copy for paper</Link>
      </Buttons>
      {against !== '' && <Difference machineId={machineId} from={Number(against)} to={id} />}
      <NotSaved error={voiding.error} />
    </Framed>
  )
}

const Framed = styled.article`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(1)} 0;
  border-bottom: 1px solid ${color.line};
  h4 { margin: ${space(1)} 0 2px; font-size: 15px; }
`
const Lines = styled.pre`
  padding: ${space(1)};
  overflow: auto;
  background: ${color.sheet};
  border: 1px solid ${color.line};
  font: 14px/22px ${font.mono};
`
