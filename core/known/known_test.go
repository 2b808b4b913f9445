package known_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/known"
)

func record(t require.TestingT, id int64, numbers, revisions, words, chips string) known.Record {
	revs, err := known.ParseRevisions(revisions)
	require.NoError(t, err)
	types, problems := known.ParseChips(chips)
	require.Empty(t, problems)
	lines := func(text string) []string {
		return strings.FieldsFunc(text, func(r rune) bool { return r == ';' })
	}
	return known.Record{ID: id, Numbers: lines(numbers), Revisions: revs, Words: lines(words), Chips: types}
}

const diskCard = "UPD765\nFDC9229\n2x 74LS245\n8255\n2764\n2x 74LS374"

func index(t require.TestingT) *known.Index {
	return known.NewIndex([]known.Record{
		record(t, 1, "ASSY 4424-1", "A-C", "", ""), record(t, 2, "4430", "", "Estuary Disk Master", diskCard),
		record(t, 3, "PS-65", "", "", ""), record(t, 4, "4424-1", "C-E", "", ""), record(t, 5, "", "", "Memory card",
			diskCard),
	})
}

func told(matches []known.Match) string {
	words := []string{}
	for _, m := range matches {
		sure := "maybe"
		if m.Sure {
			sure = "sure"
		}
		words = append(words, fmt.Sprintf("%d %s %s %s", m.ID, m.By, sure, m.Revision))
	}
	return strings.Join(words, "; ")
}

func ExampleIndex_Recognise() {
	for _, m := range index(&testing.T{}).Recognise(known.Thing{Part: "P/N 4424 1", Rev: "rev. B"}) {
		fmt.Println(m.ID, m.Sure, m.Why)
	}
	// Output:
	// 1 true its number is ASSY 4424-1
	// 4 false its number is 4424-1; the record is of revision C-E, this one is rev. B; but another record speaks of that one
}

func TestRecognising(t *testing.T) {
	x := index(t)
	swapped := strings.Replace(diskCard, "8255", "8253", 1) // seven of eight
	for thing, want := range map[string]string{
		"4424-1|A|":                    "1 number sure same; 4 number maybe other",
		"4424-1|B|":                    "1 number sure same; 4 number maybe other",
		"44241|C|":                     "1 number sure same; 4 number sure same", // both claim it
		"4424 1||":                     "1 number sure not told; 4 number sure not told",
		"4424-1 rev. D||":              "4 number sure same; 1 number maybe other",
		"44-241|D|":                    "4 number maybe same; 1 number maybe other", // divided elsewhere
		"4424-1D||":                    "4 number maybe same; 1 number maybe other", // D behind it may be the revision
		"4424-1D|D|":                   "4 number sure same; 1 number maybe other",
		"4424-12||":                    "",
		"PS-65||":                      "3 number sure every",
		"ps 65||":                      "3 number sure every",
		"KB-65||":                      "",
		"65||":                         "3 number maybe every",
		"165||":                        "",
		"||Memory card":                "", // ordinary words
		"||ESTUARY Disk-Master!":       "2 words sure every",
		"9999||Estuary Disk Master II": "2 words maybe every",
		"||The Estuary Master":         "",
		"||":                           "",
	} {
		cells := strings.Split(thing, "|")
		require.Equal(t, want, told(x.Recognise(known.Thing{Part: cells[0], Rev: cells[1], Words: cells[2:]})), thing)
	}
	chips := func(text string) known.Chips {
		read, problems := known.ParseChips(text)
		require.Empty(t, problems)
		return read
	}
	require.Equal(t, "2 chips sure every; 5 chips sure every", told(x.Recognise(known.Thing{Chips: chips(swapped)})))
	require.Equal(t, "5 chips sure every; 2 chips maybe every",
		told(x.Recognise(known.Thing{Part: "777", Chips: chips(swapped)})))
	require.Empty(t, x.Recognise(known.Thing{Chips: chips(swapped + "\n9x 41256")}),
		"a larger board that holds the same chips")
	require.Empty(t, x.Recognise(known.Thing{Chips: chips("UPD765\nFDC9229\n8x 74LS245")}), "three types are too few")
	other := x.Recognise(known.Thing{Part: "4430", Chips: chips("8088\n2764\n8x 4164\n8255\n8259")})
	require.Equal(t, "2 number maybe every", told(other))
	require.Contains(t, other[0].Why, "only 17 % of its chips")
	both := x.Recognise(known.Thing{Part: "4424-1"})
	require.True(t, both[0].Claims(both[1]))
	require.Equal(t, []known.Overlap{{ID: 4, Number: "ASSY 4424-1", Revisions: "C"}}, x.Overlaps(1))
	require.Empty(t, x.Overlaps(2))
}

