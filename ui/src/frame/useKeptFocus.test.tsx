// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { useRef, useState } from 'react'
import { describe, expect, it } from 'vitest'

import { Part } from '../kit/Part'
import { show } from '../testing/show'
import { useKeptFocus } from './useKeptFocus'

function Work() {
  const room = useRef<HTMLDivElement>(null)
  const [rows, setRows] = useState(['first', 'second', 'third'])
  const [isOpen, setOpen] = useState(false)
  useKeptFocus(room)
  return (
    <div ref={room}>
      <Part title="Rows"><ul>
        {rows.map((row) => <li key={row}><button onClick={() => { setRows(rows.filter((one) => one !== row)) }}>
          {row}</button></li>)}
      </ul></Part>
      <Part title="Form">
        {isOpen ? <form><input aria-label="name" autoFocus />
          <button type="button" onClick={() => { setOpen(false) }}>Save</button></form>
          : <button onClick={() => { setOpen(true) }}>Add</button>}
      </Part>
    </div>
  )
}

describe('the focus, when what had it is taken away', () => {
  it('goes to the next row, and to the heading after the last', async () => {
    const user = show(<Work />)
    screen.getByText('second').focus()
    await user.keyboard('{Enter}')
    await waitFor(() => { expect(document.activeElement?.textContent).toBe('third') })
    await user.keyboard('{Enter}')
    await waitFor(() => { expect(document.activeElement?.textContent).toBe('Rows') })
  })

  it('goes from a form that was saved to what opened it', async () => {
    const user = show(<Work />)
    await user.click(screen.getByText('Add'))
    expect(document.activeElement?.getAttribute('aria-label')).toBe('name')
    await user.click(screen.getByText('Save'))
    await waitFor(() => { expect(document.activeElement?.textContent).toBe('Add') })
  })
})
