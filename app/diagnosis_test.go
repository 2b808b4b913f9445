package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/console"
	"frugalheron/app/diagnosis"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/memfault"
	"frugalheron/core/trials"
)

// A machine that runs after three changes at once: what was kept is untangled to the one that mattered; until then the
// reckoning tells of the symptom.
func TestASymptomIsUntangled(t *testing.T) {
	_, actions := newApp(t)
	machine, _, card := poweredUp(t, actions)
	name := "new cable"
	in := diagnosis.DiagnosisInput{Symptom: "no picture", Factors: []diagnosis.FactorInput{{Name: name, Effort: 1},
		{Name: "monitor ROM", Effort: 9}, {Name: "disk card", Kind: "part", AssemblyID: &card, Effort: 2}},
		Trials: []diagnosis.TrialInput{{On: []string{}, Runs: 1, Failed: 1},
			{On: []string{name, "monitor ROM", "disk card"}, Runs: 1}}}
	begun := must(actions.Diagnosis.Begin(ctx, technician, machine, in))
	require.Equal(t, []int{0, 6}, begun.Judged.Left)
	require.Len(t, begun.Judged.Confounded[0], 3)
	unexplained := func() (found []string) {
		for _, v := range must(actions.Diagnosis.Verdicts(ctx, viewer, machine)) {
			found = append(found, v.Value)
			require.Contains(t, v.Why[0].Text, "no picture")
		}
		return found
	}
	require.Equal(t, []string{"1 symptom"}, unexplained())

	in.Trials = append(in.Trials, diagnosis.TrialInput{On: []string{"monitor ROM", "disk card"}, Runs: 5, Failed: 5})
	later := must(actions.Diagnosis.Change(ctx, technician, begun.ID, begun.Version, in))
	require.Equal(t, []any{3, 3}, []any{len(later.Judged.Explanations), later.Judged.Left[2]})
	require.Equal(t, &trials.WayBack{Trial: 2, TakeBack: []string{}, PutBack: []string{name}}, later.Judged.LastGood)
	in.Trials = append(in.Trials, diagnosis.TrialInput{On: []string{name}, Runs: 3})
	later = must(actions.Diagnosis.Change(ctx, technician, begun.ID, later.Version, in))
	require.True(t, later.Judged.Settled)
	require.Equal(t, []string{name}, later.Judged.Explanations[0].Factors)

	var stale *action.Stale
	require.ErrorAs(t, second(actions.Diagnosis.Change(ctx, curator, begun.ID, begun.Version, in)), &stale)
	in.State = "found"
	require.ErrorContains(t, second(actions.Diagnosis.Change(ctx, technician, begun.ID, later.Version, in)),
		"what it was")
	in.Cause = "a broken wire in the old cable"
	later = must(actions.Diagnosis.Change(ctx, technician, begun.ID, later.Version, in))
	require.Empty(t, unexplained(), "what was found is explained")
	event := must(actions.Diagnosis.Void(ctx, technician, begun.ID, later.Version))
	require.Empty(t, must(actions.Diagnosis.Diagnoses(ctx, viewer, machine)).Diagnoses)
	require.NoError(t, actions.History.Undo(ctx, technician, event))
	require.Len(t, must(actions.Diagnosis.Diagnoses(ctx, viewer, machine)).Diagnoses, 1)
}

// A card that fails here and works there is no bad card; what was changed lately is offered as a factor.
func TestABadPairingIsNoBadPart(t *testing.T) {
	_, actions := newApp(t)
	machine, _, card := poweredUp(t, actions)
	other := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-2",
		Name: "Meridian"})).ID
	tried := func(machine int64, failed int) {
		must(actions.Diagnosis.Begin(ctx, technician, machine, diagnosis.DiagnosisInput{Symptom: "disk does not start",
			Factors: []diagnosis.FactorInput{{Name: "card", AssemblyID: &card}},
			Trials:  []diagnosis.TrialInput{{On: []string{"card"}, Runs: 1, Failed: failed}}}))
	}
	pairing := func() trials.Pairing {
		return must(actions.Diagnosis.Diagnoses(ctx, viewer, machine)).Boards[0].Pairing
	}
	tried(machine, 1)
	require.Equal(t, trials.NotTold, pairing(), "one machine tells nothing of the card")
	tried(other, 0)
	require.Equal(t, trials.BadPairing, pairing())
	require.Equal(t, "EH-2", must(actions.Diagnosis.Diagnoses(ctx, viewer, machine)).Boards[0].Machines[1].Accession)
	must(actions.Inventory.MoveAssembly(ctx, technician, card, 1, inventory.Move{To: "machine", MachineID: other}))
	offered := must(actions.Diagnosis.Diagnoses(ctx, viewer, other)).Offered
	require.Equal(t, []any{"part", "received Disk card from EH-1, slot 2"}, []any{offered[0].Kind, offered[0].Words})
}

