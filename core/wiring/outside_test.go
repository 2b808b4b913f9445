package wiring_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"frugalheron/core/wiring"
)

func TestPlugsAreKnownByWhatPeopleCallThem(t *testing.T) {
	for words, want := range map[string]wiring.Plug{
		"D-sub 25 female":             {Family: "D-sub", Positions: 25, Gender: "female"},
		"DB-25S":                      {Family: "D-sub", Positions: 25, Gender: "female"},
		"DE-9 plug":                   {Family: "D-sub", Positions: 9, Gender: "male"},
		"9-pin D-sub socket":          {Family: "D-sub", Positions: 9, Gender: "female"},
		"HD-15 socket":                {Family: "D-sub", Positions: 15, Gender: "female", Detail: "high density"},
		"DIN 5 female, 240 degrees":   {Family: "round", Positions: 5, Gender: "female", Detail: "240"},
		"7-pin round socket":          {Family: "round", Positions: 7, Gender: "female"},
		"mini-DIN 6 female":           {Family: "small round", Positions: 6, Gender: "female"},
		"3.5 mm jack":                 {Family: "jack", Detail: "3.5"},
		"barrel socket 5.5 x 2.1 mm":  {Family: "barrel", Gender: "female", Detail: "5.5"},
		"Centronics 36 female":        {Family: "ribbon", Positions: 36, Gender: "female"},
		"phono socket, yellow":        {Family: "phono", Gender: "female"},
		"screw terminals, five wires": {},
	} {
		plug, ok := wiring.PlugOf(words)
		assert.Equal(t, want, plug, words)
		assert.Equal(t, want.Family != "", ok, words)
	}
	high, _ := wiring.PlugOf("HD-15 socket")
	wide, _ := wiring.PlugOf("DA-15 socket")
	takes, _ := high.Takes(wide)
	assert.False(t, takes, "another shell")
}

func TestOutsideTwinsAreTheSamePlugForSomethingElse(t *testing.T) {
	serial := wiring.Port{Where: "rear", Words: "D-sub 25 female", Label: "SERIAL 1", Use: "plotter", Line: 3}
	second := wiring.Port{Where: "rear", Words: "DB-25S", Label: "SERIAL 2", Line: 4}
	printer := wiring.Port{Where: "rear", Words: "D-sub 25 female", Label: "PRINTER", Line: 5}
	modem := wiring.Port{Where: "rear", Words: "D-sub 25 male", Label: "LINE", Line: 6}
	bare := wiring.Port{Where: "left", Words: "D-sub 25"}
	video := wiring.Port{Where: "rear", Words: "DE-9 socket", Label: "VIDEO", Pins: map[string]string{"3": "red",
		"9": "frame"}}
	stick := wiring.Port{Where: "front", Words: "D-sub 9 female", Label: "STICK",
		Pins: map[string]string{"3": "left", "9": "+5 V"}}

	assert.Empty(t, wiring.OutsideTwins([]wiring.Port{serial, second, modem}), "two of a kind, and another gender")
	twins := wiring.OutsideTwins([]wiring.Port{serial, printer})
	require.Len(t, twins, 1)
	assert.Equal(t, "one is for SERIAL 1, the other for PRINTER", twins[0].Why)
	assert.False(t, twins[0].Harm)
	twins = wiring.OutsideTwins([]wiring.Port{printer, bare, video, stick})
	require.Len(t, twins, 2)
	assert.True(t, twins[0].Harm, "the gravest first")
	assert.Equal(t, "pin 3 is red here and left there; pin 9 is frame here and +5 V there", twins[0].Why)
	assert.Equal(t, "unknown", twins[1].State)
	assert.Contains(t, twins[1].Why, "D-sub 25, left is for is not told")
	v := wiring.TwinsVerdict(twins, 7)
	assert.Equal(t, "2 pairs of ports", v.Value)
	assert.NotEmpty(t, v.Caution)
	assert.Equal(t, 5, v.Why[1].Spot.Line)
}

func TestWhatTheLibraryKnowsIsPutToThePortItIs(t *testing.T) {
	seen := []wiring.Port{{Where: "rear", Words: "D-sub 9 female", Label: "VIDEO"},
		{Where: "rear", Words: "DIN 5 female", Label: "TAPE"}, {Where: "rear", Words: "DIN 5 female", Label: "KEYBD"}}
	video := wiring.Port{Where: "Video card J2", Words: "DE-9 socket", Use: "monitor",
		Pins: map[string]string{"3": "red"}}
	tape := wiring.Port{Where: "Main board J1", Words: "5-pin round socket", Use: "tape recorder"}
	other := wiring.Port{Where: "Main board J9", Words: "5-pin round socket", Use: "light pen"}
	header := wiring.Port{Where: "Main board J4", Words: "34-pin header", Use: "drives"}
	joined := wiring.Joined(seen, []wiring.Port{video, tape, other, header})
	require.Len(t, joined, 3, "the light pen may be the one that is marked KEYBD; a header is not outside")
	assert.Equal(t, "red", joined[0].Pins["3"])
	assert.Equal(t, "tape recorder", joined[1].Use)
	keyboard := wiring.Port{Where: "Main board J5", Words: "DIN 5 female", Use: "keybd"}
	assert.Len(t, wiring.Joined(seen, []wiring.Port{tape, keyboard, other}), 4, "both others are known")
}
