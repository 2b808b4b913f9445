package sums_test

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/sums"
)

// says compares an answer in its fixed form.
func says[In, Out any](t *testing.T, of func(In) (Out, error), in In, want string) {
	t.Helper()
	out, err := of(in)
	require.NoError(t, err)
	told, err := json.Marshal(out)
	require.NoError(t, err)
	require.JSONEq(t, want, string(told))
}

// refuses compares the place that an error names.
func refuses[In, Out any](t *testing.T, of func(In) (Out, error), in In, place string) {
	t.Helper()
	_, err := of(in)
	require.ErrorContains(t, err, place)
}

func figure(f float64) *float64 { return &f }

func TestClocks(t *testing.T) {
	says(t, sums.ClockOf, sums.ClockInput{Crystal: "12 MHz", Divider: figure(3), Rating: "4 MHz"},
		`{"hz":4000000,"ratingHz":4000000,"ok":true,"note":""}`)
	says(t, sums.ClockOf, sums.ClockInput{Crystal: "14.31818 MHz", Divider: figure(3), Rating: "4.77 MHz"},
		`{"hz":4772726.666666667,"ratingHz":4770000,"ok":true,
			"note":"4.7727 MHz is 4.77 MHz when it is written as the rating is"}`)
	says(t, sums.ClockOf, sums.ClockInput{Crystal: "20 MHz", Divider: figure(2), Rating: "8.0 MHz"},
		`{"hz":10000000,"ratingHz":8000000,"ok":false,"note":"10 MHz is above the rating by 25 %"}`)
	says(t, sums.ClockOf, sums.ClockInput{Crystal: "33 MHz", Multiplier: figure(2)},
		`{"hz":66000000,"ratingHz":null,"ok":null,"note":""}`)
	refuses(t, sums.ClockOf, sums.ClockInput{Crystal: "1 MHz", Divider: figure(0)}, "divider")
	refuses(t, sums.ClockOf, sums.ClockInput{Crystal: "1 V"}, "crystal")
}

func TestDisks(t *testing.T) {
	says(t, sums.DiskOf, sums.DiskInput{Cylinders: 1048, Heads: 16, Sectors: 63, Limit: "504 MiB"},
		`{"bytes":540868608,"shownBytes":528482304,"limit":528482304}`)
	says(t, sums.DiskOf, sums.DiskInput{Cylinders: 2000, Heads: 4, Sectors: 63, Limit: "1024/16/63"},
		`{"bytes":258048000,"shownBytes":132120576,"limit":528482304}`)
	says(t, sums.DiskOf, sums.DiskInput{Cylinders: 10, Heads: 1, Sectors: 17, Limit: "32 MB"},
		`{"bytes":87040,"shownBytes":87040,"limit":32000000}`)
	says(t, sums.DiskOf, sums.DiskInput{Cylinders: 10, Heads: 1, Sectors: 17}, `{"bytes":87040,"shownBytes":87040,
		"limit":null}`)
	refuses(t, sums.DiskOf, sums.DiskInput{Cylinders: 10, Sectors: 17}, "heads")
	refuses(t, sums.DiskOf, sums.DiskInput{Cylinders: math.MaxInt64, Heads: 9, Sectors: 9}, "cylinders")
	refuses(t, sums.DiskOf, sums.DiskInput{Cylinders: 1, Heads: 1, Sectors: 1, Limit: "much"}, "limit")
}

func TestResistors(t *testing.T) {
	says(t, sums.ResistorOf, sums.ResistorInput{From: "5 V", To: "1 V", Load: "75 ohm", Source: "25 ohm"},
		`{"ohms":275,"e12":270,"e24":270,"levels":{"e12":1.0135135135135136,"e24":1.0135135135135136}}`)
	says(t, sums.ResistorOf, sums.ResistorInput{From: "1 V", To: "1 V", Load: "75"},
		`{"ohms":0,"e12":0,"e24":0,"levels":{"e12":1,"e24":1}}`)
	refuses(t, sums.ResistorOf, sums.ResistorInput{From: "1 V", To: "5 V", Load: "75 ohm"}, "to:")
	refuses(t, sums.ResistorOf, sums.ResistorInput{From: "5 V", To: "4.9 V", Load: "75 ohm", Source: "75 ohm"},
		"source")
}

