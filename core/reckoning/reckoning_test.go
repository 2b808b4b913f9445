package reckoning_test

import (
	"fmt"
	"reflect"
	"strings"
	"testing"

	"frugalheron/core/calendar"
	"frugalheron/core/datecode"
	"frugalheron/core/device/builtin"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/core/verdict"
)

const twoBoards = `== Main board | part 4410-2 | rev C
U1         HX9040-2 8431
U40-U48    41256-15 8512
U20,U22    27128-25 8533 @socket
U23        27128 @empty
U30        ?
U31        SC8720?P 8601
X1         18.432 MHz
C5         0.1uF X2 275V !cracked
J3         1-2
SW1        10110000
BT1        NiCd 3.6V 60mAh !leaking: green crust on the anode
U50-U53    4416-15 8420 for:picture
M1,M2      SIMM 30-pin 1Mx9 70ns
lid marked by hand
== Video card | slot 3 | fit later | for:picture
C5         74LS245 8550
8x         4164-15
U1         41256 for:parity
`

func of(t *testing.T, text string) reckoning.Result {
	t.Helper()
	r, err := reckoning.Of(builtin.Library(), []byte(text), reckoning.Options{})
	if err != nil {
		t.Fatal(err)
	}
	return r
}

func TestTotalsOfTwoBoards(t *testing.T) {
	r := of(t, twoBoards)
	got := r.Totals
	dates := got.Dates
	draw := got.Draw["+5"]
	got.Dates, got.Draw = nil, nil
	want := reckoning.Totals{
		Chips: 1 + 9 + 2 + 1 + 1 + 4 + 1 + 8 + 1, Modules: 2, Unidentified: 3,
		RAMBytes:   (256 + 32 + 2048 + 64) << 10,
		RAMBy:      reckoning.RAMBy{Main: (256 + 2048) << 10, Picture: (32 + 64) << 10},
		ParityBits: 256<<10 + 2<<20 + 256<<10,
		ROMBytes:   32 << 10, ROMs: 2, EmptySockets: 1, Findings: 2,
	}
	if !reflect.DeepEqual(got, want) {
		t.Errorf("totals\n%+v, want\n%+v", got, want)
	}
	if dates == nil || dates.Earliest.Text != "1984-W20" || dates.Latest.Text != "1986-W01" ||
		dates.Count != 1+9+2+1+4+1 {
		t.Errorf("dates %+v", dates)
	}
	if draw.Counted+draw.Uncounted != want.Chips || draw.Uncounted != 3 || draw.TypicalA <= 0 {
		t.Errorf("draw %+v", draw)
	}
	if len(r.Problems) != 0 || len(r.Assemblies) != 2 || r.Assemblies[1].Attributes["slot"] != "3" {
		t.Errorf("problems %v, assemblies %d", r.Problems, len(r.Assemblies))
	}
}

func TestKinds(t *testing.T) {
	for line, want := range map[string]reckoning.Kind{
		"U1 HX9040-2": reckoning.Chip, "C5 74LS245": reckoning.Chip, "A3 4164-15": reckoning.Chip,
		"4C HX9040-2": reckoning.Chip,
		"U7 ?":        reckoning.Chip, "8x 4164": reckoning.Chip, "X1 18.432 MHz": reckoning.Crystal,
		"U9 24.000MHz oscillator": reckoning.Crystal,
		"U2 HX9040 8MHz":          reckoning.Chip, "C1 0.1uF": reckoning.Capacitor, "C2 470 uF": reckoning.Capacitor,
		"C3 10µF 16V": reckoning.Capacitor, "C4": reckoning.Capacitor,
		"C12 104": reckoning.Capacitor, "R1 4k7": reckoning.Resistor, "R9 220": reckoning.Resistor,
		"RN1 330 ohm": reckoning.Network, "RN1 4116R-001-472": reckoning.Network, "U9 4116R-001-472": reckoning.Network,
		"1x resistor network": reckoning.Network, "R9 4702": reckoning.Resistor, "C11 4116": reckoning.Capacitor,
		"R10 74LS245": reckoning.Chip, "K3 74LS74 8533": reckoning.Chip, "K1 5V": reckoning.Relay,
		"F1 2A":         reckoning.Fuse,
		"HD1 20MB 8533": reckoning.Drive, "FD1 1772": reckoning.Drive, "PS1 7805": reckoning.Supply,
		"FAN1 80mm": reckoning.Fan, "SP1 8 ohm": reckoning.Speaker, "LS1 0.5W": reckoning.Speaker,
		"FL1": reckoning.Filter, "DS1 5082": reckoning.Display, "M1 4116 8533": reckoning.Chip,
		"M1 2116 own board": reckoning.Module, "SIMM1 @empty": reckoning.Module, "M2 crystal": reckoning.Crystal,
		"U9 8K RAM": reckoning.Chip, "U41 memory module 64MB": reckoning.Module, "U7 RAM controller": reckoning.Chip,
		"1x floppy drive controller": reckoning.Other, "1x battery connector": reckoning.Connector,
		"C5 47uF filter": reckoning.Capacitor, "R3 10k network": reckoning.Network, "X1 4 MHz drive": reckoning.Crystal,
		"SW3 ?": reckoning.Switch, "8x 330 ohm": reckoning.Resistor,
		"J3 1-2": reckoning.Jumper, "JP1 open": reckoning.Jumper, "J4 34-pin header": reckoning.Connector,
		"CN1 DB25 female": reckoning.Connector,
		"SW1 10110000":    reckoning.Switch, "BT1 CR2032": reckoning.Battery, "B1 NiCd 3.6V": reckoning.Battery,
		"M1 SIMM 30-pin 1Mx9": reckoning.Module, "U3 SIMM 4MB": reckoning.Module, "D4 1N4148": reckoning.Other,
		"8x 1N4148": reckoning.Other, "2x bracket": reckoning.Other,
	} {
		if got := of(t, line).Assemblies[0].Entries[0].Kind; got != want {
			t.Errorf("%q is %s, want %s", line, got, want)
		}
	}
}

