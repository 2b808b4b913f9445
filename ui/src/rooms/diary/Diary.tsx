import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'

import { openDataQuery } from '../../api/dossier'
import { useAccount } from '../../api/session'
import { HistoryList } from '../../features/history/HistoryList'
import { Faint, Page, PageHead, Title } from '../../kit/Page'
import { Part } from '../../kit/Part'
import { Rounds } from './Rounds'
import { Weeks } from './Weeks'

/** What falls due, what is planned and what was done, by week; rounds; what has to be decided; and the history. */
export default function Diary() {
  const isStaff = useAccount()?.mayWriteSheets ?? false
  return (
    <Page>
      <PageHead>
        <Title>Diary</Title>
        <p><Link to="/diary/open-first">What to open first this month</Link> · <Link to="/diary/upkeep">Rules of
          upkeep</Link> · <Link to="/account#your-calendar">In your calendar</Link></p>
      </PageHead>
      <Rounds />
      <Weeks />
      {isStaff && <OpenData />}
      <Part title="What was done" faint="All of it, the newest first">
        <HistoryList of="collection" />
      </Part>
    </Page>
  )
}

function OpenData() {
  const open = useQuery(openDataQuery).data ?? []
  if (open.length === 0) return null
  return (
    <Part title="Personal data of former owners"
      faint={open.length === 1 ? '1 to decide or to carry out' : `${String(open.length)} to decide or to carry out`}>
      <ul>
        {open.map((data) => (
          <li key={data.id}>
            <Link to={`/bench/${String(data.machineId)}/arrive`}>
              {data.accession}
            </Link> {data.medium}: {data.decision === 'open' ? 'to be decided'
              : `${data.decision}, decided by ${data.decidedBy}, not carried out yet`} <Faint>(found {data.foundOn})</Faint>
          </li>
        ))}
      </ul>
    </Part>
  )
}
