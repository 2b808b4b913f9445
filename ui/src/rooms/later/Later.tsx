import { Mark } from '../../kit/Mark'
import { Page, Title } from '../../kit/Page'

/** A room that is not open yet: its name, and one sentence on what it will hold. */
export function Later({ name, sentence }: { name: string; sentence: string }) {
  return (
    <Page>
      <Title>{name}</Title>
      <LaterText sentence={sentence} />
    </Page>
  )
}

/** The sentence alone, for a stage of the bench. */
export function LaterText({ sentence }: { sentence: string }) {
  return <p><Mark kind="later" /> Not open yet. {sentence}</p>
}
