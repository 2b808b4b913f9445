package inventory

import (
	"context"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// AddAssembly adds a board to a machine, with an empty sheet.
func (s *Service) AddAssembly(ctx context.Context, actor action.Actor, machineID int64,
	fields AssemblyInput) (Assembly, error) {
	if err := CheckAssembly(&fields); err != nil {
		return Assembly{}, err
	}
	var added inventory.Assembly
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		var err error
		added, err = AddAssembly(ctx, tx, actor, machineID, fields)
		return err
	})
	return AssemblyOf(added), err
}

// AddAssembly adds a board to a machine, in a transaction under way.
func AddAssembly(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64,
	fields AssemblyInput) (inventory.Assembly, error) {
	if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
		return inventory.Assembly{}, err
	}
	return InsertAssembly(ctx, tx, actor, inventory.Fitting{MachineID: &machineID}, fields)
}

// InsertAssembly enters an assembly where it is, from today, in a transaction under way.
func InsertAssembly(ctx context.Context, tx *sqlx.Tx, actor action.Actor, at inventory.Fitting,
	fields AssemblyInput) (inventory.Assembly, error) {
	at.Since = actor.Today()
	id, err := inventory.InsertAssembly(ctx, tx, at, inventory.AssemblyFields(fields))
	if err != nil {
		return inventory.Assembly{}, err
	}
	added, err := inventory.AssemblyByID(ctx, tx, id)
	if err != nil {
		return inventory.Assembly{}, err
	}
	return added, action.Record(ctx, tx, actor, eventAddAssembly, id, at.MachineID, nil, fields)
}

// AddLooseAssembly adds an assembly that is in no machine but at a place, with an empty sheet.
func (s *Service) AddLooseAssembly(ctx context.Context, actor action.Actor, place string,
	fields AssemblyInput) (Assembly, error) {
	if err := CheckLoose(&place, &fields); err != nil {
		return Assembly{}, err
	}
	var added inventory.Assembly
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		var err error
		added, err = InsertAssembly(ctx, tx, actor, inventory.Fitting{Place: place}, fields)
		return err
	})
	return AssemblyOf(added), err
}

// CheckLoose trims what is said of an assembly at a place, or says what is wrong with it.
func CheckLoose(place *string, fields *AssemblyInput) error {
	err := input.CheckAll(input.OneLine("place", place), CheckAssembly(fields))
	if err == nil && *place == "" {
		return action.Reject("place", "name the place, as Store, shelf B")
	}
	return err
}

// ChangeAssembly rewrites what is said of an assembly, starting from a version.
func (s *Service) ChangeAssembly(ctx context.Context, actor action.Actor, id int64, version int,
	fields AssemblyInput) (Assembly, error) {
	if err := CheckAssembly(&fields); err != nil {
		return Assembly{}, err
	}
	var changed inventory.Assembly
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := s.library.Hold(ctx, tx); err != nil {
			return err
		}
		before, err := inventory.LockAssembly(ctx, tx, id)
		if err != nil {
			return err
		}
		if err := unchanged(before, version); err != nil {
			return err
		}
		if err := inventory.UpdateAssembly(ctx, tx, id, inventory.AssemblyFields(fields)); err != nil {
			return err
		}
		if changed, err = inventory.AssemblyByID(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventChangeAssembly, id, changed.MachineID,
			AssemblyInput(before.AssemblyFields), AssemblyInput(changed.AssemblyFields))
	})
	return AssemblyOf(changed), err
}

// unchanged refuses a change of an assembly that was changed since version, or struck out.
func unchanged(assembly inventory.Assembly, version int) error {
	if assembly.Version != version {
		return &action.Stale{What: "the board", Newer: AssemblyOf(assembly)}
	}
	if assembly.IsVoided {
		return action.ErrNotFound
	}
	if assembly.IsExterior() {
		return action.Reject("id", "is the outside of a machine; it stays with it, and only its sheet changes")
	}
	return nil
}

// Assembly reads an assembly.
func (s *Service) Assembly(ctx context.Context, actor action.Actor, id int64) (Assembly, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Assembly{}, err
	}
	row, err := inventory.AssemblyByID(ctx, s.kernel.Reader(ctx), id)
	return AssemblyOf(row), err
}

// AssembliesOf lists what is fitted in a machine today; in a snapshot it is read once.
func AssembliesOf(ctx context.Context, h pg.Handle, machineID int64) ([]inventory.Assembly, error) {
	return action.Once(ctx, "assemblies", machineID, func() ([]inventory.Assembly, error) {
		return inventory.AssembliesOf(ctx, h, machineID)
	})
}

// Fittings lists where an assembly has been, the newest first.
func (s *Service) Fittings(ctx context.Context, actor action.Actor, id int64) ([]Fitting, error) {
	if _, err := s.Assembly(ctx, actor, id); err != nil {
		return nil, err
	}
	rows, err := inventory.FittingsOf(ctx, s.kernel.Reader(ctx), id)
	return action.Views(rows, fittingOf), err
}

// LoosePage is a page of assemblies that are in no machine.
type LoosePage struct {
	Assemblies []LooseAssembly `json:"assemblies"`
	Next       int64           `json:"next" doc:"Give this as after to get the next page; 0 on the last"`
}

// ListLoose finds assemblies that are in no machine, by words that occur in what is said of them or
// of where they are.
func (s *Service) ListLoose(ctx context.Context, actor action.Actor, search string, after int64,
	limit int) (LoosePage, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return LoosePage{}, err
	}
	found, err := inventory.ListLoose(ctx, s.kernel.Reader(ctx), strings.Fields(search), actor.Hides(), after, limit+1)
	page := LoosePage{}
	if len(found) > limit {
		found = found[:limit]
		page.Next = found[limit-1].ID
	}
	page.Assemblies = action.Views(found, looseAssemblyOf)
	return page, err
}
