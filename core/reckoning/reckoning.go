// Package reckoning answers: what does a board amount to? It takes a sheet, reads every
// marking against the library and adds up memory, ROM, dates, unknowns and current, each with
// the lines it came from.
package reckoning

import (
	"fmt"

	"frugalheron/core/calendar"
	"frugalheron/core/datecode"
	"frugalheron/core/device"
	"frugalheron/core/edtf"
	"frugalheron/core/marking"
	"frugalheron/core/memory"
	"frugalheron/core/sheet"
)

// Result is a reckoned sheet.
type Result struct {
	Assemblies []Assembly      `json:"assemblies"`
	Totals     Totals          `json:"totals"`
	Problems   []sheet.Problem `json:"problems"`
	Notes      []Note          `json:"notes" doc:"Worth knowing, but not wrong"`
}

// Assembly is one board of the sheet.
type Assembly struct {
	Title      string            `json:"title" says:"text"`
	Attributes map[string]string `json:"attributes"`
	Entries    []Entry           `json:"entries"`
	// Texts are the lines that are neither entry nor comment: kept, not reckoned.
	Texts []Text `json:"texts"`
}

// Text is a line kept as it stands.
type Text struct {
	Line int    `json:"line"`
	Text string `json:"text" says:"text"`
}

// Kind says what sort of part an entry is about.
type Kind string

// The kinds of parts.
const (
	Chip      Kind = "chip"
	Module    Kind = "module"
	Crystal   Kind = "crystal"
	Capacitor Kind = "capacitor"
	Resistor  Kind = "resistor"
	Jumper    Kind = "jumper"
	Switch    Kind = "switch"
	Battery   Kind = "battery"
	Connector Kind = "connector"
	Drive     Kind = "drive"
	Supply    Kind = "supply"
	Fan       Kind = "fan"
	Relay     Kind = "relay"
	Fuse      Kind = "fuse"
	Filter    Kind = "filter"
	Network   Kind = "network"
	Display   Kind = "display"
	Speaker   Kind = "speaker"
	Other     Kind = "other"
)

// Entry is a line of the sheet with what its words mean.
type Entry struct {
	Line         int                  `json:"line"`
	Designators  []string             `json:"designators"`
	Count        int                  `json:"count"`
	Kind         Kind                 `json:"kind"`
	Marking      string               `json:"marking" doc:"The words as written"`
	Type         *device.Type         `json:"type"`
	SpeedNs      int                  `json:"speedNs" doc:"Access time in nanoseconds; 0 when not said"`
	ClockMHz     float64              `json:"clockMHz,omitempty" doc:"Highest clock of a processor in MHz, where it is said"`
	Date         *datecode.DateCode   `json:"date"`
	DateReadings []datecode.Candidate `json:"-"` // every way to read the date code
	Purpose      sheet.Purpose        `json:"purpose" doc:"What memory is for, from the line or its heading"`
	Socketed     bool                 `json:"socketed"`
	Empty        bool                 `json:"empty" doc:"A socket without its part"`
	Doubtful     bool                 `json:"doubtful" doc:"A character could not be read with certainty"`
	New          *string              `json:"new" doc:"Since when the part is new, in EDTF; null for one not told to be a replacement"`
	Findings     []sheet.Mark         `json:"findings"`

	Parts    string `json:"-"` // the designators as written, as U40-U48
	unknown  bool   // somebody wrote that nobody knows what it is
	nameable string // number under which an unknown chip could be named
}

// IsUnidentified reports whether the entry is about chips that nobody has named yet, or about other parts that somebody
// marked as unknown.
func (e Entry) IsUnidentified() bool {
	return !e.Empty && (e.unknown && e.Kind != Chip || e.Kind == Chip && e.Type == nil)
}

// Totals are the sums over a sheet. Bytes count data, without parity.
type Totals struct {
	Chips        int             `json:"chips"`
	Modules      int             `json:"modules"`
	Unidentified int             `json:"unidentified" doc:"Chips that nobody named, and other parts marked with ?"`
	RAMBytes     int64           `json:"ramBytes" doc:"Data of all purposes, chips and modules, without parity"`
	RAMBy        RAMBy           `json:"ramBy"`
	ParityBits   int64           `json:"parityBits"`
	ROMBytes     int64           `json:"romBytes"`
	ROMs         int             `json:"roms" doc:"Chips that hold ROM of any kind"`
	EmptySockets int             `json:"emptySockets"`
	Findings     int             `json:"findings"`
	Draw         map[string]Draw `json:"draw" doc:"By rail, as +5"`
	Dates        *DateRange      `json:"dates" doc:"First and last date code, or null when none is read"`
}

