import { Link } from 'react-router'

import type { KnownDetail } from '../../../api/known'
import { Faint } from '../../../kit/Page'
import { Part } from '../../../kit/Part'
import { CheckFault } from '../../../features/recognised/CheckFault'

/** What assemblies of the kind are known to suffer from: which have it, and of which nobody has found out. */
export function TestedFor({ known, mayWrite }: { known: KnownDetail; mayWrite: boolean }) {
  if (known.untested.length === 0) return null
  const named = (id: number) => known.places.find(({ assemblyId }) => assemblyId === id)
  const list = (ids: number[]) => ids.map((id) => {
    const place = named(id)
    return <li key={id}>
      <Link to={place?.machineId ? `/bench/${String(place.machineId)}/take-stock` : `/stores/${String(id)}`}>
        {place?.accession || place?.place} {place?.title}
      </Link>
    </li>
  })
  return (
    <Part title="Known to suffer from">
      {known.untested.map((fault) => (
        <section key={fault.what} aria-label={fault.what}>
          <p><strong>{fault.what}</strong>{fault.test && <Faint> · find out: {fault.test}</Faint>}</p>
          {fault.have.length > 0 && <><p>Have it:</p><ul>{list(fault.have)}</ul></>}
          {fault.open.length > 0 && (
            <>
              <p>Nobody has found out of:</p>
              <ul>{fault.open.map((id) => (
                <li key={id}>
                  <Link to={named(id)?.machineId ? `/bench/${String(named(id)?.machineId)}/take-stock`
                    : `/stores/${String(id)}`}>{named(id)?.accession || named(id)?.place} {named(id)?.title}</Link>
                  {mayWrite && <CheckFault of={`${named(id)?.accession ?? ''} ${named(id)?.title ?? ''}`}
                    knownId={known.id} assemblyId={id} fault={fault.what} />}
                </li>
              ))}</ul>
            </>
          )}
          {fault.clear.length > 0 && <><p>Do not have it:</p><ul>{list(fault.clear)}</ul></>}
          {fault.open.length + fault.have.length + fault.clear.length === 0
            && <Faint>None is in the collection.</Faint>}
        </section>
      ))}
    </Part>
  )
}
