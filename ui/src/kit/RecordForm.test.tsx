// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'

import { ProblemError } from '../api/problem'
import { allDrafts } from '../data/drafts'
import { show } from '../testing/show'
import { Choice, Field, Tick } from './Field'
import { RecordForm, textOf } from './RecordForm'

const refused = (errors: { location: string; message: string }[]) =>
  new ProblemError(422, { title: 'Not acceptable as it is', status: 422, detail: 'Something is wrong.', errors })

/** A form whose first sending is refused. */
function Form({ error, onSubmit, onCancel = () => undefined }: { error: Error; onSubmit: (name: string) => void;
  onCancel?: () => void }) {
  const [now, setNow] = useState<Error | null>(null)
  return (
    <RecordForm keptAs="form of the test" error={now} isPending={false} action="Save"
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
    await user.click(screen.getByRole('button', { name: 'Save' }))
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
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(screen.getByRole('alert').textContent).toContain('Not saved.')
  })

  it('says below them what is wrong with something that is no line of it', async () => {
    const user = show(<Form error={refused([{ location: 'body.id', message: 'Its part is on order.' },
      { location: 'body.name', message: 'It is taken.' }])} onSubmit={vi.fn()} />)
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(screen.getByRole('alert').textContent).toBe('Not saved. Its part is on order.')
  })

  it('can be left', async () => {
    const onCancel = vi.fn()
    const user = show(<Form error={refused([])} onSubmit={vi.fn()} onCancel={onCancel} />)
    await user.click(screen.getByRole('button', { name: 'Cancel' }))
    expect(onCancel).toHaveBeenCalledOnce()
  })

  it('keeps what is typed until it is sent, and can begin anew', async () => {
    const form = <Form error={refused([])} onSubmit={vi.fn()} />
    const user = show(form)
    await user.type(screen.getByLabelText('Name'), 'Sorter')
    cleanup()
    show(form)
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('Sorter')
    expect(screen.getByText(/is here again/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Begin anew' }))
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('')
    expect(allDrafts()).toEqual([])
    await user.type(screen.getByLabelText('Note'), 'from the loft')
    await user.click(screen.getByRole('button', { name: 'Cancel' }))
    expect(allDrafts()).toEqual([])
  })

  it('keeps choices and ticks as well, and no password', async () => {
    function Fields() {
      const [kind, setKind] = useState('card')
      const [isOn, setOn] = useState(false)
      return <RecordForm keptAs="kinds" error={null} isPending={false} action="Save" onSubmit={vi.fn()}
        onCancel={vi.fn()}>
        <Choice label="Kind" value={kind} onChange={setKind}
          options={[{ value: 'card', text: 'card' }, { value: 'lead', text: 'lead' }]} />
        <Tick label="Private" isOn={isOn} onChange={setOn} />
        <Field label="Password" name="password" type="password" />
      </RecordForm>
    }
    const user = show(<Fields />)
    await user.selectOptions(screen.getByLabelText('Kind'), 'lead')
    await user.click(screen.getByLabelText('Private'))
    await user.type(screen.getByLabelText('Password'), 'secret words')
    cleanup()
    show(<Fields />)
    expect(screen.getByLabelText<HTMLSelectElement>('Kind').value).toBe('lead')
    expect(screen.getByLabelText<HTMLInputElement>('Private').checked).toBe(true)
    expect(screen.getByLabelText<HTMLInputElement>('Password').value).toBe('')
    expect(JSON.stringify(allDrafts())).not.toContain('secret')
    await user.click(screen.getByRole('button', { name: 'Begin anew' }))
    expect(screen.getByLabelText<HTMLSelectElement>('Kind').value, 'what lies with the form as well').toBe('card')
    expect(screen.getByLabelText<HTMLInputElement>('Private').checked).toBe(false)
  })

  it('in a form is none of the outer form\'s business', async () => {
    const outer = vi.fn((event: { preventDefault: () => void }) => { event.preventDefault() })
    const user = show(<div onSubmit={outer}><Form error={refused([])} onSubmit={vi.fn()} /></div>)
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(outer).not.toHaveBeenCalled()
  })
})
