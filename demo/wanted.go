package demo

import (
	"fmt"

	"frugalheron/app/wanted"
)

// wanted tells what is looked for, and what is offered.
func (t teller) wanted() error {
	told, err := readWorld[struct {
		Wants []struct {
			For string // accession; empty for any
			wanted.WantInput
		}
		Offers []wanted.OfferInput
	}]("wanted.json")
	if err != nil {
		return err
	}
	wants, err := t.actions.Wanted.Wants(t.ctx, t.curator)
	if err != nil {
		return err
	}
	for _, one := range told.Wants[min(len(wants), len(told.Wants)):] {
		if id, ok := t.machines[one.For]; ok {
			one.MachineID = &id
		}
		if _, err := t.actions.Wanted.AddWant(t.ctx, t.curator, one.WantInput); err != nil {
			return fmt.Errorf("%s: %w", one.What, err)
		}
	}
	offers, err := t.actions.Wanted.Offers(t.ctx, t.curator)
	if err != nil {
		return err
	}
	for _, one := range told.Offers[min(len(offers), len(told.Offers)):] {
		if _, err := t.actions.Wanted.AddOffer(t.ctx, t.curator, one); err != nil {
			return fmt.Errorf("%s: %w", one.Title, err)
		}
	}
	return nil
}
