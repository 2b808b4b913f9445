package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/condition"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/teardown"
	"frugalheron/core/annotation"
	"frugalheron/store/blobs"
)

// A record of another machine is refused wherever a field names it, saying where it is.
func TestRecordsOfAnotherMachineAreRefused(t *testing.T) {
	_, actions, machine, board := newBoard(t, inventory.MachineInput{}, "== Main board\nBT1 NiCd 3.6V")
	kept, err := blobs.Open(ctx, t.TempDir())
	require.NoError(t, err)
	actions.WithBlobs(kept)
	other := must(actions.Inventory.CreateMachine(ctx, curator,
		inventory.MachineInput{Accession: "EH-2", Name: "Other"}))
	card := must(actions.Sheets.TakeOverSheet(ctx, technician, other.ID, "== Card\nBT1 NiCd"))[0]
	lot := must(actions.Arrivals.Receive(ctx, curator, arrivals.AcquisitionInput{Title: "Clear-out", Method: "gift"},
		nil))
	picture := func(owner files.Owner, shade uint8) files.Attachment {
		return must(actions.Files.Attach(ctx, technician, owner, "x.png", shadedPNG(t, shade)))
	}
	ours, theirs, ofLot := picture(files.Owner{MachineID: &machine.ID}, 1),
		picture(files.Owner{MachineID: &other.ID}, 2),
		picture(files.Owner{AcquisitionID: &lot.ID}, 3)
	found := must(actions.Condition.NoteFinding(ctx, technician, other.ID,
		condition.NotedFinding{Subsystem: "plastics",
			ObservedFinding: condition.ObservedFinding{New: &condition.FindingInput{Kind: "yellowed"},
				Severity: "cosmetic"}}))
	finding := found.Findings[0].ID
	log := must(actions.Teardown.StartTeardown(ctx, technician, machine.ID,
		teardown.StartedTeardown{Purpose: "to look", Rows: 2, Columns: 2}))
	seen := func(f condition.FindingInput) error {
		f.Kind = "leaking"
		return second(actions.Condition.NoteFinding(ctx, technician, machine.ID,
			condition.NotedFinding{Subsystem: "batteries",
				ObservedFinding: condition.ObservedFinding{New: &f, Severity: "repair"}}))
	}
	measured := func(w condition.MeasurementInput) error {
		w.Line = "BT1 2.1 V"
		return second(actions.Condition.Measure(ctx, technician, machine.ID, w))
	}
	cited := func(picture int64) error {
		fields := said("weight", "9 kg", "label")
		fields.PictureID = &picture
		return second(actions.Evidence.StateEvidence(ctx, technician, machine.ID, fields))
	}
	drawn := annotation.Annotation{Callouts: []annotation.Callout{{Designator: "BT1", X: 0.5, Y: 0.5}}, Blocks: []annotation.Block{}}
	for _, test := range []struct {
		rule, field string
		err         error
	}{
		{"board of a finding", "assemblyId", seen(condition.FindingInput{AssemblyID: &card.ID})},
		{"picture of a finding", "attachmentId", seen(condition.FindingInput{AttachmentID: &theirs.ID})},
		{"finding that is gone", "findingId",
			second(actions.Condition.NoteFinding(ctx, technician, machine.ID,
				condition.NotedFinding{
					ObservedFinding: condition.ObservedFinding{FindingID: finding, Severity: "cosmetic", Gone: true},
				}))},
		{"board of a measurement", "assemblyId", measured(condition.MeasurementInput{AssemblyID: &card.ID})},
		{"picture of a measurement", "attachmentId", measured(condition.MeasurementInput{AttachmentID: &theirs.ID})},
		{"finding of a measurement", "findingId", measured(condition.MeasurementInput{FindingID: &finding})},
		{"picture of a step", "pictures",
			second(actions.Teardown.AddStep(ctx, technician, log.ID,
				teardown.StepInput{Line: "Lid", Pictures: []int64{ours.ID, theirs.ID}}))},
		{"board of a drawing", "assemblyId",
			second(actions.Files.Annotate(ctx, technician, ours.ID, 0, card.ID, drawn, nil))},
		{"picture that is evidence", "pictureId", cited(theirs.ID)},
	} {
		var invalid *action.Invalid
		require.ErrorAs(t, test.err, &invalid, test.rule)
		require.Equal(t, test.field, invalid.Field, test.rule)
		require.Contains(t, invalid.Why, "belongs to EH-2; choose one of EH-0142", test.rule)
	}
	require.ErrorContains(t, measured(condition.MeasurementInput{AssemblyID: ptr(int64(999))}),
		"there is no board 999")
	// Its own are taken; so is evidence from a lot, and pictures of the lot that it came with.
	require.NoError(t, seen(condition.FindingInput{AssemblyID: &board.ID, AttachmentID: &ours.ID}))
	require.NoError(t, measured(condition.MeasurementInput{AssemblyID: &board.ID, AttachmentID: &ours.ID}))
	require.NoError(t, second(actions.Files.Annotate(ctx, technician, ours.ID, 0, board.ID, drawn, nil)))
	require.NoError(t, cited(ofLot.ID))
	require.Error(t, seen(condition.FindingInput{AttachmentID: &ofLot.ID}))
}
