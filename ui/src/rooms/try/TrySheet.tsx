import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'

import { messageOf } from '../../api/problem'
import { dryRunQuery } from '../../api/reckoning'
import { example } from '../../kit/examples'
import { Field } from '../../kit/Field'
import { Notice } from '../../kit/Notice'
import { Page, Title } from '../../kit/Page'
import { useSettled } from '../../kit/useSettled'
import { DryRun } from '../bench/stages/takestock/DryRun'

/** A pause in typing lets the reckoning follow, in milliseconds. */
const pause = 200

/** A sheet to play with: it is reckoned as any other, and nothing of it is kept. */
export default function TrySheet() {
  const [text, setText] = useState(`== Main board | part 4410-2 | rev C\n${example}`)
  const settled = useSettled(text, pause)
  const reckoned = useQuery({ ...dryRunQuery(settled), enabled: settled.trim() !== '',
    placeholderData: keepPreviousData })
  return (
    <Page>
      <Title>Try a sheet</Title>
      <p>A line a part, in the order the eye meets them. Change what you like: nothing of this page is kept.</p>
      <Field label="Sheet" value={text} onChange={setText} rows={12} mono />
      {reckoned.error && <Notice tone="stop" word="Not readable.">{messageOf(reckoned.error)}</Notice>}
      {reckoned.data && text.trim() !== '' && <DryRun reckoned={reckoned.data} isPlay />}
      <p><Link to="/collection/new">Enter a machine</Link> when you have seen enough; <kbd>?</kbd> tells all signs of a
        sheet.</p>
    </Page>
  )
}
