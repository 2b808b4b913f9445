// Package sign answers: what does a machine say by its lamps, beeps, screen and codes, and is that what it should say
// with the cards that it has?
//
// The signs of a model or a card are written a line each. What was seen is compared with all of them that speak for a
// machine: each that agrees is told, and where none does, what comes nearest and in what it differs.
package sign

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/word"
)

// Problem is a line that cannot be read.
type Problem struct {
	Line    int    `json:"line"`
	Message string `json:"message"`
}

// Kind is how something shows itself.
type Kind string

// Kinds of signs.
const (
	Lamps  Kind = "lamps"
	Beeps  Kind = "beeps"
	Screen Kind = "screen"
	Code   Kind = "code"
)

var kinds = []Kind{Lamps, Beeps, Screen, Code}

// Sign is a line of a table: what is shown, and what that means.
type Sign struct {
	Line     int      `json:"line" doc:"Of the table"`
	Kind     Kind     `json:"kind" enum:"lamps,beeps,screen,code"`
	Shown    string   `json:"shown" says:"text" doc:"As the table writes it"`
	Lit      string   `json:"lit" doc:"Lamps, a character each from the left: 0 dark, 1 lit, * blinking, ? any; empty for others"`
	State    string   `json:"state" says:"text" doc:"What the machine is doing meanwhile; empty for any time"`
	Meaning  string   `json:"meaning" says:"text"`
	Next     string   `json:"next" says:"text" doc:"What to look at next"`
	Source   string   `json:"source" says:"text" doc:"How one knows; empty counts as recalled"`
	Expected bool     `json:"expected" doc:"A sound machine shows it in this state"`
	With     []string `json:"with" says:"text" doc:"Cards that have to be fitted for it"`
	Without  []string `json:"without" says:"text" doc:"Cards that must not be fitted for it"`
	text     pattern  // of a screen or a code
	words    []string // of a screen
	alike    pattern  // of a screen, with those characters equal that are taken for each other
}

// Table is the signs of a model or a card. It is written a line each:
//
//	row power, ready, run, fault                  # its lamps, from the left
//	radix hex                                     # of codes without a mark of their radix
//	fields 15-12 bank, 7-0 chip                   # into which a code is cut
//	lamps 1101 | self-test | memory fails | reseat the memory card | Handbook, page 12
//	lamps power, fault* | any | stopped           # by their names; * blinks
//	beeps 1 long 2 short | self-test | no display card | reseat it
//	screen BANK ? AT ???? | self-test | a chip of that bank fails
//	code E4?? | self-test | no keyboard
//	expect screen 384 KB OK | ready | all memory was found | | Handbook, page 3 | with 4424-1
//
// A question mark stands for one character, lamp or digit, a star in a screen for any number of characters. A stroke or a
// wildcard that is meant itself has \ before it.
type Table struct {
	Row    []string `json:"row" says:"text" doc:"Names of its lamps, from the left"`
	Radix  string   `json:"radix" enum:",hex,octal,decimal,binary" doc:"Of codes that have no mark of it"`
	Fields string   `json:"fields" says:"text" doc:"Into which a code is cut"`
	Signs  []Sign   `json:"signs"`
}

// Parse reads a table. Empty lines and comments behind a # are skipped.
func Parse(text string) (Table, []Problem) {
	t, problems := Table{Row: []string{}, Signs: []Sign{}}, []Problem{}
	for i, line := range strings.Split(text, "\n") {
		if before, _, isNoted := strings.Cut(" "+line, " #"); isNoted {
			line = before
		}
		if line = strings.TrimSpace(line); line == "" {
			continue
		}
		if err := t.read(line, i+1); err != nil {
			problems = append(problems, Problem{i + 1, err.Error()})
		}
	}
	return t, problems
}

func (t *Table) read(line string, number int) error {
	head, rest, _ := strings.Cut(line, " ")
	head, rest = strings.ToLower(head), strings.TrimSpace(rest)
	switch {
	case rest == "" && isHead(head):
		return errors.New("has nothing behind " + head)
	case head == "row":
		return t.row(rest)
	case head == "radix":
		return t.radix(strings.ToLower(rest))
	case head == "fields":
		if _, err := word.FieldsOf(0, rest); err != nil {
			return err
		}
		t.Fields = rest
		return nil
	}
	isExpected := head == "expect"
	if isExpected {
		head, rest, _ = strings.Cut(rest, " ")
		head, rest = strings.ToLower(head), strings.TrimSpace(rest)
	}
	if !slices.Contains(kinds, Kind(head)) {
		return fmt.Errorf("begins with %q; lines begin with lamps, beeps, screen or code, with expect before it for what "+
			"a sound machine shows, or with row, radix or fields", head)
	}
	return t.sign(Sign{Line: number, Kind: Kind(head), Expected: isExpected}, cellsOf(rest))
}

func isHead(head string) bool {
	return head == "row" || head == "radix" || head == "fields" || head == "expect" || slices.Contains(kinds,
		Kind(head))
}

func (t *Table) row(told string) error {
	names := listOf(told)
	switch {
	case len(t.Row) > 0:
		return errors.New("names the row of lamps again")
	case len(names) > mostLamps:
		return fmt.Errorf("names %d lamps; a row has at most %d", len(names), mostLamps)
	case slices.ContainsFunc(t.Signs, func(s Sign) bool { return s.Kind == Lamps }):
		return errors.New("names the lamps behind signs of them; write the row first")
	}
	for i, name := range names {
		if at := slices.IndexFunc(names, func(n string) bool { return strings.EqualFold(n, name) }); at < i {
			return errors.New("names the lamp " + name + " twice")
		}
		if isBits(name) {
			return fmt.Errorf("%q is no name of a lamp", name)
		}
	}
	t.Row = names
	return nil
}

