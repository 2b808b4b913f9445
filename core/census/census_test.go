package census_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/census"
	"frugalheron/core/device/builtin"
	"frugalheron/core/identification"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
)

func of(t require.TestingT, body string) census.Census {
	result, err := reckoning.Of(builtin.Library(), []byte(body), reckoning.Options{Mode: sheet.Body})
	require.NoError(t, err)
	entries := []reckoning.Entry{}
	for _, a := range result.Assemblies {
		entries = append(entries, a.Entries...)
	}
	return census.Of(entries)
}

const diskCard = `U1  uPD765AC 8525
U2  FDC9229 8529
U5-U6 SN74LS245N 8529
X1  16.000 MHz
J1  34-pin header`

func ExampleOf() {
	c := of(nil, "U7 ?\n"+diskCard)
	for _, r := range c.Roles {
		fmt.Println(r.Name, r.Count, strings.Join(r.Parts, " "))
	}
	for _, one := range c.Capabilities {
		if one.Key == "disks" || one.Key == "runs" || one.Key == "moves-data" {
			fmt.Printf("%s: %s, %s\n", one.Words, one.State, one.Why)
		}
	}
	// Output:
	// disk control 2 U1 U2
	// bus drivers 2 U5-U6
	// clock 1 X1
	// runs by itself: unknown, no processor, no program memory, no work memory is known on it; what is not identified could be it: U7
	// controls disks: present, disk control U1, U2
	// moves data by itself: unknown, no DMA is known on it; what is not identified could be it: U7
}

func states(c census.Census) map[string]census.State {
	by := map[string]census.State{}
	for _, one := range c.Capabilities {
		by[one.Key] = one.State
	}
	return by
}

func TestWhatBoardsCanDo(t *testing.T) {
	for body, want := range map[string]string{
		"U1 8088 8530\nU2 27128 8530\nU3-U11 4164-15 8530\nX1 14.318 MHz": "runs:present memory:missing picture:missing",
		"U1 8088 8530\nU2 27128 8530\nU3-U11 4164-15 8530":                "runs:missing",
		"U1 8088 @empty\nU2 27128\nU3-U11 4164-15\nX1 14.318 MHz":         "runs:missing memory:present",
		"U1 8748 8530\nX1 6 MHz":                                          "runs:present",
		"U1-U18 41256-12 8729\nU19 P8203 8723":                            "memory:present runs:missing programs:missing",
		"U1-U18 41256-12 8729\nU19 HX1234 8723":                           "memory:unknown runs:unknown",
		"U1 6845 8524\nU2-U9 4416-15 8526 for:picture":                    "picture:present memory:missing",
		"U1 16550 8901\nU2 1488\nU3 1489":                                 "serial:present runs:missing",
		"U1 HX9999\nU2 146818":                                            "time:present serial:unknown",
		"M1 SIMM 30-pin 1Mx9 70ns":                                        "memory:present",
		"U1 80287 8612":                                                   "helps:present runs:missing",
		"":                                                                "runs:missing memory:missing",
	} {
		got := states(of(t, body))
		for pair := range strings.FieldsSeq(want) {
			key, state, _ := strings.Cut(pair, ":")
			require.Equal(t, census.State(state), got[key], "%s of %q", key, body)
		}
	}
}

