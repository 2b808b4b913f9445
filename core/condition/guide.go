package condition

import (
	_ "embed"
	"regexp"
	"slices"
	"strings"
	"sync"

	"frugalheron/core/caution"
	"frugalheron/core/table"
)

//go:embed subsystems.tsv
var subsystemTable string

// Subsystem is a part of a machine that is judged by itself.
type Subsystem struct {
	Key      string
	Name     string
	LookFor  string
	Grading  string
	Cautions []caution.Key
	Kinds    []string // of findings that are usual
	Classes  []string // ageing classes that whoever inspects it looks at
	held     *regexp.Regexp
	words    *regexp.Regexp // of places, where people say what is wrong there
}

// always stands for a pattern in the table: every machine has it.
const always = "always"

// Other is the subsystem of what fits nowhere else. It is asked for, but a survey without it is whole.
const Other = "other"

// Subsystems lists all in the order of an inspection.
func Subsystems() []Subsystem { return slices.Clone(readSubsystems()) }

var readSubsystems = sync.OnceValue(func() []Subsystem {
	all := []Subsystem{}
	for _, cells := range table.Reference("subsystems", subsystemTable, "key", "name", "held", "words", "look for",
		"grading",
		"cautions", "kinds", "classes", "source") {
		s := Subsystem{Key: cells[0], Name: cells[1], LookFor: cells[4], Grading: cells[5],
			Kinds: strings.Split(cells[7], ", "), Classes: strings.Fields(cells[8])}
		if cells[2] != always {
			s.held = regexp.MustCompile(`(?i)` + cells[2])
		}
		if cells[3] != "" {
			s.words = regexp.MustCompile(`(?i)\b(` + cells[3] + `)s?\b`)
		}
		for _, key := range strings.Fields(cells[6]) {
			s.Cautions = append(s.Cautions, caution.Key(key))
		}
		all = append(all, s)
	}
	return all
})

// SubsystemOf finds one by its key.
func SubsystemOf(key string) (Subsystem, bool) {
	for _, s := range readSubsystems() {
		if s.Key == key {
			return s, true
		}
	}
	return Subsystem{}, false
}

// NameOf is what a subsystem is called; its key when it is not known.
func NameOf(key string) string {
	if s, ok := SubsystemOf(key); ok {
		return s.Name
	}
	return key
}

// Part is something that the machine holds: a line of a sheet, or a whole board.
type Part struct {
	AssemblyID int64  `json:"assemblyId"`
	Board      string `json:"board" says:"text"`
	Line       int    `json:"line" doc:"Line of the board's sheet; 0 for the board itself"`
	Place      string `json:"place" says:"text" doc:"Designators, or what it is called"`
	Words      string `json:"words" says:"text" doc:"As it stands on the sheet"`
	Tells      string `json:"-"` // what kind of part it is, in the words of the table
}

// Item is a subsystem to inspect on a machine.
type Item struct {
	Subsystem string            `json:"subsystem"`
	Name      string            `json:"name"`
	LookFor   string            `json:"lookFor"`
	Grading   string            `json:"grading" doc:"How to grade what one finds"`
	Cautions  []caution.Caution `json:"cautions" doc:"What to take care of, where it was not said at an item before"`
	Kinds     []string          `json:"kinds" doc:"Kinds of findings that are usual here"`
	Parts     []Part            `json:"parts" doc:"What of it stands on the sheets"`
	More      int               `json:"more" doc:"Parts that are left out of the list"`
}

// mostParts bounds the parts that an item lists.
const mostParts = 24

// Guide lists what to inspect on a machine that holds some parts: what every machine has, and what stands on
// its sheets. Each caution is said once, where it is due first.
func Guide(parts []Part) []Item {
	items, said := []Item{}, caution.Shown{}
	subsystems := readSubsystems()
	// Boards hold many equal parts: what tells of one is looked at once.
	heldBy := map[string][]bool{}
	for _, p := range parts {
		if heldBy[p.Tells] == nil {
			heldBy[p.Tells] = make([]bool, len(subsystems))
			for i, s := range subsystems {
				heldBy[p.Tells][i] = s.held != nil && s.held.MatchString(p.Tells)
			}
		}
	}
	for i, s := range subsystems {
		item := Item{Subsystem: s.Key, Name: s.Name, LookFor: s.LookFor, Grading: s.Grading, Kinds: s.Kinds,
			Parts: []Part{}}
		if s.held != nil {
			for _, p := range parts {
				if !heldBy[p.Tells][i] {
					continue
				}
				if len(item.Parts) == mostParts {
					item.More++
					continue
				}
				item.Parts = append(item.Parts, p)
			}
			if len(item.Parts) == 0 {
				continue
			}
		}
		item.Cautions = caution.All(said.Now(s.Cautions))
		items = append(items, item)
	}
	return items
}
