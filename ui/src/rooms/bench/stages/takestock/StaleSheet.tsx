import styled from 'styled-components'

import type { Revision } from '../../../../api/assemblies'
import { Button, Buttons } from '../../../../kit/Button'
import { Notice } from '../../../../kit/Notice'
import { color, font, space } from '../../../../theme'

type Props = { mine: string; theirs: Revision; onKeepMine: () => void; onTakeTheirs: () => void }

/** Two people saved one sheet: both texts side by side, nothing lost until one chooses. */
export function StaleSheet({ mine, theirs, onKeepMine, onTakeTheirs }: Props) {
  const mineLines = mine.split('\n')
  const theirLines = theirs.body.split('\n')
  return (
    <Notice tone="attention" word="Changed meanwhile.">
      {theirs.by || 'Somebody else'} saved revision {theirs.n} while you were writing. Nothing was overwritten; lines that only one side has are marked.
      <Sides>
        <Side name="Yours" lines={mineLines} other={theirLines} />
        <Side name={`Revision ${String(theirs.n)}`} lines={theirLines} other={mineLines} />
      </Sides>
      <Buttons>
        <Button onPress={onKeepMine}>Go on with yours over revision {theirs.n}</Button>
        <Button onPress={onTakeTheirs}>Take revision {theirs.n} and drop yours</Button>
      </Buttons>
    </Notice>
  )
}

function Side({ name, lines, other }: { name: string; lines: string[]; other: string[] }) {
  const there = new Set(other)
  return (
    <div>
      <strong>{name}</strong>
      <Lines tabIndex={0} aria-label={name}>
        {lines.map((line, i) => {
          if (!there.has(line)) return <ins key={i}>+ {line}</ins>
          // Of a stretch that both have, one line says that it is there.
          const before = lines[i - 1]
          return before === undefined || !there.has(before) ? <Both key={i}>lines that both have</Both> : null
        })}
      </Lines>
    </div>
  )
}

const Sides = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 240px), 1fr));
  gap: ${space(2)};
  margin: ${space(1)} 0;
`
const Both = styled.div`
  color: ${color.faint};
  font-family: ${font.body};
`
const Lines = styled.pre`
  margin: 0;
  max-height: 200px;
  overflow: auto;
  background: ${color.sheet};
  color: ${color.ink};
  font: 13px/20px ${font.mono};
  ins { display: block; background: ${color.slateGround}; text-decoration: none; }
`