// The nearest of a series is never off by more than half a step of it.
func TestTheNearestOfASeries(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		load, ratio := rapid.IntRange(1, 10000).Draw(t, "load"), rapid.IntRange(2, 500).Draw(t, "ratio")
		in := sums.ResistorInput{From: json.Number(numeral(ratio)).String() + " V", To: "1 V",
			Load: numeral(load) + " ohm"}
		out, err := sums.ResistorOf(in)
		require.NoError(t, err)
		require.InDelta(t, float64(load)*float64(ratio-1), out.Ohms, 1e-6)
		require.Less(t, math.Abs(math.Log(out.E12/out.Ohms)), 0.121)
		require.LessOrEqual(t, math.Abs(math.Log(out.E24/out.Ohms)), math.Abs(math.Log(out.E12/out.Ohms))+1e-9)
	})
}

func numeral(n int) string { text, _ := json.Marshal(n); return string(text) }

func TestMains(t *testing.T) {
	out, err := sums.MainsOf(sums.MainsInput{Rating: "220-240 V 50 Hz", Local: "230 V 50 Hz", Load: "60 VA"})
	require.NoError(t, err)
	require.Equal(t, []any{true, 75.0, "frequency: 50 Hz on the plate, 50 Hz here"}, []any{out.OK, *out.VA, out.Why[1]})
	out, err = sums.MainsOf(sums.MainsInput{Rating: "230 V", Local: "230 V", Load: "60 W", Margin: figure(0)})
	require.NoError(t, err)
	require.Equal(t, 60.0, *out.VA)
	require.Contains(t, out.Why[2], "watts are taken as VA")
	for rating, isOK := range map[string]bool{"115/230 V 50/60 Hz": true, "110-120 V 60 Hz": false, "210 V": true,
		"208V~ 60Hz": false} {
		out, err := sums.MainsOf(sums.MainsInput{Rating: rating, Local: "230VAC 50Hz"})
		require.NoError(t, err)
		require.Equal(t, isOK, out.OK, rating)
		require.Nil(t, out.VA)
	}
	refuses(t, sums.MainsOf, sums.MainsInput{Rating: "high", Local: "230 V"}, "rating")
	refuses(t, sums.MainsOf, sums.MainsInput{Rating: "230 V", Local: "here"}, "local")
	refuses(t, sums.MainsOf, sums.MainsInput{Rating: "230 V", Local: "230 V", Load: "much"}, "load")
}

func TestRails(t *testing.T) {
	says(t, sums.RailsOf, sums.RailsInput{Rating: "+5 20, -12 0.5", Draw: "+5 3.2, +5 1.1, -12V 500 mA"},
		`{"ok":true,"rails":{"+5":{"draw":4.3,"rating":20,"headroom":15.7,"ok":true},"-12":{"draw":0.5,"rating":0.5,
			"headroom":0,"ok":true}}}`)
	says(t, sums.RailsOf, sums.RailsInput{Rating: "+5 1", Draw: "+5 1, +12 2"},
		`{"ok":null,"rails":{"+5":{"draw":1,"rating":1,"headroom":0,"ok":true},"+12":{"draw":2,"rating":null,
			"headroom":null,"ok":null}}}`)
	says(t, sums.RailsOf, sums.RailsInput{Rating: "+5 0.3", Draw: "+5 0.1, +5 0.2, +5 0.1, +12 1"},
		`{"ok":false,"rails":{"+5":{"draw":0.4,"rating":0.3,"headroom":-0.1,"ok":false},"+12":{"draw":1,
			"rating":null,"headroom":null,"ok":null}}}`)
	refuses(t, sums.RailsOf, sums.RailsInput{Rating: "+5 1, +5 2"}, "twice")
	refuses(t, sums.RailsOf, sums.RailsInput{Draw: "+5"}, "draw")
	refuses(t, sums.RailsOf, sums.RailsInput{Draw: "+5 -1"}, "below 0")
}
