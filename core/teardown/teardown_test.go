package teardown_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/caution"
	"frugalheron/core/malformed"
	"frugalheron/core/teardown"
)

func ExampleParseStep() {
	s, _ := teardown.ParseStep(
		"Disk drive | 4x M3x5 pan spring washer PH1 @b2 | 2x clip @hole | tab: rear, brittle | unplug J5, J6 | differs rails: riveted")
	f := s.Fasteners[0]
	fmt.Println(s.Off, f.Count, f.Kind, f.LengthMm, f.Washer, f.Tool, f.Keeping, f.Cell)
	fmt.Println(s.Fasteners[1].Keeping, s.Tabs, s.Connectors, s.Differs)
	fmt.Println(s)
	// Output:
	// Disk drive 4 M3 pan 5 spring PH1 cell B2
	// hole [rear, brittle] [J5 J6] [{rails riveted}]
	// Disk drive | 4x M3x5 pan spring washer PH1 @B2 | 2x clip @hole | tab: rear, brittle | unplug J5, J6 | differs rails: riveted
}

func TestLinesAreReadOrRefused(t *testing.T) {
	for line, want := range map[string]string{
		"":                           "say first what comes off",
		" | 4x M3x8 @A1":             "say first what comes off",
		"Lid | 4x M3x8 PH1":          "say where they are kept",
		"Lid | 4x M3x8 @Z99":         "@Z99 is no place",
		"Lid | four screws":          `"four screws" is not understood`,
		"Lid | differs battery here": "as differs battery: soldered",
	} {
		_, err := teardown.ParseStep(line)
		var wrong *malformed.Error
		require.ErrorAs(t, err, &wrong, line)
		require.ErrorContains(t, err, want, line)
	}
	for line, want := range map[string]teardown.Fastener{
		"x | 2 x 6-32x10mm hex 2.5 @a12": {Count: 2, Kind: "6-32", LengthMm: 10, Tool: "hex 2.5",
			Keeping: teardown.InCell,
			Cell:    "A12"},
		"x | 3x clip 12mm washer @hole": {Count: 3, Kind: "clip", LengthMm: 12, Washer: "plain",
			Keeping: teardown.InHole},
		"x | 1x spacer slot @hole": {Count: 1, Kind: "spacer", Tool: "slot", Keeping: teardown.InHole},
	} {
		s, err := teardown.ParseStep(line)
		require.NoError(t, err, line)
		want.Pattern = s.Fasteners[0].Pattern
		require.Equal(t, want, s.Fasteners[0], line)
	}
	laid, err := teardown.ParseStep("Lid | 5x M3 @laid:two-rows | in this order | note: slide it back | note: lift")
	require.NoError(t, err)
	require.Len(t, laid.Fasteners[0].Pattern, 5)
	require.True(t, laid.Special)
	require.Equal(t, "slide it back lift", laid.Note)
}

// words are what steps are made of in the property tests.
var words = rapid.StringMatching(`[A-Za-z][a-z]{2,8}( [a-z]{3,6})?`)

