package demo

import (
	"fmt"

	"frugalheron/app/sharing"
)

// services tells which peripherals in store serve which machines.
func (t teller) services() error {
	told, err := readWorld[[]struct{ Peripheral, Machine, As, Without string }]("services.json")
	if err != nil {
		return err
	}
	for _, one := range told {
		found, err := t.actions.Inventory.ListLoose(t.ctx, t.curator, one.Peripheral, 0, 1)
		if err != nil || len(found.Assemblies) == 0 {
			return err
		}
		thing := found.Assemblies[0].ID
		there, err := t.actions.Sharing.ServedBy(t.ctx, t.curator, thing)
		if err != nil {
			return err
		}
		serves := false
		for _, s := range there {
			serves = serves || s.Accession == one.Machine
		}
		if serves {
			continue
		}
		if _, err := t.actions.Sharing.Serve(t.ctx, t.curator, thing, sharing.ServiceInput{
			MachineID: t.machines[one.Machine], As: one.As, Without: one.Without}); err != nil {
			return fmt.Errorf("%s: %w", one.Peripheral, err)
		}
	}
	return nil
}
