// Package demo holds the sample world: the Estuary Heritage Collection, an invented small museum,
// with its machines, sheets and people.
package demo

import (
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"slices"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
)

//go:embed machines.json types.json loose.json parties.json lots.json stories.json models.json makers.json known.json identifications.json condition.json signs.json services.json setups.json teardowns.json measurements.json happened.json power.json jobs.json stores.json upkeep.json policies.json consoles.json wanted.json diagnoses.json sheets/*.sheet exteriors/*.exterior
var world embed.FS

// Account is a sample account. Its password is public: the demonstration serves on loopback.
type Account struct {
	Login, Name, Password string
	Role                  action.Role
}

// Accounts are the people of the sample world, the curator first.
var Accounts = []Account{
	{"ottilie", "Ottilie Wren", "estuary-curator", action.Curator},
	{"bram", "Bram Sedge", "estuary-technician", action.Technician},
	{"fenna", "Fenna Loach", "estuary-viewer", action.Viewer},
}

// Seed fills an empty database with the sample world and reports its progress in words. A
// database that has accounts already is left as it is.
func Seed(ctx context.Context, actions *app.App, progress func(string)) error {
	seeded, err := actions.Accounts.HasAccounts(ctx)
	if err != nil || seeded {
		return err
	}
	machines, err := Machines()
	if err != nil {
		return err
	}
	curator := action.Actor{Role: action.Curator}
	if err := nameTypes(ctx, actions, curator); err != nil {
		return err
	}
	for i, machine := range machines {
		progress(fmt.Sprintf("machine %d of %d: %s %s", i+1, len(machines), machine.Accession, machine.Name))
		if err := seedMachine(ctx, actions, curator, machine); err != nil {
			return fmt.Errorf("%s: %w", machine.Accession, err)
		}
	}
	if err := seedLoose(ctx, actions, curator); err != nil {
		return err
	}
	if err := tellStories(ctx, actions, curator, progress); err != nil {
		return err
	}
	// The accounts come last: they mark the world as complete.
	for _, account := range Accounts {
		if _, err := actions.Accounts.AddAccount(ctx, account.Login, account.Name, account.Role,
			account.Password); err != nil {
			return err
		}
	}
	return nil
}

func seedMachine(ctx context.Context, actions *app.App, curator action.Actor,
	fields inventory.MachineInput) error {
	machine, err := enter(ctx, actions, curator, fields)
	if err != nil {
		return err
	}
	// An interrupted seeding goes on where it was.
	if boards, err := actions.Sheets.Contents(ctx, curator, machine.ID); err != nil || len(boards) > 0 {
		return err
	}
	text, err := Sheet(fields.Accession)
	if err != nil {
		return err
	}
	_, err = actions.Sheets.TakeOverSheet(ctx, curator, machine.ID, string(text))
	return err
}

// seedLoose enters what is in no machine, unless an interrupted seeding did.
func seedLoose(ctx context.Context, actions *app.App, curator action.Actor) error {
	text, err := world.ReadFile("loose.json")
	if err != nil {
		return err
	}
	var units []struct {
		Place, Sheet, LentTo, Due string
		Fields                    inventory.AssemblyInput
	}
	if err := json.Unmarshal(text, &units); err != nil {
		return err
	}
	entered, err := actions.Inventory.ListLoose(ctx, curator, "", 0, len(units))
	if err != nil {
		return err
	}
	for _, unit := range units[len(entered.Assemblies):] {
		added, err := actions.Inventory.AddLooseAssembly(ctx, curator, unit.Place, unit.Fields)
		if err != nil {
			return fmt.Errorf("%s: %w", unit.Fields.Title, err)
		}
		if _, err := actions.Sheets.SaveSheet(ctx, curator, added.ID, 0, unit.Sheet); err != nil {
			return err
		}
		if unit.LentTo == "" {
			continue
		}
		if _, err := actions.Inventory.MoveAssembly(ctx, curator, added.ID, added.Version,
			inventory.Move{To: "loan", LentTo: unit.LentTo, Due: unit.Due}); err != nil {
			return err
		}
	}
	return nil
}

// nameTypes names the types of the sample world that are not named yet.
func nameTypes(ctx context.Context, actions *app.App, curator action.Actor) error {
	text, err := world.ReadFile("types.json")
	if err != nil {
		return err
	}
	var types []library.OwnTypeInput
	if err := json.Unmarshal(text, &types); err != nil {
		return err
	}
	named, err := actions.Library.SearchLibrary(ctx, curator, "", len(types))
	if err != nil {
		return err
	}
	for _, fields := range types {
		if slices.ContainsFunc(named, func(t library.LibraryType) bool { return t.Number == fields.Number }) {
			continue
		}
		if _, err := actions.Library.NameType(ctx, curator, fields); err != nil {
			return fmt.Errorf("%s: %w", fields.Number, err)
		}
	}
	return nil
}

func enter(ctx context.Context, actions *app.App, curator action.Actor,
	fields inventory.MachineInput) (inventory.Machine, error) {
	page, err := actions.Inventory.ListMachines(ctx, curator,
		inventory.MachineList{MachineFilters: inventory.MachineFilters{Search: fields.Accession}, Limit: 1})
	if err != nil {
		return inventory.Machine{}, err
	}
	if len(page.Machines) > 0 {
		return actions.Inventory.Machine(ctx, curator, page.Machines[0].ID)
	}
	return actions.Inventory.CreateMachine(ctx, curator, fields)
}

// Machines lists the machines of the sample world.
func Machines() ([]inventory.MachineInput, error) {
	text, err := world.ReadFile("machines.json")
	if err != nil {
		return nil, err
	}
	machines := []inventory.MachineInput{}
	return machines, json.Unmarshal(text, &machines)
}

// Sheet returns the sheet of a sample machine, with a heading for each board.
func Sheet(accession string) ([]byte, error) {
	return world.ReadFile("sheets/" + accession + ".sheet")
}
