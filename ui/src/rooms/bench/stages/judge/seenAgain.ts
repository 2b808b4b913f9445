import type { SeenFinding, FindingView } from '../../../../api/judge'

/** Names a finding: one that is known from sheets or measurements alone has no number yet. */
export const findingOf = ({ id, key }: FindingView) => ({ findingId: id, ...(id === 0 && { key }) })

/** What can be said of a finding that was there before, in the words of a drop-down; the first says nothing. */
export function choicesFor({ story }: FindingView) {
  const grave = (['cosmetic', 'watch', 'repair', 'hazard'] as const).filter((one) =>
    !story.open || one !== story.severity).map((value) => ({ value,
      text: story.open ? `now ${value}` : `it is back, ${value}` }))
  if (!story.open) return [{ value: '', text: `gone since ${story.goneOn}` }, ...grave]
  return [{ value: '', text: 'not said' }, { value: 'same', text: `as before, ${story.severity}` },
    { value: 'worse', text: `worse, still ${story.severity}` },
      { value: 'better', text: `better, still ${story.severity}` }, ...grave, { value: 'gone', text: 'gone' }]
}

/** What a choice says of a finding; nothing for the first. */
export function seenAgain(finding: FindingView, say: { is: string; note: string } | undefined): SeenFinding[] {
  if (!say?.is) return []
  const one = { ...findingOf(finding), note: say.note, severity: finding.story.severity }
  switch (say.is) {
    case 'gone':
      return [{ ...one, gone: true }]
    case 'same':
    case 'worse':
    case 'better':
      return [{ ...one, trend: say.is }]
  }
  return [{ ...one, severity: say.is as SeenFinding['severity'] }]
}
