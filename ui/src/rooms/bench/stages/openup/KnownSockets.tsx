import type { KnownSocket } from '../../../../api/openup'
import { Button } from '../../../../kit/Button'
import { Faint } from '../../../../kit/Page'

type Props = { sockets: KnownSocket[]; mayWrite: boolean; onMap: (socket: KnownSocket) => void }

/** Sockets that the library knows on the boards of the machine, and that are on no map yet. */
export function KnownSockets({ sockets, mayWrite, onMap }: Props) {
  if (sockets.length === 0) return null
  return (
    <section aria-label="Known sockets">
      <p><strong>Also on its boards, by the library</strong></p>
      <ul>
        {sockets.map((one) => (
          <li key={`${one.board} ${one.name} ${one.by}`}>
            <strong>{one.name}</strong> on {one.board} <Faint>{knownWords(one)}</Faint>
            {mayWrite && <> <Button $small $tone="quiet" aria-label={`Map it: ${one.name} on ${one.board}`}
              onPress={() => { onMap(one) }}>Map it</Button></>}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** What the library says of a socket: what it is, what it is for, its pins. */
export const knownWords = ({ kind, for: serves, pins, by }: KnownSocket) =>
  `${[kind, serves, ...pins.map(({ name, signal }) => `pin ${name} ${signal}`)].filter(Boolean).join(', ')} (${by})`
