import { Mark } from '../../kit/Mark'

/** A stage of the bench that is not open yet: one sentence on what it will hold. */
export function LaterText({ sentence }: { sentence: string }) {
  return <p><Mark kind="later" /> Not open yet. {sentence}</p>
}
