package app_test

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
)

// What the history has kept once is read for good: no kind of event that ever was may be forgotten, and each is done
// to records of which it is known who may read of them.
func TestEventsOfOldHistoriesAreKnown(t *testing.T) {
	kept, err := os.ReadFile("testdata/events.txt")
	require.NoError(t, err)
	listed := map[string]bool{}
	for line := range strings.Lines(string(kept)) {
		key, subject, _ := strings.Cut(strings.TrimSpace(line), "\t")
		listed[key] = true
		e := action.Events()[key]
		require.NotNil(t, e, "%s is in old histories", key)
		require.Equal(t, subject, e.Subjects()[0], key)
		require.NotPanics(t, func() { e.Of(subject) })
		// Rows of which nothing but the key is left are said, too.
		require.NotEmpty(t, e.Words("THIS", map[string]any{}, map[string]any{}), key)
	}
	for key, e := range action.Events() {
		require.True(t, listed[key], "%s is new: put it into testdata/events.txt", key)
		for _, kind := range e.Subjects() {
			require.True(t, action.IsSubject(kind), key)
		}
	}
	require.Panics(t, func() { action.NewEvent("note", "machine", nil) })
	require.Panics(t, func() { action.Events()["note"].Of("party") })
}
