package app_test

import (
	"bytes"
	"image"
	"image/png"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/evidence"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/unknowns"
	"frugalheron/core/annotation"
	"frugalheron/core/identification"
	"frugalheron/store/blobs"
)

// An answer settles chips on several machines at once, and the history of each says so.
func TestAnAnswerSettlesChipsOnSeveralMachines(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{},
		"== Main board\nU1 HX9041-2 8536\nU2 SC8720?P 8538\nU3 ?\nU4 7400")
	other, err := actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-0201", Name: "Other"})
	require.NoError(t, err)
	board, err := actions.Inventory.AddAssembly(ctx, technician, other.ID, inventory.AssemblyInput{Title: "Board"})
	require.NoError(t, err)
	_, err = actions.Sheets.SaveSheet(ctx, technician, board.ID, 0, "U7-U9 HX9041 8601")
	require.NoError(t, err)

	all, err := actions.Unknowns.Unknowns(ctx, viewer, 0)
	require.NoError(t, err)
	require.Len(t, all.Open, 3)
	first := all.Open[0]
	require.Equal(t, "HX9041", first.Subject)
	require.Equal(t, []int{4, 2}, []int{first.Parts, first.Machines})
	require.True(t, first.Nameable)
	require.Equal(t, "reading", all.Open[1].Sort)
	require.Equal(t, "7400", all.Open[2].Places[0].Neighbours)

	asked, err := actions.Unknowns.Ask(ctx, technician, unknowns.QuestionInput{Sort: "chip", Subject: "HX9041"})
	require.NoError(t, err)
	var invalid *action.Invalid
	_, err = actions.Unknowns.Ask(ctx, technician, unknowns.QuestionInput{Sort: "chip", Subject: "HX9041"})
	require.ErrorAs(t, err, &invalid)
	_, err = actions.Unknowns.Ask(ctx, viewer, unknowns.QuestionInput{Sort: "other", Subject: "x"})
	require.ErrorIs(t, err, action.ErrForbidden)
	require.ErrorAs(t, actions.Unknowns.GuessAt(ctx, technician, asked.ID, "a bus unit", ""), &invalid)
	require.NoError(t, actions.Unknowns.GuessAt(ctx, technician, asked.ID, "a bus unit",
		"it sits beside the processor"))
	asked, err = actions.Unknowns.ChangeQuestion(ctx, technician, asked.ID, asked.Version, "40 pins", "the repair club")
	require.NoError(t, err)
	answer := unknowns.Answer{Answer: "bus unit", Source: "data book",
		Type: &library.OwnTypeInput{Number: "HX9041", Function: "bus unit"}}
	var stale *action.Stale
	_, err = actions.Unknowns.AnswerQuestion(ctx, technician, asked.ID, asked.Version-1, answer)
	require.ErrorAs(t, err, &stale)
	settled, err := actions.Unknowns.AnswerQuestion(ctx, technician, asked.ID, asked.Version, answer)
	require.NoError(t, err)
	require.Equal(t, []int{4, 2}, []int{settled.Recognised, settled.Machines})
	for _, id := range []int64{machine.ID, other.ID} {
		history, err := actions.History.History(ctx, viewer, id, 0, 3)
		require.NoError(t, err)
		require.Contains(t, history.Events[0].What, "as HX9041: bus unit")
	}
	here, err := actions.Unknowns.Unknowns(ctx, viewer, other.ID)
	require.NoError(t, err)
	require.Empty(t, here.Open)
	all, err = actions.Unknowns.Unknowns(ctx, viewer, 0)
	require.NoError(t, err)
	require.Len(t, all.Open, 2)
	require.Equal(t, "bus unit", all.Answered[0].Answer)
	require.Equal(t, "it sits beside the processor", all.Answered[0].Guesses[0].Reason)
	// A question of its own, about nothing on a sheet.
	_, err = actions.Unknowns.Ask(ctx, technician,
		unknowns.QuestionInput{Sort: "connector", Subject: "nine pins", MachineID: &other.ID})
	require.NoError(t, err)
	here, err = actions.Unknowns.Unknowns(ctx, viewer, other.ID)
	require.NoError(t, err)
	require.Equal(t, "nine pins", here.Open[0].Subject)
}

