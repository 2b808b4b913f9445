import type { IdentificationView } from '../../api/unknowns'
import { Figure, Scroll, StackedTable } from '../../kit/ListTable'
import { Mark } from '../../kit/Mark'
import { Faint } from '../../kit/Page'

/** A board beside the collection's boards that do the same. */
export function Alikes({ alike }: { alike: IdentificationView['alike'] }) {
  if (alike.length === 0) return null
  return (
    <details>
      <summary>Beside boards that do the same</summary>
      {alike.map((one) => (
        <section key={one.key} aria-label={one.words}>
          <p>It {one.words}: {one.n} {one.n === 1 ? 'other does' : 'others do'}.
            {one.few && <Faint> Too few to compare.</Faint>}</p>
          {one.rows.length > 0 && (
            <Scroll>
              <StackedTable>
                <thead><tr><th>What</th><Figure as="th">This one</Figure><Figure as="th">Fewest</Figure>
                  <Figure as="th">In the middle</Figure><Figure as="th">Most</Figure><th>So</th></tr></thead>
                <tbody>
                  {one.rows.map((row) => (
                    <tr key={row.name}><td>{row.name}</td><Figure>{row.own}</Figure><Figure>{row.lowest}</Figure>
                      <Figure>{row.median}</Figure><Figure>{row.most}</Figure>
                      <td>{row.odd && <><Mark kind="attention" /> {row.odd}</>}</td></tr>
                  ))}
                </tbody>
              </StackedTable>
            </Scroll>
          )}
        </section>
      ))}
    </details>
  )
}