func drawStep(t *rapid.T) teardown.Step {
	s := teardown.Step{Off: words.Draw(t, "off"),
		Note:    rapid.SampledFrom([]string{"", "slide it back"}).Draw(t, "note"),
		Special: rapid.Bool().Draw(t, "special")}
	for range rapid.IntRange(0, 3).Draw(t, "fasteners") {
		f := teardown.Fastener{
			Count:    rapid.IntRange(1, 40).Draw(t, "count"),
			Kind:     rapid.SampledFrom([]string{"M3 pan", "clip", "M2.5", "plastic rivet"}).Draw(t, "kind"),
			LengthMm: float64(rapid.IntRange(0, 30).Draw(t, "length")) / 2,
			Washer:   rapid.SampledFrom([]string{"", "plain", "spring"}).Draw(t, "washer"),
			Tool:     rapid.SampledFrom([]string{"", "PH1", "hex 2.5"}).Draw(t, "tool"),
			Keeping: rapid.SampledFrom([]teardown.Keeping{teardown.InCell, teardown.InHole, teardown.Laid}).Draw(t,
				"way"),
		}
		switch f.Keeping {
		case teardown.InCell:
			f.Cell = fmt.Sprintf("%c%d", 'A'+rapid.IntRange(0, 3).Draw(t, "row"),
				rapid.IntRange(1, 6).Draw(t, "column"))
		case teardown.Laid:
			f.Pattern = teardown.Lay("row", f.Count)
		}
		s.Fasteners = append(s.Fasteners, f)
	}
	if rapid.Bool().Draw(t, "more") {
		s.Tabs, s.Connectors, s.Differs = []string{"left, brittle"}, []string{"J1", "P 2"},
			[]teardown.Variant{{Subject: "battery", Value: "in a holder"}}
		s.Needs, s.Frees, s.Look = []string{"Lid", "Drive bay"}, []string{"BT1"}, []string{"below BT1"}
		s.Minutes = rapid.IntRange(0, 999).Draw(t, "minutes")
	}
	return s.Whole()
}

func TestALineSurvivesTheRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := drawStep(t)
		again, err := teardown.ParseStep(s.String())
		require.NoError(t, err, s.String())
		require.Equal(t, s, again, s.String())
	})
}

func FuzzParseStep(f *testing.F) {
	f.Add("Lid | 4x M3x8 pan PH1 @A1 | tab: x | unplug J1,J2 | differs a: b | note: c")
	f.Add("a|0x b @laid:ring|")
	f.Fuzz(func(t *testing.T, line string) {
		s, err := teardown.ParseStep(line)
		if err != nil {
			return
		}
		again, err := teardown.ParseStep(s.String())
		if s.Check(teardown.Tray{Rows: 12, Columns: 12}) == nil && err == nil {
			require.Equal(t, s.Off, again.Off)
			require.Len(t, again.Fasteners, len(s.Fasteners))
		}
	})
}

func logged(lines ...string) []teardown.Logged {
	steps := make([]teardown.Logged, len(lines))
	for i, line := range lines {
		s, err := teardown.ParseStep(line)
		if err != nil {
			panic(err)
		}
		steps[i] = teardown.Logged{N: i + 1, Step: s, Reversal: teardown.Reversal{State: teardown.Off}}
	}
	return steps
}

func TestTheTrayHoldsOneStepACell(t *testing.T) {
	tray := teardown.Tray{Rows: 2, Columns: 3}
	steps := logged("Lid | 4x M3x8 @A1", "Cage | 2x M3x6 @A2 | 1x M4 @A2", "Drive | 4x M3x5 @A1", "Feet | 4x M5 @hole")
	cells := tray.Filled(steps)
	require.Len(t, cells, 6)
	require.Equal(t, teardown.Cell{Name: "A2", Step: 2, Off: "Cage", Holds: []string{"2 M3 x 6 mm", "1 M4"}, Count: 3},
		cells[1])
	require.Contains(t, cells[0].Mixed, "steps 1 and 3 share the cell A1")
	require.Equal(t, "A3", tray.Free(steps))
	require.Equal(t, "B3", tray.Last())
	require.ErrorContains(t, steps[0].Check(teardown.Tray{Rows: 0, Columns: 0}), "no cell")
	steps[2].Reversal = teardown.Reversal{State: teardown.Back, Left: []teardown.LeftOver{{Fastener: 0, Count: 1}}}
	steps[0].State = teardown.Back
	require.Equal(t, teardown.Cell{Name: "A1", Step: 3, Off: "Drive", Holds: []string{"1 M3 x 5 mm"}, Count: 1},
		tray.Filled(steps)[0])
}

