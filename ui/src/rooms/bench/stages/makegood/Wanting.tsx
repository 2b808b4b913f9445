import { Link } from 'react-router'

import type { Machine } from '../../../../api/machines'
import { type Treatment, useAddJob, type Wanting as Wants } from '../../../../api/work'
import { Button, Buttons } from '../../../../kit/Button'
import { Scroll, StackedTable, Whole } from '../../../../kit/ListTable'
import { Mark, type MarkKind } from '../../../../kit/Mark'
import { NotSaved } from '../../../../kit/NotSaved'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'

const marks: Record<Wants['severity'], MarkKind> = { hazard: 'problem', repair: 'attention', watch: 'unknown',
  cosmetic: 'part' }

type Props = { machine: Machine; treatment: Treatment; mayWrite: boolean }

/** Findings that no job mends yet, each with the usual jobs that would. */
export function Wanting({ machine, treatment, mayWrite }: Props) {
  const { wanting } = treatment
  return (
    <Part title="Wants a job" faint="Open findings that no job mends yet, the gravest first">
      {wanting.length === 0 ? <p><Mark kind="done" /> Every open finding has its job, or it was
        decided that it has none.</p> : (
        <Scroll>
          <StackedTable>
            <thead><tr><th>Finding</th><th>Severity</th><th>Usual jobs</th></tr></thead>
            <tbody>{wanting.map((one) => (
              <tr key={one.key}>
                <td><Link to={`/bench/${String(machine.id)}/judge?finding=${one.key}`}>{one.where}: {one.kind}</Link></td>
                <Whole><Mark kind={marks[one.severity]} /> {one.severity}</Whole>
                <td>{one.policy?.leave && <p><Mark kind="done" /> Left: {one.policy.why}</p>}
                  {mayWrite ? <Offers machineId={machine.id} one={one} usual={treatment.usual} />
                  : titles(one, treatment.usual).map(({ title }) => title).join(', ')}</td>
              </tr>
            ))}</tbody>
          </StackedTable>
        </Scroll>
      )}
    </Part>
  )
}

const titles = ({ usual }: Wants, all: Treatment['usual']) =>
  usual.flatMap((key) => all.find((template) => template.key === key) ?? [])

/** So many usual jobs are offered at a finding; any other is put down by hand. */
const most = 3

function Offers({ machineId, one, usual }: { machineId: number; one: Wants; usual: Treatment['usual'] }) {
  const add = useAddJob(machineId)
  const { policy } = one
  const offered = titles(one, usual).filter(({ key }) => key !== policy?.template).slice(0, most)
  const put = (template: string, title: string) => {
    add.mutate({ title, template, findingKeys: [one.key], assemblyId: one.assemblyId ?? undefined, place: one.place })
  }
  return (
    <>
      {policy && !policy.leave && <p>
        <Button $small $tone="main" isPending={add.isPending} aria-label={`${policy.title}, by policy: ${one.where}`}
          onPress={() => { add.mutate({ title: policy.title, template: policy.template, findingKeys: policy.findingKeys,
            assemblyId: one.assemblyId ?? undefined, place: policy.place, needs: policy.needs,
            note: `By policy: ${policy.why}` }) }}>{policy.title}{policy.place !== one.place && `: ${policy.place}`}</Button>{' '}
        <Faint>by policy: {policy.why}</Faint></p>}
      <Buttons>
        {offered.map(({ key, title }) => (
          <Button key={key} $small isPending={add.isPending} aria-label={`${title}: ${one.where}`}
            onPress={() => { put(key, title) }}>{title}</Button>
        ))}
        {offered.length === 0 && !policy?.title && <Button $small isPending={add.isPending} aria-label={`A job of its own: ${one.where}`}
          onPress={() => { put('', `Mend ${one.where}: ${one.kind}`.slice(0, 200)) }}>A job of its own</Button>}
      </Buttons>
      <NotSaved error={add.error} />
    </>
  )
}
