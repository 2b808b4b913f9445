package app

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/store"
)

func checkPersonalData(p *store.PersonalDataFields) error {
	err := checkAll(oneLine("medium", &p.Medium), oneLine("sort", &p.Sort), lines("reason", &p.Reason), oneLine("decidedBy", &p.DecidedBy))
	if p.Decision == "" {
		p.Decision = "open"
	}
	switch {
	case err != nil:
		return err
	case p.Medium == "":
		return &Invalid{"medium", "say where it is, as hard disk, second partition"}
	case p.Sort == "":
		return &Invalid{"sort", "say what kind of data it is, as letters; not what it says"}
	case p.Decision == "open" && p.DoneOn != nil:
		return &Invalid{"doneOn", "nothing can be done before it is decided what"}
	case p.Decision != "open" && p.DecidedBy == "":
		return &Invalid{"decidedBy", "say who decided"}
	case p.Decision != "open" && p.DecidedOn == nil:
		on := today()
		p.DecidedOn = &on
	}
	for field, day := range map[string]*string{"decidedOn": p.DecidedOn, "doneOn": p.DoneOn} {
		if day == nil {
			continue
		}
		if err := pastDay(field, *day); err != nil {
			return err
		}
	}
	if p.DoneOn != nil && p.DecidedOn != nil && *p.DoneOn < *p.DecidedOn {
		return &Invalid{"doneOn", "lies before the day of the decision"}
	}
	return nil
}

// OpenData is personal data about which something is still to be decided or done.
type OpenData struct {
	store.PersonalData
	Accession string `json:"accession"`
}

// OpenPersonalData lists what is still to be decided or carried out in the whole collection.
func (a *App) OpenPersonalData(ctx context.Context, actor Actor) ([]OpenData, error) {
	if err := actor.must(MayWriteSheets); err != nil {
		return nil, err
	}
	found, err := store.PersonalDataOf(ctx, a.Kernel.DB, 0)
	open := make([]OpenData, len(found))
	for i, data := range found {
		machine, err := store.MachineByID(ctx, a.Kernel.DB, data.MachineID)
		if err != nil {
			return nil, err
		}
		open[i] = OpenData{data, machine.Accession}
	}
	return open, err
}

// NotePersonalData notes that data of former owners is on a medium of a machine.
func (a *App) NotePersonalData(ctx context.Context, actor Actor, machineID int64, fields store.PersonalDataFields) (store.PersonalData, error) {
	var noted store.PersonalData
	if err := checkPersonalData(&fields); err != nil {
		return noted, err
	}
	err := a.Kernel.Do(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := store.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		id, err := store.InsertPersonalData(ctx, tx, machineID, fields)
		if err != nil {
			return err
		}
		if noted, err = store.LockPersonalData(ctx, tx, id); err != nil {
			return err
		}
		return record(ctx, tx, actor, eventNotePersonalData, id, &machineID, nil, fields)
	})
	return noted, err
}

// ChangePersonalData writes what was decided about such data, and that it was done.
func (a *App) ChangePersonalData(ctx context.Context, actor Actor, id int64, version int, fields store.PersonalDataFields) (store.PersonalData, error) {
	var changed store.PersonalData
	if err := checkPersonalData(&fields); err != nil {
		return changed, err
	}
	err := a.Kernel.Do(ctx, actor, MayKeepTheRecord, func(tx *sqlx.Tx) error {
		before, err := store.LockPersonalData(ctx, tx, id)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &Stale{What: "the note", Newer: before}
		}
		if err := store.UpdatePersonalData(ctx, tx, id, fields); err != nil {
			return err
		}
		if changed, err = store.LockPersonalData(ctx, tx, id); err != nil {
			return err
		}
		return record(ctx, tx, actor, eventDecidePersonalData, id, &before.MachineID, before.PersonalDataFields, changed.PersonalDataFields)
	})
	return changed, err
}
