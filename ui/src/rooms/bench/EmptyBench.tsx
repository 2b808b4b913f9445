import { Link, Navigate } from 'react-router'

import { Page, Title } from '../../kit/Page'
import { lastOnBench, lastStage } from '../../kit/lastOnBench'
import { glance } from './stages'

/** The bench without a machine named: the one that lay there last, or how to get one there. */
export default function EmptyBench() {
  const last = lastOnBench()
  if (last) return <Navigate to={`/bench/${String(last)}/${lastStage() || glance.path}`} replace />
  return (
    <Page>
      <Title>Bench</Title>
      <p>No machine lies on the bench. Take one from the <Link to="/collection">collection</Link>.</p>
    </Page>
  )
}