func TestAMachineIsDatedAndComparedWithItsModel(t *testing.T) {
	_, actions, machine, _ := newBoard(t,
		inventory.MachineInput{Maker: "Tarn & Vole", Model: "Meridian 2", EraFrom: year(1984), EraTo: year(1988)},
		"== Main board | part 4410-2\n"+
			"U1 7400 8530\nU2 7402 8531\nU3 7404 8532\nU4 7408 8533\nU5 7410 8534\nU6 7420 8535\n"+
			"U7 7430 8536")
	card, err := actions.Inventory.AddAssembly(ctx, technician, machine.ID,
		inventory.AssemblyInput{Title: "Memory card", Part: "4424-1", Kind: "card"})
	require.NoError(t, err)
	_, err = actions.Sheets.SaveSheet(ctx, technician, card.ID, 0, "U1 41256-15 8711")
	require.NoError(t, err)
	d, err := actions.Dating.Dating(ctx, viewer, machine.ID)
	require.NoError(t, err)
	require.Equal(t, "1985-09-02", d.Result.NotBefore.String())
	require.Equal(t, "later", d.Result.Outliers[0].Verdict)
	require.Equal(t, "Memory card, U1", d.Result.Outliers[0].ID)
	require.Nil(t, d.Model)
	require.Equal(t, "period", d.Assemblies[1].Counts)

	var invalid *action.Invalid
	_, err = actions.Library.AddModel(ctx, technician,
		library.ModelInput{Maker: "Tarn & Vole", Model: "Meridian 2", Expected: "Main board\n| part 3"})
	require.ErrorAs(t, err, &invalid)
	require.Contains(t, invalid.Why, "line 2")
	known, err := actions.Library.AddModel(ctx, technician,
		library.ModelInput{Maker: "tarn & vole", Model: "MERIDIAN 2", Made: "1982 / 1984",
			Expected: "Main board | part 4410-1\nMemory card | part 4424-1 | option\nSupply"})
	require.NoError(t, err)
	require.Equal(t, "1982/1984", known.Made)
	_, err = actions.Library.AddModel(ctx, technician, library.ModelInput{Maker: "Tarn & Vole", Model: "Meridian 2"})
	require.ErrorAs(t, err, &invalid)
	_, err = actions.Evidence.StateEvidence(ctx, technician, machine.ID,
		evidence.StatementInput{Attribute: "built", Value: "1985-02",
			Citation: evidence.Citation{Kind: "label", Cited: "plate"}})
	require.NoError(t, err)
	fields := card.AssemblyInput
	fields.Fit = "later"
	_, err = actions.Inventory.ChangeAssembly(ctx, technician, card.ID, card.Version, fields)
	require.NoError(t, err)
	d, err = actions.Dating.Dating(ctx, viewer, machine.ID)
	require.NoError(t, err)
	states := []string{}
	for _, row := range d.Holdings {
		states = append(states, string(row.State))
	}
	require.Equal(t, []string{"other part number", "not original", "missing"}, states)
	require.Equal(t, "later", d.Assemblies[1].Counts) // what somebody decided, over the dates
	require.Equal(t, "period", string(d.Assemblies[1].Reckoned.Originality))
	why := ""
	for _, c := range d.Result.Conflicts {
		why += c.Why + "; "
	}
	require.Contains(t, why, "the board was exchanged")
	require.Contains(t, why, "the model was made until 1984-12-31 only")
	known.Made = "1984/1988"
	_, err = actions.Library.ChangeModel(ctx, technician, known.ID, known.Version, known.ModelInput)
	require.NoError(t, err)
}

func year(y int) *int { return &y }

