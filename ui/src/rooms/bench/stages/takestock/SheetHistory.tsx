import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import styled from 'styled-components'

import type { FittedAssembly } from '../../../../api/assemblies'
import { differenceQuery, revisionsQuery } from '../../../../api/history'
import { messageOf } from '../../../../api/problem'
import { HistoryList } from '../../../../features/history/HistoryList'
import { moment } from '../../../../features/history/moment'
import { Button, Buttons } from '../../../../kit/Button'
import { Choice } from '../../../../kit/Field'
import { Notice } from '../../../../kit/Notice'
import { color, font, space } from '../../../../theme'
import { PastFittingForm } from './moves/PastFittingForm'
import { Whereabouts } from './moves/Whereabouts'
import { Occupants } from './Occupants'

type Props = { assembly: FittedAssembly; mayWrite: boolean; onBringBack: (body: string) => void; onClose: () => void }

/**
 * The past of a board: where it has been, how any two revisions of its sheet differ, an old one brought
 * back as a draft, and who did what.
 */
export function SheetHistory({ assembly, mayWrite, onBringBack, onClose }: Props) {
  const revisions = useQuery(revisionsQuery(assembly.id, assembly.revision))
  const [to, setTo] = useState(String(assembly.revision))
  const [from, setFrom] = useState(String(Math.max(0, assembly.revision - 1)))
  const difference = useQuery({ ...differenceQuery(assembly.id, Number(from), Number(to)), enabled: to !== '0' })
  const options = [
    ...(revisions.data ?? []).map(({ n, by, at }) => ({ value: String(n),
      text: `${String(n)}: ${by || 'command line'}, ${moment(at)}` })),
    { value: '0', text: '0: nothing yet' },
  ]
  const old = revisions.data?.find(({ n }) => n === Number(from))
  const changed = difference.data?.lines.filter(({ kind }) => kind !== 'same').length

  return (
    <Panel aria-label={`History of ${assembly.title}`}>
      <Whereabouts assembly={assembly} />
      {mayWrite && assembly.kind !== 'exterior' && <PastFittingForm assembly={assembly} />}
      <Occupants assembly={assembly} />
      <h3>The sheet</h3>
      {assembly.revision === 0 ? <p>Nothing was saved yet.</p> : <Buttons>
        <Choice label="From revision" value={from} options={options} onChange={setFrom} />
        <Choice label="to revision" value={to} options={options.filter(({ value }) => value !== '0')}
          onChange={setTo} />
      </Buttons>}
      {(revisions.error ?? difference.error) && <Notice tone="stop" word="Not read.">
        {messageOf(revisions.error ?? difference.error)}
      </Notice>}
      {changed === 0 && <p>The two are the same.</p>}
      {difference.data && changed !== 0 && (
        <Lines tabIndex={0} aria-label="Lines that differ">
          {difference.data.lines.map((line, i) => {
            if (line.kind === 'removed') return <del key={i}>- {line.text}</del>
            if (line.kind === 'added') return <ins key={i}>+ {line.text}</ins>
            return <div key={i}>{'  '}{line.text}</div>
          })}
        </Lines>
      )}
      <Buttons>
        {mayWrite && old && (
          <Button onPress={() => { onBringBack(old.body) }}>Bring revision {from} back into the sheet</Button>
        )}
        <Button onPress={onClose}>Close the history</Button>
      </Buttons>
      <h3>What was done</h3>
      <HistoryList of={{ assembly: assembly.id }} />
    </Panel>
  )
}

const Panel = styled.section`
  display: flex;
  flex-direction: column;
  gap: ${space(1)};
  padding: ${space(2)};
  border: 1px solid ${color.line};
  border-left: 3px solid ${color.slate};
  background: ${color.sheet};
`
const Lines = styled.pre`
  margin: 0;
  max-height: 320px;
  overflow: auto;
  font: 14px/22px ${font.mono};
  del, ins { display: block; text-decoration: none; }
  del { background: ${color.rustGround}; color: ${color.rust}; }
  ins { background: ${color.slateGround}; color: ${color.slate}; }
`
