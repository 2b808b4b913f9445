package demo

import (
	"fmt"
	"maps"
	"slices"

	"frugalheron/app/setup"
)

type toldSetup struct {
	Configurations []struct {
		setup.ConfigurationInput
		Settings map[string]string `json:"settings"` // by title of a board that is fitted
	} `json:"configurations"`
	Backplane   setup.BackplaneInput      `json:"backplane"`
	Modules     setup.MemoryRulesInput    `json:"modules"`
	Operating   *setup.OperatingCardInput `json:"operating"`
	Credentials []struct {
		setup.CredentialInput
		Secret string `json:"secret"`
	} `json:"credentials"`
}

// setups tells how machines are set up and operated.
func (t teller) setups() error {
	told, err := readWorld[map[string]toldSetup]("setups.json")
	if err != nil {
		return err
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		if err := t.setup(t.machines[accession], told[accession]); err != nil {
			return fmt.Errorf("%s: %w", accession, err)
		}
	}
	return nil
}

func (t teller) setup(machine int64, told toldSetup) error {
	now, err := t.actions.Setup.Setup(t.ctx, t.curator, machine)
	if err != nil {
		return err
	}
	for _, one := range told.Configurations[min(len(now.Configurations), len(told.Configurations)):] {
		in := one.ConfigurationInput
		for _, card := range now.Cards {
			in.Cards = append(in.Cards, setup.ConfiguredCard{AssemblyID: &card.AssemblyID, Title: card.Title,
				Slot:     card.Slot,
				Settings: one.Settings[card.Title]})
		}
		if _, err := t.actions.Setup.Keep(t.ctx, t.curator, machine, in); err != nil {
			return err
		}
	}
	plan, err := t.actions.Setup.SlotPlan(t.ctx, t.curator, machine, setup.ThoughtMoves{})
	if err != nil {
		return err
	}
	if plan.Backplane.Version == 0 && told.Backplane.Layout != "" {
		if _, err := t.actions.Setup.ChangeBackplane(t.ctx, t.curator, machine, 0, told.Backplane); err != nil {
			return err
		}
	}
	population, err := t.actions.Setup.Population(t.ctx, t.curator, machine, "")
	if err != nil {
		return err
	}
	if population.Rules.Version == 0 && told.Modules.Rules != "" {
		if _, err := t.actions.Setup.ChangeMemoryRules(t.ctx, t.curator, machine, 0, told.Modules); err != nil {
			return err
		}
	}
	operating, err := t.actions.Setup.Operating(t.ctx, t.curator, machine)
	if err != nil {
		return err
	}
	if operating.Card.Version == 0 && told.Operating != nil {
		if _, err := t.actions.Setup.ChangeOperatingCard(t.ctx, t.curator, machine, 0, *told.Operating); err != nil {
			return err
		}
	}
	kept, err := t.actions.Setup.Credentials(t.ctx, t.curator, machine)
	if err != nil {
		return err
	}
	for _, one := range told.Credentials[min(len(kept.Credentials), len(told.Credentials)):] {
		if _, err := t.actions.Setup.PutAway(t.ctx, t.curator, machine, one.CredentialInput, one.Secret); err != nil {
			return err
		}
	}
	return nil
}
