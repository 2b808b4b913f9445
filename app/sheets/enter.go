package sheets

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
)

// EnterMachines enters machines with their sheets, all of them or none: each text has a heading for
// each board, as TakeOverSheet reads it.
func (s *Service) EnterMachines(ctx context.Context, actor action.Actor, machines []MachineWithSheets) error {
	for i := range machines {
		if err := inventory.CheckMachine(&machines[i].Fields); err != nil {
			return fmt.Errorf("%s: %w", machines[i].Fields.Accession, err)
		}
	}
	return s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		if err := s.library.Hold(ctx, tx); err != nil {
			return err
		}
		for _, m := range machines {
			created, err := inventory.CreateMachine(ctx, tx, actor, m.Fields)
			if err != nil {
				return fmt.Errorf("%s: %w", m.Fields.Accession, err)
			}
			if _, err := takeOver(ctx, tx, actor, created.ID, m.Sheets); err != nil {
				return fmt.Errorf("%s: %w", m.Fields.Accession, err)
			}
		}
		return nil
	})
}

// MachineWithSheets is a machine to enter, and the text of its sheets.
type MachineWithSheets struct {
	Fields inventory.MachineInput
	Sheets string
}
