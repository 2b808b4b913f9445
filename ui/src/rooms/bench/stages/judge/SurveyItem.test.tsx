// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'

import type { Condition, FindingView, GuideItem, SurveyView } from '../../../../api/judge'
import { signIn } from '../../../../testing/people'
import { refusal, serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { SurveyItem } from './SurveyItem'

const item = { subsystem: 'batteries', name: 'Batteries', kinds: ['leaking'], parts: [], more: 0, cautions: [],
  lookFor: 'crust', grading: 'hazard: leaking' } as GuideItem
const survey = { id: 5, on: '2026-11-28', version: 3 } as SurveyView
const finding = (more: Partial<FindingView>) => ({ id: 0, key: 'a', kind: 'low voltage', where: 'Main board, BT1',
  subsystem: 'batteries', waits: true, story: { open: true, severity: 'watch', words: 'new 2026-04-14', goneOn: '' },
  ...more }) as FindingView
const inspect = (findings: FindingView[]) => show(<SurveyItem machineId={3} survey={survey} item={item} onNext={() => {}}
  condition={{ findings, severities: [] } as unknown as Condition} />)
const inspected = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Inspected/ })

describe('a subsystem in a survey', () => {
  it('does not count as inspected while nothing is said of what was there before', async () => {
    signIn('curator')
    const asked = serve(() => ({ body: { findings: [] } }))
    const user = inspect([finding({}), finding({ id: 7, key: 'b', kind: 'leaking' }),
      finding({ id: 8, key: 'c', kind: 'flat', waits: false })])
    expect(inspected().disabled).toBe(true)
    expect(screen.getByText(/2 findings were there before/)).toBeTruthy()
    await user.selectOptions(screen.getByLabelText('leaking, Main board, BT1: now'), 'gone')
    await user.click(screen.getByRole('button', { name: 'As before' }))
    expect(inspected().disabled).toBe(false)
    await user.click(inspected())
    await waitFor(() => { expect(asked).toHaveLength(1) })
    expect(asked[0]).toMatchObject({ method: 'PUT', path: '/api/surveys/5/subsystems/batteries', body: { version: 3,
      coverage: 'inspected', observed: [{ findingId: 0, key: 'a', severity: 'watch', trend: 'same' },
        { findingId: 7, severity: 'watch', gone: true }] } })
  })

  it('can be left out all the same, and says what the server refuses', async () => {
    signIn('curator')
    serve(() => refusal(422, 'say of each finding of Batteries how it is now'))
    const user = inspect([finding({})])
    await user.click(screen.getByRole('button', { name: 'It has none' }))
    expect(await screen.findByText(/say of each finding/)).toBeTruthy()
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Not inspected' }).disabled).toBe(false)
  })
})
