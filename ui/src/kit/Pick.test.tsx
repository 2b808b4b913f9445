// @vitest-environment jsdom
import { screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'

import { show } from '../testing/show'
import { Pick, type Pickable } from './Pick'

const all: Pickable[] = [{ id: 1, text: 'EH-0101 Meridian 1' }, { id: 2, text: 'EH-0142 Meridian 2' },
  { id: 3, text: 'EH-0200 Lantern' }]

/** A field in which the server finds machines by words. */
function Machines({ onPick, free = false }: { onPick: (id: number | null) => void; free?: boolean }) {
  const [search, setSearch] = useState('')
  // As the server: by words, of which the text that tells a record may have others.
  const items = all.filter(({ text }) => search && search.length < 12
    && text.toLowerCase().includes(search.toLowerCase()))
  return <Pick label="Machine" name="machine" items={items} search={search} onSearch={setSearch} onPick={onPick}
    free={free} />
}

describe('a field that picks a record', () => {
  it('is used by the keyboard: words, arrow, Enter', async () => {
    const onPick = vi.fn()
    const user = show(<Machines onPick={onPick} />)
    await user.tab()
    await user.keyboard('meridian')
    expect((await screen.findAllByRole('option')).map((o) => o.textContent)).toEqual([all[0]?.text, all[1]?.text])
    await user.keyboard('{ArrowDown}{ArrowDown}{Enter}')
    expect(onPick).toHaveBeenLastCalledWith(2)
    expect(screen.getByRole<HTMLInputElement>('combobox', { name: /Machine/ }).value).toBe('EH-0142 Meridian 2')
    expect(screen.queryByRole('option')).toBeNull()
    await user.keyboard('{ArrowDown}')
    expect((await screen.findAllByRole('option')).length).toBe(2) // what was picked is still found
  })

  it('says when nothing is found', async () => {
    const user = show(<Machines onPick={vi.fn()} />)
    await user.type(screen.getByRole('combobox', { name: /Machine/ }), 'zebra')
    expect(await screen.findByText('Nothing found.')).toBeTruthy()
  })

  it('keeps words that are none of the records where that is allowed', async () => {
    const user = show(<Machines onPick={vi.fn()} free />)
    const field = screen.getByRole<HTMLInputElement>('combobox', { name: /Machine/ })
    await user.type(field, 'the old mill')
    await user.tab() // others are hidden from it while the list is open
    expect(field.value).toBe('the old mill')
  })
})
