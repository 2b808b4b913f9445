package app

import (
	"context"
	"encoding/json"
	"errors"

	"github.com/jmoiron/sqlx"

	"frugalheron/store"
)

// What can be taken back, by whom and how. What is taken back is written anew where it can be, so that undoing can itself
// be undone; the history keeps all of it. It stands in a function, as what undoes an event records others.
func init() {
	eventChangeMachine.canBeUndone(MayKeepTheRecord, (*App).undoChangeMachine)
	eventChangeAssembly.canBeUndone(MayWriteSheets, (*App).undoChangeAssembly)
	eventSaveSheet.canBeUndone(MayWriteSheets, (*App).undoSaveSheet)
	eventMoveAssembly.canBeUndone(MayWriteSheets, (*App).undoMove)
	eventStrikeAssembly.canBeUndone(MayWriteSheets, (*App).undoStrike)
	eventNote.canBeUndone(MayWriteSheets, (*App).undoNote)
	eventMoveMachine.canBeUndone(MayWriteSheets, (*App).undoMoveMachine)
	eventWithdrawStatement.canBeUndone(MayWriteSheets, ofEvidence.undo)
	eventWithdrawCustody.canBeUndone(MayKeepTheRecord, ofCustody.undo)
	eventChangeCustody.canBeUndone(MayKeepTheRecord, (*App).undoChangeCustody)
	eventChangeLot.canBeUndone(MayKeepTheRecord, (*App).undoChangeLot)
	eventStrikeAttachment.canBeUndone(MayWriteSheets, (*App).undoStrikeAttachment)
	eventStrikeRead.canBeUndone(MayWriteSheets, (*App).undoStrikeRead)
	eventStrikeConnector.canBeUndone(MayWriteSheets, (*App).undoStrikeConnector)
	eventStrikeStep.canBeUndone(MayWriteSheets, (*App).undoStrikeStep)
	eventEndTeardown.canBeUndone(MayWriteSheets, (*App).undoEndTeardown)
	eventStrikeFinding.canBeUndone(MayWriteSheets, (*App).undoStrikeFinding)
	eventMeasure.canBeUndone(MayWriteSheets, (*App).undoMeasure)
	eventStrikeMeasurement.canBeUndone(MayWriteSheets, (*App).undoStrikeMeasurement)
	eventStrikeLotItem.canBeUndone(MayKeepTheRecord, (*App).undoStrikeLotItem)
	eventDecideMention.canBeUndone(MayWriteSheets, (*App).undoDecideMention)
	eventNameType.canBeUndone(MayKeepTheRecord, (*App).undoNameType)
	eventChangeType.canBeUndone(MayWriteSheets, (*App).undoChangeType)
	eventForgetType.canBeUndone(MayWriteSheets, (*App).undoForgetType)
}

// Undo takes back what an event of the history did. Where something was done to the same record
// since, nothing is undone: that would have to be taken back first.
func (a *App) Undo(ctx context.Context, actor Actor, eventID int64) error {
	if err := actor.must(MayLook); err != nil {
		return err
	}
	event, err := store.EventByID(ctx, a.db, readerOf(actor), eventID)
	if err != nil {
		return err
	}
	kind := events[event.Deed]
	if kind == nil || kind.undo == nil {
		return &Invalid{"event", "this cannot be undone"}
	}
	if err := actor.must(kind.mayUndo); err != nil {
		return err
	}
	return kind.undo(a, ctx, actor, event)
}

// newestStill refuses an event that something was done after. It is asked once the record is locked.
func newestStill(ctx context.Context, h store.Handle, e store.ToldEvent) error {
	isNewest, err := store.IsNewestEvent(ctx, h, e.ID)
	if err == nil && !isNewest {
		return &Invalid{"event", "something was done to the same record since; nothing was undone. Take that back first, or change the record by hand"}
	}
	return err
}

// stateIn reads what an event kept of a record.
func stateIn[Record any](encoded *json.RawMessage) (Record, error) {
	var record Record
	if encoded == nil {
		return record, errors.New("the event kept no record")
	}
	return record, json.Unmarshal(*encoded, &record)
}

// undoingOf runs work on a record that lock has locked, unless something was done to it since: both in one transaction,
// so that there is no gap for a change that would be overwritten. The deeds that work calls are part of it.
func undoingOf[Record any](a *App, ctx context.Context, actor Actor, e store.ToldEvent, roles Roles,
	lock func(ctx context.Context, h store.Handle, id int64) (Record, error), work func(ctx context.Context, tx *sqlx.Tx, now Record) error) error {
	return a.deed(ctx, actor, roles, func(tx *sqlx.Tx) error {
		now, err := lock(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		if err := newestStill(ctx, tx, e); err != nil {
			return err
		}
		return work(within(ctx, tx), tx, now)
	})
}

func (a *App) undoChangeMachine(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.MachineFields](e.Before)
	if err != nil {
		return err
	}
	return undoingOf(a, ctx, actor, e, MayKeepTheRecord, store.LockMachine, func(ctx context.Context, _ *sqlx.Tx, now store.Machine) error {
		return second(a.ChangeMachine(ctx, actor, now.ID, now.Version, before))
	})
}

// lockSheet locks an assembly after the library, as whoever saves a sheet does.
func (a *App) lockSheet(ctx context.Context, h store.Handle, id int64) (store.Assembly, error) {
	if _, err := store.HoldLibrary(ctx, h); err != nil {
		return store.Assembly{}, err
	}
	return store.LockAssembly(ctx, h, id)
}

