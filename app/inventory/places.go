package inventory

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	storehistory "frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// placeRenamed is what the history keeps of a place's name.
type placeRenamed struct {
	Place string `json:"place" says:"text"`
}

// RenamePlace gives a place another name. What stands there stays there, and all places in it come along.
func (s *Service) RenamePlace(ctx context.Context, actor action.Actor, from, to string) (event int64, err error) {
	if err := input.CheckAll(input.OneLine("from", &from), input.OneLine("to", &to)); err != nil {
		return 0, err
	}
	if to == "" || to == from {
		return 0, action.Reject("to", "write what the place is called from now on")
	}
	err = s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		if holds, err := inventory.HoldsPlace(ctx, tx, from); err != nil {
			return err
		} else if !holds {
			return action.Reject("from", "choose a place that is in the list; somebody may have renamed it")
		}
		id, err := inventory.PlaceID(ctx, tx, from)
		if err != nil {
			return err
		}
		event, err = renamePlace(ctx, tx, actor, *id, from, to)
		return err
	})
	return event, err
}

func renamePlace(ctx context.Context, tx *sqlx.Tx, actor action.Actor, id int64, from, to string) (int64, error) {
	taken := action.Reject("to", to+", or a place in it, is in the list already; move there what stands here")
	// A building of which only rooms are written down is in the list, too: two places must not become one unseen.
	if holds, err := inventory.HoldsPlace(ctx, tx, to); err != nil {
		return 0, err
	} else if holds {
		return 0, taken
	}
	_, err := inventory.RenamePlace(ctx, tx, from, to)
	if pg.Violates(err, "place_name_key") {
		return 0, taken // by somebody at the same time
	}
	if err != nil {
		return 0, err
	}
	return action.RecordEvent(ctx, tx, actor, eventRenamePlace, id, nil, placeRenamed{from}, placeRenamed{to})
}

func (s *Service) undoRenamePlace(ctx context.Context, actor action.Actor, e storehistory.EventRow) error {
	was, err := action.StateIn[placeRenamed](e.Before)
	if err != nil {
		return err
	}
	became, err := action.StateIn[placeRenamed](e.After)
	if err != nil {
		return err
	}
	return s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		if err := inventory.LockPlace(ctx, tx, e.SubjectID); err != nil {
			return err
		}
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		return action.Second(renamePlace(ctx, tx, actor, e.SubjectID, became.Place, was.Place))
	})
}
