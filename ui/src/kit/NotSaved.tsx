import { KeptForLater, messageOf } from '../api/problem'
import { Mark } from './Mark'
import { Notice } from './Notice'

/** What became of a deed that was not taken: nothing while there is no error; without a connection, that it is kept. */
export function NotSaved({ error }: { error: unknown }) {
  if (error === null || error === undefined) return null
  if (error instanceof KeptForLater) return <p role="status"><Mark kind="later" /> {messageOf(error)}</p>
  return <Notice tone="stop" word="Not saved.">{messageOf(error)}</Notice>
}
