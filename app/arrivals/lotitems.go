package arrivals

import (
	"context"
	"errors"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/store/arrivals"
	"frugalheron/store/history"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/people"
	"frugalheron/store/pg"
)

func checkLotItem(ctx context.Context, h pg.Handle, f *LotItemInput) error {
	err := input.CheckAll(input.OneLine("title", &f.Title), input.OneLine("valueNote", &f.ValueNote),
		input.CheckEDTF("passedOn", &f.PassedOn), input.Lines("note", &f.Note))
	switch {
	case err != nil:
		return err
	case f.Title == "":
		return action.Reject("title", "say what it is")
	case f.PassedOn == "" && (f.PassedTo != nil || f.PassedForCents != nil):
		return action.Reject("passedOn", "say when it was passed on")
	}
	if f.PassedTo != nil {
		if _, err := people.PartyByID(ctx, h, *f.PassedTo); err != nil {
			return input.Missing(err, "passedTo", "choose somebody who is in the list of people and organisations")
		}
	}
	return nil
}

// onLot does work on the things of a lot, and reads the lot back. Version is the lot's: whoever changes a
// thing has seen all of them, for their shares hang together.
func (s *Service) onLot(ctx context.Context, actor action.Actor, lotID int64, version int,
	work func(tx *sqlx.Tx, acquired arrivals.Acquisition) error) (Lot, error) {
	var after Lot
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		acquired, err := lockLot(ctx, tx, lotID, version)
		if err != nil {
			return err
		}
		if err := work(tx, acquired); err != nil {
			return err
		}
		if err := arrivals.CountAcquisitionChange(ctx, tx, lotID); err != nil {
			return err
		}
		after, err = ReadLot(ctx, tx, lotID)
		return err
	})
	return after, err
}

// AddLotItem adds a thing to a lot.
func (s *Service) AddLotItem(ctx context.Context, actor action.Actor, lotID int64, version int,
	fields LotItemInput) (Lot, error) {
	return s.onLot(ctx, actor, lotID, version, func(tx *sqlx.Tx, _ arrivals.Acquisition) error {
		if err := checkLotItem(ctx, tx, &fields); err != nil {
			return err
		}
		id, err := arrivals.InsertLotItem(ctx, tx, lotID, arrivals.LotItemFields(fields))
		if err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventAddLotItem, id, nil, nil, fields)
	})
}

// itemOf reads a thing that is in a lot.
func itemOf(ctx context.Context, tx *sqlx.Tx, lotID, id int64) (arrivals.LotItem, error) {
	item, err := arrivals.LotItemByID(ctx, tx, id)
	if err == nil && (item.AcquisitionID != lotID || item.Voided) {
		return item, action.ErrNotFound
	}
	return item, err
}

// ChangeLotItem rewrites what is said of a thing of a lot; passing it on is said so, too.
func (s *Service) ChangeLotItem(ctx context.Context, actor action.Actor, lotID int64, version int, id int64,
	fields LotItemInput) (Lot, error) {
	return s.onLot(ctx, actor, lotID, version, func(tx *sqlx.Tx, _ arrivals.Acquisition) error {
		before, err := itemOf(ctx, tx, lotID, id)
		if err != nil {
			return err
		}
		if err := checkLotItem(ctx, tx, &fields); err != nil {
			return err
		}
		if fields.PassedOn != "" && (before.MachineID != nil || before.AssemblyID != nil) {
			return action.Reject("passedOn",
				"it is "+dispositionOf(before)+
					"; what is in the collection is deaccessioned, not passed on from the lot")
		}
		if err := arrivals.UpdateLotItem(ctx, tx, id, arrivals.LotItemFields(fields)); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventChangeLotItem, id, before.MachineID,
			LotItemInput(before.LotItemFields), fields)
	})
}

// VoidLotItem takes a thing out of a lot that was entered by mistake, and returns the event.
func (s *Service) VoidLotItem(ctx context.Context, actor action.Actor, lotID int64, version int,
	id int64) (Lot, int64, error) {
	var event int64
	after, err := s.onLot(ctx, actor, lotID, version, func(tx *sqlx.Tx, _ arrivals.Acquisition) error {
		before, err := itemOf(ctx, tx, lotID, id)
		if err != nil {
			return err
		}
		if before.MachineID != nil || before.AssemblyID != nil {
			return action.Reject("id", "it is "+dispositionOf(before)+"; say first that it was none of this lot")
		}
		if err := arrivals.VoidLotItem(ctx, tx, id, true); err != nil {
			return err
		}
		event, err = action.RecordEvent(ctx, tx, actor, eventVoidLotItem, id, nil, lotItemOf(before), nil)
		return err
	})
	return after, event, err
}

func (s *Service) undoVoidLotItem(ctx context.Context, actor action.Actor, e history.EventRow) error {
	item, err := arrivals.LotItemByID(ctx, s.kernel.Reader(ctx), e.SubjectID)
	if err != nil {
		return err
	}
	acquired, err := arrivals.AcquisitionByID(ctx, s.kernel.Reader(ctx), item.AcquisitionID)
	if err != nil {
		return err
	}
	_, err = s.onLot(ctx, actor, acquired.ID, acquired.Version, func(tx *sqlx.Tx, _ arrivals.Acquisition) error {
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		if err := arrivals.VoidLotItem(ctx, tx, item.ID, false); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeBackVoidOfLotItem, item.ID, nil, nil, lotItemOf(item))
	})
	return err
}