// RAMBy splits memory by what it is for, in bytes.
type RAMBy struct {
	Main    int64 `json:"main"`
	Picture int64 `json:"picture"`
	Cache   int64 `json:"cache"`
	Shared  int64 `json:"shared"`
	Card    int64 `json:"card"`
}

// Of returns the bytes for one purpose.
func (r *RAMBy) Of(p memory.Purpose) int64 { return *r.slot(p) }

func (r *RAMBy) slot(p memory.Purpose) *int64 {
	switch p {
	case memory.Picture:
		return &r.Picture
	case memory.Cache:
		return &r.Cache
	case memory.Shared:
		return &r.Shared
	case memory.Card:
		return &r.Card
	}
	return &r.Main
}

// Draw is a rough current: the sum of typical currents of the chips that are identified.
type Draw struct {
	TypicalA  float64 `json:"typicalA" doc:"Amperes, a rule of thumb"`
	Counted   int     `json:"counted" doc:"Chips in the sum"`
	Uncounted int     `json:"uncounted" doc:"Chips of which no current is known"`
}

// DateRange spans the date codes of chips.
type DateRange struct {
	Earliest datecode.DateCode `json:"earliest"`
	Latest   datecode.DateCode `json:"latest"`
	Count    int               `json:"count" doc:"Chips with a date code that was read"`
}

// Note is a remark on a line.
type Note struct {
	Line int    `json:"line"`
	Text string `json:"text" says:"text"`

	estimate bool // says how an estimate came about; shown with the estimate
}

// Options are what is known beside the text.
type Options struct {
	Mode    sheet.Mode
	Era     datecode.Era
	Purpose sheet.Purpose // what the board's memory is for when a body text does not say
	Fit     string        // when the board came in, if its heading is kept elsewhere: factory, period, later, modern
	// Today is the day it is: codes on parts that were put in later can mean its year at most, and nothing was put in after
	// it. The zero Date where nobody says it.
	Today calendar.Date
}

// eraOf says which years a code on a part can mean. What is on a board that came in later may be newer than all others;
// of a part that was put in at a known time the machine's years say nothing.
func (o Options) eraOf(fit string, e *sheet.Entry) datecode.Era {
	since, err := edtf.Parse(e.New)
	switch {
	case e.New != "" && err == nil:
		latest := since.Latest().Year
		if latest == 0 || o.Today.Year > 0 && o.Today.Year < latest {
			latest = o.Today.Year
		}
		return datecode.Era{Latest: latest}
	case fit == "later" || fit == "modern":
		return datecode.Era{From: o.Era.From, To: o.Era.To, Latest: o.Today.Year}
	}
	return o.Era
}

// whyNotNew says why a part cannot have been put in when its line says so; empty where it can.
func (o Options) whyNotNew(e *sheet.Entry) string {
	if e.New == "" {
		return ""
	}
	since, err := edtf.Parse(e.New)
	switch {
	case err != nil:
	case !o.Today.IsZero() && !since.Earliest().IsZero() && o.Today.Before(since.Earliest()):
		return fmt.Sprintf("new:%s lies after today; write when the part was put in", e.New)
	case o.Era.From > 0 && !since.Latest().IsZero() && since.Latest().Year < o.Era.From:
		return fmt.Sprintf("new:%s is before the machine was built, from %d on; correct one of the two", e.New, o.Era.From)
	}
	return ""
}

// Of reckons a text. It returns a *malformed.Error when the text cannot be a sheet at all.
func Of(library *device.Library, text []byte, options Options) (Result, error) {
	parsed, err := sheet.Parse(text, options.Mode)
	if err != nil {
		return Result{}, err
	}
	return OfSheet(library, parsed, options), nil
}

