import { Page, Title } from '../kit/Page'

/** What stands where an address names nothing. */
export function NothingHere() {
  return <Page><Title>Nothing here</Title><p>The address names no room; choose one above.</p></Page>
}
