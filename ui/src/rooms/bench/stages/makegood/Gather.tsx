import type { Machine } from '../../../../api/machines'
import { type Treatment, useAddJob } from '../../../../api/work'
import { Button, Buttons } from '../../../../kit/Button'
import { NotSaved } from '../../../../kit/NotSaved'
import { Part } from '../../../../kit/Part'

type Props = { machine: Machine; treatment: Treatment; mayWrite: boolean }

/** The fewest swaps of socketed chips that leave only one board with bad ones, offered as a job. */
export function Gather({ machine, treatment: { gather }, mayWrite }: Props) {
  const add = useAddJob(machine.id)
  if (!gather) return null
  const board = (id: number) => gather.boards[String(id)] ?? ''
  const steps = gather.swaps.map(({ type, bad, good }) =>
    `${type}: ${bad.place} of ${board(bad.board)} with ${good.place} of ${board(good.board)}`)
  const title = `Gather the bad chips on ${board(gather.onto)}`
  return (
    <Part title="One replacement could serve"
      faint={`${String(gather.bad)} bad chips on several boards; ${gather.swaps.length === 1 ? 'one swap leaves'
        : `${String(gather.swaps.length)} swaps leave`} them all on one`}>
      <p>After these swaps only {board(gather.onto)} has bad chips. They are of the same type and as fast as what they
        stand in for; mark each chip with where it was before it moves.</p>
      <ol>{steps.map((step) => <li key={step}>{step}</li>)}</ol>
      {mayWrite && <Buttons>
        <Button $small $tone="main" isPending={add.isPending} onPress={() => {
          add.mutate({ title: title.slice(0, 200), assemblyId: gather.onto, note: `Swap ${steps.join('; ')}`.slice(0,
            2000) })
        }}>Put it down as a job</Button>
      </Buttons>}
      <NotSaved error={add.error} />
    </Part>
  )
}