func TestLineStatesAndVerdicts(t *testing.T) {
	r := of(t, twoBoards+"U1 7400\n")
	states := map[int]reckoning.LineState{}
	for _, line := range r.Lines() {
		states[line.Line] = line.State
	}
	for line, want := range map[int]reckoning.LineState{2: reckoning.Unknown, 3: reckoning.Recognised,
		5: reckoning.PartLine, 7: reckoning.Unknown, 9: reckoning.PartLine, 15: reckoning.TextLine,
		20: reckoning.ProblemAt} {
		if states[line] != want {
			t.Errorf("line %d is %q, want %q", line, states[line], want)
		}
	}
	verdicts := reckoning.Verdicts([]reckoning.Board{{Assembly: 7, Title: "both", Result: r}})
	if v := verdicts[0]; v.Key != "findings" || v.State != verdict.Stop || len(v.Why) != 2 ||
		*v.Why[1].Spot != (verdict.Spot{Assembly: 7, Line: 12}) {
		t.Errorf("first verdict %+v", v)
	}
	if !strings.Contains(verdicts[0].Caution, "mains") || !strings.Contains(verdicts[1].Caution, "gloves") ||
		verdicts[3].Caution != "" {
		t.Errorf("cautions %q, %q, %q", verdicts[0].Caution, verdicts[1].Caution, verdicts[3].Caution)
	}
	values := map[string]string{}
	for _, v := range verdicts {
		values[v.Key] = v.Value
		if len(v.Why) == 0 {
			t.Errorf("%s says no why", v.Key)
		}
	}
	for key, want := range map[string]string{
		"problems": "1 problem", "ram": "2400 KB, 2304 KB main, 96 KB picture, and parity", "rom": "32 KB in 2 chips",
		"dates": "1984-W20 to 1986-W01", "unidentified": "3 chips", "parts": "28 chips, 2 modules", "sockets": "1",
	} {
		if values[key] != want {
			t.Errorf("%s: %q, want %q", key, values[key], want)
		}
	}
}

func TestStageOf(t *testing.T) {
	board := func(text string) reckoning.Counts { r := of(t, text); return r.Counts() }
	tests := []struct {
		boards []reckoning.Counts
		want   reckoning.Stage
	}{
		{nil, reckoning.Stage{State: reckoning.Untouched}},
		{[]reckoning.Counts{board("")}, reckoning.Stage{State: reckoning.InHand}},
		{[]reckoning.Counts{board("U1 7400"), board("")}, reckoning.Stage{State: reckoning.InHand}},
		{[]reckoning.Counts{board("U1 7400")}, reckoning.Stage{State: reckoning.Settled}},
		{[]reckoning.Counts{board("U1 7400\nU1 7400\nU2 ?")},
			reckoning.Stage{State: reckoning.NeedsAttention, Count: 2}},
	}
	for _, test := range tests {
		if got := reckoning.StageOf(test.boards); got != test.want {
			t.Errorf("StageOf(%d boards) = %+v, want %+v", len(test.boards), got, test.want)
		}
	}
}

// The verdicts of boards reckoned one by one are those of all in one sheet.
func TestCombineAgreesWithOneSheet(t *testing.T) {
	whole := of(t, twoBoards)
	boards := []reckoning.Board{}
	for _, text := range strings.SplitAfter(strings.Replace(twoBoards, "== Video", "\x00== Video", 1), "\x00") {
		boards = append(boards, reckoning.Board{Result: of(t, strings.Trim(text, "\x00"))})
	}
	got, want := reckoning.Combine(boards), whole.Totals
	if d := got.Draw["+5"].TypicalA - want.Draw["+5"].TypicalA; d > 0.002 || d < -0.002 {
		t.Errorf("draw %v, want %v", got.Draw, want.Draw)
	}
	got.Draw, want.Draw = nil, nil
	if !reflect.DeepEqual(got, want) {
		t.Errorf("got %+v\nwant %+v", got, want)
	}
}