func TestAMysteryIsWeighedAndDecided(t *testing.T) {
	_, actions, _, board := newBoard(t, inventory.MachineInput{}, "== Board\nU1 7400")
	written := unknowns.IdentificationInput{
		Hypotheses: []identification.Hypothesis{{ID: 1, Text: "a disk controller"}, {ID: 2, Text: "a computer"}},
		Evidence: []unknowns.IdentificationEvidence{
			{ID: 1, Text: "34 pins", Presence: identification.Found,
				Weights: []unknowns.IdentificationWeight{{HypothesisID: 1, Weight: 2}, {HypothesisID: 7, Weight: 3}}},
			{ID: 2, Text: "a start vector", Presence: identification.Open,
				Weights: []unknowns.IdentificationWeight{{HypothesisID: 2, Weight: 3}}},
		},
	}
	told, err := actions.Unknowns.WeighIdentification(ctx, technician, board.ID, 0, written)
	require.NoError(t, err)
	require.Equal(t, "a disk controller", told.Weighing.Ranking[0].Text)
	require.Equal(t, "a start vector", told.Weighing.Next[0].Text)
	require.Len(t, told.Evidence[0].Weights, 1) // nothing is weighed for an explanation that is not there
	var stale *action.Stale
	_, err = actions.Unknowns.WeighIdentification(ctx, technician, board.ID, 0, written)
	require.ErrorAs(t, err, &stale)
	var invalid *action.Invalid
	written.Decision = &unknowns.IdentificationDecision{HypothesisID: 1, Sure: "likely"}
	_, err = actions.Unknowns.WeighIdentification(ctx, technician, board.ID, told.Version, written)
	require.ErrorAs(t, err, &invalid)
	written.Decision.Reason = "it works as one"
	told, err = actions.Unknowns.WeighIdentification(ctx, technician, board.ID, told.Version, written)
	require.NoError(t, err)
	history, err := actions.History.History(ctx, viewer, 0, 0, 1)
	require.NoError(t, err)
	require.Contains(t, history.Events[0].What, "is a disk controller (likely): it works as one")
	identifications, err := actions.Unknowns.Identifications(ctx, viewer, 0)
	require.NoError(t, err)
	require.Equal(t, told.Decision, identifications[0].Decision)

	// What its chips say is proposed until somebody accepts or drops it, and again when they say something else.
	keys := func() (keys string) {
		told, err = actions.Unknowns.Identification(ctx, viewer, board.ID)
		require.NoError(t, err)
		for _, p := range told.Proposals {
			keys += p.Key + " " + string(p.Presence) + ";"
		}
		return keys
	}
	require.Equal(t, "runs absent;disks absent;devices absent;moves-data absent;", keys())
	written.Evidence = append(written.Evidence, unknowns.IdentificationEvidence{ID: 3, Text: "controls disks",
		Presence: identification.Absent, Follows: "disks"})
	written.Dropped = []string{"runs", "devices", "moves-data"}
	_, err = actions.Unknowns.WeighIdentification(ctx, technician, board.ID, told.Version, written)
	require.NoError(t, err)
	require.Empty(t, keys())
	_, err = actions.Sheets.SaveSheet(ctx, technician, board.ID, 1, "U1 7400\nU2 ?")
	require.NoError(t, err)
	require.Equal(t, "disks open;", keys(), "a chip that nobody has named could be it")
	_, err = actions.Sheets.SaveSheet(ctx, technician, board.ID, 2, "U1 7400\nU2 765")
	require.NoError(t, err)
	require.Equal(t, "disks found;", keys())
}

func TestAPictureIsNumbered(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{}, "== Board\nU40-U48 41256-15\nX1 12 MHz")
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	actions.WithBlobs(kept)
	picture, err := actions.Files.Attach(ctx, technician, files.Owner{MachineID: &machine.ID}, "board.png", smallPNG(t))
	require.NoError(t, err)
	run := []string{"U40", "U41", "U42", "U43", "U44", "U45", "U46", "U47", "U48"}
	told, err := actions.Files.Annotate(ctx, technician, picture.ID, 0, board.ID, annotation.Annotation{},
		[]files.AnnotationRow{{Designators: run, X1: 0.1, Y1: 0.5, X2: 0.9, Y2: 0.5}})
	require.NoError(t, err)
	require.Len(t, told.Legend.Numbered, 9)
	require.InDelta(t, 0.5, told.Legend.Numbered[4].X, 1e-9)
	require.Equal(t, "X1", told.Legend.Unplaced[0].Designators[0])
	drawn := told.Annotation
	drawn.Blocks = []annotation.Block{{Name: "memory", Members: []string{"U40", "U48"}}}
	var stale *action.Stale
	_, err = actions.Files.Annotate(ctx, technician, picture.ID, 0, board.ID, drawn, nil)
	require.ErrorAs(t, err, &stale)
	told, err = actions.Files.Annotate(ctx, technician, picture.ID, told.Version, board.ID, drawn, nil)
	require.NoError(t, err)
	require.Len(t, told.Boxes, 1)
	var invalid *action.Invalid
	drawn.Callouts = drawn.Callouts[1:]
	_, err = actions.Files.Annotate(ctx, technician, picture.ID, told.Version, board.ID, drawn, nil)
	require.ErrorAs(t, err, &invalid)
	// The sheet changes: what it names no more is a stray.
	_, err = actions.Sheets.SaveSheet(ctx, technician, board.ID, 1, "U40-U47 41256-15\nX1 12 MHz")
	require.NoError(t, err)
	told, err = actions.Files.Annotation(ctx, viewer, picture.ID)
	require.NoError(t, err)
	require.Equal(t, []string{"U48"}, told.Legend.Strays)
	drawing, err := actions.Files.AnnotationDrawing(ctx, viewer, picture.ID, true)
	require.NoError(t, err)
	require.Contains(t, string(drawing.Data), "data:image/jpeg;base64,")
	require.Equal(t, 9, strings.Count(string(drawing.Data), "<circle"))
}

func smallPNG(t *testing.T) []byte { return shadedPNG(t, 0) }

func shadedPNG(t *testing.T, shade uint8) []byte {
	var file bytes.Buffer
	canvas := image.NewGray(image.Rect(0, 0, 8, 8))
	canvas.Pix[0] = shade
	require.NoError(t, png.Encode(&file, canvas))
	return file.Bytes()
}