func TestRevisions(t *testing.T) {
	for text, held := range map[string]string{
		"": "", "A": "A a revA rev.a", "A, C-E": "A C D E", "1.2-1.10": "1.2 1.3 1.9 1.10 01.2", "A1-A3": "A2",
		"Z-AB": "Z AA AB",
	} {
		r, err := known.ParseRevisions(text)
		require.NoError(t, err)
		for one := range strings.FieldsSeq(held) {
			require.True(t, r.Hold(one), "%s in %s", one, text)
		}
		for _, one := range []string{"B", "F", "1.1", "1.11", "2", "AC", "A4"} {
			require.False(t, r.Hold(one), "%s in %s", one, text)
		}
	}
	for _, wrong := range []string{"-", "A-3", "E-C", "A-", "?"} {
		_, err := known.ParseRevisions(wrong)
		require.Error(t, err, wrong)
	}
}

func TestDetails(t *testing.T) {
	d, problems := known.ParseDetails(`connector J1 | DE-9 socket | monitor   # behind the bracket
pin J1.1 | ground
jumper JP1 | 1-2 = 256 KB | 2-3 = 512 KB
switch SW1.3 | on = parity checked
needs slot | 8-bit, long
needs card | 4424-1 | for more than 256 KB
gives 4 slots | 8-bit
covers slot 3
current +5 | 1200 mA
memory 384 KB | picture
fits Meridian 2 | without the second drive
revision B | 1986-03/1986-11 | the clock has a battery
revision C | 1986-08/1987
upgrade B to C | lift pin 4 of U3
fault C12 leaks | look for green below C12
document Handbook #2, page 12`)
	require.Empty(t, problems)
	require.Equal(t, []known.Connector{{Name: "J1", Kind: "DE-9 socket", For: "monitor",
		Pins: []known.Pin{{Name: "1", Signal: "ground"}}}}, d.Connectors)
	require.Equal(t, []known.Memory{{Bytes: 393_216, Said: "384 KB", Purpose: "picture"}}, d.Memory)
	require.Equal(t, "1.2 A", d.Currents[0].Said)
	require.Equal(t, []string{"the record says 384 KB of memory, its chips make 512 KB"}, d.Differs(512<<10))
	require.Empty(t, append(d.Differs(384<<10), d.Differs(0)...))
	require.Equal(t, []known.Gift{{Count: 4, Kind: "8-bit", Names: []string{}}}, d.Gives)
	require.Equal(t, []known.SettingPosition{{At: "1-2", Meaning: "256 KB"}, {At: "2-3", Meaning: "512 KB"}},
		d.Settings[0].Positions)
	require.Equal(t, []string{"revisions B (1986-03/1986-11) and C (1986-08/1987) overlap"}, d.SameTime())
	require.Equal(t, []known.Fault{{What: "C12 leaks", Test: "look for green below C12"}}, d.Faults)
	for line, why := range map[string]string{
		"colour red": "lines begin with", "pin J9.1 | ground": "no connector line", "jumper JP1": "no position",
		"jumper JP1 | open": "no position", "needs luck | much": "no need", "gives many slots | x": "no slots",
		"current five | 1 A": "no rail", "current +5 | 3 V": "in V", "current +5": "no value",
		"memory lots":          "amount of memory",
		"revision B | 1986-13": "when it was made", "upgrade B | x": "no way", "connector": "nothing behind",
		"fault a\nfault A": "again", "revision b\nrevision B": "again", "connector J1\nconnector j1": "again",
	} {
		_, problems := known.ParseDetails(line)
		require.NotEmpty(t, problems, line)
		require.Contains(t, problems[0].Message, why)
		require.Equal(t, strings.Count(line, "\n")+1, problems[0].Line)
	}
	_, wrong := known.ParseChips("8x\n0x 4164\n8x 41 64")
	require.Len(t, wrong, 2, "8x alone may be a number")
}

