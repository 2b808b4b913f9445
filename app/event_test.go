package app

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/store"
)

// What the history has kept once is read for good: no kind of event that ever was may be forgotten, and each is done
// to records of which it is known who may read of them.
func TestEventsOfOldHistoriesAreKnown(t *testing.T) {
	kept, err := os.ReadFile("testdata/events.txt")
	require.NoError(t, err)
	k := New(nil).Kernel
	listed := map[string]bool{}
	for line := range strings.Lines(string(kept)) {
		key, subject, _ := strings.Cut(strings.TrimSpace(line), "\t")
		listed[key] = true
		e := events[key]
		require.NotNil(t, e, "%s is in old histories", key)
		require.Equal(t, subject, e.subject, key)
		require.NotPanics(t, func() { e.of(subject) })
		// Rows of which nothing but the key is left are said, too, and give nothing away.
		told := k.tell(store.ToldEvent{Event: store.Event{Deed: key, SubjectKind: subject}}, strings.ToUpper)
		require.NotEmpty(t, told.What, key)
	}
	for key, e := range events {
		require.True(t, listed[key], "%s is new: put it into testdata/events.txt", key)
		for _, kind := range append(e.also, e.subject) {
			require.Contains(t, subjects, kind, key)
		}
	}
	require.Panics(t, func() { newEvent("note", "machine", nil) })
	require.Panics(t, func() { eventNote.of("party") })
	require.Equal(t, "of another version", k.tell(store.ToldEvent{Event: store.Event{Deed: "of another version"}}, strings.ToUpper).What)
}
