package app_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/app"
	"frugalheron/store"
	"frugalheron/store/storetest"
)

func TestPrivateNamesGiveWayToRoles(t *testing.T) {
	deeds := app.New(storetest.New(t))
	for _, p := range []store.PartyFields{
		{Name: "Marten Holloway", Kind: "person", Private: true, Role: "a former pilot", Spellings: "M. Holloway\nMarten Holloway junior\nHålløwåy (M+)"},
		{Name: "Isolde \"Izzy\" Fenwick", Kind: "person", Private: true, Role: "a bookkeeper's daughter & heir"},
		{Name: "Quill & Barrow", Kind: "organisation"},
	} {
		_, err := deeds.AddParty(ctx, curator, p)
		require.NoError(t, err)
	}
	privacy, err := deeds.Privacy(ctx)
	require.NoError(t, err)
	for text, want := range map[string]string{
		"From marten\n  HOLLOWAY, by Quill & Barrow": "From a former pilot, by Quill & Barrow",
		"Marten Holloway junior and M. Holloway":     "a former pilot and a former pilot",
		`bought of Isolde "Izzy" Fenwick's estate`:   "bought of a bookkeeper's daughter & heir's estate",
		"HÅLLØWÅY (m+)":                              "a former pilot",
		"Martens hollow away":                        "Martens hollow away",
		"":                                           "",
	} {
		require.Equal(t, want, privacy.Text(text))
	}
	document, err := json.Marshal(map[string]any{"Marten Holloway": []any{"Marten Holloway", 1.5, nil, true, map[string]any{"said": `Isolde "Izzy" Fenwick`}}, "cents": json.Number("9007199254740993")})
	require.NoError(t, err)
	clean, err := privacy.JSON(document)
	require.NoError(t, err)
	require.JSONEq(t, `{"Marten Holloway": ["a former pilot", 1.5, null, true, {"said": "a bookkeeper's daughter & heir"}], "cents": 9007199254740993}`, string(clean))

	// However it is written, and whatever stands around it, the name does not get through.
	rapid.Check(t, func(t *rapid.T) {
		around := rapid.StringMatching(`[ a-z"\\<>&\n]{0,12}`)
		space := rapid.SampledFrom([]string{" ", "  ", "\n", "\t", "\u00a0"}).Draw(t, "space")
		name := "Marten" + space + "Holloway"
		if rapid.Bool().Draw(t, "loud") {
			name = strings.ToUpper(name)
		}
		encoded, err := json.Marshal(around.Draw(t, "before") + name + around.Draw(t, "behind"))
		require.NoError(t, err)
		clean, err := privacy.JSON(encoded)
		require.NoError(t, err)
		require.NotContains(t, strings.ToLower(string(clean)), "holloway")
	})
	require.False(t, technician.Hides())
	require.True(t, viewer.Hides())
	require.True(t, app.Actor{}.Hides())
}
