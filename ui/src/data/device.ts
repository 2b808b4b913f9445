import { type DBSchema, type IDBPDatabase, openDB } from 'idb'

/** Something typed and not sent: where it was typed, and since when it is kept. */
export type Draft = { account: number; name: string; value: unknown; at: string; page: string; title: string }

/** A change that waits for a connection, as it will be sent. */
export type Waiting = { id?: number; account: number; method: string; address: string; body: string | Blob
  type: string; key: string; at: string; page: string; title: string
  /** Why the server did not take it; empty while it waits. */
  refused: string }

/** What an account saw last, for when there is no connection. */
export type Seen = { account: number; at: number; version: string; session: unknown; state: unknown }

interface Device extends DBSchema {
  drafts: { key: [number, string]; value: Draft; indexes: { account: number } }
  outbox: { key: number; value: Waiting; indexes: { account: number } }
  seen: { key: number; value: Seen }
}

let opened: Promise<IDBPDatabase<Device>> | undefined

/** What the application keeps on this device. Rejected where the browser keeps nothing. */
export function device(): Promise<IDBPDatabase<Device>> {
  opened ??= openDB<Device>('heron', 1, {
    upgrade(db) {
      db.createObjectStore('drafts', { keyPath: ['account', 'name'] }).createIndex('account', 'account')
      db.createObjectStore('outbox', { keyPath: 'id', autoIncrement: true }).createIndex('account', 'account')
      db.createObjectStore('seen', { keyPath: 'account' })
    },
    // Closed by the browser, or in the way of a newer version in another tab: it is opened anew when it is needed.
    terminated: () => { opened = undefined },
    blocking: (_, __, event) => { (event.target as IDBDatabase).close(); opened = undefined },
  })
  opened.catch(() => { opened = undefined })
  return opened
}
