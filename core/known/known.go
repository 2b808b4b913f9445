// Package known answers: which known card, board, supply, keyboard or lead is this, by its part number, by what is
// printed on it or by its chips? And what is known of one, written a line each.
//
// What was named once is recognised on every machine. Where records differ about a thing, all of them are told.
package known

import (
	"cmp"
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"
)

// Problem is a line that cannot be read.
type Problem struct {
	Line    int    `json:"line"`
	Message string `json:"message"`
}

// Record is a known assembly, by what it is recognised.
type Record struct {
	ID        int64
	Numbers   []string // part numbers, as printed
	Revisions Revisions
	Words     []string // printed on it, where they tell it from others
	Chips     Chips
}

// Thing is an assembly at hand.
type Thing struct {
	Part, Rev string
	Words     []string // its title, and what else is printed on it
	Chips     Chips
}

// By says what something was recognised by.
type By string

// Ways in which things are recognised.
const (
	ByNumber By = "number"
	ByWords  By = "words"
	ByChips  By = "chips"
)

// Match is a record that a thing may be of.
type Match struct {
	ID       int64  `json:"id"`
	By       By     `json:"by" enum:"number,words,chips"`
	Sure     bool   `json:"sure" doc:"False where something speaks against it"`
	Revision string `json:"revision" enum:"same,other,not told,every" doc:"How that of the thing stands to those of the record"`
	Alike    int    `json:"alike" doc:"Per cent of the chips that are those of the record; 0 where they were not compared"`
	Why      string `json:"why" says:"text"`
}

// How the revision of a thing stands to those of a record.
const (
	SameRevision   = "same"
	OtherRevision  = "other"
	RevisionUntold = "not told"
	EveryRevision  = "every"
)

// Index finds records.
type Index struct {
	records  []Record
	byNumber map[string][]int     // folded, to places in records
	byWord   map[string][]phrase  // first word of what is printed
	byType   map[string][]posting // type number, of records that can be known by their chips
	chips    []int                // how many each record has
}

// phrase is what is printed on things of a record.
type phrase struct {
	record         int
	words, printed string // without regard to signs, and as it stands there
}

// posting is a record that has chips of a type.
type posting struct{ record, count int }

// NewIndex takes records in.
func NewIndex(records []Record) *Index {
	x := &Index{records, map[string][]int{}, map[string][]phrase{}, map[string][]posting{}, make([]int, len(records))}
	for i, r := range records {
		for _, number := range r.Numbers {
			if key := Fold(number); !slices.Contains(x.byNumber[key], i) {
				x.byNumber[key] = append(x.byNumber[key], i)
			}
		}
		for _, printed := range r.Words {
			words := wordsOf(printed)
			if first, _, _ := strings.Cut(strings.TrimSpace(words), " "); Distinctive(printed) {
				x.byWord[first] = append(x.byWord[first], phrase{i, words, printed})
			}
		}
		if r.Chips.Tell() {
			x.chips[i] = r.Chips.Count()
			for number, count := range r.Chips {
				x.byType[number] = append(x.byType[number], posting{i, count})
			}
		}
	}
	return x
}

// Numbers lists the part numbers that records know, folded.
func (x *Index) Numbers() []string { return slices.Sorted(maps.Keys(x.byNumber)) }

// Recognise tells the records that a thing may be of, the one that fits best first: by its number, else by what is
// printed on it, else by its chips. Each record is told once.
func (x *Index) Recognise(t Thing) []Match {
	found := map[int]Match{}
	add := func(i int, m Match) {
		if _, known := found[i]; !known {
			m.ID = x.records[i].ID
			found[i] = m
		}
	}
	x.byNumberOf(t, add)
	x.byWordsOf(t, add)
	x.byChipsOf(t, add)
	matches := make([]Match, 0, len(found))
	isSpokenOf := false // a record speaks of its very revision
	for _, m := range found {
		matches = append(matches, m)
		isSpokenOf = isSpokenOf || m.By == ByNumber && m.Sure && m.Revision == SameRevision
	}
	for i, m := range matches {
		if isSpokenOf && m.By == ByNumber && m.Revision == OtherRevision {
			matches[i].butFor("another record speaks of that one")
		}
	}
	slices.SortFunc(matches, func(a, b Match) int {
		return cmp.Or(b.Strength()-a.Strength(), b.Alike-a.Alike, cmp.Compare(a.ID, b.ID))
	})
	return matches
}

// Strength orders matches: the higher, the firmer a record says what a thing is.
func (m Match) Strength() int {
	s := map[By]int{ByNumber: 6, ByWords: 4, ByChips: 2}[m.By]
	if m.Revision == OtherRevision {
		s--
	}
	if m.Sure {
		s += 10
	}
	return s
}

// Claims reports whether it says as firmly as another what a thing is.
func (m Match) Claims(other Match) bool {
	return m.Sure == other.Sure && m.Strength() == other.Strength()
}

// revisionSaid finds a revision that is written with the number.
var revisionSaid = regexp.MustCompile(`(?i)^(.*\d.*?)[\s,;/(]+rev(?:ision)?[.\s]*([0-9A-Z][0-9A-Z.]{0,5})\)?$`)

