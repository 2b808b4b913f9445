package known

import (
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"frugalheron/core/edtf"
	"frugalheron/core/measure"
	"frugalheron/core/memory"
	"frugalheron/core/quantity"
)

// Details are what is known of an assembly. They are written a line each, a word first that says of what it speaks and
// strokes between the rest:
//
//	connector J1 | DE-9 socket | monitor
//	pin J1.1 | ground
//	jumper JP1 | 1-2 = 256 KB | 2-3 = 512 KB
//	switch SW1.3 | on = parity checked | off = no parity
//	needs slot | 8-bit, long
//	needs card | 4424-1 | for more than 256 KB
//	needs lead | L-90 | to the keyboard
//	gives 4 slots | 8-bit
//	gives 2 slots | 8-bit | A1 A2
//	covers slot 3
//	current +5 | 1.2 A
//	memory 384 KB | picture
//	fits Meridian 2 | without the second drive
//	revision B | 1986-03/1986-11 | the clock has a battery
//	upgrade B to C | lift pin 4 of U3 and wire it to U5.2
//	fault C12 leaks on the tracks below | look for green below C12
//	document Service handbook, page 12
//
// and what Placing says of the slots that it sits in.
type Details struct {
	Connectors []Connector `json:"connectors"`
	Settings   []Setting   `json:"settings"`
	Needs      []Need      `json:"needs"`
	Gives      []Gift      `json:"gives"`
	Covers     []string    `json:"covers" says:"text" doc:"What it covers or blocks"`
	Currents   []Current   `json:"currents"`
	Memory     []Memory    `json:"memory"`
	Fits       []Fit       `json:"fits"`
	Revisions  []Since     `json:"revisions"`
	Upgrades   []Upgrade   `json:"upgrades"`
	Faults     []Fault     `json:"faults"`
	Documents  []string    `json:"documents" says:"text"`
	Placing    Placing     `json:"placing" doc:"What it asks of the backplane that it sits in"`
}

// Connector is a socket or plug of an assembly.
type Connector struct {
	Name string `json:"name"`
	Kind string `json:"kind" says:"text"`
	For  string `json:"for" says:"text"`
	Pins []Pin  `json:"pins"`
}

// Pin is what a pin of a connector carries.
type Pin struct {
	Name   string `json:"name"`
	Signal string `json:"signal" says:"text"`
}

// Setting is a jumper or a switch with what its positions mean.
type Setting struct {
	Kind      string            `json:"kind" enum:"jumper,switch"`
	Name      string            `json:"name"`
	Positions []SettingPosition `json:"positions"`
}

// SettingPosition is one of a jumper or switch.
type SettingPosition struct {
	At      string `json:"at"`
	Meaning string `json:"meaning" says:"text"`
}

// Need is what an assembly does not work without.
type Need struct {
	Kind string `json:"kind" enum:"slot,card,lead"`
	What string `json:"what" says:"text"`
	For  string `json:"for" says:"text" doc:"Empty where it is always needed"`
}

// Gift is slots that an assembly has for others.
type Gift struct {
	Count int      `json:"count"`
	Kind  string   `json:"kind" says:"text"`
	Names []string `json:"names" doc:"What they are called; empty where they are only counted"`
}

// Current is what an assembly draws on a rail.
type Current struct {
	Rail    string  `json:"rail"`
	Amperes float64 `json:"amperes"`
	Said    string  `json:"said" doc:"With its unit"`
}

// Memory is what an assembly holds.
type Memory struct {
	Bytes   int64  `json:"bytes"`
	Said    string `json:"said" doc:"With its unit"`
	Purpose string `json:"purpose" says:"text"`
}

// Fit is a model in which an assembly works, and what is different there.
type Fit struct {
	Model      string `json:"model"`
	Difference string `json:"difference" says:"text"`
}

// Since is a revision and when it was made.
type Since struct {
	Revision string `json:"revision"`
	Made     string `json:"made" doc:"EDTF; empty where it is not told"`
	Note     string `json:"note" says:"text"`
}

// Upgrade is how one revision is made into another.
type Upgrade struct {
	From string `json:"from"`
	To   string `json:"to"`
	How  string `json:"how" says:"text"`
}

// Fault is what assemblies of the kind are known to have, and how one finds out.
type Fault struct {
	What string `json:"what" says:"text"`
	Test string `json:"test" says:"text" doc:"What settles whether this one has it; empty where nobody said"`
}

