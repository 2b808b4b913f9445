package sheet_test

import (
	"errors"
	"fmt"
	"maps"
	"reflect"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"testing"

	"pgregory.net/rapid"

	"frugalheron/core/malformed"
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
		{"a lone exclamation mark is text", "U1 7400 !", 0, 0, "", 1},
		{"new since no date", "U1 7400 new:soon", 1, 9, "no date in new:soon", 0},
		{"new since twice", "U1 7400 new:2021 new:2022", 1, 18, "says twice", 0},
		{"mark behind a finding", "U1 7400 !bent pin @glue", 1, 19, "@glue is no mark", 0},
		{"run with blanks counting down", "U9 - U1 7400", 1, 1, "write U1-U9", 0},
		{"duplicate within a run with blanks", "U5 7400\nU1 – U8 7400", 2, 1, "U5 stands on line 1", 1},
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
			case test.line > 0 &&
				(len(s.Problems) != 1 || s.Problems[0].Line != test.line || s.Problems[0].Column != test.col ||
					!strings.Contains(s.Problems[0].Message, test.says)):
				t.Errorf("problems %v, want one at %d:%d saying %q", s.Problems, test.line, test.col, test.says)
			}
		})
	}
}

func TestEntryReadsEveryPart(t *testing.T) {
	s, err := sheet.Parse([]byte("U20 , U22..U24, U30 – U31 27128-25 85?3 for:shared new:2021 @socket !bent "+
		"!leaking: pad 3, no ! here, @ noon # !old"), sheet.Whole)
	if err != nil || len(s.Problems) > 0 {
		t.Fatal(err, s.Problems)
	}
	want := &sheet.Entry{
		Line: 1, Written: "U20,U22..U24,U30–U31", Count: 6,
		Designators: []string{"U20", "U22", "U23", "U24", "U30", "U31"},
		Words:       []string{"27128-25", "85?3"}, Doubtful: true, Socketed: true, Purpose: sheet.Shared, New: "2021",
		Findings: []sheet.Mark{{Kind: "bent"}, {Kind: "leaking", Note: "pad 3, no ! here, @ noon"}}, Comment: "# !old",
	}
	if got := s.Assemblies[0].Lines[0].Entry; !reflect.DeepEqual(got, want) {
		t.Errorf("got  %+v\nwant %+v", got, want)
	}
}

// No word of a finding gets into the marking, and what is written back is read as the same.
func TestFindings(t *testing.T) {
	for line, want := range map[string][]sheet.Mark{
		"!high esr 12 ohm":                     {{Kind: "high esr", Note: "12 ohm"}},
		"!High  ESR: 12 ohm":                   {{Kind: "high esr", Note: "12 ohm"}},
		"!does not spin !bent pin 4":           {{Kind: "does not spin"}, {Kind: "bent pin", Note: "4"}},
		"!bent, badly":                         {{Kind: "bent", Note: "badly"}},
		"!bentwood":                            {{Kind: "bentwood"}},
		"!pin gone: left of 3":                 {{Kind: "pin gone", Note: "left of 3"}},
		"!odd thing at 12:30":                  {{Kind: "odd", Note: "thing at 12:30"}},
		"!leaking:crust":                       {{Kind: "leaking", Note: "crust"}},
		"!rost an der Kante # seen":            {{Kind: "rost", Note: "an der Kante"}},
		"!leaking new: crust new:2020 @socket": {{Kind: "leaking", Note: "new: crust"}},
		"!!(odd) ! !":                          {{Kind: "odd", Note: "! !"}},
	} {
		for range 2 {
			s, err := sheet.Parse([]byte("C1 10uF "+line), sheet.Body)
			if err != nil || len(s.Problems) > 0 {
				t.Fatal(line, err, s.Problems)
			}
			e := s.Assemblies[0].Lines[0].Entry
			if !reflect.DeepEqual(e.Findings, want) || !slices.Equal(e.Words, []string{"10uF"}) {
				t.Errorf("%q: %+v with %q, want %+v", line, e.Findings, e.Words, want)
			}
			line = strings.TrimPrefix(e.String(), "C1         10uF ")
		}
	}
}

