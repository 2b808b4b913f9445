package meter_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/measure"
	"frugalheron/core/quantity"
	"frugalheron/instruments/line"
	"frugalheron/instruments/meter"
)

func standIn(t *testing.T) (*meter.StandIn, *meter.Client) {
	s, err := meter.NewStandIn(0,
		map[string]meter.Values{"+5": {quantity.Volts: 4.93}, "C12": {quantity.Microfarads: 41, quantity.Ohms: 1e6}})
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	return s, dial(t, s.Address())
}

func dial(t *testing.T, address string) *meter.Client {
	c, err := meter.Dial(t.Context(), address)
	require.NoError(t, err)
	t.Cleanup(func() { c.Close() })
	return c
}

func TestAStandInMeasuresAndFails(t *testing.T) {
	s, c := standIn(t)
	require.Equal(t, "Estuary bench stand-in meter 0 1", c.Name())
	points, err := c.Points(t.Context())
	require.NoError(t, err)
	require.Equal(t, []string{"+5", "C12"}, points)
	series := func(of quantity.Quantity, count int) []float64 {
		readings := []float64{}
		for range count {
			value, err := c.Read(t.Context(), of)
			require.NoError(t, err)
			readings = append(readings, value)
		}
		return readings
	}
	quiet := measure.StatsOf(series(quantity.Volts, 8))
	require.InDelta(t, 4.93, quiet.Average, 0.005)
	require.Positive(t, quiet.Spread)

	require.NoError(t, c.Touch(t.Context(), "+5", "noise"))
	require.Greater(t, measure.StatsOf(series(quantity.Volts, 8)).Spread, 5*quiet.Spread)
	require.NoError(t, c.Touch(t.Context(), "+5", "drift"))
	drifting := series(quantity.Volts, 8)
	require.Greater(t, drifting[7], drifting[0]+0.1)
	require.NoError(t, c.Touch(t.Context(), "C12", "none"))
	require.InDelta(t, 41, series(quantity.Microfarads, 1)[0], 0.1)
	require.InDelta(t, 0, series(quantity.Volts, 1)[0], 0.01)

	var refused *meter.RefusedError
	require.ErrorAs(t, c.Touch(t.Context(), "the moon", "none"), &refused)
	require.ErrorContains(t, c.Touch(t.Context(), "+5", "gremlins"), "no fault gremlins")
	_, err = c.Read(t.Context(), quantity.Grams)
	require.ErrorContains(t, err, "type what you read")
	require.NoError(t, c.Touch(t.Context(), "+5", "overload"))
	_, err = c.Read(t.Context(), quantity.Volts)
	require.ErrorIs(t, err, meter.ErrOverload)

	// The link is lost in the middle of a series; whoever calls again goes on.
	require.NoError(t, c.Touch(t.Context(), "+5", "lost link"))
	series(quantity.Volts, 3)
	_, err = c.Read(t.Context(), quantity.Volts)
	require.ErrorIs(t, err, meter.ErrLost)
	c = dial(t, s.Address())
	require.InDelta(t, 4.93, series(quantity.Volts, 1)[0], 0.01)
}

func TestAMeterThatAnswersNonsense(t *testing.T) {
	server, err := line.Serve(0, func() func(string) line.Reply {
		return func(said string) line.Reply {
			reply, known := map[string]line.Reply{
				"*IDN?": {Text: "odd,meter"}, "MEAS:VOLT:DC?": {Text: "lots"}, "MEAS:RES?": {Text: "NaN"},
				"MEAS:FREQ?": {HangUp: true}, "SYST:ERR?": {Text: `-100,"Command error"`},
			}[said]
			reply.Silent = !known
			return reply
		}
	})
	require.NoError(t, err)
	defer server.Close()
	c := dial(t, server.Address())
	require.Equal(t, "odd meter", c.Name())
	var refused *meter.RefusedError
	for _, of := range []quantity.Quantity{quantity.Volts, quantity.Ohms} {
		_, err = c.Read(t.Context(), of)
		require.ErrorAs(t, err, &refused)
		require.ErrorContains(t, err, "Command error")
	}
	require.ErrorContains(t, c.Touch(t.Context(), "+5", "none"), "is no stand-in")
	points, err := c.Points(t.Context())
	require.NoError(t, err)
	require.Empty(t, points)
	_, err = c.Read(t.Context(), quantity.Hertz)
	require.ErrorIs(t, err, meter.ErrLost)
	_, err = meter.Dial(t.Context(), "127.0.0.1:1")
	require.ErrorContains(t, err, "no meter answers")
}

// Numbers are plain decimals that the quantity can have; names are shown as they can be; nothing that no meter knows
// is said to one that is no stand-in.
func TestOnlyPlainReadingsCount(t *testing.T) {
	heard, answer := []string{}, ""
	server, err := line.Serve(0, func() func(string) line.Reply {
		return func(said string) line.Reply {
			heard = append(heard, said)
			switch said {
			case "*IDN?":
				return line.Reply{Text: "odd\x1b[2J,\xff meter"}
			case "SYST:ERR?":
				return line.Reply{Text: `0,"No error"`}
			}
			return line.Reply{Text: answer}
		}
	})
	require.NoError(t, err)
	defer server.Close()
	c := dial(t, server.Address())
	require.Equal(t, `odd\x1b[2J \xff meter`, c.Name())
	for _, bad := range []string{"0x10", "1_000", "inf", "-Inf", "nan", "5 V", "4,93", "1e400", "0b1", "12e6", "",
		"-3e5"} {
		answer = bad
		_, err := c.Read(t.Context(), quantity.Volts)
		var refused *meter.RefusedError
		require.ErrorAs(t, err, &refused, bad)
	}
	answer = "-1"
	_, err = c.Read(t.Context(), quantity.Ohms)
	require.ErrorContains(t, err, "outside of what can be")
	for good, want := range map[string]float64{"4.93": 4.93, "+1.2E-3": 0.0012, "-12.": -12, ".5": 0.5} {
		answer = good
		value, err := c.Read(t.Context(), quantity.Volts)
		require.NoError(t, err, good)
		require.InDelta(t, want, value, 1e-12)
	}
	said := len(heard)
	require.ErrorContains(t, c.Touch(t.Context(), "+5", "none"), "is no stand-in")
	require.Len(t, heard, said)
}
