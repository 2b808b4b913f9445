package sheet_test

import (
	"errors"
	"fmt"
	"reflect"
	"strings"
	"testing"

	"pgregory.net/rapid"

	"frugalheron/core/sheet"
)

func TestProblems(t *testing.T) {
	tests := []struct {
		rule, text string
		line, col  int    // of the one problem; line 0 for none
		says       string // part of the message
		entries    int    // lines still read
	}{
		{"duplicate, at the later line", "U1 7400\nU2 7400\nU1 7404", 3, 1, "line 1 already", 2},
		{"duplicate within a run, once", "U40-U48 41256\nU45-U50 4164", 2, 1, "U45 stands on line 1", 1},
		{"duplicate in a list, at its item", "U22 27128\nU20,U22 27128", 2, 5, "U22 stands on line 1", 1},
		{"duplicate regardless of case", "u1 7400\nU1 7400", 2, 1, "already", 1},
		{"the same designator on another board", "== A\nU1 7400\n== B\nU1 7400", 0, 0, "", 2},
		{"twice on one line frees the others", "U1,U2,U1 7400\nU2 7400", 1, 7, "twice on this line", 1},
		{"run counting down", "U9-U1 7400", 1, 1, "write U1-U9", 0},
		{"run of 4,096", "U1-U4096 7400", 0, 0, "", 1},
		{"run of 4,097", "U1-U4097 7400", 1, 1, "at most 4096", 0},
		{"run of a million", "U1-U1000000 7400", 1, 1, "at most 4096", 0},
		{"run of changing letters", "U1-V4 7400", 1, 1, "no run", 0},
		{"count of zero", "0x 4164", 1, 1, "between 1 and 4096", 0},
		{"unknown mark, by its column", "U1 7400 @glue", 1, 9, "@glue is no mark", 0},
		{"column in UTF-16 units", "U1 µ😀 @glue", 1, 8, "@glue", 0},
		{"purpose nobody knows", "U1 41256 for:fun", 1, 10, "for:main", 0},
		{"finding without a word", "U1 7400 !", 1, 9, "needs a word", 0},
		{"control character", "U1 74\x0100", 1, 6, "control character", 0},
		{"fit nobody knows, heading kept", "== A | fit odd\nU1 7400", 1, 8, "fit \"odd\"", 1},
		{"tabs and CRLF", "U1\t7400\t@socket\r\nU2\t7404\r\n", 0, 0, "", 2},
		{"text without designator is no problem", "bought with the drive\n\n# note", 0, 0, "", 0},
		{"empty", "", 0, 0, "", 0},
	}
	for _, test := range tests {
		t.Run(test.rule, func(t *testing.T) {
			s, err := sheet.Parse([]byte(test.text), sheet.Whole)
			if err != nil {
				t.Fatal(err)
			}
			entries := 0
			for _, a := range s.Assemblies {
				for _, line := range a.Lines {
					if line.Entry != nil {
						entries++
					}
				}
			}
			if entries != test.entries {
				t.Errorf("%d entries, want %d", entries, test.entries)
			}
			switch {
			case test.line == 0 && len(s.Problems) > 0:
				t.Errorf("problems %v, want none", s.Problems)
			case test.line > 0 && (len(s.Problems) != 1 || s.Problems[0].Line != test.line || s.Problems[0].Column != test.col || !strings.Contains(s.Problems[0].Message, test.says)):
				t.Errorf("problems %v, want one at %d:%d saying %q", s.Problems, test.line, test.col, test.says)
			}
		})
	}
}

func TestEntryReadsEveryPart(t *testing.T) {
	s, err := sheet.Parse([]byte("U20, U22..U24 27128-25 85?3 for:shared @socket !bent !leaking: pad #3 !eaten @x"), sheet.Whole)
	if err != nil || len(s.Problems) > 0 {
		t.Fatal(err, s.Problems)
	}
	want := &sheet.Entry{
		Line: 1, Written: "U20,U22..U24", Designators: []string{"U20", "U22", "U23", "U24"}, Count: 4,
		Words: []string{"27128-25", "85?3"}, Doubtful: true, Socketed: true, Purpose: sheet.Shared,
		Findings: []sheet.Finding{{Kind: "bent"}, {Kind: "leaking", Note: "pad #3 !eaten @x"}},
	}
	if got := s.Assemblies[0].Lines[0].Entry; !reflect.DeepEqual(got, want) {
		t.Errorf("got  %+v\nwant %+v", got, want)
	}
}

