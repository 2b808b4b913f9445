import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import styled from 'styled-components'

import { libraryQuery, useNameType } from '../../api/library'
import { messageOf } from '../../api/problem'
import { useAccount } from '../../api/session'
import { Button } from '../../kit/Button'
import { ListHead } from '../../kit/ListHead'
import { Notice } from '../../kit/Notice'
import { Faint, Page } from '../../kit/Page'
import { useFilters } from '../../kit/useFilters'
import { usePanel } from '../../kit/usePanel'
import { PackForm } from './PackForm'
import { TypeDetail } from './TypeDetail'
import { TypeForm } from './TypeForm'
import { TypeTable } from './TypeTable'

/** Type numbers: the built-in ones and the collection's own, with where each occurs. */
export default function Library() {
  const [parameters, setParameters] = useFilters()
  const start = parameters.get('start') ?? ''
  const chosen = parameters.get('type') ?? ''
  const types = useQuery(libraryQuery(start))
  const mayName = useAccount()?.mayWriteSheets ?? false
  const mayTake = useAccount()?.mayKeepTheRecord ?? false
  const [taking, setTaking] = usePanel('pack', 'keepers')
  const [naming, setNaming] = usePanel('type')
  const name = useNameType()
  const choose = (number: string) => { setParameters({ ...(start && { start }), ...(number && { type: number }) }) }
  const detail = types.data?.find(({ number }) => number === chosen)

  return (
    <Page>
      <ListHead
        title="Library"
        label="Type number, by its start"
        words={start}
        maxLength={30}
        mono
        onWords={(words) => { setParameters(words ? { start: words } : {}) }}
      >
        {mayName && <Button $tone="main" onPress={() => { setNaming(true) }}>Name a type</Button>}
      </ListHead>
      <Also aria-label="Also in the library">
        <Link to="/library/unknowns">Unknowns</Link>
        <Link to="/library/known">Cards and boards</Link>
        <Link to="/library/models">Models</Link>
        <Link to="/library/signs">Signs and codes</Link>
        <Link to="/library/packs">Packs</Link>
        <Link to="/library/makers">Makers</Link>
        <Link to="/library/procedures">Procedures</Link>
        <Link to="/library/roms">ROM images</Link>
        {mayName && <Link to="/library/people">People and organisations</Link>}
      </Also>
      <p>
        <a href="/api/own-types.csv" download>Own types as a reference pack</a>
        {mayTake && <> <Button $tone="quiet" onPress={() => { setTaking(true) }}>Take over a pack</Button></>}
      </p>
      {taking && <PackForm onDone={() => { setTaking(false) }} />}
      {naming && (
        <TypeForm
          keptAs="new type"
          start={{ number: start.toUpperCase() }}
          error={name.error}
          isPending={name.isPending}
          action="Name it"
          onSubmit={(fields) => { name.mutate(fields, { onSuccess: () => { setNaming(false) } }) }}
          onCancel={() => { setNaming(false) }}
        />
      )}
      {name.data && !naming && (
        <p role="status">{name.data.number} is named; {String(name.data.recognised)} parts on all sheets are known by
          it now.</p>
      )}
      {types.error && <Notice tone="stop" word="Not listed.">{messageOf(types.error)}</Notice>}
      {detail && <TypeDetail key={detail.number} type={detail} onClose={() => { choose('') }} />}
      {types.data && types.data.length > 0 && <TypeTable types={types.data} chosen={chosen} onChoose={choose} />}
      {types.data?.length === 0 && (
        <p>
          {start
            ? 'No type starts like this.'
            : 'The collection has named no type of its own yet. Type the start of a number, as 27 or 74LS, to look up the built-in ones; name a type here, or on an unknown line of a sheet with Alt+N.'}
        </p>
      )}
      {!start && types.data && types.data.length > 0 && <Faint>The collection's own types. Type the start of a number
        to look up the built-in ones.</Faint>}
    </Page>
  )
}

const Also = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  a { padding: 8px 0; }
`
