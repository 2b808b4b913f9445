import { useQuery } from '@tanstack/react-query'

import type { Machine } from '../../../../api/machines'
import { messageOf } from '../../../../api/problem'
import { setupQuery, useKeepConfiguration } from '../../../../api/setup'
import { Button } from '../../../../kit/Button'
import { Mark } from '../../../../kit/Mark'
import { Notice } from '../../../../kit/Notice'
import { Faint } from '../../../../kit/Page'
import { Part } from '../../../../kit/Part'
import { Skeleton } from '../../../../kit/Skeleton'
import { usePanel } from '../../../../kit/usePanel'
import { ConfigurationForm } from './ConfigurationForm'
import { OneConfiguration } from './OneConfiguration'

/** How the machine is set up and was: as found, as it worked, as it is; what its switches mean, and what differs. */
export function ConfigurationsPart({ machine, mayWrite }: { machine: Machine; mayWrite: boolean }) {
  const told = useQuery(setupQuery(machine.id))
  const [adding, setAdding] = usePanel('configuration')
  const keep = useKeepConfiguration(machine.id)
  const { configurations = [], cards = [], since = [], batteries = [], hasFirmware } = told.data ?? {}
  const newest = configurations[0]
  return (
    <Part title="How it is set up" faint="Cards, jumpers, switches, firmware, media and files, on a day"
      action={mayWrite && told.data && !adding && <Button $small onPress={() => { setAdding(true) }}>Write a configuration
        down</Button>}>
      {told.error && <Notice tone="stop" word="Not read.">{messageOf(told.error)}</Notice>}
      {!told.data && !told.error && <Skeleton what="Configurations" lines={4} />}
      {adding && told.data && <ConfigurationForm keptAs={`configuration of ${String(machine.id)}`} today={cards} newest={newest}
        error={keep.error} isPending={keep.isPending} onCancel={() => { setAdding(false) }}
        onSubmit={(fields) => { keep.mutate(fields, { onSuccess: () => { setAdding(false) } }) }} />}
      {told.data && configurations.length === 0 && !adding && <p><Faint>Nobody wrote down yet how it is set up. Do it as it was
        found, before a jumper is moved or a cell is lifted.</Faint></p>}
      {told.data && !hasFirmware && batteries.length > 0 && <p><Mark kind="attention" /> {batteries.join(', ')} may keep settings
        that are lost once it is flat or lifted: write down what the firmware shows, while it still does.</p>}
      {newest && since.length > 0 && <p><Mark kind="attention" /> Since {newest.on} it is not as written:{' '}
        {since.map(({ card, from, to }) => `${card}, ${from || 'not there'} then, ${to || 'not there'} now`).join('; ')}.</p>}
      {configurations.map((one) => <OneConfiguration key={one.id} configuration={one} all={configurations} today={cards}
        isNewest={one === newest} mayWrite={mayWrite} />)}
    </Part>
  )
}
