import { useEffect, useRef, useState } from 'react'
import { Link, useLocation } from 'react-router'

import { allDrafts } from '../data/drafts'
import { Button } from '../kit/Button'
import { Mark } from '../kit/Mark'
import { Bar } from './bars'

type Left = { page: string; title: string; forms: number }

/** Says that one went away from something begun and not saved, with the way back to it. */
export function LeftBehind() {
  const at = useLocation().pathname
  const [left, setLeft] = useState<Left>()
  const before = useRef({ page: at, since: new Date().toISOString() })
  useEffect(() => {
    const { page, since } = before.current
    if (page === at) return
    before.current = { page: at, since: new Date().toISOString() }
    // What was saved is forgotten in the same moment as one goes on.
    const begun = allDrafts().filter((one) => one.page === page && one.at >= since)
    setLeft(begun.length === 0 ? undefined
      : { page, title: begun[0]?.title.replace(/ - Frugal Heron$/, '') ?? '', forms: begun.length })
  }, [at])
  return (
    <div role="status">
      {left && left.page !== at && (
        <Bar>
          <span><Mark kind="attention" /> What you began on <Link to={left.page}>{left.title}</Link> is kept on this device,
            and not saved{left.forms > 1 && ` (${String(left.forms)} forms)`}.</span>
          <Button $small $tone="quiet" onPress={() => { setLeft(undefined) }}>Leave it so</Button>
        </Bar>
      )}
    </div>
  )
}