func TestProposals(t *testing.T) {
	hypotheses := []identification.Hypothesis{{ID: 1, Text: "a disk controller"}, {ID: 2, Text: "a video card"},
		{ID: 3, Text: "something of the brewery"}}
	told := []string{}
	for _, p := range of(t, diskCard).Propose(hypotheses, nil) {
		told = append(told, fmt.Sprintf("%s %s %v", p.Key, p.Presence, p.Weights))
	}
	require.Equal(t, []string{"runs absent [{1 3} {2 -1}]", "picture absent [{1 -1} {2 3}]",
		"disks found [{1 3} {2 -1}]"},
		[]string{told[0], told[1], told[2]})
	unsure := of(t, "U1 ?\nU2 ?\nU3 ?\nU4 ?\nU5 ?\nU6 ?").Propose(hypotheses[1:2], nil)
	require.Equal(t, identification.Open, unsure[0].Presence)
	require.Equal(t, "identify its chips: U1, U2, U3, U4 and 2 more", unsure[0].HowTo)
	blind := of(t, diskCard).Propose([]identification.Hypothesis{{ID: 4, Text: "a terminal without its picture part"}},
		nil)
	require.Equal(t, "runs", blind[0].Key)
	require.NotContains(t, fmt.Sprint(blind), "picture")
	left := of(t, diskCard).Propose(hypotheses,
		census.Settled{"disks": "found", "runs": census.Dropped, "picture": "found",
			"devices": "absent", "moves-data": "absent"})
	require.Len(t, left, 1)
	require.Equal(t, "picture", left[0].Key, "it was accepted as found, and is absent now")
	require.Empty(t, of(t, diskCard).Propose(nil, nil))
	require.Empty(t, of(t, diskCard).Propose(hypotheses[2:], nil))
}

func TestProposalsOfNames(t *testing.T) {
	hypotheses := []identification.Hypothesis{{ID: 1, Text: "a disk controller"}, {ID: 2, Text: "a video card"},
		{ID: 3, Text: "something of the brewery"}}
	names := []census.Named{{Key: "known-7", Name: "Disk card for two drives", Why: "its number is 4430", Sure: true},
		{Key: "known-8", Name: "Video card", Why: "the letters differ"}, {Key: "known-9", Name: "Relay card"}}
	proposed := census.ProposeNamed(names, hypotheses, nil)
	require.Len(t, proposed, 2)
	require.Equal(t, "the library knows it as Disk card for two drives (its number is 4430) found [{1 3} {2 -1}]",
		fmt.Sprint(proposed[0].Text, " ", proposed[0].Presence, " ", proposed[0].Weights))
	require.Equal(t, identification.Open, proposed[1].Presence)
	require.Len(t, census.ProposeNamed(names, hypotheses, census.Settled{"known-7": "found", "known-8": "found"}), 1)
	require.Empty(t, census.ProposeNamed(names, nil, nil))
}

// Whatever stands on a board: an unidentified chip more makes nothing missing that was not, and takes nothing away that
// is there for certain.
func TestAnUnidentifiedChipNeverMakesMissing(t *testing.T) {
	lines := []string{"U1 8088", "U2 27128", "U3-U10 4164", "X1 6 MHz", "U11 765", "U12 6845", "U13 16550",
		"U14 74LS245",
		"U15 8255", "U16 8748", "U17-U18 4416 for:picture"}
	rapid.Check(t, func(t *rapid.T) {
		body := strings.Join(rapid.SliceOfDistinct(rapid.SampledFrom(lines), rapid.ID[string]).Draw(t, "lines"), "\n")
		without, with := states(of(t, body)), states(of(t, body+"\nU99 ?"))
		for key, state := range with {
			require.False(t, state == census.Missing && without[key] != census.Missing, key)
			require.False(t, state == census.Present && without[key] != census.Present, key)
		}
	})
}

func TestBoardsThatDoTheSame(t *testing.T) {
	c := of(t, diskCard)
	require.Equal(t, []string{"disks"}, c.Can())
	few := c.Compare("disks", census.Board{Chips: 4}, []census.Board{{Chips: 3}, {Chips: 5}})
	require.True(t, few.Few)
	require.Empty(t, few.Rows)
	others := []census.Board{{Chips: 30, ROMBytes: 8192}, {Chips: 12}, {Chips: 20, ROMBytes: 4096}, {Chips: 22},
		{Chips: 25}}
	alike := c.Compare("disks", census.Board{Chips: 4}, others)
	require.Equal(t,
		"controls disks 5 [{chips 4 12 22 30 less than on any of the 5 others} {ROM 0 bytes 0 bytes 0 bytes 8 KB }]",
		fmt.Sprint(alike.Words, " ", alike.N, " ", alike.Rows))
}
