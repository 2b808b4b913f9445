package app_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/pack"
)

// A pack is looked at before it is taken over, goes out as it came in, and is recognised on old sheets.
func TestReferencePacksComeInAndGoOut(t *testing.T) {
	_, actions, _, board := newBoard(t, inventory.MachineInput{}, "== Board\nU1-U3 HX7200-2 8530\nU4 HX7300 8531")
	const types = "function,number,class,currents,substitutes,documents\n" +
		"\"link, serial\",hx7200,own,\"+5 120/180, -12 8\",HX7201,\"Data book 1983\nErrata 1984\"\n" +
		"timer,HX7300,support,,,\n"
	dry, err := actions.Library.TakePack(ctx, curator, types, true, false)
	require.NoError(t, err)
	require.False(t, dry.Taken)
	require.Equal(t, []library.PackRow{
		{Line: 2, Number: "HX7200", State: "new", Differences: []pack.Unlike{}},
		{Line: 4, Number: "HX7300", State: "new", Differences: []pack.Unlike{}}}, dry.Rows)
	own, err := actions.Library.SearchLibrary(ctx, viewer, "", 10)
	require.NoError(t, err)
	require.Empty(t, own)
	taken, err := actions.Library.TakePack(ctx, curator, types, false, false)
	require.NoError(t, err)
	require.True(t, taken.Taken)
	require.Equal(t, 4, taken.Recognised)
	entries, err := actions.Sheets.Entries(ctx, viewer, board.ID, 0, 10)
	require.NoError(t, err)
	require.Equal(t, "HX7200", entries[0].TypeNumber)
	again, err := actions.Library.ExportPack(ctx, viewer)
	require.NoError(t, err)
	same, err := actions.Library.TakePack(ctx, curator, string(again.Data), true, false)
	require.NoError(t, err)
	for _, row := range same.Rows {
		require.Equal(t, "same", row.State)
	}
	own, err = actions.Library.SearchLibrary(ctx, viewer, "HX72", 10)
	require.NoError(t, err)
	require.Equal(t, 120.0, own[0].TypicalMilliamps) // of +5 V, summed up for the machine
	require.Equal(t, "+5 120/180, -12 8", own[0].Own.Currents)
	other := strings.Replace(string(again.Data), "timer", "counter", 1)
	function := func() string { return must(actions.Library.SearchLibrary(ctx, viewer, "HX73", 10))[0].Own.Function }
	beside := must(actions.Library.TakePack(ctx, curator, other, false, false))
	require.Equal(t, "changed", beside.Rows[1].State)
	require.Equal(t, []pack.Unlike{{Field: "function", Here: "timer", Pack: "counter"}}, beside.Rows[1].Differences)
	require.Equal(t, "timer", function(), "it stands beside ours, and is not written over it")
	must(actions.Library.TakePack(ctx, curator, other, false, true))
	require.Equal(t, "counter", function())

	// One wrong line, and nothing is taken over.
	for text, want := range map[string]string{
		"number,class,function\nHX1,own,x\nHX2,tube,y":  `class: "tube" is not known`,
		"number,class,function,words\nHX1,dram,x,many":  `words: "many" is no number`,
		"number,class,function,currents\nHX1,own,x,5 V": "is no current of a rail",
		"number,class,function\nHX1,own,x\nhx1,own,y":   "HX1 stands in line 2 already",
		"number,class,function\nHX1,own,":               "say what the device does",
	} {
		wrong, err := actions.Library.TakePack(ctx, curator, text, false, false)
		require.NoError(t, err)
		require.False(t, wrong.Taken)
		require.Contains(t, wrong.Rows[len(wrong.Rows)-1].Why, want)
	}
	for text, want := range map[string]string{"": "names the columns", "number,class,colour\n": `"colour" is not known`,
		"number,class\nx,y": "function is missing", "number,class,function\n\"x": "quote"} {
		var invalid *action.Invalid
		_, err := actions.Library.TakePack(ctx, curator, text, true, false)
		require.ErrorAs(t, err, &invalid)
		require.Contains(t, invalid.Why, want)
	}
	_, err = actions.Library.TakePack(ctx, technician, types, true, false)
	require.ErrorIs(t, err, action.ErrForbidden)
}

func TestMakersHaveTies(t *testing.T) {
	_, actions, _, _ := newBoard(t, inventory.MachineInput{Maker: "Brackwater Micro"}, "== Board\nU1 7400")
	fields := library.MakerInput{Name: "Brackwater Micro", Founded: "1978",
		Ties: "renamed | Brackwater Systems | 1986 | letterheads"}
	added, err := actions.Library.AddMaker(ctx, technician, fields)
	require.NoError(t, err)
	require.Equal(t, "was renamed Brackwater Systems, 1986", added.Told[0].Words)
	require.Equal(t, 1, added.Machines)
	var invalid *action.Invalid
	_, err = actions.Library.AddMaker(ctx, technician, library.MakerInput{Name: "BRACKWATER micro"})
	require.ErrorAs(t, err, &invalid)
	fields.Ties = "friend | X"
	_, err = actions.Library.ChangeMaker(ctx, technician, added.ID, added.Version, fields)
	require.ErrorAs(t, err, &invalid)
	require.Equal(t, "ties", invalid.Field)
	fields.Ties = ""
	changed, err := actions.Library.ChangeMaker(ctx, technician, added.ID, added.Version, fields)
	require.NoError(t, err)
	require.Empty(t, changed.Told)
	var stale *action.Stale
	_, err = actions.Library.ChangeMaker(ctx, technician, added.ID, added.Version, fields)
	require.ErrorAs(t, err, &stale)
	found, err := actions.Library.Makers(ctx, viewer, "brack")
	require.NoError(t, err)
	require.Len(t, found, 1)
}
