package app

import (
	"context"
	"encoding/json"
	"errors"

	"github.com/jmoiron/sqlx"

	"frugalheron/store"
)

// What can be taken back, by whom and how. What is taken back is written anew where it can be, so that undoing can itself
// be undone; the history keeps all of it.
func (a *App) canUndo() {
	a.CanBeUndone(eventChangeMachine, MayKeepTheRecord, a.undoChangeMachine)
	a.CanBeUndone(eventChangeAssembly, MayWriteSheets, a.undoChangeAssembly)
	a.CanBeUndone(eventSaveSheet, MayWriteSheets, a.undoSaveSheet)
	a.CanBeUndone(eventMoveAssembly, MayWriteSheets, a.undoMove)
	a.CanBeUndone(eventStrikeAssembly, MayWriteSheets, a.undoStrike)
	a.CanBeUndone(eventNote, MayWriteSheets, a.undoNote)
	a.CanBeUndone(eventMoveMachine, MayWriteSheets, a.undoMoveMachine)
	a.CanBeUndone(eventWithdrawStatement, MayWriteSheets, ofEvidence.undo(a.Kernel))
	a.CanBeUndone(eventWithdrawCustody, MayKeepTheRecord, ofCustody.undo(a.Kernel))
	a.CanBeUndone(eventChangeCustody, MayKeepTheRecord, a.undoChangeCustody)
	a.CanBeUndone(eventChangeLot, MayKeepTheRecord, a.undoChangeLot)
	a.CanBeUndone(eventStrikeAttachment, MayWriteSheets, a.undoStrikeAttachment)
	a.CanBeUndone(eventStrikeRead, MayWriteSheets, a.undoStrikeRead)
	a.CanBeUndone(eventStrikeConnector, MayWriteSheets, a.undoStrikeConnector)
	a.CanBeUndone(eventStrikeStep, MayWriteSheets, a.undoStrikeStep)
	a.CanBeUndone(eventEndTeardown, MayWriteSheets, a.undoEndTeardown)
	a.CanBeUndone(eventStrikeFinding, MayWriteSheets, a.undoStrikeFinding)
	a.CanBeUndone(eventMeasure, MayWriteSheets, a.undoMeasure)
	a.CanBeUndone(eventStrikeMeasurement, MayWriteSheets, a.undoStrikeMeasurement)
	a.CanBeUndone(eventStrikeLotItem, MayKeepTheRecord, a.undoStrikeLotItem)
	a.CanBeUndone(eventDecideMention, MayWriteSheets, a.undoDecideMention)
	a.CanBeUndone(eventNameType, MayKeepTheRecord, a.undoNameType)
	a.CanBeUndone(eventChangeType, MayWriteSheets, a.undoChangeType)
	a.CanBeUndone(eventForgetType, MayWriteSheets, a.undoForgetType)
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
	undo, can := a.undos[event.Deed]
	if !can {
		return &Invalid{"event", "this cannot be undone"}
	}
	if err := actor.must(undo.by); err != nil {
		return err
	}
	return undo.take(ctx, actor, event)
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
func undoingOf[Record any](k *Kernel, ctx context.Context, actor Actor, e store.ToldEvent, roles Roles,
	lock func(ctx context.Context, h store.Handle, id int64) (Record, error), work func(ctx context.Context, tx *sqlx.Tx, now Record) error) error {
	return k.deed(ctx, actor, roles, func(tx *sqlx.Tx) error {
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
	return undoingOf(a.Kernel, ctx, actor, e, MayKeepTheRecord, store.LockMachine, func(ctx context.Context, _ *sqlx.Tx, now store.Machine) error {
		return second(a.ChangeMachine(ctx, actor, now.ID, now.Version, before))
	})
}

// lockSheet locks an assembly after the library, as whoever saves a sheet does.
func (a *App) lockSheet(ctx context.Context, h store.Handle, id int64) (store.Assembly, error) {
	if err := a.holdLibrary(ctx, h); err != nil {
		return store.Assembly{}, err
	}
	return store.LockAssembly(ctx, h, id)
}

func (a *App) undoChangeAssembly(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.AssemblyFields](e.Before)
	if err != nil {
		return err
	}
	return undoingOf(a.Kernel, ctx, actor, e, MayWriteSheets, a.lockSheet, func(ctx context.Context, _ *sqlx.Tx, now store.Assembly) error {
		return second(a.ChangeAssembly(ctx, actor, now.ID, now.Version, before))
	})
}

func (a *App) undoSaveSheet(ctx context.Context, actor Actor, e store.ToldEvent) error {
	saved, err := stateIn[struct{ Revision int }](e.After)
	if err != nil {
		return err
	}
	return undoingOf(a.Kernel, ctx, actor, e, MayWriteSheets, a.lockSheet, func(ctx context.Context, tx *sqlx.Tx, _ store.Assembly) error {
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
		if err := a.holdLibrary(ctx, tx); err != nil {
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
		if became.Machine != nil && was.Machine != nil && *became.Machine != *was.Machine {
			if err := record(ctx, tx, actor, took.of("fitting"), became.Fitting, became.Machine, became, was); err != nil {
				return err
			}
		}
		return record(ctx, tx, actor, took, e.SubjectID, firstOf(was.Machine, became.Machine), became, was)
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
	return undoingOf(a.Kernel, ctx, actor, e, MayKeepTheRecord, lockType, func(ctx context.Context, _ *sqlx.Tx, now store.OwnType) error {
		return second(a.ForgetType(ctx, actor, now.ID))
	})
}

func (a *App) undoChangeType(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.OwnTypeFields](e.Before)
	if err != nil {
		return err
	}
	return undoingOf(a.Kernel, ctx, actor, e, MayWriteSheets, lockType, func(ctx context.Context, _ *sqlx.Tx, now store.OwnType) error {
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
	return undoingOf(a.Kernel, ctx, actor, e, MayWriteSheets, gone, func(ctx context.Context, _ *sqlx.Tx, _ struct{}) error {
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