// OfSheet reckons a sheet that was read already; the mode of the options says nothing more.
func OfSheet(library *device.Library, parsed sheet.Sheet, options Options) Result {
	r := Result{Assemblies: []Assembly{}, Problems: parsed.Problems, Notes: []Note{}}
	problemLines := map[int]bool{}
	for _, p := range parsed.Problems {
		problemLines[p.Line] = true
	}
	for _, a := range parsed.Assemblies {
		r.Assemblies = append(r.Assemblies, r.assembly(library, a, options, problemLines))
	}
	r.Totals = sum(&r)
	return r
}

func (r *Result) assembly(library *device.Library, a sheet.Assembly, options Options,
	problemLines map[int]bool) Assembly {
	out := Assembly{Attributes: map[string]string{}, Entries: make([]Entry, 0, len(a.Lines)), Texts: []Text{}}
	purpose, fit := options.Purpose, options.Fit
	if a.Heading != nil {
		out.Title = a.Heading.Title
		for _, attribute := range a.Heading.Attributes {
			out.Attributes[attribute.Key] = attribute.Value
		}
		purpose, fit = sheet.Purpose(a.Heading.Value("for")), a.Heading.Value("fit")
	}
	for _, line := range a.Lines {
		switch {
		case line.Entry != nil:
			out.Entries = append(out.Entries, readEntry(library, line.Entry, purpose, options.eraOf(fit, line.Entry)))
			if why := options.whyNotNew(line.Entry); why != "" {
				r.Problems = append(r.Problems, sheet.Problem{Line: line.Number, Message: why,
					Column: sheet.ColumnOf(line.Text, "new:"+line.Entry.New)})
			}
		case isText(line.Text):
			out.Texts = append(out.Texts, Text{Line: line.Number, Text: line.Text})
			if !problemLines[line.Number] {
				r.Notes = append(r.Notes,
					Note{Line: line.Number,
						Text: "no designator at the start, so the line is kept as text and not counted; write 1x before a part without one"})
			}
		}
	}
	return out
}

func readEntry(library *device.Library, e *sheet.Entry, purpose sheet.Purpose, era datecode.Era) Entry {
	out := Entry{
		Line: e.Line, Designators: e.Designators, Count: e.Count, Marking: joined(e.Words),
		DateReadings: []datecode.Candidate{}, Purpose: e.Purpose,
		Socketed: e.Socketed, Empty: e.Empty, Doubtful: e.Doubtful, Findings: e.Findings, unknown: e.Unknown,
	}
	if e.New != "" {
		out.New = &e.New
	}
	if len(e.Designators) > 0 {
		out.Parts = e.Written
	}
	if out.Purpose == sheet.Unsaid {
		out.Purpose = purpose
	}
	out.Kind = kindOf(library, e)
	switch out.Kind {
	case Chip:
		out.read(marking.ReadWords(library, e.Words, marking.Context{Part: marking.Chip, Era: era}))
		if out.Type == nil {
			out.nameable = marking.Nameable(library, e.Words)
			if said, ok := memoryInWords(e.Words); ok {
				out.Type = &said
			}
		}
	case Capacitor, Resistor, Network:
		words := e.Words
		if len(words) > 0 && plainNumber.MatchString(words[0]) {
			words = words[1:] // a bare figure is a value
		}
		out.read(marking.ReadWords(library, words, marking.Context{Part: marking.Passive, Era: era}))
	case Module:
		out.read(marking.ReadWords(library, e.Words, marking.Context{Part: marking.Unit, Era: era}))
		out.readModule(e.Words)
	case Battery, Crystal, Drive, Supply, Fan:
		out.read(marking.ReadWords(library, e.Words, marking.Context{Part: marking.Unit, Era: era}))
	}
	return out
}

func (e *Entry) read(m marking.Reading) {
	e.Type, e.SpeedNs, e.ClockMHz = m.Type, m.SpeedNs, m.ClockMHz
	e.Date, e.DateReadings = m.Date, m.Candidates
}

// readModule reads a capacity. A module holds RAM unless its words say otherwise.
func (e *Entry) readModule(words []string) {
	if said, ok := memoryInWords(words); ok {
		said.Function = "memory module"
		e.Type = &said
		return
	}
	for _, word := range words {
		if organisation, ok := memory.ParseModule(word); ok && e.Type == nil {
			e.Type = &device.Type{
				Number: "module " + word, Class: device.DRAM, Organisation: organisation,
				Function: "memory module", Source: "as written on the sheet",
			}
		}
	}
}
