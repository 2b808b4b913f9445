package reckoning_test

import (
	"fmt"
	"reflect"
	"slices"
	"strings"
	"testing"

	"pgregory.net/rapid"

	"frugalheron/core/device/builtin"
	"frugalheron/core/reckoning"
)

// part is a line of a drawn sheet, and what it must add up to.
type part struct {
	marking  string
	bits     int64 // of one chip
	isRAM    bool
	isOneBit bool
}

var drawnParts = []part{
	{"41256-15 8512", 256 << 10, true, true}, {"4164-15", 64 << 10, true, true},
	{"4416-12 8420", 64 << 10, true, false},
	{"6264LP-15", 64 << 10, true, false}, {"27128-25 8533", 128 << 10, false, false},
	{"2764 8501 @socket", 64 << 10, false, false},
	{"SN74LS245N 8440", 0, false, false}, {"HX9040-2", 0, false, false},
}

func totalsOf(t *rapid.T, lines []string) reckoning.Totals {
	r, err := reckoning.Of(builtin.Library(), []byte(strings.Join(lines, "\n")), reckoning.Options{})
	if err != nil || len(r.Problems) > 0 {
		t.Fatal(err, r.Problems)
	}
	return r.Totals
}

// The sums are those of the drawn parts, whatever the order of the lines, and comments count for
// nothing. Each line makes whole bytes without parity: what does so only with others is a test of its own.
func TestSumsAreThoseOfTheParts(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lines, next := []string{}, 1
		chips, ramBits, romBits := 0, int64(0), int64(0)
		for range rapid.IntRange(1, 20).Draw(t, "lines") {
			p := rapid.SampledFrom(drawnParts).Draw(t, "part")
			count := rapid.IntRange(1, 40).Draw(t, "count")
			switch {
			case p.isOneBit:
				count = 8 * (1 + count%8)
			case p.isRAM && strings.HasPrefix(p.marking, "4416"):
				count *= 2
			}
			lines = append(lines, fmt.Sprintf("U%d-U%d %s", next, next+count-1, p.marking))
			next, chips = next+count, chips+count
			if p.isRAM {
				ramBits += p.bits * int64(count)
			} else {
				romBits += p.bits * int64(count)
			}
		}
		totals := totalsOf(t, lines)
		if totals.Chips != chips || totals.RAMBytes != ramBits/8 || totals.ROMBytes != romBits/8 ||
			totals.ParityBits != 0 {
			t.Fatalf("%+v; want %d chips, %d and %d bits", totals, chips, ramBits, romBits)
		}
		shuffled := rapid.Permutation(lines).Draw(t, "order")
		shuffled = slices.Insert(shuffled, rapid.IntRange(0, len(shuffled)).Draw(t, "at"), "# U1 41256", "")
		if again := totalsOf(t, shuffled); !reflect.DeepEqual(again, totals) {
			t.Fatalf("in another order %+v, was %+v", again, totals)
		}
	})
}

// Chips of one depth and purpose that make whole bytes only together are counted together, whatever the order.
func TestMemoryOverLines(t *testing.T) {
	for _, test := range []struct {
		lines  []string
		ram    int64 // bytes of data
		parity int64 // bits
		note   string
	}{
		{lines: []string{"U1-U8 41256-15", "U9 41256-15"}, ram: 256 << 10, parity: 256 << 10},
		{lines: []string{"U1,U2 41464-12", "U3 4164-12"}, ram: 64 << 10, parity: 64 << 10},
		{lines: []string{"U1-U8 41256-15", "U9 4164-15"}, ram: 256<<10 + 64<<10/8, note: "no whole bytes"},
		{lines: []string{"U1-U8 41256-15", "U9 41256-15 for:picture"}, ram: 256<<10 + 256<<10/8,
			note: "no whole bytes"},
		{lines: []string{"U1-U32 4164-15", "U33-U39 4164-15"}, ram: 4 * 64 << 10, parity: 7 * 64 << 10,
			note: "correct errors"},
		{lines: []string{"U1-U3 41464-12"}, ram: 3 * 32 << 10, note: "no whole bytes"},
		{lines: []string{"U1-U70 4164-15", "U71,U72 4164-15"}, ram: 9 * 64 << 10, note: "with parity"},
		{lines: []string{"U1-U9 41256-15", "U10-U17 41256-15"}, ram: 512 << 10, parity: 256 << 10},
	} {
		for range 2 {
			r, err := reckoning.Of(builtin.Library(), []byte(strings.Join(test.lines, "\n")), reckoning.Options{})
			if err != nil {
				t.Fatal(err)
			}
			if r.Totals.RAMBytes != test.ram || r.Totals.ParityBits != test.parity {
				t.Errorf("%v: %d bytes and %d bits, want %d and %d", test.lines, r.Totals.RAMBytes, r.Totals.ParityBits,
					test.ram, test.parity)
			}
			isNoted := func(n reckoning.Note) bool { return strings.Contains(n.Text, test.note) }
			if !slices.ContainsFunc(r.Notes, isNoted) {
				t.Errorf("%v: no note of %q in %v", test.lines, test.note, r.Notes)
			}
			slices.Reverse(test.lines)
		}
	}
}

// What memory is for moves bytes from one purpose to another and changes no sum.
func TestPurposeChangesNoSum(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		purpose := rapid.SampledFrom([]string{"main", "picture", "cache", "shared", "card"}).Draw(t, "purpose")
		count := rapid.IntRange(1, 80).Draw(t, "count")
		plain := totalsOf(t, []string{fmt.Sprintf("%dx 41256", count)})
		onLine := totalsOf(t, []string{fmt.Sprintf("%dx 41256 for:%s", count, purpose)})
		onHeading := totalsOf(t, []string{"== A | for:" + purpose, fmt.Sprintf("%dx 41256", count)})
		if onLine.RAMBytes != plain.RAMBytes || onLine.ParityBits != plain.ParityBits ||
			!reflect.DeepEqual(onLine, onHeading) {
			t.Fatalf("%+v, %+v, %+v", plain, onLine, onHeading)
		}
		if purpose != "main" && onLine.RAMBy.Main != 0 {
			t.Fatalf("main keeps %d bytes", onLine.RAMBy.Main)
		}
	})
}

// An empty socket adds nothing but itself.
func TestEmptySocketsHoldNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		count := rapid.IntRange(1, 30).Draw(t, "count")
		marking := rapid.SampledFrom(drawnParts).Draw(t, "part").marking
		got := totalsOf(t, []string{fmt.Sprintf("U1-U%d %s @empty", count, marking)})
		want := totalsOf(t, nil)
		want.EmptySockets = count
		if !reflect.DeepEqual(got, want) {
			t.Fatalf("%+v", got)
		}
	})
}
