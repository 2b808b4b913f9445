package statement_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/calendar"
	"frugalheron/core/device/builtin"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/core/statement"
)

func Example() {
	said, _ := statement.Read("U14 27128-25 8533")
	placed, _ := statement.Place("U13        74LS00\nU14        @empty\n", said, "2026-05-17")
	fmt.Printf("line %d, in place of %q\n%s", placed.Line, placed.Replaces, placed.Body)
	// Output:
	// line 2, in place of "U14        @empty"
	// U13        74LS00
	// U14        27128-25 8533
}

func TestRead(t *testing.T) {
	for text, line := range map[string]string{
		"U14 27128-25 8533":         "U14        27128-25 8533",
		"  c5 0.1uF X2 !cracked ":   "C5         0.1uF X2 !cracked",
		"8x 4164-15":                "8x         4164-15",
		"U20,U22 @empty":            "U20,U22    @empty",
		"BT1 !leaking: green crust": "BT1        !leaking: green crust",
	} {
		said, ok := statement.Read(text)
		require.True(t, ok, text)
		assert.Equal(t, line, said.Line)
	}
	for text, note := range map[string]string{"note hinge cracked": "hinge cracked",
		"Note  U14 is warm": "U14 is warm"} {
		said, ok := statement.Read(text)
		require.True(t, ok, text)
		assert.Equal(t, note, said.Note)
	}
	for _, text := range []string{"", "U14", "meridian 2", "41256 8512", "EH-0142", "note", "note ", "# U14 7400",
		"== Main board", "U9-U1 7400", "U1 7400\nU2 7400", "U1 \x007400"} {
		_, ok := statement.Read(text)
		assert.False(t, ok, text)
	}
}

func TestPlace(t *testing.T) {
	said, ok := statement.Read("U14 27128")
	require.True(t, ok)
	line := "U14        27128"
	for body, want := range map[string]statement.Placement{
		"":                           {Body: line + "\n", Line: 1, Text: line},
		"U1 7400":                    {Body: "U1 7400\n" + line, Line: 2, Text: line},
		"U1 7400\n\n":                {Body: "U1 7400\n" + line + "\n\n", Line: 2, Text: line},
		"# top\r\nU14 ?\r\nU15 7400": {Body: "# top\r\n" + line + "\nU15 7400", Line: 2, Text: line, Replaces: "U14 ?"},
		"U1 7400\nU10-U20 4164 # old": {Body: "U1 7400\nU10-U13,U15-U20 4164  # old\n" + line, Line: 3, Text: line,
			Replaces: "U10-U20 4164 # old", Leaves: "U10-U13,U15-U20 4164  # old"},
	} {
		placed, err := statement.Place(body, said, "2026-05-17")
		require.NoError(t, err)
		assert.Equal(t, want, placed, body)
	}
}

// happens says a thing of a sheet, and gives the sheet as it is then; or why not.
func happens(t *testing.T, body, words string) string {
	said, ok := statement.Read(words, "Main board", "Disk card")
	require.True(t, ok && said.Happened != nil && said.Entry != nil, words)
	placed, err := statement.Place(body, said, "2026-05-17")
	require.NoError(t, err)
	if placed.Blocked != "" {
		return "no: " + placed.Blocked
	}
	return strings.Join(strings.Fields(strings.ReplaceAll(placed.Body, "\n", " / ")), " ")
}