func (t *Table) radix(told string) error {
	if !slices.Contains([]string{"hex", "octal", "decimal", "binary"}, told) {
		return fmt.Errorf("%q is no radix; write hex, octal, decimal or binary", told)
	}
	t.Radix = told
	return nil
}

// Cells of a sign, in their order; cards behind them.
const (
	cellShown = iota
	cellState
	cellMeaning
	cellNext
	cellSource
	cellCards
)

func (t *Table) sign(s Sign, cells []string) error {
	cell := func(i int) string {
		if i < len(cells) {
			return cells[i]
		}
		return ""
	}
	s.Shown, s.State, s.Meaning = cell(cellShown), cell(cellState), cell(cellMeaning)
	s.Next, s.Source, s.With, s.Without = cell(cellNext), cell(cellSource), []string{}, []string{}
	if strings.EqualFold(s.State, "any") {
		s.State = ""
	}
	for i := cellCards; i < len(cells); i++ {
		if err := s.cards(cells[i]); err != nil {
			return err
		}
	}
	switch {
	case s.Shown == "":
		return fmt.Errorf("does not say what is shown; write it as %s %s | self-test | what it means", s.Kind,
			examples[s.Kind])
	case len(s.Shown) > mostShown:
		return fmt.Errorf("says more than %d characters are shown; write what tells it from others, and * for the rest",
			mostShown)
	case s.Meaning == "":
		return fmt.Errorf("does not say what it means; write it as %s %s | state | what it means", s.Kind, s.Shown)
	}
	if err := t.check(&s); err != nil {
		return err
	}
	if again := slices.IndexFunc(t.Signs, s.saysTheSame); again >= 0 {
		return fmt.Errorf("says again what line %d says", t.Signs[again].Line)
	}
	t.Signs = append(t.Signs, s)
	return nil
}

// mostShown bounds what a line says is shown, in bytes.
const mostShown = 400

var examples = map[Kind]string{Lamps: "1101", Beeps: "1 long 2 short", Screen: "BANK ? FAILS", Code: "E4??"}

// check reads what is shown once, so that a line that can never agree is refused.
func (t *Table) check(s *Sign) error {
	switch s.Kind {
	case Lamps:
		lit, unlisted, err := t.lamps(s.Shown)
		s.Lit = string(lit)
		if err == nil && len(unlisted) > 0 {
			err = fmt.Errorf("names lamps that are not in the row: %s; write the row first, as row power, ready",
				strings.Join(unlisted, ", "))
		}
		return err
	case Beeps:
		_, err := beepsOf(s.Shown)
		return err
	case Screen:
		s.text, s.alike = patternOf(s.Shown), patternOf(misread.Replace(folded(s.Shown)))
		s.words = wordsOf(s.Shown)
	case Code:
		s.text = patternOf(tight(s.Shown))
	}
	return nil
}

// cards reads which cards it takes: with 4424-1, or without Display card.
func (s *Sign) cards(cell string) error {
	head, rest, _ := strings.Cut(cell, " ")
	names := listOf(rest)
	switch head = strings.ToLower(head); {
	case cell == "":
		return nil
	case head != "with" && head != "without" || len(names) == 0:
		return fmt.Errorf("%q names no cards; write with 4424-1 or without 4424-1 behind the source", cell)
	case head == "with":
		s.With = append(s.With, names...)
	default:
		s.Without = append(s.Without, names...)
	}
	return nil
}

func (s Sign) saysTheSame(other Sign) bool {
	return s.Kind == other.Kind && s.Shown == other.Shown && strings.EqualFold(s.State, other.State) &&
		s.Meaning == other.Meaning && slices.Equal(s.With, other.With) && slices.Equal(s.Without, other.Without)
}

// cellsOf divides a line at its strokes, but at none with \ before it.
func cellsOf(line string) []string {
	cells, cell := []string{}, strings.Builder{}
	flush := func() {
		cells = append(cells, strings.Join(strings.Fields(cell.String()), " "))
		cell.Reset()
	}
	letters := []rune(line)
	for i := 0; i < len(letters); i++ {
		switch {
		case letters[i] == '\\' && i+1 < len(letters) && letters[i+1] == '|':
			cell.WriteRune('|')
			i++
		case letters[i] == '|':
			flush()
		default:
			cell.WriteRune(letters[i])
		}
	}
	flush()
	return cells
}

// listOf are names with commas between.
func listOf(told string) []string {
	names := []string{}
	for name := range strings.SplitSeq(told, ",") {
		if name = strings.Join(strings.Fields(name), " "); name != "" {
			names = append(names, name)
		}
	}
	return names
}

// Holding lists the signs of a table that hold all words, in lower case, together with what the table is of.
func (t *Table) Holding(of string, words []string) []Sign {
	return slices.DeleteFunc(slices.Clone(t.Signs), func(s Sign) bool {
		text := strings.ToLower(strings.Join([]string{of, string(s.Kind), s.Shown, s.State, s.Meaning, s.Next,
			s.Source}, " "))
		return slices.ContainsFunc(words, func(w string) bool { return !strings.Contains(text, w) })
	})
}