func TestClosingNamesWhatLacks(t *testing.T) {
	steps := logged("Lid | 4x M3x8 @A1", "Drive | 4x M3x5 @A2 | unplug J5, J6", "Card")
	plugs := []teardown.Connector{{Name: "J5", Open: true}, {Name: "J6"}, {Name: "P1", Open: true}}
	require.Equal(t, 3, teardown.Next(steps).N)
	blockers := teardown.Blockers(steps, plugs)
	require.Equal(t, "step 3, Card, is not back on; tick it, or skip it with a reason", blockers[0].Text)
	require.Len(t, blockers, 5)
	require.Equal(t, teardown.Blocker{Kind: "connector", Step: 2,
		Text: "connector J5, unplugged in step 2, is open; plug it in as the map shows, and tick it"}, blockers[3])
	require.Equal(t, teardown.Sums{Steps: 3, Off: 3, Fasteners: 8, Aside: 8, Unplugged: 2, Open: 2},
		teardown.Sum(steps, plugs))

	steps[2].Reversal = teardown.Reversal{State: teardown.Skipped}
	steps[1].Reversal = teardown.Reversal{State: teardown.Back, Left: []teardown.LeftOver{{Fastener: 0, Count: 1}}}
	steps[0].State = teardown.Back
	outcome, why := teardown.OutcomeOf(steps, plugs)
	require.Equal(t, teardown.StillOff, outcome)
	require.Contains(t, why, "skipped without a reason")
	steps[2].Reason = "goes to the stores"
	plugs[0].Open, plugs[2].Open = false, false
	_, why = teardown.OutcomeOf(steps, plugs)
	require.Equal(t, "1 M3 x 5 mm of step 2, Drive, is left over; put it back, or say what became of it", why)
	steps[1].Left[0].Reason = "the hole is stripped"
	outcome, why = teardown.OutcomeOf(steps, plugs)
	require.Equal(t, teardown.ClosedWithExceptions, outcome)
	require.Equal(t, "Card is left off: goes to the stores; 1 M3 x 5 mm left over from Drive: the hole is stripped",
		why)
	require.Nil(t, teardown.Next(steps))

	for want, r := range map[string]teardown.Reversal{
		"say why the step is skipped": {State: teardown.Skipped},
		"the step has 4":              {State: teardown.Back, Left: []teardown.LeftOver{{Fastener: 0, Count: 5}}},
		"does not have":               {State: teardown.Back, Left: []teardown.LeftOver{{Fastener: 1, Count: 1}}},
	} {
		require.ErrorContains(t, r.Fits(steps[0].Step), want)
	}

	// Whatever is reversed, the log is closed just when nothing lacks and nothing was left.
	rapid.Check(t, func(t *rapid.T) {
		steps, plugs := []teardown.Logged{}, []teardown.Connector{}
		for i := range rapid.IntRange(1, 8).Draw(t, "steps") {
			s := teardown.Logged{N: i + 1, Step: drawStep(t),
				Reversal: teardown.Reversal{
					State: rapid.SampledFrom([]teardown.State{teardown.Off, teardown.Back}).Draw(t, "state"),
				}}
			steps = append(steps, s)
			for _, name := range s.Connectors {
				plugs = append(plugs, teardown.Connector{Name: name, Open: s.State == teardown.Off})
			}
		}
		outcome, _ := teardown.OutcomeOf(steps, plugs)
		next := teardown.Next(steps)
		require.Equal(t, next == nil, outcome == teardown.Closed)
		if next != nil {
			for _, s := range steps[next.N:] {
				require.Equal(t, teardown.Back, s.State)
			}
		}
	})
}

