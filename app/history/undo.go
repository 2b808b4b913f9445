package history

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/store/history"
)

// Undo takes back what an event of the history did. Where something was done to the same record since, and was not taken
// back itself, nothing is undone: that would have to be taken back first.
func (s *Service) Undo(ctx context.Context, actor action.Actor, eventID int64) error {
	if err := actor.Must(action.MayLook); err != nil {
		return err
	}
	event, err := history.EventByID(ctx, s.kernel.Reader(ctx), action.ReaderOf(actor), eventID)
	if err != nil {
		return err
	}
	by, take := s.kernel.UndoOf(event.Action)
	if take == nil {
		return action.Reject("event", "this cannot be undone")
	}
	if err := actor.Must(by); err != nil {
		return err
	}
	return take(action.TakingBack(ctx, eventID), actor, event)
}
