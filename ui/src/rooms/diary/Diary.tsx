import { HistoryList } from '../../history/HistoryList'
import { Faint, Page, Title } from '../../kit/Page'

/** What was done in the collection, the newest first. */
export default function Diary() {
  return (
    <Page>
      <Title>Diary</Title>
      <p><Faint>What was done, the newest first. What falls due, rounds and loans will stand here later.</Faint></p>
      <HistoryList of="collection" />
    </Page>
  )
}