func TestAProcedureShowsHowThisMachineDiffers(t *testing.T) {
	plain := func(lines ...string) []teardown.Step {
		steps := []teardown.Step{}
		for _, l := range logged(lines...) {
			steps = append(steps, l.Step)
		}
		return steps
	}
	procedure := plain("Lid | 4x M3x8 @A1", "Battery | differs battery: in a holder | in this order",
		"Main board | 6x M3x6 @A2")
	log := plain("lid | 3x M3x8 @A1 | 1x M3x12 @A1", "Shield", "Main  board | 6x M3x6 @A2",
		"Battery | differs battery: soldered")
	texts := []string{}
	for _, c := range teardown.Compare(procedure, log) {
		texts = append(texts, fmt.Sprintf("%d %s: %s", c.Step, c.Off, c.Text))
	}
	require.Equal(t, []string{
		"1 lid: fasteners here: 3 M3 x 8 mm, 1 M3 x 12 mm; in the procedure: 4 M3 x 8 mm",
		"2 Shield: the procedure has no such step",
		"4 Battery: came off in another order than the procedure asks for",
		"4 Battery: battery here: soldered; in the procedure: in a holder",
	}, texts)
	require.Empty(t, teardown.Compare(procedure, procedure))
	require.Equal(t, []teardown.Change{{Step: 0, Off: "Battery", Text: "was not taken off here"}},
		teardown.Compare(procedure[:2], procedure[:1]))

	battery := func(value, machine, from, to string) teardown.Observed {
		return teardown.Observed{Variant: teardown.Variant{Subject: "battery", Value: value}, Machine: machine,
			From: from, To: to}
	}
	told := teardown.Variants([]teardown.Observed{
		battery("in a holder", "EH-0142", "1985-10-01", "1985-12-01"),
		battery("soldered", "EH-0101", "1983-02-01", "1983-06-01"),
		battery("Soldered", "EH-0139", "", ""), battery("in a holder", "EH-0150", "1986-01-01", "1986-03-01"),
	})
	require.Len(t, told, 1)
	require.Equal(t, []string{"EH-0101", "EH-0139"}, told[0].Spans[0].Machines)
	require.Contains(t, told[0].Dates, "soldered gave place to in a holder between 1983-06-01 and 1985-10-01")
	require.Contains(t, teardown.Variants([]teardown.Observed{battery("a", "1", "1983-01-01", "1985-01-01"),
		battery("b", "2", "1984-01-01", "1986-01-01")})[0].Dates, "that dates nothing")
	require.Empty(t, teardown.Variants([]teardown.Observed{battery("a", "1", "", ""), battery("A", "2", "", "")}),
		"the same on all")
}

func TestCautionsAreSaidOnce(t *testing.T) {
	steps := logged("Lid", "Power supply | tab: left", "Lead of the supply", "Memory card", "Disk card")
	keys, said := []string{}, caution.Shown{}
	for _, s := range steps {
		words := []string{}
		for _, key := range said.Now(s.Cautions(nil)) {
			words = append(words, string(key))
		}
		keys = append(keys, strings.Join(words, " "))
	}
	require.Equal(t, []string{"mains edges", "charge", "", "static", ""}, keys)
	ring := teardown.Lay("ring", 4)
	require.InDelta(t, 0.5, ring[0].X, 1e-9)
	require.InDelta(t, 0.1, ring[0].Y, 1e-9)
	require.Equal(t, []teardown.Point{{X: 0.5, Y: 0.5}}, teardown.Lay("row", 1))
	tapped := teardown.Step{Off: "Lid",
		Fasteners: []teardown.Fastener{{Count: 3, Kind: "M3", Keeping: teardown.Laid, Shape: "ring"}}}.Whole()
	require.Equal(t, teardown.Lay("ring", 3), tapped.Fasteners[0].Pattern)
	require.Empty(t, tapped.Fasteners[0].Shape)
}

func stepsOf(t *testing.T, lines string) []teardown.Step {
	steps := []teardown.Step{}
	for line := range strings.Lines(lines) {
		s, err := teardown.ParseStep(strings.TrimSpace(line))
		require.NoError(t, err, line)
		steps = append(steps, s)
	}
	return steps
}