func TestRefusedWhole(t *testing.T) {
	tests := []struct {
		rule, text string
		reason     error
		line       int
	}{
		{"too long", strings.Repeat("x", sheet.MaxBytes+1), sheet.ErrTooLong, 0},
		{"not UTF-8", "U1 7400\nU2 \xff", sheet.ErrNotText, 2},
		{"binary", "\x7fELF\x00", sheet.ErrNotText, 1},
	}
	for _, test := range tests {
		_, err := sheet.Parse([]byte(test.text), sheet.Whole)
		var refused *sheet.RefusedError
		if !errors.Is(err, test.reason) || !errors.As(err, &refused) || refused.Line != test.line {
			t.Errorf("%s: %v", test.rule, err)
		}
	}
	if _, err := sheet.Parse([]byte(strings.Repeat("x", sheet.MaxBytes)), sheet.Whole); err != nil {
		t.Errorf("exactly 1 MiB: %v", err)
	}
}

func TestBodyHoldsNoHeading(t *testing.T) {
	s, err := sheet.Parse([]byte("U1 7400\n== Other\nU1 7404"), sheet.Body)
	if err != nil || len(s.Assemblies) != 1 || len(s.Problems) != 2 || s.Problems[0].Line != 2 {
		t.Errorf("%v, %d assemblies, problems %v", err, len(s.Assemblies), s.Problems)
	}
}

// records strips line numbers, which formatting may change.
func records(s sheet.Sheet) string {
	var b strings.Builder
	for _, a := range s.Assemblies {
		if a.Heading != nil {
			h := *a.Heading
			h.Line = 0
			fmt.Fprintf(&b, "%#v\n", h)
		}
		for _, line := range a.Lines {
			if line.Entry == nil {
				fmt.Fprintf(&b, "%q\n", line.Text)
				continue
			}
			e := *line.Entry
			e.Line = 0
			fmt.Fprintf(&b, "%#v\n", e)
		}
	}
	return b.String()
}

func FuzzRoundTrip(f *testing.F) {
	for _, seed := range []string{
		"== Main | part 4410-2 | for:picture # x\nU1-U3 41256-15 8512 @socket !x # y\n8 x 4164\nU9-U1\nU1\n",
		"U1, U2 ,x @empty !a: b # c\r\n\ttext\n==#x|#y\n=== z | FOR:main | fit ODD\n4C ?\n", "\ufeffU1 7\ufeff", "IC1..IC8 µ\v\rU01-U09 x @solder", ",,0X 0", "==0| for:#",
	} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		first, err := sheet.Parse([]byte(text), sheet.Whole)
		if err != nil {
			return
		}
		again, err := sheet.Parse([]byte(sheet.Format(first)), sheet.Whole)
		if errors.Is(err, sheet.ErrTooLong) {
			return // aligned columns made it longer
		}
		if err != nil {
			t.Fatal(err)
		}
		if a, b := records(first), records(again); a != b {
			t.Errorf("%q became %q\n%s\n%s", text, sheet.Format(first), a, b)
		}
	})
}

// A sheet built from known parts has exactly those parts.
func TestPartsOfABuiltSheetAreFound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		next, want := 1, 0
		var text strings.Builder
		for range rapid.IntRange(0, 12).Draw(t, "lines") {
			n := rapid.IntRange(1, 40).Draw(t, "parts")
			switch rapid.IntRange(0, 2).Draw(t, "form") {
			case 0:
				fmt.Fprintf(&text, "U%d-U%d", next, next+n-1)
			case 1:
				fmt.Fprintf(&text, "%dx", n)
			case 2:
				for i := range n {
					fmt.Fprintf(&text, "U%d,", next+i)
				}
			}
			fmt.Fprintf(&text, "%s74LS00 8533\n", rapid.SampledFrom([]string{" ", "\t", "   "}).Draw(t, "gap"))
			next, want = next+n, want+n
		}
		s, err := sheet.Parse([]byte(text.String()), sheet.Body)
		if err != nil || len(s.Problems) > 0 {
			t.Fatal(err, s.Problems)
		}
		got := 0
		for _, a := range s.Assemblies {
			for _, line := range a.Lines {
				got += line.Entry.Count
			}
		}
		if got != want {
			t.Fatalf("%d parts, want %d in\n%s", got, want, text.String())
		}
	})
}

func ExampleParse() {
	s, _ := sheet.Parse([]byte("U40-U43 41256-15 8512 @socket\nU9-U1 7400"), sheet.Body)
	fmt.Println(s.Assemblies[0].Lines[0].Entry.Designators)
	fmt.Println(s.Problems)
	// Output:
	// [U40 U41 U42 U43]
	// [{2 1 U9-U1 counts down; write U1-U9}]
}
