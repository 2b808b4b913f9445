package demo

import (
	"fmt"
	"maps"
	"slices"

	appcondition "frugalheron/app/condition"
	"frugalheron/app/console"
	"frugalheron/app/power"
)

// toldPower is how first power of a machine went.
type toldPower struct {
	Supply power.SupplyInput
	Rails  [][3]string // what was measured, the load, the day
	Said   []power.PartInput
	Ups    []struct {
		Rungs []int // from 1
		power.UpInput
	}
}

// power tells what feeds machines, and how far first power came.
func (t teller) power() error {
	told, err := readWorld[map[string]toldPower]("power.json")
	if err != nil {
		return err
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		if err := t.firstPower(t.machines[accession], told[accession]); err != nil {
			return fmt.Errorf("%s: %w", accession, err)
		}
	}
	return t.consoles()
}

// consoles tells what machines said on their consoles and screens.
func (t teller) consoles() error {
	told, err := readWorld[map[string][]console.TextInput]("consoles.json")
	if err != nil {
		return err
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		id := t.machines[accession]
		now, err := t.actions.Console.Console(t.ctx, t.curator, id)
		if err != nil {
			return err
		}
		for _, text := range told[accession][min(len(now.Captures), len(told[accession])):] {
			if _, err := t.actions.Console.KeepText(t.ctx, t.curator, id, text); err != nil {
				return fmt.Errorf("console of %s: %w", accession, err)
			}
		}
	}
	return nil
}

func (t teller) firstPower(machineID int64, told toldPower) error {
	now, err := t.actions.Power.Power(t.ctx, t.curator, machineID)
	if err != nil {
		return err
	}
	for _, part := range now.Parts {
		for _, said := range told.Said {
			if part.Place != said.Place || part.Version > 0 {
				continue
			}
			if _, err := t.actions.Power.SayPart(t.ctx, t.curator, part.AssemblyID, 0, said); err != nil {
				return err
			}
		}
	}
	if len(now.Supplies) == 0 {
		if _, err := t.actions.Power.AddSupply(t.ctx, t.curator, machineID, told.Supply); err != nil {
			return err
		}
	}
	if !slices.ContainsFunc(now.Rails,
		func(r power.RailReading) bool { return r.Load == "dummy" || r.Load == "machine" }) {
		if err := t.rails(machineID, told.Rails); err != nil {
			return err
		}
	}
	if len(now.Rungs) == 0 {
		if now, err = t.actions.Power.BuildLadder(t.ctx, t.curator, machineID); err != nil {
			return err
		}
	}
	for _, up := range told.Ups[min(len(now.Ups), len(told.Ups)):] {
		for _, n := range up.Rungs {
			up.RungIDs = append(up.RungIDs, now.Rungs[n-1].ID)
		}
		if _, err := t.actions.Power.PowerUp(t.ctx, t.curator, machineID, up.UpInput); err != nil {
			return err
		}
	}
	return nil
}

func (t teller) rails(machineID int64, told [][3]string) error {
	for _, rail := range told {
		if _, err := t.actions.Condition.Measure(t.ctx, t.curator, machineID,
			appcondition.MeasurementInput{Line: rail[0],
				Load: rail[1], On: rail[2], Instrument: "bench meter 2"}); err != nil {
			return err
		}
	}
	return nil
}
