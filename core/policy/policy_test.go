package policy_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/job"
	"frugalheron/core/policy"
)

func ExampleCosts() {
	pieces := []policy.Piece{{Board: 1, Class: "electrolytic", Place: "C1", Words: "470u 16V"},
		{Board: 1, Class: "electrolytic", Place: "C2", Words: "470u 16V", IsBad: true},
		{Board: 2, Class: "safety-capacitor", Place: "C9", Words: "100n X2"}}
	for _, c := range policy.Costs("capacitors", pieces) {
		fmt.Println(c.Option, c.Pieces, "on", c.Boards, "boards,", c.Minutes, "minutes,", c.Needs)
	}
	// Output:
	// needed 2 on 2 boards, 74 minutes, [{470u 16V 1} {100n X2 1}]
	// all 3 on 2 boards, 74 minutes, [{470u 16V 2} {100n X2 1}]
}

// Every choice says what it means, its jobs are usual ones, and those that cannot be undone say so.
func TestQuestions(t *testing.T) {
	for _, q := range policy.Questions() {
		require.GreaterOrEqual(t, len(q.Options), 2, q.Key)
		for _, o := range q.Options {
			require.NotEmpty(t, o.Means, o.Key)
			_, usual := job.Of(o.Template)
			require.True(t, o.Template == "" || usual, o.Key)
			_, known := q.Of(o.Key)
			require.True(t, known)
		}
	}
	potted, _ := policy.QuestionOf("battery")
	cut, _ := potted.Of("potted-open")
	require.Equal(t, job.Never, cut.Reversible)
	_, known := policy.QuestionOf("hull")
	require.False(t, known)
	require.Empty(t, policy.Costs("hull", nil))
}

func TestTheJobThatFollows(t *testing.T) {
	pieces := []policy.Piece{{Board: 1, Class: "electrolytic", Place: "C1", Words: "470u 16V"},
		{Board: 1, Class: "electrolytic", Place: "C2", Words: "470u 16V", IsBad: true},
		{Board: 1, Class: "safety-capacitor", Place: "C9", Words: "100n X2"},
		{Board: 2, Class: "electrolytic", Place: "C1", Words: "10u 25V"},
		{Board: 1, Class: "battery-nicd", Place: "BT1", Words: "NiCd 3.6V"},
		{Board: 1, Class: "clock-module", Place: "U9", Words: "clock module"}}
	for name, c := range map[string]struct {
		chosen   map[string]string
		found    policy.Finding
		template string
		place    string
		needs    []string
		leave    bool
	}{
		"only the bad one": {map[string]string{"capacitors": "needed"}, policy.Finding{Board: 1, Place: "C2",
			Kind: "bulging"}, "capacitor", "C2", []string{"470u 16V"}, false},
		"all of the board": {map[string]string{"capacitors": "all"}, policy.Finding{Board: 1, Place: "C2",
			Kind: "bulging"}, "capacitor", "C1,C2", []string{"2 x 470u 16V"}, false},
		"one that can burn": {map[string]string{"capacitors": "needed"}, policy.Finding{Board: 1, Place: "C9",
			Kind: "cracked"}, "safety-capacitor", "C9", []string{"100n X2"}, false},
		"battery out": {map[string]string{"battery": "out"}, policy.Finding{Board: 1, Place: "BT1",
			Kind: "leaking", IsHazard: true}, "battery-out", "BT1", []string{}, false},
		"battery on leads": {map[string]string{"battery": "leads"}, policy.Finding{Board: 1, Place: "BT1",
			Kind: "flat"}, "battery-new", "BT1", []string{"battery holder with leads", "NiCd 3.6V"}, false},
		"a potted cell": {map[string]string{"battery": "module"}, policy.Finding{Board: 1, Place: "U9",
			Kind: "flat"}, "battery-new", "U9", []string{"clock module"}, false},
		"a trace of use": {map[string]string{"aim": "conserve"}, policy.Finding{Place: "lid", Kind: "scratched",
			IsCosmetic: true}, "", "", []string{}, true},
		"stuck": {map[string]string{"stuck": "left"}, policy.Finding{Place: "shaft", Kind: "seized"}, "",
			"", []string{}, true},
	} {
		a := policy.Advise(c.chosen, c.found, pieces)
		require.NotNil(t, a, name)
		require.Equal(t, c.template, a.Template, name)
		require.Equal(t, c.place, a.Place, name)
		require.Equal(t, c.needs, a.Needs, name)
		require.Equal(t, c.leave, a.Leave, name)
		require.NotEmpty(t, a.Why, name)
	}
	for name, c := range map[string]struct {
		chosen map[string]string
		found  policy.Finding
	}{
		"nobody chose": {map[string]string{}, policy.Finding{Board: 1, Place: "C2", Kind: "bulging"}},
		"a potted cell is no battery": {map[string]string{"battery": "out"}, policy.Finding{Board: 1, Place: "U9",
			Kind: "flat"}},
		"what may hurt is never left": {map[string]string{"stuck": "left"}, policy.Finding{Place: "fan",
			Kind: "seized", IsHazard: true}},
		"not only cosmetic": {map[string]string{"aim": "conserve"}, policy.Finding{Place: "lid",
			Kind: "cracked"}},
		"another board": {map[string]string{"capacitors": "all"}, policy.Finding{Board: 3, Place: "C2",
			Kind: "bulging"}},
	} {
		require.Nil(t, policy.Advise(c.chosen, c.found, pieces), name)
	}
}

// The class in one go never leaves out what the other school replaces, and never needs less.
func TestInOneGoHoldsAllThatIsNeeded(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pieces := rapid.SliceOf(rapid.Custom(func(t *rapid.T) policy.Piece {
			return policy.Piece{Board: int64(rapid.IntRange(1, 3).Draw(t, "board")),
				Place: rapid.StringMatching(`C[1-9]`).Draw(t, "place"),
				Class: rapid.SampledFrom([]string{"electrolytic", "smd-electrolytic", "tantalum", "safety-capacitor",
					"fan"}).Draw(t,
					"class"), Words: rapid.SampledFrom([]string{"1u", "10u", ""}).Draw(t, "words"),
				IsBad: rapid.Bool().Draw(t, "bad")}
		})).Draw(t, "pieces")
		costs := policy.Costs("capacitors", pieces)
		needed, all := costs[0], costs[1]
		require.GreaterOrEqual(t, all.Pieces, needed.Pieces)
		require.GreaterOrEqual(t, all.Boards, needed.Boards)
		require.Subset(t, all.Places, needed.Places)
		sum := 0
		for _, need := range all.Needs {
			require.NotEmpty(t, need.What)
			sum += need.Count
		}
		require.LessOrEqual(t, sum, all.Pieces)
	})
}