func TestTrialsThatAreRefused(t *testing.T) {
	_, actions := newApp(t)
	machine, _, _ := poweredUp(t, actions)
	none := int64(999)
	for field, in := range map[string]diagnosis.DiagnosisInput{
		"symptom":               {},
		"since":                 {Symptom: "a", Since: "2999-01-01"},
		"factors[1]":            {Symptom: "a", Factors: []diagnosis.FactorInput{{Name: "x"}, {Name: "x"}}},
		"factors[0].assemblyId": {Symptom: "a", Factors: []diagnosis.FactorInput{{Name: "x", AssemblyID: &none}}},
		"trials[0].on[0]":       {Symptom: "a", Trials: []diagnosis.TrialInput{{On: []string{"x"}}}},
		"trials[0].failed":      {Symptom: "a", Trials: []diagnosis.TrialInput{{Runs: 2, Failed: 3}}},
		"trials[0].day":         {Symptom: "a", Trials: []diagnosis.TrialInput{{Runs: 2, Day: "soon"}}},
	} {
		var invalid *action.Invalid
		require.ErrorAs(t, second(actions.Diagnosis.Begin(ctx, technician, machine, in)), &invalid, field)
		require.Equal(t, field, invalid.Field)
	}
	require.ErrorIs(t, second(actions.Diagnosis.Begin(ctx, viewer, machine, diagnosis.DiagnosisInput{Symptom: "a"})),
		action.ErrForbidden)
}

// A memory test on the console leads to the very chip on the picture; another machine of the model offers its layout.
func TestAMemoryTestLeadsToAChip(t *testing.T) {
	_, actions := newApp(t)
	machine := must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: "EH-1",
		Name: "Meridian"})).ID
	board := must(actions.Sheets.TakeOverSheet(ctx, curator, machine, "== Memory\nU40-U47 4164-15 @socket"))[0].ID
	memory := func() diagnosis.MachineMemory { return must(actions.Diagnosis.Memory(ctx, viewer, machine)) }
	said := func(text, on string) {
		must(actions.Console.KeepText(ctx, technician, machine, console.TextInput{Text: text, On: on}))
	}
	said("MEMORY TEST\nADDR 0A01 EXP FF ACT FB\n", "2026-03-01")
	require.Equal(t, []any{1, 0, 0}, []any{memory().Tests[0].Failed, len(memory().Tests[0].Suspects),
		memory().Layout.Version})

	in := diagnosis.MemoryLayoutInput{Layout: "low 0-FFFF U40-U47\nhigh 10000-1FFFF U50-U57", Syndromes: "0b 3", Note: "manual"}
	written := must(actions.Diagnosis.ChangeLayout(ctx, technician, machine, 0, in))
	require.Equal(t, []any{1, in}, []any{written.Version, written.MemoryLayoutInput})
	first := memory().Tests[0].Suspects[0]
	require.Equal(t, []any{"U42", memfault.Chip}, []any{first.Designator, first.Kind})
	require.Equal(t, []any{board, "4164-15", 1}, []any{first.Places[0].AssemblyID, first.Places[0].Marking, first.Places[0].Line})
	require.Empty(t, memory().Again)
	said("MEMORY TEST\nADDR 0B07 EXP FF ACT FB\nADDR 90000 EXP FF ACT FB\n", "2026-09-01")
	require.Equal(t, []string{"U42"}, memory().Again[0].Is)
	require.Equal(t, 3, memory().Tests[0].Problems[0].Line, "its line on the console")

	var stale *action.Stale
	require.ErrorAs(t, second(actions.Diagnosis.ChangeLayout(ctx, curator, machine, 0, in)), &stale)
	var invalid *action.Invalid
	for field, broken := range map[string]diagnosis.MemoryLayoutInput{"layout": {Layout: "low U40"},
		"syndromes": {Layout: "low 0-FF U1", Syndromes: "xyz"}} {
		require.ErrorAs(t, second(actions.Diagnosis.ChangeLayout(ctx, curator, machine, 1, broken)), &invalid)
		require.Equal(t, field, invalid.Field)
	}
	require.ErrorIs(t, second(actions.Diagnosis.ChangeLayout(ctx, viewer, machine, 1, in)), action.ErrForbidden)
}

// What one machine of a model has is offered to the next, until that has a layout of its own; another model offers nothing.
func TestALayoutIsOfferedToTheModel(t *testing.T) {
	_, actions := newApp(t)
	must(actions.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Tarn & Vole", Model: "Meridian 2"}))
	enter := func(accession, model string) int64 {
		return must(actions.Inventory.CreateMachine(ctx, curator, inventory.MachineInput{Accession: accession,
			Name: "One", Maker: "Tarn & Vole", Model: model})).ID
	}
	first, second, other := enter("EH-1", "Meridian 2"), enter("EH-2", "Meridian 2"), enter("EH-3", "Lantern")
	offered := func(machine int64) (found []string) {
		for _, one := range must(actions.Diagnosis.Memory(ctx, technician, machine)).Offered {
			found = append(found, one.Accession+": "+one.Layout)
		}
		return found
	}
	require.Empty(t, offered(second))
	in := diagnosis.MemoryLayoutInput{Layout: "low 0-FFFF U40-U47"}
	must(actions.Diagnosis.ChangeLayout(ctx, technician, first, 0, in))
	require.Equal(t, []string{"EH-1: low 0-FFFF U40-U47"}, offered(second))
	require.Empty(t, offered(other))
	require.Empty(t, offered(first))
	must(actions.Diagnosis.ChangeLayout(ctx, technician, second, 0, in))
	require.Empty(t, offered(second), "it has its own now")
}
