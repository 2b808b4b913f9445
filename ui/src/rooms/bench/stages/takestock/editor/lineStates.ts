import { type Extension, RangeSet, StateEffect, StateField, type Text } from '@codemirror/state'
import { Decoration, type DecorationSet, EditorView, gutter, GutterMarker, WidgetType } from '@codemirror/view'

import type { LineState } from '../../../../../api/reckoning'
import { markSource } from '../../../../../kit/Mark'
import { marks } from '../lineMarks'

/** Tells the editor what became of each line of the text that it shows now. */
export const setLineStates = StateEffect.define<LineState[]>()

const saysTheSame = (a: LineState, b: LineState) => a.state === b.state && a.text === b.text

class MarginMark extends GutterMarker {
  // Goes with the text of its line where a line is put in before it.
  override startSide = 1

  private readonly state: LineState
  constructor(state: LineState) {
    super()
    this.state = state
  }
  override eq(other: MarginMark) {
    return saysTheSame(other.state, this.state)
  }
  override toDOM() {
    const mark = document.createElement('span')
    mark.title = `${this.state.state}: ${this.state.text}${this.state.state === 'unknown' ? ' (Alt+N names it)' : ''}`
    mark.dataset.state = this.state.state
    mark.append(markSource(marks[this.state.state]))
    return mark
  }
}

class LineEnd extends WidgetType {
  private readonly state: LineState
  constructor(state: LineState) {
    super()
    this.state = state
  }
  override eq(other: LineEnd) {
    return saysTheSame(other.state, this.state)
  }
  override toDOM() {
    const words = document.createElement('span')
    words.className = `cm-line-end cm-line-end-${this.state.state}`
    words.textContent = this.state.text
    return words
  }
  override ignoreEvent() {
    return true
  }
}

const margin = StateField.define<RangeSet<MarginMark>>({
  create: () => RangeSet.empty,
  update(set, transaction) {
    let moved = set.map(transaction.changes)
    for (const effect of transaction.effects) {
      if (effect.is(setLineStates)) {
        moved = RangeSet.of(effect.value.flatMap((state) =>
          at(transaction.newDoc, state, (line) => new MarginMark(state).range(line.from))))
      }
    }
    return moved
  },
})

const lineEnds = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(set, transaction) {
    let moved = set.map(transaction.changes)
    for (const effect of transaction.effects) {
      if (effect.is(setLineStates)) {
        moved = Decoration.set(
          effect.value.flatMap((state) =>
            at(transaction.newDoc, state, (line) =>
              Decoration.widget({ widget: new LineEnd(state), side: 1 }).range(line.to)),
          ),
        )
      }
    }
    return moved
  },
  provide: (field) => EditorView.decorations.from(field),
})

function at<Made>(doc: Text, { line }: LineState, make: (line: { from: number; to: number }) => Made): Made[] {
  return line >= 1 && line <= doc.lines ? [make(doc.line(line))] : []
}

/**
 * Marks in the margin, and in faint words at the end of each line what it was taken for. A mark
 * pressed offers to name what is unknown.
 */
export const lineStates = (onName: (line: number) => boolean): Extension => [
  margin,
  lineEnds,
  gutter({
    class: 'cm-margin',
    markers: (view) => view.state.field(margin),
    initialSpacer: () => new MarginMark({ line: 0, state: 'part', text: '', nameable: '' }),
    domEventHandlers: { click: (view, block) => onName(view.state.doc.lineAt(block.from).number) },
  }),
]
