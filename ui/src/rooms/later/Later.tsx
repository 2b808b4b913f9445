import { Mark } from '../../kit/Mark'
import { Page, Title } from '../../kit/Page'

/** A room or stage that is not open yet: its name, and one sentence on what it will hold. */
export function Later({ name, sentence }: { name: string; sentence: string }) {
  return (
    <Page>
      <Title>{name}</Title>
      <p><Mark kind="later" /> Not open yet. {sentence}</p>
    </Page>
  )
}
