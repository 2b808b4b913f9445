import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { messageOf } from '../../../api/problem'
import { signListsQuery } from '../../../api/signs'
import { ListHead } from '../../../kit/ListHead'
import { Notice } from '../../../kit/Notice'
import { Page } from '../../../kit/Page'
import { Part } from '../../../kit/Part'
import { useFilters } from '../../../kit/useFilters'
import { SignTable } from '../../../features/signs/SignTable'

/** What all models and cards are known to show: lamps, beeps, screens and codes, by words of any of it. */
export default function SignLists() {
  const [parameters, setParameters] = useFilters()
  const words = parameters.get('words') ?? ''
  const lists = useQuery(signListsQuery(words))
  return (
    <Page>
      <ListHead
        title="Signs and codes"
        label="Model, sign, meaning"
        words={words}
        onWords={(next) => { setParameters(next ? { words: next } : {}) }}
      />
      {lists.error && <Notice tone="stop" word="Not listed.">{messageOf(lists.error)}</Notice>}
      {lists.data?.map((list) => list.table.signs.length > 0 && (
        <Part key={`${String(list.modelId)} ${String(list.knownId)}`} title={list.of} action={<Link
          to={list.modelId ? `/library/models/${String(list.modelId)}` : `/library/known/${String(list.knownId)}`}>
          {list.modelId ? 'the model' : 'the card'}</Link>}>
          <SignTable table={list.table} />
        </Part>
      ))}
      {lists.data?.every(({ table }) => table.signs.length === 0) && <p>{words ? 'No sign holds all these words.'
        : 'Nobody has written down a sign yet. They are written with a model or a card, a line each.'}</p>}
    </Page>
  )
}
