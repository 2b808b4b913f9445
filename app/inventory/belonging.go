package inventory

import (
	"context"
	"errors"
	"fmt"

	"frugalheron/app/action"
	"frugalheron/store/arrivals"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// Named is a record that a field of an input names by its id.
type Named struct {
	field string
	kind  inventory.OwnedKind
	id    int64
}

// NamedAs names a record by its id.
func NamedAs(field string, kind inventory.OwnedKind, id int64) Named { return Named{field, kind, id} }

// NamedIf names a record that may be left out.
func NamedIf(field string, kind inventory.OwnedKind, id *int64) []Named {
	if id == nil {
		return nil
	}
	return []Named{{field, kind, *id}}
}

// home is where the record belongs; one that is not there is refused.
func (n Named) home(ctx context.Context, h pg.Handle) (inventory.Home, error) {
	home, err := inventory.HomeOf(ctx, h, n.kind, n.id)
	if errors.Is(err, action.ErrNotFound) {
		err = action.Reject(n.field, fmt.Sprintf("there is no %s %d", n.kind, n.id))
	}
	return home, err
}

// OfMachine refuses records that are not there, and those of another machine, naming where they are. A picture of
// the lot that the machine came with counts as its own.
func OfMachine(ctx context.Context, h pg.Handle, machineID int64, records ...Named) error {
	for _, r := range records {
		home, err := r.home(ctx, h)
		if err != nil {
			return err
		}
		if home.MachineID != nil && *home.MachineID == machineID {
			continue
		}
		if home.LotID != nil && r.kind == inventory.CitedPicture {
			continue
		}
		if home.LotID != nil {
			came, err := arrivals.LotItemOf(ctx, h, &machineID, nil)
			if err == nil && came.AcquisitionID == *home.LotID {
				continue
			}
			if err != nil && !errors.Is(err, action.ErrNotFound) {
				return err
			}
		}
		machine, err := inventory.MachineByID(ctx, h, machineID)
		if err != nil {
			return err
		}
		return action.Reject(r.field,
			fmt.Sprintf("%s %d belongs to %s; choose one of %s", r.kind, r.id, home.Where, machine.Accession))
	}
	return nil
}

// OfBoard refuses records that are not there, and those that are not about a board.
func OfBoard(ctx context.Context, h pg.Handle, assemblyID int64, records ...Named) error {
	for _, r := range records {
		home, err := r.home(ctx, h)
		if err != nil {
			return err
		}
		if home.AssemblyID == nil || *home.AssemblyID != assemblyID {
			return action.Reject(r.field,
				fmt.Sprintf("%s %d belongs to %s, not to this board", r.kind, r.id, home.Where))
		}
	}
	return nil
}
