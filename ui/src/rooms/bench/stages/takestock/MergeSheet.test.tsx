// @vitest-environment jsdom
import { screen } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'

import type { Revision, Stretch } from '../../../../api/assemblies'
import { refusal, serve } from '../../../../testing/server'
import { show } from '../../../../testing/show'
import { MergeSheet } from './MergeSheet'

const theirs = { assemblyId: 9, n: 5, body: '', by: 'Bram Sedge', at: '2026-11-28T10:00:00Z' } as Revision
const stretch = (kind: Stretch['kind'], base: string[], mine: string[], other: string[]) =>
  ({ kind, base, mine, theirs: other, line: 1 }) as unknown as Stretch
const same = stretch('same', ['U1 7400'], ['U1 7400'], ['U1 7400'])
const apart = stretch('theirs', ['U2 7402'], ['U2 7402'], ['U2 74LS02'])
const clash = (n: number) => ({ ...stretch('conflict', [`U${String(n)} x`], [`U${String(n)} mine`],
  [`U${String(n)} theirs`]), baseLine: n, line: n }) as Stretch

const merging = (stretches: Stretch[]) => serve(() => ({ body: { newer: theirs, body: '', stretches,
  conflicts: stretches.filter(({ kind }) => kind === 'conflict').length } }))
const given = () => {
  const onSave = vi.fn()
  const onTakeTheirs = vi.fn()
  const user = show(<MergeSheet assemblyId={9} base={4} mine="U1 7400" theirs={theirs} onSave={onSave}
    onTakeTheirs={onTakeTheirs} />)
  return { onSave, onTakeTheirs, user }
}

describe('a sheet that two people changed', () => {
  it('is saved together where they changed different lines', async () => {
    const asked = merging([same, apart])
    const { onSave, user } = given()
    expect(await screen.findByText(/different lines, so both stay/)).toBeTruthy()
    expect(screen.getByText('+ U2 74LS02')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Save both together' }))
    expect(onSave).toHaveBeenCalledWith('U1 7400\nU2 74LS02')
    expect(asked[0]?.body).toEqual({ base: 4, body: 'U1 7400' })
  })

  it('waits for a choice about each line that both changed', async () => {
    merging([same, clash(2), clash(3)])
    const { onSave, user } = given()
    const save = await screen.findByRole<HTMLButtonElement>('button', { name: 'Save both together' })
    expect(save.disabled).toBe(true)
    expect(screen.getByText('2 choices to make')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Theirs everywhere' }))
    expect(save.disabled).toBe(false)
    await user.click(save)
    expect(onSave).toHaveBeenCalledWith('U1 7400\nU2 theirs\nU3 theirs')
    await user.click(screen.getByRole('button', { name: 'Yours everywhere' }))
    await user.click(save)
    expect(onSave).toHaveBeenLastCalledWith('U1 7400\nU2 mine\nU3 mine')
  })

  it('can be dropped for theirs, also when the merge fails', async () => {
    serve(() => refusal(422, 'The text is no sheet.'))
    const { onTakeTheirs, user } = given()
    expect(await screen.findByText(/could not be merged: .*The text is no sheet/)).toBeTruthy()
    expect(screen.queryByRole('button', { name: /revision 5/ })).toBeNull()
    merging([same])
    expect(onTakeTheirs).not.toHaveBeenCalled()
    await user.keyboard('{Escape}')
  })
})
