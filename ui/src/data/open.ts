import { onlineManager } from '@tanstack/react-query'

import { accountHeader, historyChanged, type Schemas, sessionEnded } from '../api/client'
import { requestKeyHeader } from '../api/requestKey'
import { anythingMayDiffer } from '../api/undo'
import { unreached } from './connection'
import { openDrafts } from './drafts'
import { takeOver } from './fromBefore'
import { openOutbox, sendWaiting } from './outbox'
import { keepSeen } from './seen'
import { sheetIsSent } from './sheetDrafts'

type Account = NonNullable<Schemas['SessionBody']['account']>

/** Begins with what this device keeps for an account: what is typed, what waits to be sent, and what was seen. */
export async function openDevice(account: Account) {
  await openDrafts(account.id)
  takeOver(account.id, account.mayWriteSheets)
  await openOutbox(account.id, {
    send: ({ method, address, body, type, key }) => fetch(address, { method, body: body || undefined,
      headers: { 'Content-Type': type, [requestKeyHeader]: key, [accountHeader]: String(account.id) } }),
    onSent: (sent, answer) => { sheetIsSent(sent, answer); historyChanged(); anythingMayDiffer() },
    onStranger: sessionEnded,
    onUnreachable: unreached,
  })
  keepSeen(account.id)
  void sendWaiting()
  return true
}

onlineManager.subscribe((isConnected) => { if (isConnected) void sendWaiting() })
