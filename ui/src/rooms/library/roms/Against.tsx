import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import { messageOf } from '../../../api/problem'
import { type RomImage, romBytesQuery, romComparisonQuery } from '../../../api/roms'
import { Button } from '../../../kit/Button'
import { Notice } from '../../../kit/Notice'
import { Part } from '../../../kit/Part'
import { color, font, narrow, space } from '../../../theme'
import { ByteMap, hex, type Tones } from './ByteMap'
import { romName } from './romName'

const tones: Tones = {
  '0': { word: 'the same', tone: 'slateGround', opacity: 1 },
  ...Object.fromEntries([...'123456789a'].map((figure,
    i) => [figure, { word: i === 9 ? 'all bytes differ' : `up to ${String(i + 1)} of 10 bytes differ`, tone: 'rust',
      opacity: 0.35 + 0.065 * i }])),
}
const cell = 16
const rows = 12

/** Two images side by side: the verdict, where they differ, and the bytes of both. */
export function Against({ a, b, onClose }: { a: RomImage; b: string; onClose: () => void }) {
  const comparison = useQuery(romComparisonQuery(a.sha256, b, Math.max(cell, Math.ceil(a.bytes / 32768) * cell)))
  const [chosen, setChosen] = useState<number>()
  const offset = chosen ?? comparison.data?.firstOffset ?? 0
  if (comparison.error) return <Notice tone="stop" word="Not compared.">{messageOf(comparison.error)}</Notice>
  if (!comparison.data) return null
  const { verdict, note, cells, differingBytes, bits0to1, bits1to0, b: other } = comparison.data
  return (
    <Part title={`${romName(a)} against ${romName(other)}`} action={<Button $small onPress={onClose}>Close</Button>}>
      <p><Verdict>{verdict}</Verdict> {note}</p>
      <p>{differingBytes.toLocaleString('en')} bytes differ; {bits0to1.toLocaleString('en')} bits from 0 to
        1, {bits1to0.toLocaleString('en')} from 1 to 0. The other is <Link to={`/library/roms/${other.sha256}`}>
          {romName(other)}
        </Link>.</p>
      <ByteMap kinds={cells.kinds} cell={cells.cell} bytes={Math.max(a.bytes, other.bytes)} offset={offset}
        tones={tones} label="Where the two differ; the mark chooses what is shown below" onOffset={setChosen} />
      <Both>
        <Side of={a} other={other} from={offset - (offset % 16)} />
        <Side of={other} other={a} from={offset - (offset % 16)} />
      </Both>
    </Part>
  )
}

function Side({ of, other, from }: { of: RomImage; other: RomImage; from: number }) {
  const own = useQuery(romBytesQuery(of.sha256, from, rows * 16))
  const theirs = useQuery(romBytesQuery(other.sha256, from, rows * 16))
  return (
    <Figures tabIndex={0} role="region" aria-label={`Bytes of ${romName(of)} from ${hex(from)}`}>
      {(own.data ?? []).map((row, i) => {
        const against = theirs.data?.[i]?.hex.split(' ') ?? []
        return (
          <div key={row.offset}>
            {hex(row.offset)}{'  '}
            {row.hex.split(' ').map((figure, n) =>
              <span key={String(n)}>{figure === against[n] ? figure : <mark>{figure}</mark>} </span>)}
          </div>
        )
      })}
    </Figures>
  )
}

const Verdict = styled.strong`
  padding: 2px 8px;
  border: 1px solid ${color.edge};
`
const Both = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: ${space(1)};
  ${narrow} { grid-template-columns: minmax(0, 1fr); }
`
const Figures = styled.div`
  overflow-x: auto;
  padding: ${space(1)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
  font: 13px/22px ${font.mono};
  white-space: pre;
  mark { background: ${color.amberGround}; color: ${color.amber}; font-weight: 700; }
`
