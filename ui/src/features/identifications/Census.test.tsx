// @vitest-environment jsdom
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { describe, expect, it, vi } from 'vitest'

import type { IdentificationView } from '../../api/unknowns'
import { Census } from './Census'

const identification = {
  hypotheses: [{ id: 1, text: 'a disk controller' }, { id: 2, text: 'a video card' }],
  census: {
    roles: [{ key: 'disk-control', name: 'disk control', count: 2, parts: ['U1', 'U2'] }],
    unidentified: ['U7'],
    capabilities: [{ key: 'disks', words: 'controls disks', state: 'present', why: 'disk control U1, U2' },
      { key: 'picture', words: 'makes a picture', state: 'unknown', why: 'what is not identified could be it: U7' },
      { key: 'sound', words: 'makes sound', state: 'missing', why: 'no sound on it' }],
  },
  alike: [{ key: 'disks', words: 'controls disks', n: 6, few: false, rows: [{ name: 'chips', own: '4', lowest: '12',
    median: '20', most: '30', odd: 'less than on any of the 6 others' }] }],
  proposals: [{ key: 'disks', text: 'controls disks (disk control U1, U2)', presence: 'found', howTo: '',
    weights: [{ hypothesisId: 1, weight: 3 }, { hypothesisId: 2, weight: -1 }] }],
} as unknown as IdentificationView

describe('what the chips of a board are for', () => {
  it('is told by role, with what is not known in one sentence, and nothing that is missing', () => {
    render(<Census identification={identification} mayWrite={false} onAccept={vi.fn()} onDrop={vi.fn()} />)
    expect(screen.getByText('It controls disks: disk control U1, U2.')).toBeTruthy()
    expect(screen.getByText('Not known while U7 is not identified: whether it makes a picture.')).toBeTruthy()
    expect(screen.queryByText(/makes sound/)).toBeNull()
    expect(screen.getByText(/less than on any of the 6 others/)).toBeTruthy()
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('is proposed with its weights, until somebody accepts or drops it', async () => {
    const accept = vi.fn()
    const drop = vi.fn()
    render(<Census identification={identification} mayWrite onAccept={accept} onDrop={drop} />)
    expect(screen.getAllByRole('row').at(-1)?.textContent).toContain('found+3-1')
    await userEvent.click(screen.getByRole('button', { name: /^Accept: controls disks/ }))
    expect(accept).toHaveBeenCalledWith(identification.proposals[0])
    await userEvent.click(screen.getByRole('button', { name: /^Drop: controls disks/ }))
    expect(drop).toHaveBeenCalledWith('disks')
  })
})
