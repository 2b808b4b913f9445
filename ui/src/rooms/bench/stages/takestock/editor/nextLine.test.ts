import { history, undo } from '@codemirror/commands'
import { EditorState } from '@codemirror/state'
import type { EditorView } from '@codemirror/view'
import { describe, expect, it } from 'vitest'

import { example } from '../../../../../kit/examples'
import { newLine, nextDesignator, repeatLine } from './nextLine'

describe('nextDesignator', () => {
  it.each([
    ['follows a single part', 'U40        41256-15', 'U41'],
    ['follows the end of a run', 'U40-U48    41256-15', 'U49'],
    ['follows a run with two dots', 'IC1..IC8   4164', 'IC9'],
    ['follows a run with a short end', 'U40-48     4164', 'U49'],
    ['follows the last of a list', 'U20,U22    27128', 'U23'],
    ['follows a list with spaces', 'U20, U22   27128', undefined],
    ['keeps leading zeros', 'R09        4k7', 'R10'],
    ['counts past them', 'U099 7400', 'U100'],
    ['reads an indented line', '   U7 7400', 'U8'],
    ['proposes nothing after a heading', '== Main board', undefined],
    ['proposes nothing after a comment', '# U40', undefined],
    ['proposes nothing after a count', '8x         4164', undefined],
    ['proposes nothing after words', 'bought with the drive', undefined],
    ['proposes nothing after a grid cell', '4C         74LS00', undefined],
    ['proposes nothing for a marking without designator', 'HX9040-2?  8431', undefined],
    ['proposes nothing after an empty line', '', undefined],
  ])('%s', (_, line, next) => {
    expect(nextDesignator(line)).toBe(next)
  })
})

/** A view as far as commands need one: the state, and what is dispatched on it. */
function viewOf(doc: string, options: { at?: number; readOnly?: boolean } = {}) {
  let state = EditorState.create({
    doc,
    selection: { anchor: options.at ?? doc.length },
    extensions: [history(), EditorState.readOnly.of(options.readOnly ?? false)],
  })
  const view = {
    get state() { return state },
    dispatch: (spec: Parameters<EditorState['update']>[0]) => { state = state.update(spec).state },
  } as unknown as EditorView
  return { view, text: () => state.doc.toString(), cursor: () => state.selection.main.head }
}

describe('newLine', () => {
  it('opens a line with the next designator and puts the cursor behind it', () => {
    const { view, text, cursor } = viewOf('U40        41256-15')
    expect(newLine(view)).toBe(true)
    expect(text()).toBe('U40        41256-15\nU41        ')
    expect(cursor()).toBe(text().length)
  })
  it('clears a proposal that was not used, so that Enter twice ends the run', () => {
    const { view, text } = viewOf('U40        41256-15\nU41        ')
    expect(newLine(view)).toBe(true)
    expect(text()).toBe('U40        41256-15\n')
  })
  it('leaves the key alone in the middle of a line, after a comment and in a sheet that is only read', () => {
    expect(newLine(viewOf('U40 7400', { at: 3 }).view)).toBe(false)
    expect(newLine(viewOf('# seen from above').view)).toBe(false)
    expect(newLine(viewOf('U40 7400', { readOnly: true }).view)).toBe(false)
  })
})

describe('repeatLine', () => {
  it('repeats the line with the next designator', () => {
    const { view, text } = viewOf('U40-U47    41256-15 8512 @socket')
    expect(repeatLine(view)).toBe(true)
    expect(text()).toBe('U40-U47    41256-15 8512 @socket\nU48        41256-15 8512 @socket')
  })
  it('fills a fresh line from the line above', () => {
    for (const fresh of ['', 'U41        ']) {
      const { view, text } = viewOf(`U40        74LS00 8501\n${fresh}`)
      expect(repeatLine(view)).toBe(true)
      expect(text()).toBe('U40        74LS00 8501\nU41        74LS00 8501')
    }
  })
  it('changes nothing where there is nothing to repeat, or nothing may be changed', () => {
    for (const { view, text } of [viewOf('8x 4164'), viewOf('', { readOnly: true }),
      viewOf('U1 7400', { readOnly: true })]) {
      const before = text()
      expect(repeatLine(view)).toBe(false)
      expect(text()).toBe(before)
    }
  })
  it('writes the example into an empty sheet', () => {
    const { view, text } = viewOf('')
    expect(repeatLine(view)).toBe(true)
    expect(text()).toBe(example)
  })
  it('is undone in one step', () => {
    const { view, text } = viewOf('U40 7400')
    repeatLine(view)
    undo(view)
    expect(text()).toBe('U40 7400')
  })
})
