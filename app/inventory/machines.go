package inventory

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store"
	"frugalheron/store/pg"
)

// CreateMachine enters a machine into the collection.
func (s *Service) CreateMachine(ctx context.Context, actor action.Actor, fields store.MachineFields) (store.Machine, error) {
	if err := CheckMachine(&fields); err != nil {
		return store.Machine{}, err
	}
	var created store.Machine
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		var err error
		created, err = CreateMachine(ctx, tx, actor, fields)
		return err
	})
	return created, err
}

func CreateMachine(ctx context.Context, tx *sqlx.Tx, actor action.Actor, fields store.MachineFields) (store.Machine, error) {
	id, err := store.InsertMachine(ctx, tx, fields)
	if err != nil {
		return store.Machine{}, accessionTaken(err, fields.Accession)
	}
	created, err := store.MachineByID(ctx, tx, id)
	if err != nil {
		return store.Machine{}, err
	}
	if err := giveNumber(ctx, tx, created); err != nil {
		return store.Machine{}, err
	}
	if err := putMachine(ctx, tx, store.Stay{MachineID: id, Place: created.Place, Since: action.Today()}); err != nil {
		return store.Machine{}, err
	}
	if err := store.InsertMachineSum(ctx, tx, id); err != nil {
		return store.Machine{}, err
	}
	if err := store.InsertOutside(ctx, tx, id); err != nil {
		return store.Machine{}, err
	}
	return created, action.Record(ctx, tx, actor, eventCreateMachine, id, &id, nil, created.MachineFields)
}

// MeasureTables lets the database measure its tables anew, so that it answers well at once after so
// much was entered; it would find out itself, but minutes later.
func (s *Service) MeasureTables(ctx context.Context) error { return pg.Analyze(ctx, s.kernel.DB) }

// ChangeMachine rewrites what is said of a machine, starting from a version. When somebody
// changed it since, the answer is *Stale with the machine as it is now.
func (s *Service) ChangeMachine(ctx context.Context, actor action.Actor, id int64, version int, fields store.MachineFields) (store.Machine, error) {
	if err := CheckMachine(&fields); err != nil {
		return store.Machine{}, err
	}
	var changed store.Machine
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		before, err := store.LockMachine(ctx, tx, id)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &action.Stale{What: "the machine", Newer: before}
		}
		if err := store.UpdateMachine(ctx, tx, id, fields); err != nil {
			return accessionTaken(err, fields.Accession)
		}
		if changed, err = store.MachineByID(ctx, tx, id); err != nil {
			return err
		}
		if err := giveNumber(ctx, tx, changed); err != nil {
			return err
		}
		if before.Place != changed.Place {
			if err := moveOn(ctx, tx, store.Stay{MachineID: id, Place: changed.Place, Since: action.Today()}); err != nil {
				return err
			}
		}
		return action.Record(ctx, tx, actor, eventChangeMachine, id, &id, before.MachineFields, changed.MachineFields)
	})
	return changed, err
}

// Machine reads a machine.
func (s *Service) Machine(ctx context.Context, actor action.Actor, id int64) (store.Machine, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return store.Machine{}, err
	}
	return store.MachineByID(ctx, s.kernel.DB, id)
}

// Places names the places in use.
func (s *Service) Places(ctx context.Context, actor action.Actor) ([]string, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	return store.ListPlaces(ctx, s.kernel.DB, actor.Hides())
}
