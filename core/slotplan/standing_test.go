package slotplan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"frugalheron/core/slotplan"
)

func at(slot string) *string { return &slot }

func TestWhatStandsInTheSlots(t *testing.T) {
	in := slotplan.Input{Slots: []slotplan.Slot{{ID: "1", Kind: "x"}, {ID: "2", Kind: "x"}, {ID: "3", Kind: "x"}},
		Chain: []string{"1", "2", "3"},
		Cards: []slotplan.Card{{ID: "wide", Kinds: []string{"x"}, At: at("1"), Span: 2}, {ID: "too wide",
			Kinds: []string{"x"}, At: at("3"), Span: 2},
			{ID: "out", Kinds: []string{"x"}}, {ID: "below", Kinds: []string{"x"}, At: at("2"),
				Chain: slotplan.Passes}}}
	s, err := slotplan.Stand(in)
	require.NoError(t, err)
	assert.Equal(t, map[string][]string{"1": {"wide"}, "2": {"wide", "below"}, "3": {"too wide"}}, s.In)
	assert.Empty(t, s.Fillers)
	in.Cards[0].At, in.Cards[1].At = nil, nil
	in.Cards[3].At = at("3")
	s, err = slotplan.Stand(in)
	require.NoError(t, err)
	assert.Equal(t, []string{"1", "2"}, s.Fillers)
	problems, err := slotplan.Problems(in)
	require.NoError(t, err)
	require.Len(t, problems, 2)
	assert.True(t, problems[0].IsFiller())
	in.Cards[3].At = at("9")
	_, err = slotplan.Stand(in)
	require.Error(t, err)
	_, err = slotplan.Problems(in)
	require.Error(t, err)
}

// What is equal is written in one way, so that it is one choice wherever it comes from.
func TestChoicesAreWrittenInOneWay(t *testing.T) {
	for text, want := range map[string]string{"300-31f": "300-31F", "0300-031F": "300-31F", "2F8": "2F8",
		" 3f8 - 3ff ": "3F8-3FF"} {
		c, err := slotplan.ChoiceOf("io", text)
		require.NoError(t, err, text)
		assert.Equal(t, want, c.String())
	}
	c, err := slotplan.ChoiceOf("irq", " 07 ")
	require.NoError(t, err)
	assert.Equal(t, slotplan.Number(7), c)
	for _, broken := range [][2]string{{"irq", "a"}, {"dma", "-1"}, {"io", "31f-300"}, {"memory", "high"}, {"io",
		""}, {"irq", "99999"}} {
		_, err := slotplan.ChoiceOf(broken[0], broken[1])
		require.Error(t, err, broken)
	}
}
