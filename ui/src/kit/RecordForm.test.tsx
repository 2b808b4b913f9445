// @vitest-environment jsdom
import { screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'

import { ProblemError } from '../api/problem'
import { show } from '../testing/show'
import { Field } from './Field'
import { RecordForm, textOf } from './RecordForm'

const refused = (errors: { location: string; message: string }[]) =>
  new ProblemError(422, { title: 'Not acceptable as it is', status: 422, detail: 'Something is wrong.', errors })

/** A form whose first sending is refused. */
function Form({ error, onSubmit, onCancel = () => undefined }: { error: Error; onSubmit: (name: string) => void;
  onCancel?: () => void }) {
  const [now, setNow] = useState<Error | null>(null)
  return (
    <RecordForm error={now} isPending={false} action="Keep it"
      onSubmit={(form) => { onSubmit(textOf(form, 'name')); setNow(error) }} onCancel={onCancel}>
      <Field label="Name" name="name" />
      <Field label="Note" name="note" rows={2} />
    </RecordForm>
  )
}

describe('a form of a record', () => {
  it('is sent by the keyboard, without white space around what was typed', async () => {
    const onSubmit = vi.fn()
    const user = show(<Form error={refused([])} onSubmit={onSubmit} />)
    await user.tab()
    await user.keyboard('  Sorter {Enter}')
    expect(onSubmit).toHaveBeenCalledWith('Sorter')
  })

  it('says what is wrong at its field, and keeps what was typed', async () => {
    const user = show(<Form error={refused([{ location: 'body.name', message: 'EH-7 is taken.' }])}
      onSubmit={vi.fn()} />)
    await user.type(screen.getByLabelText('Name'), 'Sorter')
    await user.type(screen.getByLabelText('Note'), 'from the loft')
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    const name = screen.getByLabelText('Name')
    expect(name.getAttribute('aria-invalid')).toBe('true')
    expect(document.getElementById(name.getAttribute('aria-describedby')?.split(' ').at(-1) ?? '')?.textContent)
      .toBe('EH-7 is taken.')
    expect(screen.queryByRole('alert')).toBeNull()
    expect((name as HTMLInputElement).value).toBe('Sorter')
    expect(screen.getByLabelText<HTMLTextAreaElement>('Note').value).toBe('from the loft')
  })

  it('says what no field is about below them', async () => {
    const user = show(<Form error={new Error('The server does not answer.')} onSubmit={vi.fn()} />)
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    expect(screen.getByRole('alert').textContent).toContain('Not kept.')
  })

  it('can be left', async () => {
    const onCancel = vi.fn()
    const user = show(<Form error={refused([])} onSubmit={vi.fn()} onCancel={onCancel} />)
    await user.click(screen.getByRole('button', { name: 'Leave it' }))
    expect(onCancel).toHaveBeenCalledOnce()
  })

  it('in a form is none of the outer form\'s business', async () => {
    const outer = vi.fn((event: { preventDefault: () => void }) => { event.preventDefault() })
    const user = show(<div onSubmit={outer}><Form error={refused([])} onSubmit={vi.fn()} /></div>)
    await user.click(screen.getByRole('button', { name: 'Keep it' }))
    expect(outer).not.toHaveBeenCalled()
  })
})
