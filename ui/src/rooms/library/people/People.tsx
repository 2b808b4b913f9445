import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { partiesQuery, type Party, useAddParty, useChangeParty } from '../../../api/parties'
import { messageOf } from '../../../api/problem'
import { useAccount } from '../../../api/session'
import { Button } from '../../../kit/Button'
import { EditRecord } from '../../../kit/EditRecord'
import { ListHead } from '../../../kit/ListHead'
import { ListTable, Scroll } from '../../../kit/ListTable'
import { Notice } from '../../../kit/Notice'
import { Faint, Page } from '../../../kit/Page'
import { useFilters } from '../../../kit/useFilters'
import { usePanel } from '../../../kit/usePanel'
import { Mentions } from './Mentions'
import { PartyForm } from './PartyForm'

/** People and organisations that things came from, were used by, or were passed on to. */
export default function People() {
  const [parameters, setParameters] = useFilters()
  const words = parameters.get('search') ?? ''
  const parties = useQuery(partiesQuery(words))
  const mayEdit = useAccount()?.mayKeepTheRecord ?? false
  const [adding, setAdding] = usePanel('party', 'keepers')
  const [editing, setEditing] = useState<number>()
  const add = useAddParty()
  return (
    <Page>
      <ListHead
        title="People and organisations"
        label="Filter by words in name, spelling, place"
        words={words}
        onWords={(next) => { setParameters(next ? { search: next } : {}) }}
      >
        {mayEdit && <Button $tone="main" onPress={() => { setAdding(true) }}>Add somebody</Button>}
      </ListHead>
      <p><Faint>Names of private persons are shown to staff only; viewers and files to be taken away say the
        role. <Link to="/library">Back to the library</Link></Faint></p>
      {adding && (
        <PartyForm
          keptAs="new party"
          error={add.error}
          isPending={add.isPending}
          action="Add to the list"
          onSubmit={(fields) => { add.mutate(fields, { onSuccess: () => { setAdding(false) } }) }}
          onCancel={() => { setAdding(false) }}
        />
      )}
      <Mentions />
      {parties.error && <Notice tone="stop" word="Not listed.">{messageOf(parties.error)}</Notice>}
      {parties.data && parties.data.length > 0 && (
        <Scroll>
          <ListTable>
            <thead><tr><th>Name</th><th>Kind</th><th>Role</th><th>Place</th><th>Note</th>
              <th><span className="only-read">Edit</span></th></tr></thead>
            <tbody>
              {parties.data.map((party) => (
                <tr key={party.id}>
                  <td>{party.name}</td>
                  <td>{party.private ? 'private person' : party.kind}</td>
                  <td>{party.role}</td>
                  <td>{party.place}</td>
                  <td>{party.note}</td>
                  <td>{mayEdit && <Button $tone="quiet" aria-label={`Edit ${party.name}`}
                    onPress={() => { setEditing(party.id) }}>Edit</Button>}</td>
                </tr>
              ))}
            </tbody>
          </ListTable>
        </Scroll>
      )}
      {parties.data?.filter(({ id }) => id === editing).map((party) =>
        <Edit key={party.id} party={party} onDone={() => { setEditing(undefined) }} />)}
      {parties.data?.length === 0 && <p>
        {words ? 'Nobody has all of these words.'
          : 'Nobody is written down yet. Add whoever the first machine came from.'}
      </p>}
    </Page>
  )
}

function Edit({ party, onDone }: { party: Party; onDone: () => void }) {
  const change = useChangeParty(party.id)
  const names = { name: 'name', role: 'role', place: 'place', note: 'note', spellings: 'spellings' }
  return (
    <EditRecord keptAs={`party ${String(party.id)}`}
      record={party} change={change} newerIn={(newer) => newer.party} names={names} onDone={onDone}>
      {(form) => <PartyForm start={party} action="Save" {...form} />}
    </EditRecord>
  )
}
