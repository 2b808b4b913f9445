import { messageOf } from '../api/problem'
import { offerUndo, useUndo, useUndoOffer } from '../api/undo'
import { Button } from '../kit/Button'
import { Mark } from '../kit/Mark'
import { useShortcut } from '../kit/shortcuts'
import { Bar } from './bars'

/** What was just done, with the way back, until it is taken or put aside. */
export function UndoBar() {
  const offer = useUndoOffer()
  const undo = useUndo()
  const takeBack = () => { if (offer && offer.event > 0 && !undo.isPending) undo.mutate(offer.event) }
  useShortcut((key) => { if (key === 'u') takeBack() })
  return (
    <div role="status">
      {offer && (
        <Bar>
          <span><Mark kind="done" /> {offer.words}</span>
          {undo.error && <span>Not undone: {messageOf(undo.error)}</span>}
          {offer.event > 0 && <Button $small isPending={undo.isPending} onPress={takeBack}>Undo</Button>}
          <Button $small $tone="quiet" onPress={() => { undo.reset(); offerUndo(null) }}>Leave it so</Button>
        </Bar>
      )}
    </div>
  )
}
