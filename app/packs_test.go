package app_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/app/packs"
	"frugalheron/app/teardown"
	"frugalheron/core/pack"
)

// packOf is a library as a file, changed first.
func packOf(t *testing.T, of *app.App, change func(p *packs.Pack)) string {
	var p packs.Pack
	require.NoError(t, json.Unmarshal(must(of.Packs.Export(ctx, viewer)).Data, &p))
	change(&p)
	text, err := json.Marshal(p)
	require.NoError(t, err)
	return string(text)
}

func packStates(taken packs.LibraryPackTaken) (told []string) {
	for _, r := range taken.Rows {
		told = append(told, string(r.State))
	}
	return told
}

// takeable chooses what can be taken.
func takeable(look packs.LibraryPackTaken) (choices []packs.PackChoice) {
	for _, r := range look.Rows {
		if r.CanBeTaken {
			choices = append(choices, packs.PackChoice{N: r.N, State: r.State})
		}
	}
	return choices
}

// A library goes from one collection to another whole, and what is there already is the same; what contradicts stands
// beside it, and nothing is written over.
func TestALibraryGoesToAnotherCollectionAndNothingIsWrittenOver(t *testing.T) {
	_, theirs := newApp(t)
	_, ours := newApp(t)
	must(theirs.Library.NameType(ctx, curator, library.OwnTypeInput{Number: "HX7200", Function: "timer"}))
	must(theirs.Library.NameKnown(ctx, curator, library.KnownInput{Name: "Memory card", Numbers: "4424-1",
		Details: "jumper JP1 | 1-2 = 256 KB", Signs: "lamps 1 | any | it is spoken to"}))
	must(theirs.Library.AddModel(ctx, curator, library.ModelInput{Maker: "Tarn & Vole", Model: "Meridian 2",
		Facts: "slots = 5 | handbook", Signs: "code E4 | any | no keyboard"}))
	must(theirs.Teardown.AddProcedure(ctx, curator, teardown.ProcedureInput{Maker: "Tarn & Vole", Model: "Meridian 2",
		Title: "Down to the board", Body: "Lid | 4x M3x8 PH1 @A1"}))
	whole := packOf(t, theirs, func(p *packs.Pack) { p.Of = "Gull Point" })

	look := must(ours.Packs.Take(ctx, curator, whole, nil))
	require.Equal(t, []string{"new", "new", "new", "new"}, packStates(look))
	require.Empty(t, must(ours.Library.Models(ctx, viewer, "")), "looking takes nothing")
	require.Equal(t, 4, must(ours.Packs.Take(ctx, curator, whole, takeable(look))).Taken)
	require.Equal(t, []string{"same", "same", "same", "same"}, packStates(must(ours.Packs.Take(ctx, curator, whole, nil))))
	require.JSONEq(t, whole, packOf(t, ours, func(p *packs.Pack) { p.Of = "Gull Point" }))

	other := packOf(t, theirs, func(p *packs.Pack) {
		p.Of = "Gull Point"
		p.Types[0].Function = "counter"
		p.KnownAssemblies[0].Details = "jumper JP1 | 1-2 = 512 KB"
		p.Models[0].Facts = "slots = 4 | leaflet"
		p.Models[0].Signs += "\ncode E5 | any | no disk"
		p.Procedures[0].Body = "Lid | 2x M3x8 PH1 @A1"
	})
	look = must(ours.Packs.Take(ctx, curator, other, nil))
	require.Equal(t, []string{"beside", "beside", "beside", "beside"}, packStates(look))
	require.False(t, look.Rows[0].CanBeTaken, "a number has one type")
	require.Equal(t, pack.Unlike{Field: "details", Here: "jumper JP1 | 1-2 = 256 KB",
		Pack: "jumper JP1 | 1-2 = 512 KB"}, look.Rows[1].Differences[0])
	require.Equal(t, 3, must(ours.Packs.Take(ctx, curator, other, takeable(look))).Taken)
	require.Len(t, must(ours.Library.KnownAssemblies(ctx, viewer, "", 0, 9)).Known, 2, "both claim the number")
	model := must(ours.Library.Models(ctx, viewer, ""))[0]
	require.Equal(t, "slots = 5 | handbook\nslots = 4 | leaflet", model.Facts)
	require.Equal(t, "code E4 | any | no keyboard\ncode E5 | any | no disk", model.Signs)
	require.Equal(t, "disputed", string(must(ours.Library.ModelTold(ctx, curator, model.ID)).Told[0].State))
	require.Len(t, must(ours.Teardown.Procedures(ctx, viewer)), 2)
	again := must(ours.Packs.Take(ctx, curator, other, nil))
	require.Equal(t, []string{"beside", "same", "same", "same"}, packStates(again))

	_, err := ours.Packs.Take(ctx, curator, other, []packs.PackChoice{{N: 2, State: pack.New}})
	require.ErrorContains(t, err, "look at the pack again")
	_, err = ours.Packs.Take(ctx, technician, whole, nil)
	require.ErrorIs(t, err, action.ErrForbidden)
}

// What cannot be read is refused with its line; an entry that cannot be one is named, and keeps no other from being taken
// unless it is chosen itself.
func TestAPackThatIsWrong(t *testing.T) {
	_, actions := newApp(t)
	const head = `{"format": "heron-library", "version": 1, "of": "", "types": [], "procedures": [], `
	for text, want := range map[string]string{
		"{\n\"format\": \"heron-library\",\n!":                                "line 3",
		`{"format": "other"}`:                                                 `the file of a library says "heron-library"`,
		`{"format": "heron-library", "version": 9}`:                           "version 9",
		`{"format": "heron-library", "version": 1, "chips": []}`:              "newer version",
		`{"format": "heron-library", "version": 1} {}`:                        "behind the end",
		`{"format": "heron-library", "version": 1, "models": [{"maker": 3}]}`: "maker",
	} {
		_, err := actions.Packs.Take(ctx, curator, text, nil)
		require.ErrorContains(t, err, want)
	}
	text := head + `"models": [{"maker": "Vole", "model": "", "facts": ""}, {"maker": "Vole", "model": "Lantern",
		"signs": "blink"}, {"maker": "Vole", "model": "Lido"}, {"maker": "vole", "model": "LIDO"}],
		"knownAssemblies": [{"name": "` + strings.Repeat("x", 300) + `", "numbers": "1234"}, {"name": "Card", "numbers":
		"4424", "kind": "lamp"}]}`
	look := must(actions.Packs.Take(ctx, curator, text, nil))
	require.Equal(t, []string{"wrong", "wrong", "wrong", "wrong", "new", "wrong"}, packStates(look))
	require.Contains(t, look.Rows[0].Why, "longer than 200 characters")
	require.Contains(t, look.Rows[3].Why, `begins with "blink"`)
	require.Contains(t, look.Rows[5].Why, "stands in the pack as number 5 already")
	require.Equal(t, 1, must(actions.Packs.Take(ctx, curator, text, takeable(look))).Taken)
	_, err := actions.Packs.Take(ctx, curator, text, []packs.PackChoice{{N: 1, State: pack.Wrong}})
	require.ErrorContains(t, err, "cannot be taken")
	_, err = actions.Packs.Take(ctx, curator, text, []packs.PackChoice{{N: 99, State: pack.New}})
	require.ErrorContains(t, err, "there is no 99")
}
