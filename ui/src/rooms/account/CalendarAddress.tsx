import { useQuery } from '@tanstack/react-query'

import { messageOf } from '../../api/problem'
import { calendarAddressQuery, useDropAddress, useMakeAddress } from '../../api/upkeep'
import { moment } from '../../features/history/moment'
import { Button, Buttons } from '../../kit/Button'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'
import { Part } from '../../kit/Part'

/** The secret address at which a calendar program reads what falls due and what is planned. */
export function CalendarAddress() {
  const address = useQuery(calendarAddressQuery)
  const make = useMakeAddress()
  const drop = useDropAddress()
  const error = address.error ?? make.error ?? drop.error
  const made = make.data && address.data?.madeAt ? make.data.path : ''
  return (
    <Part title="Your calendar" faint="What falls due and what is planned, in a calendar program of yours">
      {error && <Notice tone="stop" word="Not done.">{messageOf(error)}</Notice>}
      <p>A secret address gives what falls due and what is planned as iCalendar. Whoever has it reads the
        words of tasks, plans and orders with accession numbers, and neither places nor names of private persons. A new address ends the one before.</p>
      {made && <p role="status">Copy it now, it is shown once: <code>{location.origin}{made}</code></p>}
      {address.data?.madeAt && <p><Faint>There is one since {moment(address.data.madeAt)}.</Faint></p>}
      <Buttons>
        <Button isPending={make.isPending} onPress={() => { make.mutate() }}>
          {address.data?.madeAt ? 'Make a new address' : 'Make an address'}</Button>
        {address.data?.madeAt && <Button $tone="quiet" isPending={drop.isPending} onPress={() => { drop.mutate() }}>
          Take the address away</Button>}
      </Buttons>
    </Part>
  )
}