// readers take what stands behind the first word of a line, divided at the strokes.
var readers = map[string]func(*Details, []string) error{
	"connector": (*Details).connector, "pin": (*Details).pin, "jumper": jumperOrSwitch("jumper"),
	"switch": jumperOrSwitch("switch"), "needs": (*Details).need, "gives": (*Details).give,
	"covers": (*Details).cover, "current": (*Details).current, "memory": (*Details).memory, "fits": (*Details).fit,
	"revision": (*Details).revision, "upgrade": (*Details).upgrade, "fault": (*Details).fault,
	"document": (*Details).document, "wide": (*Details).wide, "blocks": (*Details).block, "chain": (*Details).chain,
	"stands": (*Details).stand, "uses": (*Details).use,
}

// words in the order in which errors name them.
var detailWords = []string{"connector", "pin", "jumper", "switch", "needs", "gives", "covers", "current", "memory",
	"fits",
	"revision", "upgrade", "fault", "document", "wide", "blocks", "chain", "stands", "uses"}

// ParseDetails reads what is known of an assembly. Empty lines and comments behind a # are skipped.
func ParseDetails(text string) (Details, []Problem) {
	d, problems := Details{Connectors: []Connector{}, Settings: []Setting{}, Needs: []Need{}, Gives: []Gift{},
		Covers: []string{}, Currents: []Current{}, Memory: []Memory{}, Fits: []Fit{}, Revisions: []Since{},
		Upgrades: []Upgrade{}, Faults: []Fault{}, Documents: []string{},
		Placing: Placing{Blocks: []string{}, Behind: []string{}, Uses: []Use{}}}, []Problem{}
	for i, line := range strings.Split(text, "\n") {
		if before, _, isNoted := strings.Cut(" "+line, " #"); isNoted {
			line = before
		}
		if line = strings.TrimSpace(line); line == "" {
			continue
		}
		word, rest, _ := strings.Cut(line, " ")
		read := readers[strings.ToLower(word)]
		if read == nil {
			problems = append(problems, Problem{i + 1, fmt.Sprintf("begins with %q; lines begin with %s", word,
				strings.Join(detailWords, ", "))})
			continue
		}
		cells := strings.Split(rest, "|")
		for j := range cells {
			cells[j] = strings.Join(strings.Fields(cells[j]), " ")
		}
		if cells[0] == "" {
			problems = append(problems, Problem{i + 1, "has nothing behind " + word})
		} else if err := read(&d, cells); err != nil {
			problems = append(problems, Problem{i + 1, err.Error()})
		}
	}
	return d, problems
}

// SameTime names revisions that are said to have been made at the same time, in words.
func (d Details) SameTime() []string {
	told := []string{}
	for i, b := range d.Revisions {
		for _, a := range d.Revisions[:i] {
			first, errFirst := edtf.Parse(a.Made)
			second, errSecond := edtf.Parse(b.Made)
			if errFirst != nil || errSecond != nil {
				continue
			}
			if r := edtf.Relate(first, second); r != edtf.Before && r != edtf.After {
				told = append(told, fmt.Sprintf("revisions %s (%s) and %s (%s) overlap", a.Revision, a.Made,
					b.Revision, b.Made))
			}
		}
	}
	return told
}

// Differs tells in words where an assembly is not as is known of its kind: how much work memory its chips make, in bytes; 0
// where that is not known.
func (d Details) Differs(ramBytes int64) []string {
	told := int64(0)
	for _, m := range d.Memory {
		told += m.Bytes
	}
	if told == 0 || ramBytes == 0 || told == ramBytes {
		return []string{}
	}
	return []string{fmt.Sprintf("the record says %s of memory, its chips make %s", memory.Format(told), memory.Format(ramBytes))}
}

// cell is one behind the first, or empty.
func cell(cells []string, i int) string {
	if i < len(cells) {
		return cells[i]
	}
	return ""
}

func (d *Details) connector(cells []string) error {
	if slices.ContainsFunc(d.Connectors, func(c Connector) bool { return strings.EqualFold(c.Name, cells[0]) }) {
		return errors.New("names the connector " + cells[0] + " again")
	}
	d.Connectors = append(d.Connectors, Connector{cells[0], cell(cells, 1), cell(cells, 2), []Pin{}})
	return nil
}

func (d *Details) pin(cells []string) error {
	name, pin, ok := strings.Cut(cells[0], ".")
	at := slices.IndexFunc(d.Connectors, func(c Connector) bool { return strings.EqualFold(c.Name, name) })
	switch {
	case !ok || pin == "" || cell(cells, 1) == "":
		return errors.New("is no pin; write it as pin J1.1 | ground")
	case at < 0:
		return errors.New("is a pin of " + name + ", which no connector line before it names")
	}
	c := &d.Connectors[at]
	if slices.ContainsFunc(c.Pins, func(p Pin) bool { return strings.EqualFold(p.Name, pin) }) {
		return errors.New("names pin " + pin + " of " + c.Name + " again")
	}
	c.Pins = append(c.Pins, Pin{pin, cells[1]})
	return nil
}

