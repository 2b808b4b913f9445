import { useQuery } from '@tanstack/react-query'
import { Suspense } from 'react'
import { type Location, Outlet, ScrollRestoration } from 'react-router'

import type { Schemas } from '../api/client'
import { messageOf } from '../api/problem'
import { sessionQuery } from '../api/session'
import { openDevice } from '../data/open'
import { SignIn } from '../frame/SignIn'
import { Button } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { Page } from '../kit/Page'

/** The rooms for whoever is signed in, or the door. */
export function App() {
  const session = useQuery(sessionQuery)
  if (session.isPending) return null
  if (!session.data) {
    return (
      <Page>
        <Notice tone="stop" word="No answer.">{messageOf(session.error)}</Notice>
        <Button onPress={() => void session.refetch()}>Try again</Button>
      </Page>
    )
  }
  if (!session.data.account) return <SignIn />
  return <Rooms account={session.data.account} />
}

/** Where a page was scrolled to: an address that was typed has no key of its own, and is not the page before. */
const ofItsOwn = ({ key, pathname }: Location) => (key === 'default' ? pathname : key)

/** The rooms, once what this device keeps for the account is there. */
function Rooms({ account }: { account: NonNullable<Schemas['SessionBody']['account']> }) {
  const device = useQuery({ queryKey: ['device', account.id], queryFn: () => openDevice(account), staleTime: Infinity,
    gcTime: Infinity, networkMode: 'always' })
  if (device.isPending) return null
  // Whoever signs in in the place of somebody else begins anew.
  return <Suspense key={account.id} fallback={null}><Outlet /><ScrollRestoration getKey={ofItsOwn} /></Suspense>
}