func (x *Index) byNumberOf(t Thing, add func(int, Match)) {
	if m := revisionSaid.FindStringSubmatch(t.Part); m != nil {
		if t.Part = m[1]; strings.TrimSpace(t.Rev) == "" {
			t.Rev = m[2]
		}
	}
	key := Fold(t.Part)
	for _, i := range x.byNumber[key] {
		for _, number := range x.records[i].Numbers {
			if same, doubt := sameNumber(number, t.Part); same {
				m := x.compared(i, t, Match{By: ByNumber, Sure: doubt == "", Why: "its number is " + number})
				m.butFor(doubt)
				add(i, m)
			}
		}
	}
	for behind := 1; behind <= 2 && behind < len(key); behind++ {
		for _, i := range x.byNumber[key[:len(key)-behind]] {
			for _, number := range x.records[i].Numbers {
				revision, ok := withRevisionBehind(number, t.Part)
				if !ok {
					continue
				}
				with := t
				if t.Rev == "" {
					with.Rev = revision
				}
				m := x.compared(i, with, Match{By: ByNumber, Sure: strings.EqualFold(t.Rev, revision),
					Why: "its number is " + number + " with " + revision + " behind it"})
				if !strings.EqualFold(t.Rev, revision) {
					m.butFor("what stands behind the number may be its revision, or make it another number")
				}
				add(i, m)
			}
		}
	}
}

func (x *Index) byWordsOf(t Thing, add func(int, Match)) {
	for _, said := range t.Words {
		text := wordsOf(said)
		for word := range strings.FieldsSeq(text) {
			for _, p := range x.byWord[word] {
				if strings.Contains(text, p.words) {
					add(p.record, x.compared(p.record, t, Match{By: ByWords, Sure: true,
						Why: fmt.Sprintf("%q is printed on it", p.printed)}))
				}
			}
		}
	}
}

func (x *Index) byChipsOf(t Thing, add func(int, Match)) {
	if !t.Chips.Tell() {
		return
	}
	own, common := t.Chips.Count(), make([]int, len(x.records))
	for number, count := range t.Chips {
		for _, p := range x.byType[number] {
			common[p.record] += min(count, p.count)
		}
	}
	for i, shared := range common {
		if shared > 0 && share(shared, own, x.chips[i]) >= EnoughAlike {
			add(i, x.compared(i, t, Match{By: ByChips, Sure: true,
				Why: fmt.Sprintf("%d of its %d chips are those of the record", shared, own)}))
		}
	}
}

// compared notes how the revision and the chips of a thing stand to those of a record, and what of it speaks
// against it.
func (x *Index) compared(i int, t Thing, m Match) Match {
	r := x.records[i]
	switch {
	case len(r.Revisions) == 0:
		m.Revision = EveryRevision
	case strings.TrimSpace(t.Rev) == "":
		m.Revision = RevisionUntold
		m.Why += "; the record is of revision " + r.Revisions.String() + ", that of this one is not told"
	case r.Revisions.Hold(t.Rev):
		m.Revision = SameRevision
	default:
		m.Revision = OtherRevision
		m.Why += "; the record is of revision " + r.Revisions.String() + ", this one is " + strings.TrimSpace(t.Rev)
	}
	if r.Chips.Tell() && t.Chips.Tell() {
		alike := r.Chips.Overlap(t.Chips)
		m.Alike = int(alike*100 + 0.5)
		if alike < tooUnlike {
			m.butFor(fmt.Sprintf("only %d %% of its chips are those of the record", m.Alike))
		}
	}
	if key := Fold(t.Part); m.By != ByNumber && key != "" && len(r.Numbers) > 0 {
		m.butFor("its number " + t.Part + " is not that of the record, " + strings.Join(r.Numbers, ", "))
	}
	return m
}

// butFor notes what speaks against a match.
func (m *Match) butFor(doubt string) {
	if doubt != "" {
		m.Sure = false
		m.Why += "; but " + doubt
	}
}

// Overlaps tells of each record which others claim a number of it for the same revisions, in words.
func (x *Index) Overlaps(id int64) []Overlap {
	overlaps := []Overlap{}
	at := slices.IndexFunc(x.records, func(r Record) bool { return r.ID == id })
	if at < 0 {
		return overlaps
	}
	mine := x.records[at]
	for _, number := range mine.Numbers {
		for _, i := range x.byNumber[Fold(number)] {
			other := x.records[i]
			if i == at || slices.ContainsFunc(overlaps, func(o Overlap) bool { return o.ID == other.ID }) {
				continue
			}
			if revisions := mine.Revisions.Overlap(other.Revisions); revisions != "" {
				overlaps = append(overlaps, Overlap{other.ID, number, revisions})
			}
		}
	}
	return overlaps
}

// Overlap is another record that claims a number.
type Overlap struct {
	ID        int64  `json:"id"`
	Number    string `json:"number"`
	Revisions string `json:"revisions" doc:"That both claim"`
}