// However a number is written, with its dashes and blanks elsewhere or words before it, the record is among what
// is told.
func TestWaysOfWritingANumber(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		number := rapid.StringMatching(`[1-9]\d{3,6}`).Draw(t, "number")
		printed := rapid.SampledFrom([]string{"", "ASSY ", "p/n", "PCB No. ", "XY"}).Draw(t, "before")
		for _, digit := range number {
			printed += string(digit) + rapid.SampledFrom([]string{"", "", " ", "-", "–"}).Draw(t, "between")
		}
		x := known.NewIndex([]known.Record{record(t, 7, number, "", "", "")})
		require.Len(t, x.Recognise(known.Thing{Part: printed}), 1, printed)
		require.Empty(t, x.Recognise(known.Thing{Part: printed + "9"}))
	})
}

func BenchmarkRecognise(b *testing.B) {
	records := make([]known.Record, 5000)
	for i := range records {
		records[i] = record(b, int64(i+1), fmt.Sprintf("%d-%d", 4000+i, i%7), "A-C", fmt.Sprintf("Tidewater %d plus",
			i),
			fmt.Sprintf("74LS%d\n8255\n27%d\n%dx 41256\n74S%d", i%200, i%50, i%9+1, i%300))
	}
	x := known.NewIndex(records)
	types, _ := known.ParseChips("74LS3\n8255\n273\n4x 41256\n74S3")
	for b.Loop() {
		x.Recognise(known.Thing{Part: "4444-2", Rev: "B", Words: []string{"Tidewater 3 plus"}, Chips: types})
	}
}

func TestPlacing(t *testing.T) {
	d, problems := known.ParseDetails("wide 2 | down\nblocks +1\nblocks X1\nchain passes\nstands first\nstands behind | 4410-2\n" +
		"stands beside | Video card\nuses irq | 3, 4\nuses io | 300-31f, 320 | shared\ngives 2 slots | 8-bit | A1, A2")
	require.Empty(t, problems)
	require.Equal(t, known.Placing{Wide: 2, Grows: "down", Blocks: []string{"+1", "X1"}, Chain: "passes", First: true,
		Behind: []string{"4410-2"}, Beside: "Video card", Uses: []known.Use{{Resource: "irq", Choices: []string{"3",
			"4"}},
			{Resource: "io", Choices: []string{"300-31f", "320"}, Shared: true}}}, d.Placing)
	require.Equal(t, []string{"A1", "A2"}, d.Gives[0].Names)
	for line, why := range map[string]string{"wide none": "no width", "wide 17": "no width",
		"wide 2 | left": "no width",
		"blocks +0":     "no slot", "chain ends": "no such part", "stands last": "no such place",
		"stands behind":                        "no such place",
		"stands beside | a\nstands beside | b": "once", "uses luck | 3": "no resource",
		"uses irq | three":  "whole number",
		"uses io | 31f-300": "ends before", "uses irq | 3 | mine": "says nothing",
		"gives 2 slots | x | A1": "names 1 of its 2"} {
		_, problems := known.ParseDetails(line)
		require.Len(t, problems, 1, line)
		require.Contains(t, problems[0].Message, why, line)
	}
}
