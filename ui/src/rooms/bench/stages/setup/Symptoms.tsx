import type { FittedAssembly } from '../../../../api/assemblies'
import type { Schemas } from '../../../../api/client'
import { useBeginDiagnosis } from '../../../../api/diagnosis'
import type { Machine } from '../../../../api/machines'
import { Button } from '../../../../kit/Button'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { usePanel } from '../../../../kit/usePanel'
import { Elsewhere } from './Elsewhere'
import { OneSymptom } from './OneSymptom'
import { SymptomForm } from './SymptomForm'

type Props = { machine: Machine; told: Schemas['Diagnoses']; boards: FittedAssembly[]; mayWrite: boolean }

/** What the machine does that it should not, each with what was tried and what that leaves. */
export function Symptoms({ machine, told, boards, mayWrite }: Props) {
  const [adding, setAdding] = usePanel('symptom')
  const begin = useBeginDiagnosis(machine.id)
  // A board that was tried may be in another machine today.
  const tried = told.boards.filter(({ assemblyId }) => !boards.some(({ id }) => id === assemblyId))
    .map(({ assemblyId, title }) => ({ id: assemblyId, title }))
  return (
    <>
      <Part title="Symptoms and trials" faint="What was changed, how it went, and what that leaves to explain it"
        action={mayWrite && !adding && <Button $small onPress={() => { setAdding(true) }}>A symptom</Button>}>
        {adding && <SymptomForm keptAs={`symptom of ${String(machine.id)}`} action="Save" error={begin.error}
          isPending={begin.isPending} onCancel={() => { setAdding(false) }} onSubmit={(fields) => {
            begin.mutate({ ...fields, factors: [], trials: [] }, { onSuccess: () => { setAdding(false) } })
          }} />}
        {told.diagnoses.length === 0 && !adding && <p><Faint>No symptom is written down. Say what it does that it should
          not, then each trial with all that was changed: a change that was taken back counts as well, and three at once
          are told apart by the next trial.</Faint></p>}
        {told.diagnoses.map((one) => (
          <OneSymptom key={one.id} diagnosis={one} offered={told.offered} boards={[...boards, ...tried]} mayWrite={mayWrite} />
        ))}
      </Part>
      {told.boards.length > 0 && <Elsewhere boards={told.boards} machineId={machine.id} />}
    </>
  )
}
