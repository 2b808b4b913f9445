import { useQuery } from '@tanstack/react-query'
import { useEffect, useEffectEvent } from 'react'
import { Link } from 'react-router'

import { consolePortQuery } from '../../api/console'
import { meterQuery, useTouchPoint } from '../../api/judge'
import { messageOf } from '../../api/problem'
import { readerQuery, usePrepareStandIn } from '../../api/roms'
import { Notice } from '../../kit/Notice'
import { Faint } from '../../kit/Page'

/** Puts the chip that is meant into a reader's stand-in, as somebody does with a real one, and says what it holds. */
export function ReaderStandIn({ likely }: { likely: string }) {
  const { data } = useQuery(readerQuery)
  const prepare = usePrepareStandIn()
  const put = useEffectEvent(() => {
    if (data && data.holds !== likely && data.chips.includes(likely)) prepare.mutate({ chip: likely, fault: '' })
  })
  const has = data !== undefined && data.chips.length > 0
  useEffect(() => { if (has) put() }, [likely, has])
  if (!has) return null
  return <State holds={`It holds ${data.holds || 'no chip'}`} fault={data.fault} error={prepare.error} />
}

/** Puts the leads of a meter's stand-in to the point that is meant, and says where they are. */
export function MeterStandIn({ likely }: { likely: string }) {
  const { data } = useQuery(meterQuery)
  const touch = useTouchPoint()
  const put = useEffectEvent(() => {
    if (data && data.at !== likely && data.points.includes(likely)) touch.mutate({ point: likely, fault: '' })
  })
  const has = data !== undefined && data.points.length > 0
  useEffect(() => { if (has) put() }, [likely, has])
  if (!has) return null
  return <State holds={data.at ? `Its leads are at ${data.at}` : 'Its leads are nowhere'} fault={data.fault}
    error={touch.error} />
}

/** Says what a console's stand-in is. */
export function ConsoleStandIn() {
  const { data } = useQuery(consolePortQuery)
  if (!data?.profile) return null
  return <Faint role="status">A stand-in; its console is: {data.profile}. <Link to="/instruments">Instruments</Link></Faint>
}

function State({ holds, fault, error }: { holds: string; fault: string; error: Error | null }) {
  return (
    <>
      <Faint role="status">A stand-in. {holds}; wrong with it: {fault}. <Link to="/instruments">Instruments</Link></Faint>
      {error && <Notice tone="stop" word="Not told.">{messageOf(error)}</Notice>}
    </>
  )
}
