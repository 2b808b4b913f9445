package app_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/parts"
	"frugalheron/app/power"
	"frugalheron/app/setup"
	"frugalheron/core/configuration"
)

// caged is a machine with a main board of three slots, a modem and a disk card, all of which the library knows.
func caged(t *testing.T, actions *app.App) (machine, main, modem, disk int64) {
	t.Helper()
	for _, one := range []library.KnownInput{
		{Kind: "board", Name: "Main board", Numbers: "4410", Details: "gives 3 slots | 8-bit\njumper JP3 | 1-2 = 64 KB chips | 2-3 = 256 KB chips\ncurrent +5 | 2 A"},
		{Kind: "card", Name: "Modem card", Numbers: "4420", Details: "needs slot | 8-bit\nuses irq | 3\ncurrent +5 | 0.5 A"},
		{Kind: "card", Name: "Disk card", Numbers: "4430", Details: "needs slot | 8-bit\njumper JP2 | 1-2 = irq 3 | 2-3 = irq 4"},
	} {
		must(actions.Library.NameKnown(ctx, curator, one))
	}
	must(actions.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Tarn & Vole", Model: "Meridian 2"}))
	m := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-0001", "Tarn & Vole", "Meridian 2")))
	add := func(title, part, kind, slot string) int64 {
		return must(actions.Inventory.AddAssembly(ctx, curator, m.ID, inventory.AssemblyInput{Title: title, Part: part,
			Kind: kind, Slot: slot})).ID
	}
	return m.ID, add("Main board", "4410", "board", ""), add("Modem", "4420", "card", "1"), add("Disk card", "4430",
		"card",
		"slot 2")
}

func valueOf(t *testing.T, actions *app.App, machine int64, key string) string {
	t.Helper()
	for _, v := range must(actions.Setup.Verdicts(ctx, viewer, machine)) {
		if v.Key == key {
			return v.Value
		}
	}
	return ""
}

// What was found is decoded, what differs is told as what is done, and what was moved since stands in the reckoning.
func TestHowAMachineIsSetUp(t *testing.T) {
	_, actions := newApp(t)
	machine, main, modem, disk := caged(t, actions)
	found := setup.ConfigurationInput{Title: "As found", Kind: "as found", On: "2026-03-01",
		Cards: []setup.ConfiguredCard{
			{AssemblyID: &main, Title: "Main board", Settings: "JP3 2-1"},
			{AssemblyID: &disk, Title: "Disk card", Slot: "2", Settings: "JP2 1-2\nJP9 on"}, {Title: "Clock card",
				Slot: "3"}},
		Media: "drive A = starter"}
	kept := must(actions.Setup.Keep(ctx, technician, machine, found))
	require.Equal(t, []string{"64 KB chips"}, kept.Meanings[0][0].Means)
	require.Equal(t, configuration.Unknown, kept.Meanings[1][1].State)
	require.Equal(t, "noted on 2026-03-01; 2 changes since", valueOf(t, actions, machine, "set-up"))
	told := must(actions.Setup.Setup(ctx, viewer, machine))
	require.Equal(t, "put in Modem in slot 1", told.Since[1].Do)
	require.Equal(t, "JP3", told.Cards[0].Settings[0].Name)
	working := found
	working.Title, working.On, working.Firmware = "It worked", "2026-04-01", "boot = A"
	working.Cards = []setup.ConfiguredCard{{AssemblyID: &disk, Title: "Disk card", Slot: "2", Settings: "JP2 2-3"},
		{AssemblyID: &modem, Title: "Modem", Slot: "1"}, {AssemblyID: &main, Title: "Main board", Settings: "JP3 1-2"}}
	must(actions.Setup.Keep(ctx, technician, machine, working))
	require.Equal(t, "noted on 2026-04-01", valueOf(t, actions, machine, "set-up"))
	newest := must(actions.Setup.Setup(ctx, viewer, machine)).Configurations[0]
	difference := must(actions.Setup.Difference(ctx, viewer, machine, kept.ID, newest.ID))
	done := []string{}
	for _, c := range difference.Changes {
		done = append(done, c.Do)
	}
	require.Equal(t, []string{"take out Clock card from slot 3", "put in Modem in slot 1",
		"Disk card: set JP2 from 1-2 to 2-3",
		"enter boot = A in the setup of the firmware; how it is nobody noted"}, done)
	require.Empty(t, must(actions.Setup.Difference(ctx, viewer, machine, 0, newest.ID)).Changes)

	none, long := int64(999), strings.Repeat("x", 60_000)
	for field, broken := range map[string]setup.ConfigurationInput{"title": {}, "on": {Title: "a", On: "2999-01-01"},
		"cards[0].settings": {Title: "a", Cards: []setup.ConfiguredCard{{Title: "x", Settings: "JP1"}}},
		"cards[0].title":    {Title: "a", Cards: []setup.ConfiguredCard{{}}}, "firmware": {Title: "a",
			Firmware: "boot"},
		"cards[0].assemblyId": {Title: "a", Cards: []setup.ConfiguredCard{{Title: "x", AssemblyID: &none}}},
		"files[0].text":       {Title: "a", Files: []setup.ConfiguredFile{{Name: "x", Text: "\x1a"}}},
		"files[3].text": {Title: "a", Files: []setup.ConfiguredFile{{Name: "a", Text: long}, {Name: "b", Text: long},
			{Name: "c", Text: long}, {Name: "d", Text: long}}},
		"files[1].name": {Title: "a", Files: []setup.ConfiguredFile{{Name: "x"}, {Name: "x"}}}} {
		var invalid *action.Invalid
		require.ErrorAs(t, second(actions.Setup.Keep(ctx, technician, machine, broken)), &invalid, field)
		require.Equal(t, field, invalid.Field)
	}
	require.ErrorIs(t, second(actions.Setup.Keep(ctx, viewer, machine, found)), action.ErrForbidden)
	other := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-0002", "Tarn & Vole", "Meridian 2")))
	require.ErrorContains(t, second(actions.Setup.Difference(ctx, viewer, other.ID, kept.ID, 0)), "no configuration")
	// A board is read by another record once somebody doubts it.
	read := must(actions.Setup.ReadSettings(ctx, viewer, disk, "JP2 1-2\nJP2 2-3"))
	require.Len(t, read.Problems, 1)
	must(actions.Library.NameKnown(ctx, curator, library.KnownInput{Kind: "card", Name: "Tape card", Numbers: "4430",
		Details: "jumper JP2 | 1-2 = tape 0 | 2-3 = irq 4"}))
	read = must(actions.Setup.ReadSettings(ctx, viewer, disk, "JP2 1-2"))
	require.Equal(t, []string{"irq 3", "tape 0"}, read.Meanings[0].Means, "two records say as firmly what it is")
}

// What meets is told and how it is set otherwise; done, the cards sit there and the configuration says so.
func TestSlotsArePlannedAndMoved(t *testing.T) {
	_, actions := newApp(t)
	machine, _, modem, disk := caged(t, actions)
	must(actions.Power.AddSupply(ctx, curator, machine, power.SupplyInput{Name: "built in", Kind: "mains",
		Rating: []power.RailAmperes{{Rail: "+5", Amperes: 5}}}))
	plan := func(moves ...setup.ThoughtMove) setup.SlotPlan {
		return must(actions.Setup.SlotPlan(ctx, viewer, machine, setup.ThoughtMoves{Moves: moves}))
	}
	require.Empty(t, plan().Problems, "how the disk card is set nobody noted")
	must(actions.Setup.Keep(ctx, technician, machine, setup.ConfigurationInput{Title: "As found",
		Cards: []setup.ConfiguredCard{{AssemblyID: &disk, Title: "Disk card", Slot: "2",
			Settings: "JP2 1-2\nJP7 on"}}}))
	now := plan()
	require.Equal(t, "the Modem and the Disk card meet: irq 3", now.Problems[0].Detail)
	require.Equal(t, "1 thing does not go together", valueOf(t, actions, machine, "slots"))
	require.Equal(t, []int64{disk}, now.Rows[0].Slots[1].Cards)
	require.Equal(t, []any{2.5, 2.5}, []any{now.Rails[0].Draw, *now.Rails[0].Headroom})
	require.Equal(t, []string{"Disk card"}, now.Undrawn)
	require.Equal(t, "2-3", now.Proposal.Sets[0].Ways[0].At)
	require.Contains(t, plan(setup.ThoughtMove{AssemblyID: disk, Slot: "1"}).Problems[0].Detail, "the same slot")
	require.Empty(t, plan(setup.ThoughtMove{AssemblyID: modem}).Problems, "thought out")
	loose := must(actions.Inventory.AddLooseAssembly(ctx, curator, "Store",
		inventory.AssemblyInput{Title: "Net card", Kind: "card"}))
	require.Len(t, plan(setup.ThoughtMove{AssemblyID: loose.ID, Slot: "3"}).Cards, 3)

	moved := setup.MovedCards{Moves: []setup.MovedCard{{AssemblyID: modem, Version: 1, Slot: "3"}},
		Sets: now.Proposal.Sets}
	stale := moved
	stale.Moves = []setup.MovedCard{{AssemblyID: modem, Version: 1, Slot: "3"}, {AssemblyID: disk, Version: 9, Slot: "1"}}
	require.Error(t, actions.Setup.Moved(ctx, technician, machine, stale))
	require.Equal(t, "1", must(actions.Inventory.Assembly(ctx, viewer, modem)).Slot, "all of it or nothing")
	require.ErrorIs(t, actions.Setup.Moved(ctx, viewer, machine, moved), action.ErrForbidden)
	require.ErrorContains(t, actions.Setup.Moved(ctx, technician, machine, setup.MovedCards{
		Moves: []setup.MovedCard{{AssemblyID: loose.ID, Version: 1, Slot: "3"}}}), "not in the machine")
	require.NoError(t, actions.Setup.Moved(ctx, technician, machine, moved))
	now = plan()
	require.True(t, now.OK)
	require.Equal(t, []int64{modem}, now.Rows[0].Slots[2].Cards)
	newest := must(actions.Setup.Setup(ctx, viewer, machine)).Configurations[0]
	require.Equal(t, "JP7 on\nJP2 2-3", newest.Cards[2].Settings)
	require.Empty(t, valueOf(t, actions, machine, "slots"))

	layout := setup.BackplaneInput{Layout: "row A | 8-bit | 1 2\nrow B | 8-bit | 3 4\nchain 1 2 4 3\nrail +5 | 2 A"}
	must(actions.Setup.ChangeBackplane(ctx, technician, machine, 0, layout))
	now = plan()
	require.False(t, now.Solvable)
	require.Equal(t, -0.5, *now.Rails[0].Headroom, "what is written goes before what the supply says")
	other := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-0002", "Tarn & Vole", "Meridian 2")))
	require.Equal(t, layout, must(actions.Setup.SlotPlan(ctx, viewer, other.ID,
		setup.ThoughtMoves{})).Offered[0].BackplaneInput)
	var invalid *action.Invalid
	require.ErrorAs(t, second(actions.Setup.ChangeBackplane(ctx, technician, machine, 1,
		setup.BackplaneInput{Layout: "row"})), &invalid)
	require.Equal(t, "layout", invalid.Field)
}

// The panel is read in its radix; a card that nobody wrote is offered by another machine of the model.
func TestOperatingCards(t *testing.T) {
	_, actions := newApp(t)
	must(actions.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Ostrand & Pike", Model: "Ledger"}))
	machine := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-0001", "Ostrand & Pike", "Ledger")))
	other := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-0002", "Ostrand & Pike", "Ledger")))
	card := must(actions.Setup.ChangeOperatingCard(ctx, technician, machine.ID, 0,
		setup.OperatingCardInput{Start: "key",
			Panel: "address 017600\ndeposit 12700"}))
	require.Equal(t, "012700", card.Lamps[1].Data.Value)
	require.Equal(t, "key", must(actions.Setup.Operating(ctx, viewer, other.ID)).Offered[0].Start)
	require.Empty(t, must(actions.Setup.Operating(ctx, viewer, machine.ID)).Offered)
	var invalid *action.Invalid
	require.ErrorAs(t, second(actions.Setup.ReadPanel(viewer, setup.OperatingCardInput{Panel: "deposit 8"})), &invalid)
	require.Equal(t, "panel", invalid.Field)
}

// A secret is told to those who may see it, each look is in the history, and nothing else holds it.
func TestSecretsAreSeenByThoseWhoMay(t *testing.T) {
	db, actions := newApp(t)
	machine := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-0001", "Tarn & Vole", "Meridian 2")))
	const secret = "neap-tide-7"
	in := setup.CredentialInput{What: "operator", User: "op"}
	require.ErrorIs(t, second(actions.Setup.PutAway(ctx, technician, machine.ID, in, secret)), action.ErrForbidden)
	require.Error(t, second(actions.Setup.PutAway(ctx, curator, machine.ID, in, "")))
	kept := must(actions.Setup.PutAway(ctx, curator, machine.ID, in, secret))
	require.ErrorIs(t, second(actions.Setup.Credentials(ctx, viewer, machine.ID)), action.ErrForbidden)
	require.False(t, must(actions.Setup.Credentials(ctx, technician, machine.ID)).Credentials[0].MayLook)
	require.ErrorIs(t, second(actions.Setup.See(ctx, technician, kept.ID)), action.ErrForbidden)
	require.Equal(t, secret, must(actions.Setup.See(ctx, curator, kept.ID)).Secret)
	in.ForTechnicians, in.Note = true, "on the frame"
	kept = must(actions.Setup.ChangeCredential(ctx, curator, kept.ID, 1, in, nil))
	require.Equal(t, secret, must(actions.Setup.See(ctx, technician, kept.ID)).Secret)
	history := must(actions.History.History(ctx, curator, machine.ID, 0, 50))
	looks := 0
	for _, e := range history.Events {
		if e.Action == "see credential" {
			looks++
		}
	}
	require.Equal(t, 2, looks, "who was refused saw nothing")
	for _, e := range must(actions.History.History(ctx, viewer, machine.ID, 0, 50)).Events {
		require.NotContains(t, e.Action, "credential")
	}
	another := "spring-tide"
	kept = must(actions.Setup.ChangeCredential(ctx, curator, kept.ID, kept.Version, in, &another))
	event := must(actions.Setup.VoidCredential(ctx, curator, kept.ID, kept.Version))
	require.ErrorIs(t, second(actions.Setup.See(ctx, curator, kept.ID)), action.ErrNotFound)
	require.NoError(t, actions.History.Undo(ctx, curator, event))
	require.Equal(t, another, must(actions.Setup.See(ctx, curator, kept.ID)).Secret)
	// No other table holds a secret.
	tables := []string{}
	require.NoError(t, db.Select(&tables, `SELECT relname FROM pg_class WHERE relkind = 'r' AND relnamespace = 'public'::regnamespace`))
	for _, table := range tables {
		rows := []json.RawMessage{}
		require.NoError(t, db.Select(&rows, fmt.Sprintf(`SELECT to_jsonb(t) FROM %q t`, table)))
		for _, row := range rows {
			if table != "credential" {
				require.NotContains(t, string(row), secret, table)
				require.NotContains(t, string(row), another, table)
			}
		}
	}
}

// Which modules may stand follows from the sheets, the rules of the machine and what lies free in the stores.
func TestPopulationsFromSheetsAndStores(t *testing.T) {
	_, actions := newApp(t)
	must(actions.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Quennell Systems", Model: "Atelier"}))
	machine := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-0001", "Quennell Systems",
		"Atelier"))).ID
	other := must(actions.Inventory.CreateMachine(ctx, curator, machineOf("EH-0002", "Quennell Systems", "Atelier"))).ID
	must(actions.Sheets.TakeOverSheet(ctx, curator, machine,
		"== Main board\nM1-M2 SIMM 30-pin 1Mx9 120ns\nM3 SIMM 30-pin 1Mx9 80ns\nM4 SIMM 30-pin @empty"))
	rules := setup.MemoryRulesInput{Rules: "bank 0 | M1-M2\nbank 1 | M3-M4 | after 0\nbank 2 | M7 | after 1\nsizes 256Kx9 1Mx9\nrule full\n" +
		"rule same size\nmost 100 ns"}
	must(actions.Setup.ChangeMemoryRules(ctx, technician, machine, 0, rules))
	told := must(actions.Setup.Population(ctx, technician, machine, ""))
	broken := []string{}
	for _, b := range told.Broken {
		broken = append(broken, fmt.Sprint(b.Rule, b.Sockets))
	}
	require.Equal(t, []string{"full[M4]", "speed[M1 M2]"}, broken)
	require.Equal(t, []any{"3 MB", false, 0}, []any{told.Amount, told.Legal, told.Stock})
	require.Contains(t, told.Remarks, "no sheet has M7; it counts as empty")
	require.Empty(t, told.Plans)
	require.NotEmpty(t, told.Why, "nothing that serves lies ready")

	for what, count := range map[string]int{"SIMM 30-pin 1Mx9 80ns": 3, "SIMM 72-pin 4Mx36": 2, "41256-12": 9} {
		must(actions.Parts.AddStock(ctx, technician, parts.StockInput{What: what, Count: count}))
	}
	told = must(actions.Setup.Population(ctx, technician, machine, "4 MB"))
	require.Equal(t, 5, told.Stock, "a chip is no module")
	require.Equal(t, "4 MB", told.Plans[0].Amount)
	require.Empty(t, told.Plans[0].Buy)
	require.Equal(t, 3, told.Plans[0].Changes)
	require.Equal(t, setup.SocketPlan{Socket: "M4", Module: "SIMM 30-pin 1Mx9 80ns", Changed: true}, told.Plans[0].Sockets[3])
	require.Equal(t, "512 KB", told.Table[0].Amount)
	require.True(t, told.IsWhole)
	hidden := must(actions.Setup.Population(ctx, viewer, machine, "max"))
	require.Zero(t, hidden.Stock)
	require.Contains(t, hidden.Remarks[len(hidden.Remarks)-1], "staff alone")
	require.Equal(t, rules, must(actions.Setup.Population(ctx, viewer, other, "")).Offered[0].MemoryRulesInput)
	for want, field := range map[string]string{"lots": "want"} {
		var invalid *action.Invalid
		require.ErrorAs(t, second(actions.Setup.Population(ctx, viewer, machine, want)), &invalid)
		require.Equal(t, field, invalid.Field)
	}
	var invalid *action.Invalid
	require.ErrorAs(t, second(actions.Setup.ChangeMemoryRules(ctx, technician, machine, 1,
		setup.MemoryRulesInput{Rules: "bank 0 | M1 | after 1"})), &invalid)
	require.Equal(t, "rules", invalid.Field)
	listed := setup.MemoryRulesInput{Rules: "bank 0 | M1-M2\nallowed 0 = 1Mx9 | JP6 at 2-3\nmost 120 ns"}
	must(actions.Setup.ChangeMemoryRules(ctx, technician, machine, 1, listed))
	told = must(actions.Setup.Population(ctx, technician, machine, "max"))
	require.True(t, told.Legal)
	require.Equal(t, []string{"JP6 at 2-3"}, told.Table[0].Jumpers)
}
