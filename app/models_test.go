package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/evidence"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/facts"
)

func states(rows []facts.Beside) map[string]string {
	told := map[string]string{}
	for _, row := range rows {
		told[row.Attribute] = string(row.State)
	}
	return told
}

// A machine refers to its model, whatever either is called later; both are laid beside each other by what is known.
func TestModelsCarryFacts(t *testing.T) {
	_, actions := newApp(t)
	machine := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1",
		Name: "Pilot office", Maker: "tarn & vole", Model: "MERIDIAN 2"}))
	require.Nil(t, machine.ModelID)
	must(actions.Sheets.TakeOverSheet(ctx, curator, machine.ID, "== Main board | part 44102\nU1-U8 4164-15 8510\n"+
		"U9-U16 4416-15 8511 for:picture"))
	fields := library.ModelInput{Maker: "Tarn & Vole", Model: "Meridian 2", Made: "1984-06/1987",
		Expected: "Main board | part 4410-2",
		Facts: "memory = 64/256 KB | price list\npicture memory = 64 KB (others) | handbook\n" +
			"processor = HX9040 | handbook\nslots = 5 | handbook\nslots = 4 | leaflet\nprice = 900 GBP"}
	first := must(actions.Library.AddModel(ctx, technician, fields))
	machine = must(actions.Inventory.Machine(ctx, viewer, machine.ID))
	require.Equal(t, first.ID, *machine.ModelID)
	require.Equal(t, 1, first.Machines)
	fields.Model, fields.Made, fields.Facts = "Meridian 2S", "1986/1988",
		"memory = 256 KB | price list\nprocessor = hx 9041"
	second := must(actions.Library.AddModel(ctx, technician, fields))

	must(actions.Evidence.StateEvidence(ctx, curator, machine.ID, evidence.StatementInput{Attribute: "slots",
		Value:    "5",
		Citation: evidence.Citation{Kind: "seen"}}))
	beside := must(actions.Bench.ModelBesideMachine(ctx, viewer, first.ID, machine.ID))
	require.Equal(t, "EH-1 Pilot office", beside.Second)
	told := states(beside.Rows)
	require.Equal(t, []string{"same", "same", "unknown", "disputed", "unknown", "same"}, []string{told["memory"],
		told["picture-memory"], told["processor"], told["slots"], told["price"], told["built"]}, "%v", beside.Rows)
	told = states(must(actions.Bench.ModelBesideModel(ctx, viewer, first.ID, second.ID)).Rows)
	require.Equal(t, []string{"same", "different", "unknown", "different"}, []string{told["memory"], told["processor"],
		told["price"], told["made"]})

	must(actions.Library.NameKnown(ctx, technician, library.KnownInput{Kind: "board", Name: "Board of the Meridian",
		Numbers: "4410-2", Details: "revision B | 1984\nrevision C | 1985\nfault BT1 leaking"}))
	must(actions.Library.NameKnown(ctx, technician, library.KnownInput{Name: "Disk card", Numbers: "4430",
		Details: "fits Meridian 2 | without the second drive"}))
	page := must(actions.Bench.ModelPage(ctx, viewer, first.ID))
	require.Equal(t, "Board of the Meridian", page.Boards[0].Name)
	require.Len(t, page.Boards[0].Revisions, 2)
	require.Equal(t, "without the second drive", page.Fits[0].Difference)
	require.Equal(t, "within", string(page.Built[0].Placed))
	require.Equal(t, facts.Disputed, page.Told[3].State)
	require.Equal(t, "what somebody recalls", page.Told[4].By[0].Source)

	// The model is called otherwise, and the machine is of it all the same; other words on the machine are another
	// model.
	fields = first.ModelInput
	fields.Model = "Meridian II"
	first = must(actions.Library.ChangeModel(ctx, technician, first.ID, first.Version, fields))
	require.Equal(t, 1, first.Machines)
	d := must(actions.Dating.Dating(ctx, viewer, machine.ID))
	require.Equal(t, "Meridian II", d.Model.Model)
	input := machine.MachineInput
	input.Model, input.ModelID = "Meridian 2S", nil
	machine = must(actions.Inventory.ChangeMachine(ctx, curator, machine.ID, machine.Version, input))
	require.Equal(t, second.ID, *machine.ModelID)
	nobody := int64(99)
	input.ModelID = &nobody
	_, err := actions.Inventory.ChangeMachine(ctx, curator, machine.ID, machine.Version, input)
	var refused *action.Invalid
	require.ErrorAs(t, err, &refused)
	require.Equal(t, "modelId", refused.Field)
	for _, wrong := range []string{"processor", "memory = much | leaflet", "price = 3 | leaflet | 1985-13"} {
		fields.Facts = "slots = 4\n" + wrong
		_, err := actions.Library.ChangeModel(ctx, technician, first.ID, first.Version, fields)
		require.ErrorContains(t, err, "line 2", wrong)
	}
}

// An address that is shown as zeros is lost: with the chip that kept it, what is wrong with that, and what to restore.
func TestWhatADeadChipLost(t *testing.T) {
	_, actions := newApp(t)
	must(actions.Library.AddModel(ctx, technician, library.ModelInput{Maker: "Quennell", Model: "Atelier",
		Facts: "keeps of U64 = settings, hardware address | handbook"}))
	machine := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1",
		Name:  "Atelier",
		Maker: "Quennell", Model: "Atelier"})).ID
	must(actions.Sheets.TakeOverSheet(ctx, curator, machine, "== Board\nU64 DS1287 9005 !dead"))
	for kind, value := range map[string]string{"firmware": "00:00:00:00:00:00", "label": "02:4B:11:00:2C:8E"} {
		must(actions.Evidence.StateEvidence(ctx, curator, machine,
			evidence.StatementInput{Attribute: "hardware-address",
				Value: value, Citation: evidence.Citation{Kind: kind}}))
	}
	lost := must(actions.Bench.Dossier(ctx, viewer, machine)).Lost
	require.Len(t, lost, 1)
	require.Regexp(t,
		`is lost. U64 keeps it, and that is dead since 20\d\d-\d\d-\d\d. Restore 02:4B:11:00:2C:8E, by the label.`,
		lost[0].Words)
}
