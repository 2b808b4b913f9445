import { useState } from 'react'
import { Heading, Modal } from 'react-aria-components'

import { messageOf } from '../api/problem'
import { useSignOut } from '../api/session'
import { dropDrafts } from '../data/drafts'
import { dropOutbox } from '../data/outbox'
import { useDrafts } from '../data/useDrafts'
import { useWaiting } from '../data/useWaiting'
import { Button, Buttons } from '../kit/Button'
import { Notice } from '../kit/Notice'
import { Overlay, OverlayPanel } from '../kit/Overlay'

/** Signs out. What is typed or done here and not sent is asked about: it stays for the same person, or goes. */
export function SignOut() {
  const signOut = useSignOut()
  const left = useDrafts().length + useWaiting().length
  const [asking, setAsking] = useState(false)
  const drop = async () => {
    await dropDrafts()
    await dropOutbox()
    signOut.mutate()
  }
  return (
    <>
      <Button $tone="quiet" onPress={() => { if (left > 0) setAsking(true); else signOut.mutate() }}>Sign out</Button>
      <Overlay isOpen={asking || signOut.isError} isDismissable
        onOpenChange={(isOpen) => { setAsking(isOpen); if (!isOpen) signOut.reset() }}>
        <Modal>
          <OverlayPanel>
            <Heading slot="title">{left === 0 ? 'Sign out' : left === 1 ? '1 thing is not sent yet'
              : `${String(left)} things are not sent yet`}</Heading>
            {left > 0 && <p>Kept here, they wait for you on this device; nobody else who signs in on it sees them.</p>}
            {signOut.error && <Notice tone="stop" word="Not signed out.">{messageOf(signOut.error)}</Notice>}
            <Buttons>
              <Button $tone="main" isPending={signOut.isPending} onPress={() => { signOut.mutate() }}>
                {left > 0 ? 'Keep them here and sign out' : 'Try again'}</Button>
              {left > 0 && <Button onPress={() => void drop()}>Delete them and sign out</Button>}
              <Button onPress={() => { setAsking(false); signOut.reset() }}>Cancel</Button>
            </Buttons>
          </OverlayPanel>
        </Modal>
      </Overlay>
    </>
  )
}
