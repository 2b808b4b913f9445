package app_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/inventory"
	"frugalheron/app/teardown"
)

// What was begun stands among what is in hand until it is ended, each with how far it came.
func TestWhatIsInHand(t *testing.T) {
	_, actions, machine, _ := newBoard(t, inventory.MachineInput{}, judgedSheet)
	begun, err := actions.Bench.InHand(ctx, viewer)
	require.NoError(t, err)
	require.Empty(t, begun)
	now, err := actions.Condition.StartSurvey(ctx, technician, machine.ID, "2026-05-01", "")
	require.NoError(t, err)
	now, err = actions.Condition.JudgeItem(ctx, technician, now.Running.ID, now.Running.Version, "batteries",
		inspected())
	require.NoError(t, err)
	log, err := actions.Teardown.StartTeardown(ctx, technician, machine.ID, teardown.StartedTeardown{Purpose: "clean",
		Rows: 4, Columns: 6})
	require.NoError(t, err)
	begun, err = actions.Bench.InHand(ctx, viewer)
	require.NoError(t, err)
	require.Len(t, begun, 2)
	require.Equal(t, []any{"survey", 1, "log", 0, machine.ID, machine.Accession},
		[]any{begun[0].Kind, begun[0].Done, begun[1].Kind, begun[1].Done, begun[1].MachineID, begun[1].Accession})
	_, err = actions.Condition.EndSurvey(ctx, technician, now.Running.ID, now.Running.Version, "worn", "")
	require.NoError(t, err)
	_, err = actions.Teardown.EndTeardown(ctx, technician, log.ID)
	require.NoError(t, err)
	begun, err = actions.Bench.InHand(ctx, viewer)
	require.NoError(t, err)
	require.Empty(t, begun)
}

// What nobody knows is counted by sort, each once wherever it occurs.
func TestHowMuchNobodyKnows(t *testing.T) {
	_, actions, _, _ := newBoard(t, inventory.MachineInput{}, "== Main board\nU1 HX7200 8102\nU2 HX7200 8103\nU3 QQ11 8104")
	counts, err := actions.Unknowns.Counts(ctx, viewer)
	require.NoError(t, err)
	require.Len(t, counts, 1)
	require.Equal(t, "chip", counts[0].Sort)
	require.Equal(t, 2, counts[0].Count)
	require.False(t, counts[0].More)
}
