// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import { signIn } from '../../../testing/people'
import { serve } from '../../../testing/server'
import { show } from '../../../testing/show'
import { StatementForm } from './StatementForm'

const attribute = (key: string, label: string, form: string) => ({ key, label, form, unit: '', base: 0, nature: 'state',
  identity: false, settledBy: 'try it' })
const vocabulary = { attributes: [attribute('worked', 'Known to work', 'yes-no'), attribute('serial', 'Serial number',
  'identifier')], kinds: [{ kind: 'seen', words: 'what was seen', strength: 5 },
  { kind: 'firmware', words: 'the firmware', strength: 4 }], roles: [] }
const noting = () => serve(({ method, path }) => {
  if (path === '/api/vocabulary') return { body: vocabulary }
  if (path.startsWith('/api/parties')) return { body: [] }
  if (method === 'POST') return { status: 201, body: { id: 1 } }
  return { body: { attachments: [], next: 0, arrival: { lot: null } } }
})
const sent = (asked: ReturnType<typeof noting>) => asked.find(({ method }) => method === 'POST')?.body

describe('a statement', () => {
  it('is about an attribute that is offered, by its label in any case', async () => {
    signIn('curator')
    const asked = noting()
    const onDone = vi.fn()
    const user = show(<StatementForm machineId={3} onDone={onDone} />)
    const about = await screen.findByLabelText<HTMLInputElement>('About')
    expect(about.value).toBe('Serial number')
    await user.clear(about)
    await user.type(about, 'known to WORK')
    expect(screen.getByText('Begin with yes or no. Settled best: try it')).toBeTruthy()
    await user.type(screen.getByLabelText('What the source says'), 'no: silent{Enter}')
    await waitFor(() => { expect(onDone).toHaveBeenCalled() })
    expect(sent(asked)).toMatchObject({ attribute: 'worked', value: 'no: silent', subject: '', kind: 'seen' })
  })

  it('is about any word, and about a part', async () => {
    signIn('curator')
    const asked = noting()
    const onDone = vi.fn()
    const user = show(<StatementForm machineId={3} attribute="lid colour" subject="HD1" onDone={onDone} />)
    expect((await screen.findByLabelText<HTMLInputElement>(/^About/)).value).toBe('lid colour')
    expect(screen.getByText(/A name of your own/)).toBeTruthy()
    await user.type(screen.getByLabelText('What the source says'), 'beige{Enter}')
    await waitFor(() => { expect(onDone).toHaveBeenCalled() })
    expect(sent(asked)).toMatchObject({ attribute: 'lid colour', subject: 'HD1', value: 'beige' })
  })
})