func (a *App) undoChangeAssembly(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.AssemblyFields](e.Before)
	if err != nil {
		return err
	}
	return undoingOf(a, ctx, actor, e, MayWriteSheets, a.lockSheet, func(ctx context.Context, _ *sqlx.Tx, now store.Assembly) error {
		return second(a.ChangeAssembly(ctx, actor, now.ID, now.Version, before))
	})
}

func (a *App) undoSaveSheet(ctx context.Context, actor Actor, e store.ToldEvent) error {
	saved, err := stateIn[struct{ Revision int }](e.After)
	if err != nil {
		return err
	}
	return undoingOf(a, ctx, actor, e, MayWriteSheets, a.lockSheet, func(ctx context.Context, tx *sqlx.Tx, _ store.Assembly) error {
		before := store.Revision{}
		if saved.Revision > 1 {
			if before, err = store.RevisionOf(ctx, tx, e.SubjectID, saved.Revision-1); err != nil {
				return err
			}
		}
		return second(a.SaveSheet(ctx, actor, e.SubjectID, saved.Revision, before.Body))
	})
}

// second leaves out what a deed returns beside its error.
func second[Value any](_ Value, err error) error { return err }

func (a *App) undoMove(ctx context.Context, actor Actor, e store.ToldEvent) error {
	return a.backInPlace(ctx, actor, e, eventTakeBackMove)
}

func (a *App) undoStrike(ctx context.Context, actor Actor, e store.ToldEvent) error {
	return a.backInPlace(ctx, actor, e, eventTakeBackStrike)
}

// backInPlace makes the fitting that an event ended the present one again. A fitting that the event
// began never was.
func (a *App) backInPlace(ctx context.Context, actor Actor, e store.ToldEvent, took *event) error {
	was, err := stateIn[moveTold](e.Before)
	if err != nil {
		return err
	}
	return a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		library, err := a.heldLibrary(ctx, tx)
		if err != nil {
			return err
		}
		if _, err := store.LockAssembly(ctx, tx, e.SubjectID); err != nil {
			return err
		}
		if err := newestStill(ctx, tx, e); err != nil {
			return err
		}
		became := moveTold{}
		if e.After != nil {
			if became, err = stateIn[moveTold](e.After); err != nil {
				return err
			}
			if err := store.DeleteFitting(ctx, tx, became.Fitting); err != nil {
				return err
			}
		}
		if err := store.ReopenFitting(ctx, tx, was.Fitting); err != nil {
			return err
		}
		if err := store.CountAssemblyChange(ctx, tx, e.SubjectID); err != nil {
			return err
		}
		assembly, err := store.AssemblyByID(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		if became.Machine != nil && was.Machine != nil && *became.Machine != *was.Machine {
			if err := record(ctx, tx, actor, took.of("fitting"), became.Fitting, became.Machine, became, was); err != nil {
				return err
			}
		}
		if err := record(ctx, tx, actor, took, assembly.ID, firstOf(was.Machine, became.Machine), became, was); err != nil {
			return err
		}
		if err := reckonSheet(ctx, tx, library, assembly); err != nil {
			return err
		}
		return sumMoved(ctx, tx, assembly.ID, was.Machine, became.Machine)
	})
}

// undoNote takes a note back: it stays in the history, and so does that it was taken back.
func (a *App) undoNote(ctx context.Context, actor Actor, e store.ToldEvent) error {
	note, err := stateIn[map[string]string](e.After)
	if err != nil {
		return err
	}
	return a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := store.LockMachine(ctx, tx, e.SubjectID); err != nil {
			return err
		}
		if err := newestStill(ctx, tx, e); err != nil {
			return err
		}
		return record(ctx, tx, actor, eventTakeBackNote, e.SubjectID, &e.SubjectID, note, nil)
	})
}

// lockType locks the library before a type of it, as whoever changes types does.
func lockType(ctx context.Context, h store.Handle, id int64) (store.OwnType, error) {
	if err := store.LockLibrary(ctx, h); err != nil {
		return store.OwnType{}, err
	}
	return store.OwnTypeByID(ctx, h, id)
}

func (a *App) undoNameType(ctx context.Context, actor Actor, e store.ToldEvent) error {
	return undoingOf(a, ctx, actor, e, MayKeepTheRecord, lockType, func(ctx context.Context, _ *sqlx.Tx, now store.OwnType) error {
		return second(a.ForgetType(ctx, actor, now.ID))
	})
}

func (a *App) undoChangeType(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.OwnTypeFields](e.Before)
	if err != nil {
		return err
	}
	return undoingOf(a, ctx, actor, e, MayWriteSheets, lockType, func(ctx context.Context, _ *sqlx.Tx, now store.OwnType) error {
		return second(a.ChangeType(ctx, actor, now.ID, now.Version, before))
	})
}

func (a *App) undoForgetType(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.OwnTypeFields](e.Before)
	if err != nil {
		return err
	}
	gone := func(ctx context.Context, h store.Handle, _ int64) (struct{}, error) {
		return struct{}{}, store.LockLibrary(ctx, h)
	}
	return undoingOf(a, ctx, actor, e, MayWriteSheets, gone, func(ctx context.Context, _ *sqlx.Tx, _ struct{}) error {
		return second(a.NameType(ctx, actor, before))
	})
}

func firstOf(machines ...*int64) *int64 {
	for _, id := range machines {
		if id != nil {
			return id
		}
	}
	return nil
}
