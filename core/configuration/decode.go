package configuration

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/known"
)

// How sure it is what a setting means.
const (
	Known   = "known"
	Several = "several" // more than one meaning is possible
	Unknown = "unknown"
)

// Meaning is what a jumper or switch that was found means.
type Meaning struct {
	Line  int      `json:"line" doc:"Of the text; the first one where several lines say how a block stands"`
	Name  string   `json:"name" doc:"As the record of the card calls it, else as it was written"`
	At    string   `json:"at" says:"text" doc:"How it stands"`
	State string   `json:"state" enum:"known,several,unknown"`
	Means []string `json:"means" says:"text" doc:"What that means; more than one where it is open which"`
	Why   string   `json:"why" says:"text" doc:"What keeps it from being known; empty where it is"`
}

// Decode tells what settings mean by what is known of a card. Those that nothing is known of are told, too; where parts of a
// block of switches were not seen, all that it can mean is. A line may say the resource itself: irq 3.
func Decode(record []known.Setting, found []Setting) []Meaning {
	d := decoder{blocks: map[string]*block{}, meanings: []Meaning{}}
	for _, f := range found {
		if said := f.Name + " " + f.At; len(Resources(said)) > 0 { // how it is set in words, whatever sets it
			d.meanings = append(d.meanings, Meaning{Line: f.Line, Name: f.Name, At: f.At, State: Known,
				Means: []string{said}})
			continue
		}
		d.found = append(d.found, f)
	}
	d.gather()
	for _, s := range record {
		if s.Kind == "switch" && d.ofBlock(s) {
			continue
		}
		d.ofWhole(s)
	}
	d.rest(len(record) > 0)
	slices.SortStableFunc(d.meanings, func(a, b Meaning) int { return a.Line - b.Line })
	return d.meanings
}

type decoder struct {
	found    []Setting
	blocks   map[string]*block
	meanings []Meaning
	spoken   map[int]bool // places in found that a record speaks of as wholes
}

// block is a row of switches as it was found.
type block struct {
	name  string
	line  int
	size  int // where it was written as a whole; 0 where only single ones were
	at    map[int]element
	lines map[int]int // of each
	told  map[int]bool
}

// gather puts rows of switches together.
func (d *decoder) gather() {
	d.spoken = map[int]bool{}
	for _, f := range d.found {
		row, isRow := elementsOf(f.At)
		if !isRow {
			continue
		}
		where := spanOf(f.Name)
		b := d.blocks[where.block]
		if b == nil {
			name := f.Name
			if where.from > 0 {
				name = f.Name[:len(where.block)]
			}
			b = &block{name: name, line: f.Line, at: map[int]element{}, lines: map[int]int{}, told: map[int]bool{}}
			d.blocks[where.block] = b
		}
		if where.from == 0 {
			where.from, where.to, b.size = 1, len(row), len(row)
		}
		for i, e := range row {
			if i <= where.to-where.from {
				b.at[where.from+i], b.lines[where.from+i] = e, f.Line
			}
		}
	}
}

// ofBlock tells what switches of a block mean. A record whose positions are no rows, as those of a rotary switch, is not for it.
func (d *decoder) ofBlock(s known.Setting) bool {
	where, width := spanOf(s.Name), 0
	rows := [][]element{}
	for _, p := range s.Positions {
		row, ok := elementsOf(p.At)
		if !ok {
			return false
		}
		rows, width = append(rows, row), max(width, len(row))
	}
	b := d.blocks[where.block]
	if b == nil {
		return true // it was not noted
	}
	if where.from == 0 {
		where.from, where.to = 1, width
		if b.size > 0 && b.size != width {
			d.meanings = append(d.meanings, Meaning{Line: b.line, Name: b.name, At: b.say(1, b.size), State: Unknown,
				Means: []string{}, Why: fmt.Sprintf("the record speaks of %s, %d were found; one of them is not right",
					switches(width), b.size)})
			b.tell(1, max(b.size, width))
			return true
		}
	}
	if !b.touches(where.from, where.to) {
		return true
	}
	m := Meaning{Line: b.firstLine(where.from, where.to), Name: s.Name, At: b.say(where.from, where.to),
		Means: []string{}}
	sure := true
	for i, row := range rows {
		fits, isSeen := len(row) == where.to-where.from+1, true
		for n, wanted := range row {
			stands, noted := b.at[where.from+n]
			switch {
			case wanted == unseen:
			case !noted || stands == unseen:
				isSeen = false
			case stands != wanted:
				fits = false
			}
		}
		if fits {
			m.Means, sure = append(m.Means, s.Positions[i].Meaning), sure && isSeen
		}
	}
	b.tell(where.from, where.to)
	d.meanings = append(d.meanings, m.judge(sure, "not all of its switches were seen"))
	return true
}

