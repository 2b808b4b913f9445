import type { IdentificationView } from '../../api/unknowns'
import { Button, Buttons } from '../../kit/Button'
import { Figure, ListTable, Scroll } from '../../kit/ListTable'
import { Faint } from '../../kit/Page'
import { Alikes } from './Alikes'
import { EvidenceTable } from './EvidenceTable'
import { weightOf, weightWord } from './words'

type Props = {
  identification: IdentificationView
  mayWrite: boolean
  onAccept: (proposal: Proposal) => void
  onDrop: (key: string) => void
}
export type Proposal = IdentificationView['proposals'][number]

const presenceWords: Record<Proposal['presence'], string> = { found: 'found', absent: 'not there', open: 'not known yet' }

/** What the chips of a board are for, what it can do with them, and what that would say of its explanations. */
export function Census({ identification, mayWrite, onAccept, onDrop }: Props) {
  const { census, proposals, hypotheses } = identification
  const can = census.capabilities.filter(({ state }) => state === 'present')
  const perhaps = census.capabilities.filter(({ state }) => state === 'unknown')
  return (
    <>
      {census.roles.length > 0 && (
        <details>
          <summary>What its chips are for</summary>
          <Scroll>
            <ListTable>
              <thead><tr><th>Role</th><Figure as="th">Chips</Figure><th>Which</th></tr></thead>
              <tbody>
                {census.roles.map((role) => (
                  <tr key={role.key}><td>{role.name}</td><Figure>{role.count}</Figure><td>{role.parts.join(', ')}</td></tr>
                ))}
                {census.unidentified.length > 0 && (
                  <tr><td>not identified</td><Figure>{census.unidentified.length}</Figure>
                    <td>{census.unidentified.join(', ')}</td></tr>
                )}
              </tbody>
            </ListTable>
          </Scroll>
          <ul>
            {can.map((one) => <li key={one.key}>It {one.words}: {one.why}.</li>)}
          </ul>
          {perhaps.length > 0 && <p>Not known while {census.unidentified.join(', ')} {census.unidentified.length > 1
            ? 'are' : 'is'} not identified: whether it {perhaps.map(({ words }) => words).join(', ')}.</p>}
          {can.length + perhaps.length === 0 && <p>With these it does nothing that is known.</p>}
        </details>
      )}
      <Alikes alike={identification.alike} />
      {proposals.length > 0 && (
        <section aria-label="Proposed">
          <p><strong>Proposed by its chips and the library</strong>{' '}
            <Faint>Nothing of it counts until somebody accepts it.</Faint></p>
          <Scroll>
            <EvidenceTable>
              <thead><tr><th>Evidence</th><th>By what is known</th>{hypotheses.map(({ id, text }) =>
                <Figure as="th" key={id} $text>{text}</Figure>)}</tr></thead>
              <tbody>
                {proposals.map((one) => (
                  <tr key={one.key}>
                    <td>
                      {one.text}
                      {mayWrite && <Buttons>
                        <Button $small aria-label={`Accept: ${one.text}`} onPress={() => { onAccept(one) }}>Accept</Button>
                        <Button $small $tone="quiet" aria-label={`Drop: ${one.text}`}
                          onPress={() => { onDrop(one.key) }}>Drop</Button>
                      </Buttons>}
                    </td>
                    <td>{presenceWords[one.presence]}</td>
                    {hypotheses.map(({ id }) => <Figure key={id}>{weightWord(weightOf(one.weights, id))}</Figure>)}
                  </tr>
                ))}
              </tbody>
            </EvidenceTable>
          </Scroll>
        </section>
      )}
    </>
  )
}
