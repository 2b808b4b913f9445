import { KeptForLater } from '../api/problem'

/** Goes on after a change as well when it was kept here for want of a connection. */
export const thenGoOn = (goOn: () => void) => ({
  onSuccess: goOn,
  onError: (error: Error) => { if (error instanceof KeptForLater) goOn() },
})
