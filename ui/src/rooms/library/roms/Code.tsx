import type { RomView } from '../../../api/roms'
import { Button } from '../../../kit/Button'
import { Faint } from '../../../kit/Page'
import { Part } from '../../../kit/Part'
import { hex } from './ByteMap'

/** Which kinds of processors could start in it, and where its jumps lead. */
export function Code({ rom, onOffset }: { rom: RomView; onOffset: (offset: number) => void }) {
  const fits = [...rom.code, ...(rom.jumpTable ? [rom.jumpTable] : [])]
  return (
    <Part title="What code it could be" faint="Guesses, by the way of starting alone">
      {fits.length === 0 && <p>No known way of starting fits: it may hold tables, a part of a program, or one lane of a
        wide bus.</p>}
      {fits.map((fit) => (
        <div key={`${fit.kind} ${fit.order}`}>
          <p><strong>{fit.kind}</strong>, {fit.order} <Faint>{fit.why.join('; ')}</Faint></p>
          <ul>
            {fit.vectors.map((vector) => (
              <li key={`${vector.name} ${String(vector.at)}`}>
                {vector.name} at <Button $tone="quiet" aria-label={`${hex(vector.at)}: show the ${vector.name}`}
                  onPress={() => { onOffset(vector.at) }}>{hex(vector.at)}</Button> leads to {vector.to},{' '}
                <Button $tone="quiet" aria-label={`offset ${hex(vector.leads)}: show where the ${vector.name} leads`}
                  onPress={() => { onOffset(vector.leads) }}>offset {hex(vector.leads)}</Button>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </Part>
  )
}
