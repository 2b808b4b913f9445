import { Heading, Modal } from 'react-aria-components'

import { useSessionEnded, useSignOut } from '../api/session'
import { Button } from '../kit/Button'
import { Overlay, OverlayPanel } from '../kit/Overlay'
import { SignInForm } from './SignIn'

/** The session ended while somebody was at work: asks for login and password over the page, which stays as it is. */
export function SignInAgain() {
  const ended = useSessionEnded()
  const leave = useSignOut()
  return (
    <Overlay isOpen={ended} isKeyboardDismissDisabled>
      <Modal>
        <OverlayPanel>
          <Heading slot="title">Sign in again</Heading>
          <p>Your session has ended. What you typed is still here, below this.</p>
          <SignInForm />
          <Button $tone="quiet" onPress={() => { leave.mutate() }}>Leave the page instead</Button>
        </OverlayPanel>
      </Modal>
    </Overlay>
  )
}
