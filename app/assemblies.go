package app

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/store"
)

// AddAssembly adds a board to a machine, with an empty sheet.
func (a *App) AddAssembly(ctx context.Context, actor Actor, machineID int64, fields store.AssemblyFields) (store.Assembly, error) {
	if err := checkAssembly(&fields); err != nil {
		return store.Assembly{}, err
	}
	var added store.Assembly
	err := a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		var err error
		added, err = addAssembly(ctx, tx, actor, machineID, fields)
		return err
	})
	return added, err
}

func addAssembly(ctx context.Context, tx *sqlx.Tx, actor Actor, machineID int64, fields store.AssemblyFields) (store.Assembly, error) {
	if _, err := store.LockMachine(ctx, tx, machineID); err != nil {
		return store.Assembly{}, err
	}
	id, err := store.InsertAssembly(ctx, tx, machineID, fields)
	if err != nil {
		return store.Assembly{}, err
	}
	added, err := store.AssemblyByID(ctx, tx, id)
	if err != nil {
		return store.Assembly{}, err
	}
	return added, record(ctx, tx, actor, "add assembly", "assembly", id, &machineID, nil, fields)
}

// ChangeAssembly rewrites what is said of an assembly, starting from a version.
func (a *App) ChangeAssembly(ctx context.Context, actor Actor, id int64, version int, fields store.AssemblyFields) (store.Assembly, error) {
	if err := checkAssembly(&fields); err != nil {
		return store.Assembly{}, err
	}
	var changed store.Assembly
	err := a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		library, err := a.heldLibrary(ctx, tx)
		if err != nil {
			return err
		}
		before, err := store.LockAssembly(ctx, tx, id)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &Stale{What: "the board", Newer: before}
		}
		if err := store.UpdateAssembly(ctx, tx, id, fields); err != nil {
			return err
		}
		if changed, err = store.AssemblyByID(ctx, tx, id); err != nil {
			return err
		}
		if err := record(ctx, tx, actor, "change assembly", "assembly", id, changed.MachineID, before.AssemblyFields, changed.AssemblyFields); err != nil {
			return err
		}
		if before.Purpose == changed.Purpose {
			return nil
		}
		return reckonAgain(ctx, tx, library, changed)
	})
	return changed, err
}

// Assembly reads an assembly.
func (a *App) Assembly(ctx context.Context, actor Actor, id int64) (store.Assembly, error) {
	if err := actor.must(MayLook); err != nil {
		return store.Assembly{}, err
	}
	return store.AssemblyByID(ctx, a.db, id)
}

// Fittings lists where an assembly has been, the newest first.
func (a *App) Fittings(ctx context.Context, actor Actor, id int64) ([]store.Fitting, error) {
	if _, err := a.Assembly(ctx, actor, id); err != nil {
		return nil, err
	}
	return store.FittingsOf(ctx, a.db, id)
}

// FittedAssembly is an assembly with its newest sheet, as it lies on the bench.
type FittedAssembly struct {
	store.Assembly
	Body string `json:"body" doc:"Text of the newest revision of its sheet"`
}

// Contents lists what is fitted in a machine today, each with its sheet.
func (a *App) Contents(ctx context.Context, actor Actor, machineID int64) ([]FittedAssembly, error) {
	if _, err := a.Machine(ctx, actor, machineID); err != nil {
		return nil, err
	}
	return contents(ctx, a.db, machineID)
}

func contents(ctx context.Context, h store.Handle, machineID int64) ([]FittedAssembly, error) {
	assemblies, err := store.AssembliesOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	revisions, err := store.NewestRevisionsIn(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	newest := make(map[int64]store.Revision, len(revisions))
	for _, r := range revisions {
		newest[r.AssemblyID] = r
	}
	fitted := make([]FittedAssembly, 0, len(assemblies))
	for _, assembly := range assemblies {
		// Text and number come from the same row: another save may lie between the two queries.
		revision := newest[assembly.ID]
		assembly.Revision = revision.N
		fitted = append(fitted, FittedAssembly{assembly, revision.Body})
	}
	return fitted, nil
}
