import { type ComponentType, createElement, lazy, useState } from 'react'

/** A page whose code comes when it is asked for; `load` fetches it before it is shown. */
export type LazyPage<Props> = { Page: ComponentType<Props>; load: () => Promise<unknown> }

export function lazyPage<Props extends object>(fetch: () => Promise<ComponentType<Props>>): LazyPage<Props> {
  let there: ComponentType<Props> | undefined
  const load = async () => (there = await fetch())
  const Waiting = lazy(async () => ({ default: await load() }))
  function Page(props: Props) {
    // What is there already shows at once; what was waited for stays what it is.
    const [Shown] = useState<ComponentType<Props>>(() => there ?? Waiting)
    return createElement(Shown, props)
  }
  return { Page, load }
}
