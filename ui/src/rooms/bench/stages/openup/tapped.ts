import type { Fastener, Step } from '../../../../api/openup'

/** A step as it is tapped: lists of words as one text each. */
export type Tapped = { off: string; fasteners: Fastener[]; unplugged: string[]; more: string; tabs: string;
  differs: string; note: string; special: boolean; needs: string; frees: string; look: string;
  minutes: string; pictures: number[] }

/** A step, or as much of one as there is, in the fields of the form. */
export const tappedOf = (start: Partial<Step>, pictures: number[]): Tapped => ({
  off: start.off ?? '',
  fasteners: start.fasteners ?? [],
  unplugged: start.connectors ?? [],
  more: '',
  tabs: (start.tabs ?? []).join('; '),
  differs: (start.differs ?? []).map(({ subject, value }) => `${subject}: ${value}`).join('; '),
  note: start.note ?? '',
  special: start.special ?? false,
  needs: (start.needs ?? []).join(', '),
  frees: (start.frees ?? []).join(', '),
  look: (start.look ?? []).join('; '),
  minutes: start.minutes ? String(start.minutes) : '',
  pictures,
})

/** What the fields amount to. */
export function stepOf({ off, fasteners, unplugged, more, tabs, differs, note, special, ...way }: Tapped): Step {
  return {
    off: off.trim(),
    fasteners,
    tabs: listOf(tabs, ';'),
    connectors: [...unplugged, ...listOf(more, ',')],
    differs: listOf(differs, ';').map((one) => {
      const [subject = '', ...value] = one.split(':')
      return { subject: subject.trim(), value: value.join(':').trim() }
    }),
    note: note.trim(),
    special,
    needs: listOf(way.needs, ','),
    frees: listOf(way.frees, ','),
    look: listOf(way.look, ';'),
    minutes: Number(way.minutes) || 0,
  }
}

const listOf = (text: string, between: string) => text.split(between).map((one) => one.trim()).filter(Boolean)
