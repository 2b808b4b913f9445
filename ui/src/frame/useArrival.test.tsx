// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react'
import { useRef } from 'react'
import { Link, Route, Routes } from 'react-router'
import { describe, expect, it } from 'vitest'

import { pictureAt, atPicture } from '../features/pictures/region'
import { Title } from '../kit/Page'
import { useSpot } from '../kit/spot'
import { show } from '../testing/show'
import { useArrival } from './useArrival'

function Rooms() {
  const room = useRef<HTMLDivElement>(null)
  useArrival(room)
  return (
    <>
      <input aria-label="find" />
      <div ref={room}>
        <Routes>
          <Route path="/" element={<><Title>First</Title><Link to="/two">on</Link><Link to="/form">form</Link>
            <Link to="/line?at=9.4">line</Link></>} />
          <Route path="/two" element={<Title>Second / part</Title>} />
          <Route path="/form" element={<><Title>Form</Title><input aria-label="name" autoFocus /></>} />
          <Route path="/line" element={<Line />} />
        </Routes>
      </div>
    </>
  )
}

function Line() {
  const spot = useSpot()
  return <Title>Line {spot?.assembly} {spot?.line}</Title>
}

describe('arriving on a page', () => {
  it('goes on at its heading, and names the window', async () => {
    const user = show(<Rooms />)
    expect(document.activeElement, 'nothing is taken when the page opens').toBe(document.body)
    await user.click(screen.getByText('on'))
    await waitFor(() => { expect(document.activeElement?.textContent).toBe('Second / part') })
    expect(document.title).toBe('part - Frugal Heron')
  })

  it('leaves the focus in a field that waits for words, in the page or in the line above', async () => {
    const user = show(<Rooms />)
    await user.click(screen.getByText('form'))
    await waitFor(() => { expect(document.activeElement?.getAttribute('aria-label')).toBe('name') })
  })

  it('leaves it to the line that the address names', async () => {
    const user = show(<Rooms />)
    await user.click(screen.getByText('line'))
    expect((await screen.findByText('Line 9 4')).hasAttribute('tabindex')).toBe(false)
  })

  it('reads the picture of an address, and nothing that is none', () => {
    const region = { x: 0.1, y: 0.2, w: 0.3, h: 0.4 }
    expect(pictureAt(`?${atPicture({ id: 7, region })}`)).toEqual({ id: 7, region })
    expect(pictureAt(`?${atPicture({ id: 7 })}`)).toEqual({ id: 7 })
    expect(pictureAt('?picture=7&part=2,0,1')).toEqual({ id: 7 })
    for (const none of ['', '?picture=x', '?picture=-1', '?picture=1.5']) expect(pictureAt(none)).toBeUndefined()
  })
})
