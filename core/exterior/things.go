package exterior

import (
	_ "embed"
	"fmt"
	"regexp"
	"strings"
	"sync"

	"frugalheron/core/table"
)

//go:embed things.tsv
var thingsTable string

const examples = "badge, label, plate, port, switch, door, foot, hole, residue, damage, missing, added, weight, size, note"

// thing is a word that a line starts with.
type thing struct {
	hint      string
	anywhere  bool   // also before the first heading
	subsystem string // to which what is found on it belongs
}

var things = sync.OnceValue(func() map[string]thing {
	known := map[string]thing{}
	for _, cells := range table.Reference("things", thingsTable, "thing", "hint", "anywhere", "subsystem",
		"source") {
		known[cells[0]] = thing{cells[1], cells[2] == "yes", cells[3]}
	}
	return known
})

// SubsystemOf is the subsystem of a machine to which belongs what is found on a thing of its outside.
func SubsystemOf(thing string) string { return things()[thing].subsystem }

var gender = regexp.MustCompile(`(?i)\b(male|female|plug|socket|edge|none)\b`)

// check says what is missing behind the word of a line, or nothing.
func (t thing) check(e Entry) string {
	if e.Words == "" && e.Reading == "" && len(e.Findings) == 0 && t.hint != "" {
		return fmt.Sprintf("say more of the %s: %s", e.Thing, t.hint)
	}
	if e.Thing == "port" && !gender.MatchString(e.Words) {
		return "say which gender the port is: male, female, plug, socket, edge, or none"
	}
	if attribute := measures[e.Thing]; attribute != "" {
		if _, err := normal(attribute, e.Words); err != nil {
			return fmt.Sprintf("%s: %s", e.Thing, err)
		}
	}
	return ""
}

// Face is a side of the machine as it stands before somebody.
type Face string

// Faces in the order of the walk.
const (
	Front     Face = "front"
	Left      Face = "left"
	Rear      Face = "rear"
	Right     Face = "right"
	Top       Face = "top"
	Underside Face = "underside"
)

// Faces lists them in the order of the walk, each with what to look for there.
func Faces() []struct {
	Face    Face
	LookFor string
	Example string
} {
	return []struct {
		Face    Face
		LookFor string
		Example string
	}{
		{Front, "badge, drives and their doors, switches, lamps, key lock, hand-written marks",
			`badge     model "Meridian 2"`},
		{Left, "vents, doors, ports, cracks at the corners", "vent      whole length"},
		{Rear, "rating plate, serial number, ports with gender and marking, mains inlet or lead, blanking plates, fan",
			"plate     220-240 V 50 Hz 0.6 A earth"},
		{Right, "vents, doors, ports, switches out of the way", "switch    power, rocker"},
		{Top, "yellowing, scratches, dents of a monitor, residues of stickers", "residue   sticker, upper right"},
		{Underside, "feet, battery door, screws, labels with numbers, rust, stamps of a test", "foot      4 of 4"},
	}
}

func faceOf(text string) (Face, bool) {
	name := Face(strings.ToLower(strings.TrimSpace(text)))
	switch name {
	case "back":
		name = Rear
	case "bottom", "below":
		name = Underside
	}
	for _, f := range Faces() {
		if f.Face == name {
			return name, true
		}
	}
	return name, false
}

func sides() string {
	names := make([]string, len(Faces()))
	for i, f := range Faces() {
		names[i] = string(f.Face)
	}
	return strings.Join(names, ", ")
}
