import { useQuery } from '@tanstack/react-query'
import { type FormEvent } from 'react'
import styled from 'styled-components'

import { romBytesQuery, romMapQuery, type RomView } from '../../../api/roms'
import { Button } from '../../../kit/Button'
import { Field } from '../../../kit/Field'
import { Part } from '../../../kit/Part'
import { textOf } from '../../../kit/RecordForm'
import { color, font, space } from '../../../theme'
import { ByteMap, hex, type Tones } from './ByteMap'

const tones: Tones = {
  c: { word: 'like a program', tone: 'slate', opacity: 0.85 },
  t: { word: 'text', tone: 'reed', opacity: 0.9 },
  d: { word: 'tables, patterns', tone: 'amber', opacity: 0.6 },
  x: { word: 'like chance', tone: 'rust', opacity: 0.7 },
  r: { word: 'stands there before', tone: 'edge', opacity: 0.5 },
  b: { word: 'blank', tone: 'sheet', opacity: 1 },
}

/** Cells are so small that a megabyte still has few enough to draw. */
const cellOf = (bytes: number) => Math.max(16, Math.min(256, Math.ceil(bytes / 16384 / 16) * 16))
const rows = 24

/** What each part of an image holds, and its bytes from a place on. */
export function Bytes({ rom, offset, onOffset }: { rom: RomView; offset: number; onOffset: (offset: number) => void }) {
  const map = useQuery(romMapQuery(rom.sha256, cellOf(rom.bytes)))
  const from = offset - (offset % 16)
  const bytes = useQuery(romBytesQuery(rom.sha256, from, rows * 16))
  const go = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    const wanted = parseInt(textOf(new FormData(event.currentTarget), 'offset'), 16)
    if (wanted >= 0 && wanted < rom.bytes) onOffset(wanted)
  }
  return (
    <Part title="Byte map" faint={`from 0 to ${hex(rom.bytes - 1)}`}>
      {map.data && <ByteMap kinds={map.data.kinds} cell={map.data.cell} bytes={rom.bytes} offset={offset} tones={tones}
        label="Byte map; the mark chooses what is shown below" onOffset={onOffset} />}
      <Go onSubmit={go}>
        <Field label="Offset, hexadecimal" name="offset" placeholder={hex(offset)} mono />
        <Button type="submit">Show</Button>
      </Go>
      {bytes.data && (
        <Figures tabIndex={0} role="region" aria-label={`Bytes from ${hex(from)}`}>
          {bytes.data.map((row) => `${hex(row.offset)}  ${row.hex.padEnd(47)}  ${row.text}`).join('\n')}
        </Figures>
      )}
      {rom.inspection.texts.length > 0 && (
        <details>
          <summary>{rom.inspection.texts.length} texts</summary>
          <ul>
            {rom.inspection.texts.slice(0, 300).map((text) => (
              <li key={text.offset}><Button $tone="quiet" onPress={() => { onOffset(text.offset) }}>
                {hex(text.offset)}
              </Button> <Text>{text.text}</Text></li>
            ))}
          </ul>
        </details>
      )}
    </Part>
  )
}

const Go = styled.form`
  display: flex;
  align-items: end;
  gap: ${space(1)};
`
const Figures = styled.pre`
  overflow-x: auto;
  padding: ${space(1)};
  border: 1px solid ${color.line};
  background: ${color.sheet};
  font: 14px/22px ${font.mono};
`
const Text = styled.span`
  font-family: ${font.mono};
  overflow-wrap: anywhere;
`