func jumperOrSwitch(kind string) func(*Details, []string) error {
	return func(d *Details, cells []string) error {
		one := Setting{kind, cells[0], []SettingPosition{}}
		for _, c := range cells[1:] {
			at, meaning, ok := strings.Cut(c, "=")
			at, meaning = strings.TrimSpace(at), strings.TrimSpace(meaning)
			if !ok || at == "" || meaning == "" {
				return fmt.Errorf("%q is no position; write it as 1-2 = 256 KB", c)
			}
			one.Positions = append(one.Positions, SettingPosition{at, meaning})
		}
		if len(one.Positions) == 0 {
			return errors.New("says no position; write it as " + kind + " " + cells[0] + " | on = parity | off = none")
		}
		d.Settings = append(d.Settings, one)
		return nil
	}
}

func (d *Details) need(cells []string) error {
	kind := strings.ToLower(cells[0])
	if !slices.Contains([]string{"slot", "card", "lead"}, kind) || cell(cells, 1) == "" {
		return errors.New("says no need; write needs slot | 8-bit, needs card | 4424-1 or needs lead | L-90")
	}
	d.Needs = append(d.Needs, Need{kind, cells[1], cell(cells, 2)})
	return nil
}

var slots = regexp.MustCompile(`^([1-9]\d?) slots?$`)

func (d *Details) give(cells []string) error {
	m := slots.FindStringSubmatch(strings.ToLower(cells[0]))
	if m == nil || cell(cells, 1) == "" {
		return errors.New("says no slots; write gives 4 slots | 8-bit")
	}
	one := Gift{figureOf(m[1]), cells[1], []string{}}
	if names := strings.Fields(strings.ReplaceAll(cell(cells, 2), ",", " ")); len(names) > 0 {
		if len(names) != one.Count {
			return fmt.Errorf("names %d of its %d slots", len(names), one.Count)
		}
		one.Names = names
	}
	d.Gives = append(d.Gives, one)
	return nil
}

func (d *Details) cover(cells []string) error {
	d.Covers = append(d.Covers, strings.Join(cells, ", "))
	return nil
}

func (d *Details) current(cells []string) error {
	if _, isRail := measure.Rail(cells[0]); !isRail {
		return fmt.Errorf("%q is no rail; write it as current +5 | 1.2 A", cells[0])
	}
	amperes, _, err := quantity.Parse(cell(cells, 1), quantity.Amperes)
	if err == nil {
		err = quantity.Amperes.Check(amperes)
	}
	if err != nil {
		return err
	}
	d.Currents = append(d.Currents, Current{cells[0], amperes, quantity.Amperes.Say(amperes)})
	return nil
}

func (d *Details) memory(cells []string) error {
	bytes, err := memory.ParseSize(cells[0])
	if err != nil {
		return err
	}
	d.Memory = append(d.Memory, Memory{bytes, cells[0], cell(cells, 1)})
	return nil
}

func (d *Details) fit(cells []string) error {
	d.Fits = append(d.Fits, Fit{cells[0], cell(cells, 1)})
	return nil
}

func (d *Details) revision(cells []string) error {
	one := Since{Revision: cells[0], Made: cell(cells, 1), Note: cell(cells, 2)}
	if slices.ContainsFunc(d.Revisions, func(s Since) bool { return strings.EqualFold(s.Revision, one.Revision) }) {
		return errors.New("names revision " + one.Revision + " again")
	}
	if one.Made != "" {
		made, err := edtf.Parse(one.Made)
		if err != nil {
			return fmt.Errorf("when it was made: %w", err)
		}
		one.Made = made.String()
	}
	d.Revisions = append(d.Revisions, one)
	return nil
}

func (d *Details) upgrade(cells []string) error {
	from, to, ok := strings.Cut(cells[0], " to ")
	if !ok || cell(cells, 1) == "" {
		return errors.New("says no way; write upgrade B to C | what is done")
	}
	d.Upgrades = append(d.Upgrades, Upgrade{strings.TrimSpace(from), strings.TrimSpace(to), cells[1]})
	return nil
}

func (d *Details) fault(cells []string) error {
	if slices.ContainsFunc(d.Faults, func(f Fault) bool { return strings.EqualFold(f.What, cells[0]) }) {
		return errors.New("names the fault again")
	}
	d.Faults = append(d.Faults, Fault{cells[0], cell(cells, 1)})
	return nil
}

func (d *Details) document(cells []string) error {
	d.Documents = append(d.Documents, strings.Join(cells, ", "))
	return nil
}
