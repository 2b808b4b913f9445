import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { mentionsQuery, useDecideMention } from '../../../api/mentions'
import { Button } from '../../../kit/Button'
import { Scroll, StackedTable } from '../../../kit/ListTable'
import { NotSaved } from '../../../kit/NotSaved'
import { Faint } from '../../../kit/Page'

/** Names of private persons in texts, of which nobody has said yet whether they are meant. */
export function Mentions() {
  const mentions = useQuery(mentionsQuery)
  const decide = useDecideMention()
  if (!mentions.data?.length) return null
  return (
    <section aria-labelledby="names-found">
      <h2 id="names-found">Names found in texts</h2>
      <p><Faint>Until somebody says who is meant, viewers read the role in place of the name. A text that is changed is
        looked through again.</Faint></p>
      <NotSaved error={decide.error} />
      <Scroll>
        <StackedTable>
          <thead><tr><th>Text</th><th>Where</th><th>Private person</th>
            <th><span className="only-read">Decide</span></th></tr></thead>
          <tbody>
            {mentions.data.map(({ id, version, spelling, around, accession, machineId, lotId, subject, party }) => (
              <tr key={id}>
                <td><Around text={around} said={spelling} /></td>
                <td>{machineId ? <Link to={`/bench/${machineId}`}>{accession}</Link>
                  : lotId ? <Link to={`/collection/arrivals/${lotId}`}>a lot</Link> : subject}</td>
                <td>{party}</td>
                <td>
                  <Button $small onPress={() => { decide.mutate({ id, version, meant: true }) }}>It is {party}</Button>
                    {' '}
                  <Button $small $tone="quiet" onPress={() => { decide.mutate({ id, version, meant: false }) }}>
                    Leave the word
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </StackedTable>
      </Scroll>
    </section>
  )
}

/** The words around a name, with the name standing out. */
function Around({ text, said }: { text: string; said: string }) {
  const written = said.split(/\s+/).join(' ')
  const at = text.indexOf(written)
  if (at < 0) return <>{text}</>
  return <>{text.slice(0, at)}<strong>{written}</strong>{text.slice(at + written.length)}</>
}