// judge says how sure a meaning is.
func (m Meaning) judge(isSeen bool, unsure string) Meaning {
	switch {
	case len(m.Means) == 0:
		m.State, m.Why = Unknown, "the record names no such position"
	case isSeen && len(m.Means) == 1:
		m.State = Known
	case isSeen:
		m.State, m.Why = Several, "the record gives this position more than one meaning"
	default:
		m.State, m.Why = Several, unsure
	}
	return m
}

// ofWhole tells what a jumper, or a switch whose positions have names, means.
func (d *decoder) ofWhole(s known.Setting) {
	for i, f := range d.found {
		if !strings.EqualFold(f.Name, s.Name) || d.spoken[i] {
			continue
		}
		d.spoken[i] = true
		m := Meaning{Line: f.Line, Name: s.Name, At: f.At, Means: []string{}}
		for _, p := range s.Positions {
			if folded(p.At) == folded(f.At) {
				m.Means = append(m.Means, p.Meaning)
			}
		}
		d.meanings = append(d.meanings, m.judge(true, ""))
	}
}

// rest tells of what no record speaks.
func (d *decoder) rest(isKnown bool) {
	why := "nothing is known of its settings"
	if isKnown {
		why = "the record of the card does not name it"
	}
	blocks := slices.SortedFunc(maps.Values(d.blocks), func(a, b *block) int { return a.line - b.line })
	for _, b := range blocks {
		if d.isSpoken(b.name) || len(b.told) > 0 && len(b.untold()) == 0 {
			continue
		}
		said := b.untold()
		name := b.name
		if b.size == 0 || len(said) < len(b.at) {
			names := []string{}
			for _, n := range said {
				names = append(names, fmt.Sprintf("%s.%d", b.name, n))
			}
			name = strings.Join(names, ", ")
		}
		stand := []string{}
		for _, n := range said {
			stand = append(stand, sayElement(b.at[n]))
		}
		d.meanings = append(d.meanings, Meaning{Line: b.lines[said[0]], Name: name, At: strings.Join(stand, " "),
			State: Unknown, Means: []string{}, Why: why})
	}
	for i, f := range d.found {
		if _, isRow := elementsOf(f.At); !isRow && !d.spoken[i] {
			d.meanings = append(d.meanings, Meaning{Line: f.Line, Name: f.Name, At: f.At, State: Unknown,
				Means: []string{},
				Why:   why})
		}
	}
}

// isSpoken reports whether a block was told as a whole, as a jumper that is open is.
func (d *decoder) isSpoken(name string) bool {
	for i, f := range d.found {
		if d.spoken[i] && strings.EqualFold(f.Name, name) {
			return true
		}
	}
	return false
}

func (b *block) untold() []int {
	left := []int{}
	for _, n := range slices.Sorted(maps.Keys(b.at)) {
		if !b.told[n] {
			left = append(left, n)
		}
	}
	return left
}

func (b *block) tell(from, to int) {
	for n := from; n <= to; n++ {
		b.told[n] = true
	}
}

func (b *block) touches(from, to int) bool {
	for n := from; n <= to; n++ {
		if _, noted := b.at[n]; noted {
			return true
		}
	}
	return false
}

func (b *block) firstLine(from, to int) int {
	for n := from; n <= to; n++ {
		if line := b.lines[n]; line > 0 {
			return line
		}
	}
	return b.line
}

// say writes how some switches of a block stand.
func (b *block) say(from, to int) string {
	words := []string{}
	for n := from; n <= to; n++ {
		e, noted := b.at[n]
		if !noted {
			e = unseen
		}
		words = append(words, sayElement(e))
	}
	return strings.Join(words, " ")
}

func sayElement(e element) string {
	return map[element]string{on: "on", off: "off", unseen: "?"}[e]
}

func switches(n int) string {
	if n == 1 {
		return "one switch"
	}
	return strconv.Itoa(n) + " switches"
}

// DecodeBy tells what settings mean by several records that say as firmly what a card is. Where they differ, all is told.
func DecodeBy(records [][]known.Setting, found []Setting) []Meaning {
	if len(records) == 0 {
		return Decode(nil, found)
	}
	together := Decode(records[0], found)
	for _, record := range records[1:] {
		for _, other := range Decode(record, found) {
			at := slices.IndexFunc(together, func(m Meaning) bool {
				return m.Line == other.Line &&
					m.Name == other.Name
			})
			if at < 0 {
				other.Why = strings.TrimPrefix(other.Why+"; only one of the records that claim the card speaks of it", "; ")
				if other.State == Known {
					other.State = Several
				}
				together = append(together, other)
				continue
			}
			m := &together[at]
			if slices.Equal(m.Means, other.Means) && m.State == other.State {
				continue
			}
			for _, means := range other.Means {
				if !slices.Contains(m.Means, means) {
					m.Means = append(m.Means, means)
				}
			}
			m.State, m.Why = Several, "two records say as firmly what the card is, and differ about it"
			if len(m.Means) == 0 {
				m.State = Unknown
			}
		}
	}
	slices.SortStableFunc(together, func(a, b Meaning) int { return a.Line - b.Line })
	return together
}
