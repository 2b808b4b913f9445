import type { FetchInfiniteQueryOptions, FetchQueryOptions } from '@tanstack/react-query'
import type { LoaderFunctionArgs, ShouldRevalidateFunction } from 'react-router'

import { queryClient, type Schemas } from '../api/client'
import { sessionQuery } from '../api/session'

/** How long a move waits for what the next page shows, in milliseconds; after that its place is kept until it comes. */
const patience = 600

const after = (milliseconds: number) => new Promise((done) => { setTimeout(done, milliseconds) })

type Account = NonNullable<Schemas['SessionBody']['account']>

/** What a page shows first: queries for what its address names. */
export type Asks = (at: LoaderFunctionArgs['params'], filters: URLSearchParams,
  account: Account) => object[]

const fetchAhead = (query: object) => 'initialPageParam' in query
  ? queryClient.prefetchInfiniteQuery(query as FetchInfiniteQueryOptions)
  : queryClient.prefetchQuery(query as FetchQueryOptions)

/** Fetches a page's code and what it shows side by side. What fails is told by the page, which asks again. */
export function prepare(load: () => Promise<unknown>, asks: Asks = () => []) {
  return async ({ params, request }: LoaderFunctionArgs) => {
    const code = load().catch(() => undefined)
    const session = await queryClient.ensureQueryData(sessionQuery).catch(() => undefined)
    if (!session?.account) return null
    const shown = asks(params, new URL(request.url).searchParams, session.account).map(fetchAhead)
    await Promise.race([Promise.all([code, ...shown]), after(patience)])
    return null
  }
}

/** A filter in the address is no move: the page itself asks for what it shows then. */
export const onMoves: ShouldRevalidateFunction = ({ currentUrl, nextUrl }) => currentUrl.pathname !== nextUrl.pathname
