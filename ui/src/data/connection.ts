import { onlineManager } from '@tanstack/react-query'
import { useSyncExternalStore } from 'react'

/**
 * Whether the server can be reached, by what became of the last requests: a browser that is on a network knows
 * nothing of
 * a server that is not. While it cannot, queries wait, and it is tried again and again.
 */
const everyMost = 15_000
let wait = 2_000
let timer: ReturnType<typeof setTimeout> | undefined
let ask: () => Promise<unknown> = () => Promise.reject(new Error('not set'))

/** Says how to find out whether the server is there again. */
export function tryWith(probe: () => Promise<unknown>) {
  ask = probe
}

/** A request did not reach the server. */
export function unreached() {
  if (onlineManager.isOnline()) wait = 2_000
  onlineManager.setOnline(false)
  clearTimeout(timer)
  timer = setTimeout(() => void tryNow(), wait)
  wait = Math.min(wait * 1.5, everyMost)
}

/** A request was answered. */
export function reached() {
  clearTimeout(timer)
  onlineManager.setOnline(true)
}

export async function tryNow() {
  try {
    await ask()
    reached()
  } catch {
    unreached()
  }
}

/** Listens to what the browser knows of its network. */
export function watchNetwork() {
  onlineManager.setEventListener(() => {
    const gone = () => { unreached() }
    const back = () => { void tryNow() }
    addEventListener('offline', gone)
    addEventListener('online', back)
    return () => { removeEventListener('offline', gone); removeEventListener('online', back) }
  })
}

export const useIsConnected = () =>
  useSyncExternalStore((tell) => onlineManager.subscribe(tell), () => onlineManager.isOnline())
