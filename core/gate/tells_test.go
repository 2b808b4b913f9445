package gate_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/condition"
	"frugalheron/core/gate"
	"frugalheron/core/verdict"
)

// What a finding of a condition check counts as: by its subsystem, and by what is said of it.
func TestWhatAFindingCountsAs(t *testing.T) {
	for _, c := range []struct{ subsystem, words, want string }{
		{"safety-capacitors", "C5 cracked", "mains"}, {"cables", "mains lead brittle", "mains"},
		{"cables", "ribbon stiff", "other"}, {"switches", "power switch sparks", "mains"},
		{"switches", "reset sticky", "other"},
		{"supply", "fuse blown", "mains"}, {"supply", "bulging C3", "supply"},
		{"electrolytics", "C3 on Built-in supply", "supply"},
		{"electrolytics", "C3 on Main board", "board"}, {"tube", "dim", "tube"},
		{"batteries", "BT1 leaking", "battery"},
		{"clock-modules", "flat", "battery"}, {"cooling", "stands still", "cooling"}, {"plastics", "cracked", "other"},
	} {
		require.Equal(t, c.want, gate.CountsAs(c.subsystem, c.words), "%s %s", c.subsystem, c.words)
	}
	known := map[string]bool{"supply": true, "mains": true, "tube": true, "battery": true, "board": true,
		"cooling": true, "other": true}
	for _, s := range condition.Subsystems() {
		require.True(t, known[gate.CountsAs(s.Key, "")], s.Key)
	}
	require.True(t, gate.IsFan("fan 80 mm"))
	require.False(t, gate.IsFan("fantail board"))
}

// Rails stand once each however they are written: those that are needed first, with what was read last under load.
func TestRailsOfASupply(t *testing.T) {
	var s gate.Supply
	require.NoError(t, json.Unmarshal([]byte(`{"id":"a","kind":"mains","needs":["+5","-12"],"rating":{"+5V":10,"+12":2},
		"draw":{"+3.3":1},"rails":[{"rail":"+5","volts":5.3,"on":"2026-06-03","load":"none"},
		{"rail":"+5","volts":5.01,"on":"2026-06-02","load":"dummy"},
		{"rail":"VBB","volts":60,"on":"2026-06-01","load":"none"}]}`),
		&s))
	names := []string{}
	for _, rail := range gate.RailsOf(s) {
		names = append(names, rail.Name)
		switch rail.Name {
		case "+5":
			require.InDelta(t, 5.01, *rail.Volts, 1e-9, "under load, though it is older")
			require.InDelta(t, 10, *rail.Rating, 1e-9)
			require.InDelta(t, 5.25, *rail.High, 1e-9)
		case "-12":
			require.Nil(t, rail.Volts)
			require.InDelta(t, -13.2, *rail.Low, 1e-9)
			require.True(t, rail.Needed)
		case "VBB":
			require.Nil(t, rail.Low, "nobody knows what it should be")
		case "+3.3":
			require.InDelta(t, 1, *rail.Draw, 1e-9)
		}
	}
	require.Equal(t, []string{"+5", "-12", "VBB", "+12", "+3.3"}, names)
}

// The line of the reckoning is grave where somebody found danger, and quiet where nobody said anything yet.
func TestTheLineOfTheGate(t *testing.T) {
	quiet := gate.VerdictOf(judge(t, `{"now":"2026-11-28"}`))
	require.Equal(t, []string{"gate", "hold, 2 points missing"}, []string{quiet.Key, quiet.Value})
	require.NotEqual(t, verdict.Stop, quiet.State)
	require.Len(t, quiet.Why, 2)
	grave := judge(t, `{"now":"2026-11-28","batteries":[{"id":"BT1","state":"swollen"}]}`)
	require.True(t, grave.IsDangerous())
	require.Equal(t, verdict.Stop, gate.VerdictOf(grave).State)
	for danger, in := range map[bool]string{
		true:  `{"id":"BT1","state":"fitted","primary":true,"charged":true}`,
		false: `{"id":"BT1","state":"fitted","unknown":true,"charged":null}`,
	} {
		out := judge(t, `{"now":"2026-11-28","batteries":[`+in+`]}`)
		require.Equal(t, danger, out.IsDangerous(), in)
		require.Equal(t, "BT1", out.Missing[0].ID)
	}
}

// How a cell and a fan stand: what is out leaks no more, a leak goes before a swelling, and unsaid is unknown.
func TestHowCellsAndFansStand(t *testing.T) {
	for want, state := range map[string]string{
		"out":      gate.CellState(true, true, []string{"leaking"}),
		"leaking":  gate.CellState(false, true, []string{"swollen", "leaking"}),
		"swollen":  gate.CellState(false, false, []string{"dirty", "swollen"}),
		"replaced": gate.CellState(false, true, nil),
		"fitted":   gate.CellState(false, false, []string{"flat"}),
		"dead":     gate.FanState("turns", []string{"stands still"}),
		"turns":    gate.FanState("turns", []string{"loud"}),
		"unknown":  gate.FanState("", nil),
	} {
		require.Equal(t, want, state)
	}
}
