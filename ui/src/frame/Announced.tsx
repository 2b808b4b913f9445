import { useSyncExternalStore } from 'react'

import { announced, onAnnounced } from '../api/announced'

/** Says aloud what changes elsewhere on the page. */
export function Announced() {
  const [count, ...words] = useSyncExternalStore(onAnnounced, announced).split(' ')
  return <div role="status" className="only-read"><span key={count}>{words.join(' ')}</span></div>
}