func TestWhatHappensToParts(t *testing.T) {
	cell, run := "BT1 NiCd 3.6V @solder !leaking: crust # rear", "U40-U44 41256-15 8512 !dirty"
	for _, c := range [][3]string{
		{cell, "BT1 removed", "BT1 @solder @empty # rear"},
		{cell, "bt1 is out", "BT1 @solder @empty # rear"},
		{cell, "BT1 @empty", "BT1 @solder @empty # rear"},
		{"BT1 @empty", "BT1 taken out", "no: BT1 is empty already"},
		{"U1 7400", "BT1 removed", "no: BT1 does not stand on this sheet"},
		{cell, "BT1 replaced by CR2032 holder", "BT1 CR2032 holder @solder new:2026-05-17 # rear"},
		{cell, "BT1 replaced", "BT1 NiCd 3.6V @solder new:2026-05-17 # rear"},
		{cell, "BT1 new NiMH 3.6V in 2021", "BT1 NiMH 3.6V @solder new:2021 # rear"},
		{cell, "BT1 dead", "BT1 NiCd 3.6V @solder !leaking: crust !dead # rear"},
		{cell, "BT1 is leaking at both ends", "BT1 NiCd 3.6V @solder !leaking: at both ends # rear"},
		{cell, "BT1 leaking", "no: the sheet says so already of BT1: leaking"},
		{run, "U43 cracked", "U40-U42,U44 41256-15 8512 !dirty / U43 41256-15 8512 !dirty !cracked"},
		{run, "U43 replaced by 41256-12 8801", "U40-U42,U44 41256-15 8512 !dirty / U43 41256-12 8801 new:2026-05-17"},
		{run, "U41-U43 removed", "U40,U44 41256-15 8512 !dirty / U41-U43 @empty"},
		{run, "U40-U44 cleaned", "U40-U44 41256-15 8512"},
		{run, "U43 cleaned with care", "U40-U42,U44 41256-15 8512 !dirty / U43 41256-15 8512"},
		{"U1 7400", "U1 reseated", "no: " + statement.NothingToChange},
		{run, "U43,U50 removed", "no: U43 stands on line 1, but not all of U43,U50; say it of each line by itself"},
		{"HD1 20 MB", "HD1 stuck", "HD1 20 MB !stuck"},
		{cell, "BT1 replaced 2021", "BT1 NiCd 3.6V @solder new:2021 # rear"},
		{cell, "BT1 new CR2032 2026-05", "BT1 CR2032 @solder new:2026-05 # rear"},
		{cell, "BT1 removed yesterday", "BT1 @solder @empty new:2026-05-16 # rear"},
		{"CN2 DIN 5-pin", "CN2 pin 3 bent", "CN2 DIN 5-pin !bent: pin 3"},
		{"U11 27128", "U11 is empty", "U11 @empty"},
		{"U70 146818", "U70 lost its time", "U70 146818 !lost its time"},
		{"U55 4164", "U55 failed", "U55 4164 !failed"},
		{"U68 4164", "U68 pulled for reading", "U68 @empty # for reading"},
		{"U1 7400 !bent pin", "U1 lent to Mudflat Museum until 2027-03-01",
			"U1 7400 @empty !bent pin !lent: to Mudflat Museum, since 2026-05-17, until 2027-03-01"},
		{"U1-U2 7400", "U2 lent", "U1 7400 / U2 7400 @empty !lent: since 2026-05-17"},
		{"U1 7400 @empty !bent pin !lent: to Bram", "U1 is back", "U1 7400 !bent pin"},
		{"U1 7400 @empty !lent: to Bram", "U1 lent to Ottilie", "no: U1 is empty already"},
		{"U1 7400", "U1 returned", "no: the sheet does not say that U1 is lent"},
		{cell, "BT1 removed: corroded through", "BT1 @solder @empty # rear; corroded through"},
		{cell, "BT1 removed in 2015", "BT1 @solder @empty new:2015 # rear"},
		{"C5 1uF", "C5 !cracked !bent pin: 2", "C5 1uF !cracked !bent pin: 2"},
		{"C5 1uF", "C5 high esr 12 ohm", "C5 1uF !high esr: 12 ohm"},
		{"U1 7400", "BT1 replaced", "no: BT1 does not stand on this sheet"},
		{"C5 0.1uF X2", "C5 out of tolerance 30 %", "C5 0.1uF X2 !out of tolerance: 30 %"},
		{"U1 7400", "C5 bulging", "U1 7400 / C5 !bulging"},
	} {
		require.Equal(t, c[2], happens(t, c[0], c[1]), c[1])
	}
	require.Contains(t, happens(t, cell, "BT1 removed on 2026-13-45"), "no: ")
	require.Contains(t, happens(t, cell, "BT1 new NiMH in 2026-13"), "no: ")
	for words, line := range map[string]string{"U9 27128-25 8534 cracked": "U9         27128-25 8534 !cracked",
		"J3 open": "J3         open", "BT1 replaced by": "BT1        replaced by",
		"J3 moved to 2-3": "J3         2-3", "U1 swapped with U2": "U1         swapped with U2",
		"U1 out of round": "U1         out of round"} {
		said, ok := statement.Read(words)
		require.True(t, ok && said.Happened == nil && said.Line == line, said.Line)
	}
	_, ok := statement.Read("BT1 replaced by @@ !!")
	require.False(t, ok, "what cannot be read of a part is of nothing else")
	said, ok := statement.Read("disk card U14 removed", "Main board", "Disk card")
	require.True(t, ok)
	require.Equal(t, "Disk card", said.Board)
	for _, marking := range []string{"U14 27128-25 8533", "J3 open", "SW1 10110000", "U30 ?", "X1 18.432 MHz",
		"U1 7400"} {
		said, ok := statement.Read(marking)
		require.True(t, ok && said.Happened == nil, marking)
	}
}

