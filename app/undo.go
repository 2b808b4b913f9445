package app

import (
	"context"
	"encoding/json"
	"errors"

	"github.com/jmoiron/sqlx"

	"frugalheron/store"
)

// undoing takes back one kind of deed; roles is who may.
type undoing struct {
	roles Roles
	undo  func(a *App, ctx context.Context, actor Actor, e store.ToldEvent) error
}

// undoable are the deeds that can be taken back. What is taken back is written anew where it can
// be, so that undoing can itself be undone; the history keeps all of it.
var undoable = map[string]undoing{
	"change machine":     {MayKeepTheRecord, (*App).undoChangeMachine},
	"change assembly":    {MayWriteSheets, (*App).undoChangeAssembly},
	"save sheet":         {MayWriteSheets, (*App).undoSaveSheet},
	"move assembly":      {MayWriteSheets, (*App).undoMove},
	"strike assembly":    {MayWriteSheets, (*App).undoStrike},
	"note":               {MayWriteSheets, (*App).undoNote},
	"move machine":       {MayWriteSheets, (*App).undoMoveMachine},
	"withdraw statement": {MayWriteSheets, ofEvidence.undo},
	"withdraw custody":   {MayKeepTheRecord, ofCustody.undo},
	"change custody":     {MayKeepTheRecord, (*App).undoChangeCustody},
	"change lot":         {MayKeepTheRecord, (*App).undoChangeLot},
	"strike attachment":  {MayWriteSheets, (*App).undoStrikeAttachment},
	"strike read":        {MayWriteSheets, (*App).undoStrikeRead},
	"strike connector":   {MayWriteSheets, (*App).undoStrikeConnector},
	"strike step":        {MayWriteSheets, (*App).undoStrikeStep},
	"end teardown":       {MayWriteSheets, (*App).undoEndTeardown},
	"strike finding":     {MayWriteSheets, (*App).undoStrikeFinding},
	"measure":            {MayWriteSheets, (*App).undoMeasure},
	"strike measurement": {MayWriteSheets, (*App).undoStrikeMeasurement},
	"strike lot item":    {MayKeepTheRecord, (*App).undoStrikeLotItem},
	"name type":          {MayKeepTheRecord, (*App).undoNameType},
	"change type":        {MayWriteSheets, (*App).undoChangeType},
	"forget type":        {MayWriteSheets, (*App).undoForgetType},
}

// Undo takes back what an event of the history did. Where something was done to the same record
// since, nothing is undone: that would have to be taken back first.
func (a *App) Undo(ctx context.Context, actor Actor, eventID int64) error {
	if err := actor.must(MayLook); err != nil {
		return err
	}
	event, err := store.EventByID(ctx, a.db, eventID)
	if err != nil {
		return err
	}
	back, ok := undoable[event.Deed]
	if !ok {
		return &Invalid{"event", "this cannot be undone"}
	}
	if err := actor.must(back.roles); err != nil {
		return err
	}
	return back.undo(a, ctx, actor, event)
}

// newestStill refuses an event that something was done after. Asked once the record is read or
// locked, it leaves no gap for a change that would be overwritten.
func newestStill(ctx context.Context, h store.Handle, e store.ToldEvent) error {
	again, err := store.EventByID(ctx, h, e.ID)
	if err == nil && !again.IsNewest {
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

func (a *App) undoChangeMachine(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.MachineFields](e.Before)
	if err != nil {
		return err
	}
	machine, err := store.MachineByID(ctx, a.db, e.SubjectID)
	if err != nil {
		return err
	}
	if err := newestStill(ctx, a.db, e); err != nil {
		return err
	}
	_, err = a.ChangeMachine(ctx, actor, machine.ID, machine.Version, before)
	return err
}

func (a *App) undoChangeAssembly(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.AssemblyFields](e.Before)
	if err != nil {
		return err
	}
	assembly, err := store.AssemblyByID(ctx, a.db, e.SubjectID)
	if err != nil {
		return err
	}
	if err := newestStill(ctx, a.db, e); err != nil {
		return err
	}
	_, err = a.ChangeAssembly(ctx, actor, assembly.ID, assembly.Version, before)
	return err
}

func (a *App) undoSaveSheet(ctx context.Context, actor Actor, e store.ToldEvent) error {
	saved, err := stateIn[struct{ Revision int }](e.After)
	if err != nil {
		return err
	}
	if err := newestStill(ctx, a.db, e); err != nil {
		return err
	}
	before := store.Revision{}
	if saved.Revision > 1 {
		if before, err = store.RevisionOf(ctx, a.db, e.SubjectID, saved.Revision-1); err != nil {
			return err
		}
	}
	_, err = a.SaveSheet(ctx, actor, e.SubjectID, saved.Revision, before.Body)
	return err
}

func (a *App) undoMove(ctx context.Context, actor Actor, e store.ToldEvent) error {
	return a.backInPlace(ctx, actor, e, "take back move")
}

func (a *App) undoStrike(ctx context.Context, actor Actor, e store.ToldEvent) error {
	return a.backInPlace(ctx, actor, e, "take back strike")
}

// backInPlace makes the fitting that an event ended the present one again. A fitting that the event
// began never was.
func (a *App) backInPlace(ctx context.Context, actor Actor, e store.ToldEvent, deed string) error {
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
			if err := record(ctx, tx, actor, deed, "fitting", became.Fitting, became.Machine, became, was); err != nil {
				return err
			}
		}
		if err := record(ctx, tx, actor, deed, "assembly", assembly.ID, firstOf(was.Machine, became.Machine), became, was); err != nil {
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
		return record(ctx, tx, actor, "take back note", "machine", e.SubjectID, &e.SubjectID, note, nil)
	})
}

func (a *App) undoNameType(ctx context.Context, actor Actor, e store.ToldEvent) error {
	if err := newestStill(ctx, a.db, e); err != nil {
		return err
	}
	_, err := a.ForgetType(ctx, actor, e.SubjectID)
	return err
}

func (a *App) undoChangeType(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.OwnTypeFields](e.Before)
	if err != nil {
		return err
	}
	named, err := store.OwnTypeByID(ctx, a.db, e.SubjectID)
	if err != nil {
		return err
	}
	if err := newestStill(ctx, a.db, e); err != nil {
		return err
	}
	_, err = a.ChangeType(ctx, actor, named.ID, named.Version, before)
	return err
}

func (a *App) undoForgetType(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[store.OwnTypeFields](e.Before)
	if err != nil {
		return err
	}
	if err := newestStill(ctx, a.db, e); err != nil {
		return err
	}
	_, err = a.NameType(ctx, actor, before)
	return err
}

func firstOf(machines ...*int64) *int64 {
	for _, id := range machines {
		if id != nil {
			return id
		}
	}
	return nil
}
