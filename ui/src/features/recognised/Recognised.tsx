import { useQuery } from '@tanstack/react-query'
import { memo, useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'

import type { FittedAssembly } from '../../api/assemblies'
import { type KnownClaim, recognisedQuery, useNameKnown } from '../../api/known'
import { Button } from '../../kit/Button'
import { Mark } from '../../kit/Mark'
import { Faint } from '../../kit/Page'
import { KnownForm } from '../../rooms/library/known/KnownForm'
import { color, space } from '../../theme'
import { CheckFault } from './CheckFault'

/** What an assembly is known as, by the records of the library; or the way to name it. */
export const Recognised = memo(function Recognised({ assembly, mayWrite }: { assembly: FittedAssembly
  mayWrite: boolean }) {
  const recognised = useQuery(recognisedQuery(assembly.id)).data
  const [naming, setNaming] = useState(false)
  const name = useNameKnown()
  if (!recognised) return null
  const { claims, isDisputed, part, chips } = recognised
  return (
    <Box>
      {isDisputed && <p><Mark kind="attention" /> Records of the library differ about what this is.</p>}
      {claims.map((claim) => <Claim key={claim.id} claim={claim} assembly={assembly} mayWrite={mayWrite} />)}
      {claims.length === 0 && part && (
        <p>
          <Mark kind="unknown" /> <Faint>Nobody has named part {part} yet.</Faint>
          {mayWrite && <> <Button $small $tone="quiet" aria-label={`Name it: part ${part}`}
            onPress={() => { setNaming(true) }}>Name it</Button></>}
        </p>
      )}
      {naming && (
        <KnownForm
          keptAs={`card from board ${String(assembly.id)}`}
          start={{ name: assembly.title, numbers: part, revisions: assembly.rev, chips, kind: kindOf(assembly) }}
          error={name.error}
          isPending={name.isPending}
          action="Name it everywhere"
          onSubmit={(fields) => { name.mutate(fields, { onSuccess: () => { setNaming(false) } }) }}
          onCancel={() => { setNaming(false); name.reset() }}
        />
      )}
    </Box>
  )
})

function Claim({ claim, assembly, mayWrite }: { claim: KnownClaim; assembly: FittedAssembly; mayWrite: boolean }) {
  const isMore = claim.revision === 'other' || !claim.sure || claim.by !== 'number'
  return (
    <>
      <p>
        <Mark kind={claim.sure ? 'done' : 'unknown'} />{' '}
        {claim.sure ? 'Known as' : 'Perhaps'} <Link to={`/library/known/${String(claim.id)}`}>{claim.name}</Link>
        <Faint>{claim.maker && `, ${claim.maker}`}{isMore && `: ${claim.why}`}</Faint>
      </p>
      {claim.sure && claim.differs.map((difference) => <p key={difference}>
        <Mark kind="attention" /> But {difference}.</p>)}
      {claim.sure && claim.suspect.length > 0 && (
        <ul>
          {claim.suspect.map((fault) => (
            <li key={fault.what}>
              <Mark kind={fault.state === 'clear' ? 'done' : 'attention'} />{' '}
              {fault.state === 'open' ? <>Known to suffer from: {fault.what}. {fault.test && `Find out: ${fault.test}.`}</>
                : <>{fault.state === 'clear' ? 'Does not have' : 'Has'}: {fault.what}
                  <Faint>, {fault.on}{fault.by && `, ${fault.by}`}{fault.note && `: ${fault.note}`}</Faint></>}
              {mayWrite && fault.state === 'open' && <CheckFault of={assembly.title} knownId={claim.id}
                assemblyId={assembly.id} fault={fault.what} />}
            </li>
          ))}
        </ul>
      )}
    </>
  )
}

/** What sort of record names an assembly. */
const kindOf = ({ kind }: FittedAssembly) => (kind === 'exterior' ? 'other' : kind)

const Box = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  font-size: 15px;
  svg { vertical-align: -3px; color: ${color.slate}; }
  ul { padding-left: ${space(2)}; }
`