// Every word of a line is either of the marking or of the finding that it stands in, and none gets from one into the
// other.
func TestWordsStayWhereTheyStand(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		word := rapid.SampledFrom([]string{"high", "esr", "bent", "pin", "leaking", "odd", "12", "ohm", "does", "not",
			"spin",
			"window", "left", "(seen)", "-", "ago!"})
		words := func(label string, least int) []string { return rapid.SliceOfN(word, least, 5).Draw(t, label) }
		marking := words("marking", 0)
		line, want := "U1 x "+strings.Join(marking, " "), [][]string{}
		for range rapid.IntRange(0, 3).Draw(t, "findings") {
			found := append([]string{rapid.SampledFrom([]string{"high", "does", "bent", "odd"}).Draw(t, "first")},
				words("rest", 0)...)
			want = append(want, found)
			line += " !" + strings.Join(found, " ")
			if rapid.Bool().Draw(t, "mark") {
				line += rapid.SampledFrom([]string{" @socket", " @solder"}).Draw(t, "which")
			}
		}
		s, err := sheet.Parse([]byte(line), sheet.Body)
		if err != nil || len(s.Problems) > 0 {
			t.Fatal(err, s.Problems)
		}
		e := s.Assemblies[0].Lines[0].Entry
		if !slices.Equal(e.Words, append([]string{"x"}, marking...)) {
			t.Fatalf("%q: the marking is %q", line, e.Words)
		}
		got := [][]string{}
		for _, f := range e.Findings {
			got = append(got, strings.Fields(f.Kind+" "+f.Note))
		}
		if !reflect.DeepEqual(got, want) {
			t.Fatalf("%q: findings %q, want %q", line, got, want)
		}
	})
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
		var refused *malformed.Error
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
		"U1, U2 ,x @empty !a: b # c\r\n\ttext\n==#x|#y\n=== z | FOR:main | fit ODD\n4C ?\n", "\ufeffU1 7\ufeff",
		"A0 x !of several words:\nA1 !bent:pin !12:30 at noon", "IC1..IC8 µ\v\rU01-U09 x @solder", ",,0X 0",
		"==0| for:#",
	} {
		f.Add(seed)
	}
	f.Add(strings.Repeat("U1-U4096,", 100))
	f.Add("U4096\n" + strings.Repeat("U1-U4096\n", 50))
	f.Fuzz(func(t *testing.T, text string) {
		first, err := sheet.Parse([]byte(text), sheet.Whole)
		if err != nil {
			return
		}
		if used, most := memoryOfParsing(text); used > most {
			t.Errorf("parsing %d bytes took %d bytes of memory, more than %d", len(text), used, most)
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

// memoryOfParsing measures what parsing allocates in all, and says what it may: so much for each byte of the text,
// and so much for each part that the sheet names.
func memoryOfParsing(text string) (used, most int) {
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	s, _ := sheet.Parse([]byte(text), sheet.Whole)
	runtime.ReadMemStats(&after)
	parts := 0
	for _, a := range s.Assemblies {
		for _, line := range a.Lines {
			if line.Entry != nil {
				parts += len(line.Entry.Designators)
			}
		}
	}
	return int(after.TotalAlloc - before.TotalAlloc),
		64<<10 + 400*len(text) + 100*parts //nolint:gosec // far below 2^63
}

// However often a sheet names runs, memory follows its length, and so does time.
func TestRunsAreCountedBeforeTheyAreListed(t *testing.T) {
	for name, text := range map[string]string{
		"one line":       strings.Repeat("U1-U4096,", sheet.MaxBytes/9),
		"a line each":    strings.Repeat("U1-U4096 x\n", sheet.MaxBytes/11),
		"clash at last":  "U4096\n" + strings.Repeat("U1-U4096\n", sheet.MaxBytes/9-1),
		"many letters":   strings.Repeat("A1-A4000 x\nBC1-BC4000\nDEF1-DEF4000\n", sheet.MaxBytes/40),
		"many too large": strings.Repeat("U1-U999999999 x\n", sheet.MaxBytes/16),
		"many commas":    "U1" + strings.Repeat(" ,", sheet.MaxBytes/2-1),
		"many dashes":    strings.Repeat("U1 - U2 , ", sheet.MaxBytes/10),
		"many findings":  "U1 " + strings.Repeat("!a ", sheet.MaxBytes/3-1),
		"many colons":    "U1 " + strings.Repeat("!:: ", sheet.MaxBytes/4-1),
		"many problems":  strings.Repeat("U1\n", sheet.MaxBytes/3),
	} {
		t.Run(name, func(t *testing.T) {
			used, most := memoryOfParsing(text)
			if used > most {
				t.Errorf("parsing %d bytes took %d bytes of memory, more than %d", len(text), used, most)
			}
		})
	}
	s, err := sheet.Parse([]byte(strings.Repeat("U1-U4096,", 1000)), sheet.Body)
	if err != nil || len(s.Problems) != 1 ||
		!strings.Contains(s.Problems[0].Message, "4096000 parts on one line; at most 4096") {
		t.Errorf("problems %v, error %v", s.Problems, err)
	}
}

// The lines that stand are those that a plain list of all names lets stand.
func TestTakenDesignatorsAgreeWithAPlainList(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var text strings.Builder
		lines := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) string {
			items := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) string {
				letters := rapid.SampledFrom([]string{"U", "u", "IC"}).Draw(t, "letters")
				first := rapid.IntRange(0, 140).Draw(t, "first")
				switch rapid.IntRange(0, 3).Draw(t, "form") {
				case 0:
					return fmt.Sprintf("%s%d", letters, first)
				case 1:
					return fmt.Sprintf("%s%02d", letters, first)
				case 2:
					return fmt.Sprintf("%s%d-%d", letters, first, first+rapid.IntRange(0, 70).Draw(t, "more"))
				}
				return fmt.Sprintf("%s%02d-%02d", letters, first, first+rapid.IntRange(0, 70).Draw(t, "more"))
			}), 1, 4).Draw(t, "items")
			return strings.Join(items, ",")
		}), 1, 12).Draw(t, "lines")
		for _, line := range lines {
			text.WriteString(line + " 7400\n")
		}
		s, err := sheet.Parse([]byte(text.String()), sheet.Body)
		if err != nil {
			t.Fatal(err)
		}
		seen := map[string]bool{}
		for i, line := range s.Assemblies[0].Lines {
			names := plainNames(lines[i])
			clash, own := "", map[string]bool{}
			for _, name := range names {
				key := strings.ToUpper(name)
				if clash == "" && (seen[key] || own[key]) {
					clash = name
				}
				own[key] = true
			}
			if clash != "" {
				if line.Entry != nil || !hasProblem(s.Problems, i+1, clash+" stands") {
					t.Fatalf("line %d of\n%sshould clash at %s: %v", i+1, text.String(), clash, s.Problems)
				}
				continue
			}
			if line.Entry == nil || !slices.Equal(line.Entry.Designators, names) {
				t.Fatalf("line %d of\n%sshould name %v: %v", i+1, text.String(), names, s.Problems)
			}
			maps.Copy(seen, own)
		}
	})
}

// plainNames lists what items as U1, U01-12 name, one by one.
func plainNames(items string) []string {
	names := []string{}
	for item := range strings.SplitSeq(items, ",") {
		letters := strings.TrimRight(item, "0123456789-")
		first, last, isRun := strings.Cut(item[len(letters):], "-")
		if !isRun {
			last = first
		}
		format := "%s%d"
		if first[0] == '0' {
			format = fmt.Sprintf("%%s%%0%dd", len(first))
		}
		from, _ := strconv.Atoi(first)
		to, _ := strconv.Atoi(last)
		for n := from; n <= to; n++ {
			names = append(names, fmt.Sprintf(format, letters, n))
		}
	}
	return names
}

func hasProblem(problems []sheet.Problem, line int, start string) bool {
	return slices.ContainsFunc(problems, func(p sheet.Problem) bool {
		return p.Line == line && strings.HasPrefix(p.Message, start)
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