func TestTenThousandLines(t *testing.T) {
	var b strings.Builder
	for i := range 10_000 {
		fmt.Fprintf(&b, "U%d 74LS00 8533\r\n", i+1)
	}
	if r := of(t, b.String()); r.Totals.Chips != 10_000 || len(r.Problems) > 0 {
		t.Errorf("%d chips, problems %v", r.Totals.Chips, r.Problems)
	}
}

func FuzzOf(f *testing.F) {
	f.Add(twoBoards)
	f.Add("72x 41256\nU1-U1000000 ?\nM1 SIMM\n")
	f.Fuzz(func(t *testing.T, text string) {
		r, err := reckoning.Of(builtin.Library(), []byte(text), reckoning.Options{Mode: sheet.Whole})
		if err != nil {
			return
		}
		by := r.Totals.RAMBy
		if by.Main+by.Picture+by.Cache+by.Shared+by.Card != r.Totals.RAMBytes {
			t.Errorf("purposes do not add up: %+v", r.Totals)
		}
		reckoning.Verdicts([]reckoning.Board{{Result: r}})
		r.Lines()
	})
}

func ExampleOf() {
	r, _ := reckoning.Of(builtin.Library(), []byte("U40-U48 41256-15 8512\nU20,U22 27128-25 8533"), reckoning.Options{})
	fmt.Println(r.Totals.RAMBytes, r.Totals.ParityBits, r.Totals.ROMBytes)
	// Output: 262144 262144 32768
}

// What is said in words counts as what it says; a width that is not told is a byte.
func TestMemoryInWords(t *testing.T) {
	for line, want := range map[string][2]int64{ // RAM and ROM in bytes
		"U9 8K RAM": {8 << 10, 0}, "U9 64 KB SRAM": {64 << 10, 0}, "U9-U16 64Kbit RAM": {64 << 10, 0},
		"M1 memory module 64MB": {64 << 20, 0}, "M5 ROM module 4MB": {0, 4 << 20}, "M5 flash memory 2MB": {0, 2 << 20},
		"U9 RAM controller 64K": {}, "U9 no RAM 8K": {}, "U9 EPROM 32Kx8": {0, 32 << 10},
	} {
		got := of(t, line).Totals
		if got.RAMBytes != want[0] || got.ROMBytes != want[1] {
			t.Errorf("%q: %d of RAM and %d of ROM, want %v", line, got.RAMBytes, got.ROMBytes, want)
		}
	}
}

// Codes on a part that was put in later may lie past the usual years, up to the day it was put in, or today.
func TestDatesOfWhatIsNew(t *testing.T) {
	for _, test := range []struct{ text, want string }{
		{"U1 74LS00 2135", ""}, {"U1 74LS00 2135 new:2022", "2021-W35"}, {"U1 74LS00 2435 new:2022", ""},
		{"U1 74LS00 8533 new:2022", "1985-W33"}, {"BT1 NiMH 2135 new:2021-10", "2021-W35"},
		{"== Card | fit modern\nU1 74LS00 2135", "2021-W35"}, {"== Card | fit period\nU1 74LS00 2135", ""},
		{"R9 4702", ""}, {"PS1 2012 V", ""}, {"BT1 CR 2032", ""}, {"X1 18.432 MHz 8534", "1985-W34"},
	} {
		r, err := reckoning.Of(builtin.Library(), []byte(test.text), reckoning.Options{
			Era: datecode.Era{From: 1984, To: 1987}, Today: calendar.Date{Year: 2026, Month: 11, Day: 1}})
		if err != nil {
			t.Fatal(err)
		}
		got := ""
		if date := r.Assemblies[0].Entries[0].Date; date != nil {
			got = date.Text
		}
		if got != test.want {
			t.Errorf("%q is read as %q, want %q", test.text, got, test.want)
		}
	}
}

func TestWhatNobodyKnowsIsCountedWhateverItIs(t *testing.T) {
	r := of(t, "SW3 ?\nY1 ? 4 pins\nU1 ?\nU2 ? @empty")
	if r.Totals.Unidentified != 3 || r.Totals.Chips != 1 {
		t.Errorf("totals %+v", r.Totals)
	}
}

// A part cannot have been put in after today, nor before there was a machine: the line counts, and is said to be wrong.
func TestWhenAPartCannotHaveBeenPutIn(t *testing.T) {
	text := "U1 7400 new:2026-12\nU2 7400 new:2026\nU3 7400 new:1979\n  U4 7400 new:1984 # late\nU5 7400 new:../1990"
	r, err := reckoning.Of(builtin.Library(), []byte(text), reckoning.Options{Mode: sheet.Body,
		Era: datecode.Era{From: 1984, To: 1987}, Today: calendar.Date{Year: 2026, Month: 11, Day: 28}})
	if err != nil || r.Totals.Chips != 5 {
		t.Fatalf("%d chips, %v", r.Totals.Chips, err)
	}
	want := []sheet.Problem{
		{Line: 1, Column: 9, Message: "new:2026-12 lies after today; write when the part was put in"},
		{Line: 3, Column: 9, Message: "new:1979 is before the machine was built, from 1984 on; correct one of the two"},
	}
	if !reflect.DeepEqual(want, r.Problems) {
		t.Error(r.Problems)
	}
}
