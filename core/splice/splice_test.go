package splice_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/splice"
)

func TestASpliceTurnsAnyRowIntoALaterOne(t *testing.T) {
	same := func(a, b int) bool { return a == b }
	rapid.Check(t, func(t *rapid.T) {
		row := rapid.SliceOfN(rapid.IntRange(0, 3), 0, 12)
		older, later := row.Draw(t, "older"), row.Draw(t, "later")
		between := splice.Between(older, later, same)
		got, ok := between.Of(older)
		require.True(t, ok)
		require.Equal(t, append([]int{}, later...), append([]int{}, got...))
		require.LessOrEqual(t, between.Head+between.Tail, min(len(older), len(later)))

		one := rapid.IntRange(0, len(older)).Draw(t, "at")
		withOne := append(append(append([]int{}, older[:one]...), 9), older[one:]...)
		require.Equal(t, []int{9}, splice.Between(older, withOne, same).Put, "one thing put in is all that is told")
	})
	_, ok := splice.Splice[int]{Head: 2, Tail: 2}.Of([]int{1, 2, 3})
	require.False(t, ok)
}
