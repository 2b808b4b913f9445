import { type Serving, useEndService } from '../../api/peripherals'
import { Button } from '../../kit/Button'
import { NotSaved } from '../../kit/NotSaved'

/** Says that a peripheral serves a machine no more. */
export function EndService({ one }: { one: Serving }) {
  const end = useEndService()
  return (
    <>
      <Button $tone="quiet" aria-label={`${one.title} serves ${one.accession} as ${one.as} no more`}
        isPending={end.isPending} onPress={() => { end.mutate(one) }}>no more</Button>
      <NotSaved error={end.error} />
    </>
  )
}
