import { type Serving, useEndService } from '../../api/peripherals'
import { messageOf } from '../../api/problem'
import { Button } from '../../kit/Button'
import { Notice } from '../../kit/Notice'

/** Says that a peripheral serves a machine no more. */
export function EndService({ one }: { one: Serving }) {
  const end = useEndService()
  return (
    <>
      <Button $tone="quiet" aria-label={`${one.title} serves ${one.accession} as ${one.as} no more`}
        isPending={end.isPending} onPress={() => { end.mutate(one) }}>no more</Button>
      {end.error && <Notice tone="stop" word="Not saved.">{messageOf(end.error)}</Notice>}
    </>
  )
}
