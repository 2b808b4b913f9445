package action_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
)

// Between the zones on both sides of the date line it is never the same day, whenever the test runs.
func TestTodayIsTheDayOfTheCollection(t *testing.T) {
	in := func(name string) action.Actor {
		zone, err := action.ZoneOf(name)
		require.NoError(t, err)
		return action.Actor{Zone: zone}
	}
	require.Greater(t, in("Pacific/Kiritimati").Today(), in("Etc/GMT+12").Today())
	require.Equal(t, in("").Today(), in("UTC").Today())
	require.Equal(t, "UTC", action.Actor{}.ZoneName())
	for _, name := range []string{"Local", "Estuary/House", "../etc/passwd", "/etc/localtime", "europe lisbon"} {
		_, err := action.ZoneOf(name)
		require.Error(t, err, name)
	}
}