const toTheBattery = `Lid | 4x M4x10 PH2 @A1 | tab: rear, brittle | needs: nothing | 5 min
Fan | 4x M3x30 PH1 @A2 | unplug P9 | needs: Lid
Drive bay | 4x M3x5 PH1 @A3 | unplug J5, J6 | needs: Lid | 10 min
Supply | 4x M3x6 PH1 @A4 | unplug P1 | needs: Lid, Fan | 10 min
Main board | unplug P2, J5 | tab: spacers | needs: Lid, Drive bay | frees: BT1, JP1-JP4 | look: tracks below BT1
Keyboard plate | needs: nothing | frees: C1-C40`

// The way to a part is no longer than it must be, and closed; what nobody said counts as needed.
func TestTheWayToAPart(t *testing.T) {
	steps := stepsOf(t, toTheBattery)
	way := teardown.WayTo("BT1", "Main board", steps)
	require.Equal(t,
		"To BT1: 3 of 6 steps, PH2 and PH1, 2 tabs to mind, 3 plugs, 15 minutes, 1 step that nobody timed.",
		way.Words)
	require.Equal(t, []string{"tracks below BT1"}, way.Look)
	require.Equal(t, []string{"P2", "J5", "J6"}, []string{way.Plugs[2], way.Plugs[0], way.Plugs[1]})
	require.Len(t, teardown.WayTo("jp3", "", steps).Steps, 3)
	require.Len(t, teardown.WayTo("C17", "", steps).Steps, 1)
	require.Len(t, teardown.WayTo("supply", "", steps).Steps, 3)
	require.Equal(t, "mains lead out", strings.ToLower(way.First[0][:14]))

	none := teardown.WayTo("U9", "Main board", steps)
	require.Equal(t, "nobody Nobody got to U9 yet; nearest is Main board.", none.State+" "+none.Words)
	require.Len(t, none.Steps, 3)
	require.Equal(t, "Nobody got to U9 yet; nearest is Keyboard plate.", teardown.WayTo("U9", "", steps).Words)
	require.Equal(t, "Nobody got to U9 yet.", teardown.WayTo("U9", "", nil).Words)

	circle := teardown.WayTo("BT1", "", stepsOf(t,
		"Lid | needs: Bay\nBay | needs: Lid\nBoard | needs: Bay | frees: BT1"))
	require.Equal(t, teardown.WayCircle, circle.State)
	require.Contains(t, circle.Words, "Bay, Lid")
	require.Empty(t, circle.Steps)
	// Another step that frees it, without the circle, is the way.
	require.Len(t, teardown.WayTo("BT1", "", stepsOf(t,
		"Lid | needs: Bay\nBay | needs: Lid\nBoard | needs: Bay | frees: BT1\nHatch | needs: nothing | frees: BT1")).Steps, 1)

	unsaid := teardown.WayTo("Battery", "", stepsOf(t, "Lid\nFan\nBattery"))
	require.Len(t, unsaid.Steps, 3)
	require.True(t, unsaid.Steps[2].Assumed)
	require.False(t, unsaid.Steps[0].Assumed)
	missing := teardown.WayTo("Battery", "", stepsOf(t, "Lid\nBattery | needs: Lid, Shroud"))
	require.Contains(t, missing.Words, "No step says how these come off: Shroud.")

	log := logged(strings.Split(toTheBattery, "\n")...)
	require.Equal(t, []string{"Fan", "Drive bay", "Supply", "Main board"}, teardown.TooEarly(log, 1))
	require.Empty(t, teardown.TooEarly(log, 6))
	log[4].Reversal.State = teardown.Back
	require.Empty(t, teardown.TooEarly(log, 3))
}

func TestTwoLengthsInOneCell(t *testing.T) {
	tray := teardown.Tray{Rows: 1, Columns: 2}
	cells := tray.Filled(logged("Lid | 2x M3x6 PH1 @A1 | 2x M3x10 PH1 @A1 | 1x clip @A2"))
	require.Contains(t, cells[0].Mixed, "say which hole takes which")
	require.Empty(t, cells[1].Mixed)
	require.Empty(t, tray.Filled(logged("Lid | 2x M3x6 PH1 @A1 | 2x M3x10 PH1 @A2"))[0].Mixed)
}
