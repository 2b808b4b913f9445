package app

import (
	"context"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/memory"
	"frugalheron/store"
)

// CreateMachine enters a machine into the collection.
func (a *App) CreateMachine(ctx context.Context, actor Actor, fields store.MachineFields) (store.Machine, error) {
	if err := checkMachine(&fields); err != nil {
		return store.Machine{}, err
	}
	var created store.Machine
	err := a.deed(ctx, actor, MayKeepTheRecord, func(tx *sqlx.Tx) error {
		id, err := store.InsertMachine(ctx, tx, fields)
		if err != nil {
			return accessionTaken(err, fields.Accession)
		}
		if created, err = store.MachineByID(ctx, tx, id); err != nil {
			return err
		}
		return record(ctx, tx, actor, "create machine", "machine", id, &id, nil, created.MachineFields)
	})
	return created, err
}

// ChangeMachine rewrites what is said of a machine, starting from a version. When somebody
// changed it since, the answer is *Stale with the machine as it is now.
func (a *App) ChangeMachine(ctx context.Context, actor Actor, id int64, version int, fields store.MachineFields) (store.Machine, error) {
	if err := checkMachine(&fields); err != nil {
		return store.Machine{}, err
	}
	var changed store.Machine
	err := a.deed(ctx, actor, MayKeepTheRecord, func(tx *sqlx.Tx) error {
		before, err := store.LockMachine(ctx, tx, id)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &Stale{What: "the machine", Newer: before}
		}
		if err := store.UpdateMachine(ctx, tx, id, fields); err != nil {
			return accessionTaken(err, fields.Accession)
		}
		if changed, err = store.MachineByID(ctx, tx, id); err != nil {
			return err
		}
		if err := record(ctx, tx, actor, "change machine", "machine", id, &id, before.MachineFields, changed.MachineFields); err != nil {
			return err
		}
		if eraOf(before) == eraOf(changed) {
			return nil
		}
		return a.reckonMachineAgain(ctx, tx, changed)
	})
	return changed, err
}

func accessionTaken(err error, accession string) error {
	if store.Violates(err, "machine_accession_key") {
		return &Invalid{"accession", accession + " is in use by another machine"}
	}
	return err
}

// Machine reads a machine.
func (a *App) Machine(ctx context.Context, actor Actor, id int64) (store.Machine, error) {
	if err := actor.must(MayLook); err != nil {
		return store.Machine{}, err
	}
	return store.MachineByID(ctx, a.db, id)
}

// ListedMachine is a machine of a list, with its memory in words.
type ListedMachine struct {
	store.ListedMachine
	RAM string `json:"ram" doc:"In KB of 1,024 bytes with one decimal; empty when none is known"`
	ROM string `json:"rom"`
}

// MachinePage is a page of a list.
type MachinePage struct {
	Machines []ListedMachine `json:"machines"`
	Total    int             `json:"total" doc:"Machines that the search finds, on all pages"`
	Next     string          `json:"next" doc:"Give this as after to get the next page; empty on the last"`
}

// ListMachines finds machines by words that occur in their record, page by page in the order of
// accession numbers.
func (a *App) ListMachines(ctx context.Context, actor Actor, search, after string, limit int) (MachinePage, error) {
	if err := actor.must(MayLook); err != nil {
		return MachinePage{}, err
	}
	words := strings.Fields(search)
	total, err := store.CountMachines(ctx, a.db, words)
	if err != nil {
		return MachinePage{}, err
	}
	// One more than asked for tells whether another page follows.
	found, err := store.ListMachines(ctx, a.db, store.MachineQuery{Words: words, After: after, Limit: limit + 1})
	page := MachinePage{Machines: []ListedMachine{}, Total: total}
	if len(found) > limit {
		found = found[:limit]
		page.Next = found[limit-1].Accession
	}
	for _, m := range found {
		page.Machines = append(page.Machines, ListedMachine{m, inKB(m.RAMBytes), inKB(m.ROMBytes)})
	}
	return page, err
}

func inKB(bytes int64) string {
	if bytes == 0 {
		return ""
	}
	return memory.InKB(bytes)
}

// Places names the places in use.
func (a *App) Places(ctx context.Context, actor Actor) ([]string, error) {
	if err := actor.must(MayLook); err != nil {
		return nil, err
	}
	return store.ListPlaces(ctx, a.db)
}