func TestWhatHappensToAThing(t *testing.T) {
	for words, want := range map[string]string{
		"runs":                         "tested today: it works",
		"it boots":                     "tested today: it works",
		"does not boot at all":         "tested today: it does not work, at all",
		"last ran in 2016":             "recalled of 2016: it worked",
		"stopped working in 2016-05":   "recalled of 2016-05: it did not work",
		"works since 2021":             "tested today: it works, since 2021",
		"disk drive ran in 2016":       "recalled of 2016: disk drive worked",
		"no picture":                   "a finding: no picture",
		"boots again":                  "tested today: it works",
		"works: with the spare supply": "tested today: it works, with the spare supply",
		"won't start":                  "tested today: it does not work",
		"will not start, no lamp":      "tested today: it does not work, no lamp",
		"moved to Boiler house, bay 2": "it stands in Boiler house, bay 2 from today",
		"Disk card moved to Seed loft": "Disk card stands in Seed loft from today",
		"Disk card lent to Mudflat Museum until 2027-03-01": "Disk card is lent to Mudflat Museum from today, " +
			"until 2027-03-01",
		"lent to Mudflat Museum since 2026-05-01": "it is lent to Mudflat Museum from 2026-05-01",
		"memory 64 MB by firmware":                "a statement: memory is 64 MB, from firmware",
		"serial number TV2-118 per the label":     "a statement: serial is TV2-118, from label",
		"hinge cracked":                           "a finding: hinge, cracked",
		"left hinge is cracked: both ends":        "a finding: left hinge, cracked: both ends",
		"runs hot":                                "a finding: runs hot",
		"drive A stuck":                           "a finding: drive A, stuck",
		"fan runs hot":                            "a finding: fan, runs hot",
		"Disk card is bowed":                      "a finding: Disk card, bowed",
	} {
		said, ok := statement.Read(words, "Main board", "Disk card")
		require.True(t, ok && said.Happened != nil && said.Entry == nil, words)
		require.Equal(t, want, said.Happened.Would(said.Board), words)
		require.Equal(t, said.Happened.Deed != statement.Found, said.Happened.IsSure())
	}
	said, ok := statement.Read("memory 64 MB by firmware", "Memory")
	require.True(t, ok && said.Board == "" && said.Happened.Deed == statement.Stated, "a board may be called so")
	for _, words := range []string{"runs only sometimes", "meridian", "starts with", "moved to", "works of art",
		"memory 64 MB",
		"memory by firmware", "brewery", "out", "new", "open reel", "lent", "back", "ran",
		"ran in the cold"} {
		said, ok := statement.Read(words)
		require.False(t, ok && said.Happened != nil && said.Happened.IsSure(), words)
	}
}

