import { useQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'

import { messageOf } from '../../../../api/problem'
import { operatingQuery } from '../../../../api/setup'
import { Notice } from '../../../../kit/Notice'
import { OnPaper } from './OnPaper'
import { OperatingText } from './OperatingText'

/** The operating card, for beside the machine. */
export default function OperatingPaper() {
  const told = useQuery(operatingQuery(Number(useParams().machineId)))
  return (
    <OnPaper what="Operating card">
      {told.error && <Notice tone="stop" word="Not read.">{messageOf(told.error)}</Notice>}
      {told.data && <OperatingText card={told.data.card} />}
    </OnPaper>
  )
}