// free refuses a thing that became something already.
func free(item arrivals.LotItem) error {
	if item.MachineID != nil || item.AssemblyID != nil || item.PassedOn != "" {
		return action.Reject("id", "it is placed already: "+dispositionOf(item))
	}
	return nil
}

// ItemBecomesMachine enters a thing of a lot as a machine of the collection.
func (s *Service) ItemBecomesMachine(ctx context.Context, actor action.Actor, lotID int64, version int, id int64,
	fields inventory.MachineInput) (inventory.Machine, error) {
	if err := inventory.CheckMachine(&fields); err != nil {
		return inventory.Machine{}, err
	}
	var created storeinventory.Machine
	_, err := s.onLot(ctx, actor, lotID, version, func(tx *sqlx.Tx, acquired arrivals.Acquisition) error {
		item, err := itemOf(ctx, tx, lotID, id)
		if err != nil {
			return err
		}
		if err := free(item); err != nil {
			return err
		}
		if created, err = inventory.CreateMachine(ctx, tx, actor, fields); err != nil {
			return err
		}
		pattern, err := inventory.PatternOf(ctx, tx)
		if err != nil {
			return err
		}
		if number, ok := pattern.Read(created.Accession); ok && number.Lot > 0 && acquired.Lot == nil {
			if err := arrivals.NumberLot(ctx, tx, lotID, number.Lot); err != nil {
				return err
			}
		}
		return linkMachine(ctx, tx, actor, acquired, item, created)
	})
	return inventory.MachineOf(created), err
}

// ItemIsMachine says that a thing of a lot is a machine that is in the collection already; for machine 0,
// that it is none, after all.
func (s *Service) ItemIsMachine(ctx context.Context, actor action.Actor, lotID int64, version int,
	id, machineID int64) (Lot, error) {
	return s.onLot(ctx, actor, lotID, version, func(tx *sqlx.Tx, acquired arrivals.Acquisition) error {
		item, err := itemOf(ctx, tx, lotID, id)
		if err != nil {
			return err
		}
		if machineID == 0 {
			if err := arrivals.LinkLotItem(ctx, tx, id, nil, nil); err != nil {
				return err
			}
			return action.Record(ctx, tx, actor, eventUnlinkLotItem, id, item.MachineID, lotItemOf(item), nil)
		}
		if err := free(item); err != nil {
			return err
		}
		machine, err := storeinventory.LockMachine(ctx, tx, machineID)
		if err != nil {
			return input.Missing(err, "machineId", "choose a machine of the collection")
		}
		if other, err := arrivals.LotItemOf(ctx, tx, &machineID, nil); err == nil {
			return action.Reject("machineId", machine.Accession+" came with another lot, as "+other.Title)
		} else if !errors.Is(err, action.ErrNotFound) {
			return err
		}
		return linkMachine(ctx, tx, actor, acquired, item, machine)
	})
}

func linkMachine(ctx context.Context, tx *sqlx.Tx, actor action.Actor, acquired arrivals.Acquisition,
	item arrivals.LotItem, machine storeinventory.Machine) error {
	if err := arrivals.LinkLotItem(ctx, tx, item.ID, &machine.ID, nil); err != nil {
		return err
	}
	told := map[string]string{"title": item.Title, "lot": acquired.Title, "accession": machine.Accession}
	return action.Record(ctx, tx, actor, eventItemBecomesMachine, item.ID, &machine.ID, nil, told)
}

// ItemBecomesAssembly takes a thing of a lot into store, as a board or other unit with a sheet of its own.
func (s *Service) ItemBecomesAssembly(ctx context.Context, actor action.Actor, lotID int64, version int, id int64,
	place string, fields inventory.AssemblyInput) (inventory.Assembly, error) {
	if err := inventory.CheckLoose(&place, &fields); err != nil {
		return inventory.Assembly{}, err
	}
	var added storeinventory.Assembly
	_, err := s.onLot(ctx, actor, lotID, version, func(tx *sqlx.Tx, acquired arrivals.Acquisition) error {
		item, err := itemOf(ctx, tx, lotID, id)
		if err != nil {
			return err
		}
		if err := free(item); err != nil {
			return err
		}
		if added, err = inventory.InsertAssembly(ctx, tx, actor,
			storeinventory.Fitting{Place: place, Note: "came with " + acquired.Title}, fields); err != nil {
			return err
		}
		if err := arrivals.LinkLotItem(ctx, tx, id, nil, &added.ID); err != nil {
			return err
		}
		told := map[string]string{"title": item.Title, "lot": acquired.Title, "place": place}
		return action.Record(ctx, tx, actor, eventItemGoesToStore, id, nil, nil, told)
	})
	return inventory.AssemblyOf(added), err
}