// A marking that is read better loses nothing else of its line; one that means nothing takes no other's place.
func TestAMarkingIsReadBetter(t *testing.T) {
	for body, want := range map[string]string{
		"U14 ? @socket for:picture !bent pin new:2021 # left": "U14 27128 for:picture @socket new:2021 !bent pin # left",
		"U14 @socket @empty !dirty":                           "U14 27128 @socket",
	} {
		said, _ := statement.Read("U14 27128")
		placed, err := statement.Place(body, said, "2026-05-17")
		require.NoError(t, err)
		require.Equal(t, want, strings.Join(strings.Fields(placed.Body), " "))
	}
	for marking, better := range map[string]bool{"SC8720?P 8538": true, "SC872??P 8538": true, "SC8728?P 8538": true,
		"SC87??P 8538": false, "SC8720?P 8537": false, "?": true} {
		said, _ := statement.Read("U14 SC8720P 8538")
		placed, err := statement.Place("U14 "+marking, said, "2026-05-17")
		require.NoError(t, err)
		alone, err := reckoning.Of(builtin.Library(), []byte(placed.Text), reckoning.Options{Mode: sheet.Body})
		require.NoError(t, err)
		require.Equal(t, better, statement.WhyNot(said, placed, alone) == "", marking)
	}
	for words, why := range map[string]string{"U14 fizzled": "no marking that is known", "J3 open": "", "U14 27128": "",
		"U14 replaced by 27128 in 2091": "after today"} {
		said, _ := statement.Read(words)
		placed, err := statement.Place("U14 7400\nJ3 1-2", said, "2026-05-17")
		require.NoError(t, err)
		alone, err := reckoning.Of(builtin.Library(), []byte(placed.Text), reckoning.Options{Mode: sheet.Body,
			Today: calendar.Date{Year: 2026, Month: 5, Day: 17}})
		require.NoError(t, err)
		if got := statement.WhyNot(said, placed, alone); why == "" {
			require.Empty(t, got, words)
		} else {
			require.Contains(t, got, why, words)
		}
	}
}

// Whatever is on the sheet: a placed entry stands there once, with no problem of its own, and no
// other line is touched.
func TestPlaceTouchesNothingElse(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lines := rapid.SliceOfN(
			rapid.SampledFrom([]string{"", "# words", "U1 7400", "U2-U4 4164", "U5,U7 7404", "free text", "2x 4116",
				"U9 ?"}), 0, 8).Draw(t, "lines")
		said, ok := statement.Read(rapid.SampledFrom([]string{"U1", "U3", "U5,U7", "U9", "U11", "U2-U4"}).Draw(t,
			"parts") + " 27128")
		require.True(t, ok)
		body := strings.Join(lines, "\n")
		placed, err := statement.Place(body, said, "2026-05-17")
		require.NoError(t, err)
		if placed.Blocked != "" {
			require.Equal(t, body, placed.Body)
			return
		}
		if placed.Leaves != "" {
			lines[placed.Line-2] = placed.Leaves // what was about other parts stays
			lines = slices.Insert(lines, placed.Line-1, placed.Replaces)
		}
		parsed, err := sheet.Parse([]byte(placed.Body), sheet.Body)
		require.NoError(t, err)
		for _, p := range parsed.Problems {
			require.NotEqual(t, placed.Line, p.Line, p.Message)
		}
		after := strings.Split(placed.Body, "\n")
		require.Equal(t, said.Line, after[placed.Line-1])
		rest := append(append([]string{}, after[:placed.Line-1]...), after[placed.Line:]...)
		if placed.Replaces != "" {
			lines = append(append([]string{}, lines[:placed.Line-1]...), lines[placed.Line:]...)
		}
		require.Equal(t, strings.Join(lines, "\n"), strings.TrimSuffix(strings.Join(rest, "\n"), ""))
	})
}

func TestPartsThatAreCalledByTheirKind(t *testing.T) {
	for text, want := range map[string]string{"the battery is out": "battery: is out",
		"New battery CR2032": "battery: new CR2032", "removed the old cell": "battery: removed",
		"fan stuck": "fan: stuck", "battery": "", "brewery removed": "", "new": "", "replaced fuse": "fuse: replaced"} {
		kind, said, ok := statement.Called(text)
		require.Equal(t, want != "", ok, text)
		if ok {
			require.Equal(t, want, kind+": "+said)
		}
	}
}
