package practice_test

import (
	"context"
	"net"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/core/calendar"
	"frugalheron/core/console"
	core "frugalheron/core/practice"
	"frugalheron/core/quantity"
	"frugalheron/instruments/line"
	"frugalheron/instruments/meter"
	"frugalheron/instruments/practice"
)

var now = time.Date(2026, 11, 30, 9, 0, 0, 0, time.UTC)

// machine is that of a seed, on, with everything in.
func machine(seed int, units ...string) *practice.Machine {
	return practice.MachineOf(practice.Bench{Seed: seed, On: true, Load: core.Machine, Fitted: units})
}

func volts(m *practice.Machine, point string) float64 {
	return m.Points()[core.PointOf(point)][quantity.Volts]
}

// Every fault shows by its own sign and by none of another, whichever place the seed chose.
func TestEachFaultShowsByItsOwnSign(t *testing.T) {
	places := map[core.NamedFault]bool{}
	for seed := range 400 {
		m := machine(seed, core.Units()...)
		is := m.Answer()
		places[is] = true
		require.Equal(t, is, machine(seed).Answer(), "the same number is the same machine")
		said := console.Read([]byte(m.Says(now)), calendar.Date{Year: 2026, Month: 11, Day: 30})
		low := volts(m, "+5") < 4.75
		require.Equal(t, is.Fault == core.Sags, low)
		require.Equal(t, is.Fault == core.Shorted, volts(m, "+12") < 1)
		require.Equal(t, is.Fault == core.NoCell, volts(m, "clock cell") < 1)
		require.Equal(t, is.Fault == core.SilentConsole, volts(m, "console driver") > -1)
		require.Equal(t, is.Fault == core.BadChip, len(said.Failures) > 0)
		require.Equal(t, is.Fault == core.SilentConsole || is.Fault == core.Shorted, said.Outcome == console.Silent)
		if is.Fault == core.BadChip {
			board, bit, ok := core.ChipAt(is.Place)
			require.True(t, ok)
			for _, f := range said.Failures {
				require.Equal(t, []int{bit}, f.Bits)
			}
			require.Empty(t, console.Read([]byte(machine(seed, core.Minimum).Says(now)), calendar.Date{}).Failures)
			require.NotEmpty(t, console.Read([]byte(machine(seed, core.Minimum, board).Says(now)),
				calendar.Date{}).Failures)
		}
		if is.Fault == core.Shorted {
			require.Equal(t, "power, run", machine(seed, core.Minimum).Lamps())
			require.Equal(t, "power", machine(seed, core.Minimum, is.Place).Lamps())
		}
		off := practice.MachineOf(practice.Bench{Seed: seed, Load: core.Machine, Fitted: core.Units()})
		require.Equal(t, "none", off.Lamps())
		require.Empty(t, off.Says(now))
		require.Zero(t, volts(off, "+5"))
	}
	all := 0
	for _, f := range core.Faults() {
		all += len(f.Places)
	}
	require.Len(t, places, all, "every place comes up")
}

func TestTheMachineIsToldOverItsLine(t *testing.T) {
	s, err := practice.NewStandIn(0, 0, false)
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	c, err := practice.Dial(t.Context(), s.Address())
	require.NoError(t, err)
	t.Cleanup(func() { c.Close() })
	all, at, err := c.Profiles(t.Context())
	require.NoError(t, err)
	require.Equal(t, practice.Profiles(), all)
	require.Equal(t, "boot", at)
	require.ErrorContains(t, c.Play(t.Context(), "opera"), "no profile opera")
	lamps, err := c.Put(t.Context(), practice.Bench{Seed: 4, On: true, Load: core.Machine,
		Fitted: []string{core.Minimum}})
	require.NoError(t, err)
	require.Equal(t, "power, run", lamps)
	_, at, err = c.Profiles(t.Context())
	require.NoError(t, err)
	require.Equal(t, "practice machine", at)
	is, err := c.Answer(t.Context())
	require.NoError(t, err)
	require.Equal(t, machine(4).Answer(), is)

	raw, err := line.Dial(t.Context(), s.Address())
	require.NoError(t, err)
	t.Cleanup(func() { raw.Close("") })
	for said, want := range map[string]string{"SIM:BENCH {": "ERR", "DANCE": "ERR unknown: DANCE",
		"*idn?": "Estuary bench"} {
		answer, err := raw.Ask(t.Context(), said)
		require.NoError(t, err)
		require.Contains(t, answer, want)
	}
	leads, err := meter.NewStandInOf(0, s.With(map[string]meter.Values{"EH-1 +5": {quantity.Volts: 5}}))
	require.NoError(t, err)
	t.Cleanup(func() { leads.Close() })
	client, err := meter.Dial(t.Context(), leads.Address())
	require.NoError(t, err)
	t.Cleanup(func() { client.Close() })
	require.NoError(t, client.Touch(t.Context(), core.PointOf("+12"), ""))
	read, err := client.Read(t.Context(), quantity.Volts)
	require.NoError(t, err)
	require.InDelta(t, 12, read, 0.2)
}

func TestWhatIsNoPracticeMachineIsRefused(t *testing.T) {
	other, err := line.Serve(0, func() func(string) line.Reply {
		return func(string) line.Reply { return line.Reply{Text: `{"seed":1}`} }
	})
	require.NoError(t, err)
	t.Cleanup(func() { other.Close() })
	_, err = practice.Dial(t.Context(), other.Address())
	require.ErrorContains(t, err, "no practice machine")
	closed, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	closed.Close()
	_, err = practice.Dial(context.Background(), closed.Addr().String())
	require.ErrorContains(t, err, "no practice machine answers")
}
