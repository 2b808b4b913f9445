import type { Variant } from '../../../../api/openup'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'

/** What is not made the same on all machines of the model, and what that tells of when one was built. */
export function Variants({ variants }: { variants: Variant[] }) {
  if (variants.length === 0) return null
  return (
    <Part title="Made in different ways" faint="on machines of this model">
      <ul>
        {variants.map(({ subject, spans, dates }) => (
          <li key={subject}>
            <strong>{subject}</strong>: {spans.map(({ value, machines, from, to }) =>
              `${value} on ${machines.join(', ')}${from ? ` (built ${from} to ${to})` : ''}`).join('; ')}
            {dates && <><br /><Faint>{dates}.</Faint></>}
          </li>
        ))}
      </ul>
    </Part>
  )
}
