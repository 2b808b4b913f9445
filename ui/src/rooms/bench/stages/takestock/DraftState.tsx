import styled from 'styled-components'

import { KeptForLater } from '../../../../api/problem'
import { Button } from '../../../../kit/Button'
import { Mark } from '../../../../kit/Mark'
import { color, space } from '../../../../theme'
import { type DraftState as State, isChanged } from './sheetDraft'
import { type SheetDraft, useDraftPart } from './useSheetDraft'

/** Whether the sheet is kept, in words, and the button that keeps it. */
export function DraftState({ draft, title }: { draft: SheetDraft; title: string }) {
  const words = useDraftPart(draft, (state) => inWords(state).words)
  const kind = useDraftPart(draft, (state) => inWords(state).kind)
  const changed = useDraftPart(draft, isChanged)
  const meets = useDraftPart(draft, ({ newer }) => newer !== undefined)
  const saving = useDraftPart(draft, (state) => state.saving)
  return (
    <Row>
      <Words role="status"><Mark kind={kind} /> {words}</Words>
      <Button
        $tone={changed ? 'main' : undefined}
        $small
        isDisabled={!changed || meets}
        isPending={saving}
        aria-label={`Save the sheet of ${title}`}
        onPress={() => void draft.save()}
      >
        Save the sheet
      </Button>
    </Row>
  )
}

function inWords(draft: State) {
  if (draft.saving) return { kind: 'working' as const, words: 'saving' }
  if (draft.newer) return { kind: 'attention' as const, words: 'kept here; somebody else saved meanwhile' }
  if (draft.error instanceof KeptForLater || (draft.sent !== undefined && draft.sent === draft.text))
    return { kind: 'attention' as const, words: 'kept here; it is sent when there is a connection' }
  if (draft.error) return { kind: 'problem' as const, words: `kept here, not saved: ${draft.error.summary}` }
  if (isChanged(draft)) return { kind: 'working' as const, words: 'kept here, not yet saved' }
  if (draft.base === 0) return { kind: 'none' as const, words: 'nothing written yet' }
  return { kind: 'done' as const, words: `saved, revision ${String(draft.base)}` }
}

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px ${space(1)};
`
const Words = styled.span`
  display: flex;
  align-items: center;
  gap: 4px;
  color: ${color.faint};
  font-size: 14px;
`
