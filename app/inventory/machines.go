package inventory

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/inventory"
	"frugalheron/store/library"
	"frugalheron/store/pg"
)

// CreateMachine enters a machine into the collection.
func (s *Service) CreateMachine(ctx context.Context, actor action.Actor,
	fields MachineInput) (Machine, error) {
	if err := CheckMachine(&fields); err != nil {
		return Machine{}, err
	}
	var created inventory.Machine
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		var err error
		created, err = CreateMachine(ctx, tx, actor, fields)
		return err
	})
	return MachineOf(created), err
}

// CreateMachine enters a machine, in a transaction under way.
func CreateMachine(ctx context.Context, tx *sqlx.Tx, actor action.Actor,
	fields MachineInput) (inventory.Machine, error) {
	if err := findModel(ctx, tx, &fields); err != nil {
		return inventory.Machine{}, err
	}
	id, err := inventory.InsertMachine(ctx, tx, inventory.MachineFields(fields))
	if err != nil {
		return inventory.Machine{}, accessionTaken(err, fields.Accession)
	}
	created, err := inventory.MachineByID(ctx, tx, id)
	if err != nil {
		return inventory.Machine{}, err
	}
	if err := giveNumber(ctx, tx, created); err != nil {
		return inventory.Machine{}, err
	}
	if err := putMachine(ctx, tx,
		inventory.Location{MachineID: id, Place: created.Place, Since: actor.Today()}); err != nil {
		return inventory.Machine{}, err
	}
	if err := inventory.InsertMachineSum(ctx, tx, id); err != nil {
		return inventory.Machine{}, err
	}
	if err := inventory.InsertExterior(ctx, tx, id, actor.Today()); err != nil {
		return inventory.Machine{}, err
	}
	return created, action.Record(ctx, tx, actor, eventCreateMachine, id, &id, nil, MachineInput(created.MachineFields))
}

// MeasureTables lets the database measure its tables anew, so that it answers well at once after so
// much was entered; it would find out itself, but minutes later.
func (s *Service) MeasureTables(ctx context.Context) error {
	return pg.Analyze(ctx, s.kernel.Reader(ctx))
}

var machines = action.Records[inventory.Machine, Machine]{
	What: "the machine", Lock: inventory.LockMachine, Read: inventory.MachineByID,
	Version: func(m inventory.Machine) int { return m.Version },
	Told:    func(m inventory.Machine) any { return MachineInput(m.MachineFields) },
	View:    MachineOf,
	Machine: func(m inventory.Machine) *int64 { return &m.ID },
}

// ChangeMachine rewrites what is said of a machine, starting from a version. When somebody
// changed it since, the answer is *Stale with the machine as it is now.
func (s *Service) ChangeMachine(ctx context.Context, actor action.Actor, id int64, version int,
	fields MachineInput) (Machine, error) {
	if err := CheckMachine(&fields); err != nil {
		return Machine{}, err
	}
	change := action.Change{Actor: actor, Roles: action.MayKeepTheRecord, Event: eventChangeMachine, ID: id,
		Version: version}
	return machines.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, before inventory.Machine) error {
		if err := findModel(ctx, tx, &fields); err != nil {
			return err
		}
		if err := inventory.UpdateMachine(ctx, tx, id, inventory.MachineFields(fields)); err != nil {
			return accessionTaken(err, fields.Accession)
		}
		changed, err := inventory.MachineByID(ctx, tx, id)
		if err != nil {
			return err
		}
		if err := giveNumber(ctx, tx, changed); err != nil || before.Place == changed.Place {
			return err
		}
		return moveOn(ctx, tx, inventory.Location{MachineID: id, Place: changed.Place, Since: actor.Today()})
	})
}

// findModel finds the model that the words of a machine name, where none was chosen.
func findModel(ctx context.Context, tx *sqlx.Tx, fields *MachineInput) (err error) {
	if fields.ModelID != nil {
		return input.Missing(action.Second(library.ModelByID(ctx, tx, *fields.ModelID)), "modelId",
			"choose a model of the library")
	}
	fields.ModelID, err = library.ModelCalled(ctx, tx, fields.Maker, fields.Model)
	return err
}

// Machine reads a machine.
func (s *Service) Machine(ctx context.Context, actor action.Actor, id int64) (Machine, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Machine{}, err
	}
	return action.Once(ctx, "machine", id, func() (Machine, error) {
		row, err := inventory.MachineByID(ctx, s.kernel.Reader(ctx), id)
		return MachineOf(row), err
	})
}

// Places names the places in use.
func (s *Service) Places(ctx context.Context, actor action.Actor) ([]string, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	return inventory.ListPlaces(ctx, s.kernel.Reader(ctx), actor.Hides())
}
