// @vitest-environment jsdom
import { screen } from '@testing-library/react'
import { useLocation } from 'react-router'
import { describe, expect, it } from 'vitest'

import { signIn } from '../testing/people'
import { show } from '../testing/show'
import { useColumns } from './Columns'
import { openAt, usePanel } from './usePanel'

function Page() {
  const [isOpen, setOpen] = usePanel('finding')
  const [told, tell] = usePanel('history', 'all')
  const { search } = useLocation()
  return (
    <>
      <button onClick={() => { setOpen(!isOpen) }}>{isOpen ? 'close' : 'open'}</button>
      <button onClick={() => { tell(true) }}>{told ? 'told' : 'tell'}</button>
      <p>at {search}</p>
    </>
  )
}

describe('a panel of a page', () => {
  it('is open where the address says so, one at a time, and leaves the rest of the address', async () => {
    signIn('curator')
    const user = show(<Page />, '/judge?at=9.4&open=finding')
    await user.click(screen.getByText('close'))
    expect(screen.getByText('at ?at=9.4')).toBeTruthy()
    await user.click(screen.getByText('open'))
    await user.click(screen.getByText('tell'))
    expect(screen.getByText('at ?at=9.4&open=history')).toBeTruthy()
    expect(screen.getByText('open')).toBeTruthy()
    expect(openAt('/judge', 'earlier survey')).toBe('/judge?open=earlier+survey')
  })

  it('stays closed for whom it is not', () => {
    signIn('viewer')
    show(<Page />, '/judge?open=finding')
    expect(screen.getByText('open')).toBeTruthy()
  })
})

const columns = [{ key: 'a', title: 'Number', isFixed: true }, { key: 'b', title: 'Place' }, { key: 'c', title: 'Year' }]

function Listed() {
  const { shown, choice } = useColumns('test', columns)
  return <>{choice}<p>{shown.map(({ title }) => title).join(' ')}</p></>
}

describe('the columns of a list', () => {
  it('are those that somebody wants, and are so again the next time; fixed ones stay', async () => {
    signIn('curator')
    const user = show(<Listed />)
    expect(screen.queryByLabelText('Number')).toBeNull()
    await user.click(screen.getByLabelText('Place'))
    expect(screen.getByText('Number Year')).toBeTruthy()
    show(<Listed />)
    expect(screen.getAllByText('Number Year')).toHaveLength(2)
  })
})
