package sheets

import (
	"time"

	"frugalheron/core/sheet"
	storesheets "frugalheron/store/sheets"
)

// Position is one socket or part of an assembly; it outlives the chip that sits in it.
type Position struct {
	ID         int64  `json:"id"`
	Designator string `json:"designator" doc:"Empty for parts that are only counted"`
	Ordinal    int    `json:"ordinal" doc:"Tells counted parts apart, from 1"`
}

func positionOf(r storesheets.Position) Position { return Position(r) }

// Occupant is one part after another at a position.
type Occupant struct {
	Words string `json:"words" says:"text" doc:"What was said of it"`
	From  string `json:"from" doc:"EDTF; empty where it was there as far as anybody knows"`
	Came  string `json:"came" enum:",new,fitted" doc:"Put in as a replacement, or where nothing was"`
	Until string `json:"until" doc:"EDTF; empty while it is there"`
	Went  string `json:"went" enum:",replaced,taken out"`
}

// ChangedPosition is a position whose occupants changed, with all of them in their order.
type ChangedPosition struct {
	Designator string     `json:"designator"`
	Occupants  []Occupant `json:"occupants"`
}

// Revision is one state of an assembly's sheet. Revisions are only ever added; n counts from 1.
type Revision struct {
	AssemblyID int64     `json:"assemblyId"`
	N          int       `json:"n" doc:"Counts from 1; 0 stands for no sheet yet"`
	Body       string    `json:"body" says:"sheet"`
	By         string    `json:"by" doc:"Who wrote it"`
	At         time.Time `json:"at"`
}

// RevisionOf is what goes out of one.
func RevisionOf(r storesheets.Revision) Revision { return Revision(r) }

// Entry is a parsed line of the newest revision.
type Entry struct {
	Line        int      `json:"line"`
	Designators []string `json:"designators"`
	Count       int      `json:"count"`
	Kind        string   `json:"kind"`
	Marking     string   `json:"marking"`
	TypeNumber  string   `json:"typeNumber" doc:"Type in the library, or empty"`
	TypeClass   string   `json:"typeClass"`
	TypeAges    string   `json:"typeAges" doc:"How it ages, by its type; empty where nothing is known"`
	SpeedNs     int      `json:"speedNs"`
	DateFrom    *string  `json:"dateFrom" doc:"YYYY-MM-DD, or null"`
	DateTo      *string  `json:"dateTo"`
	Purpose     string   `json:"purpose"`
	Socketed    bool     `json:"socketed"`
	Empty       bool     `json:"empty"`
	Doubtful    bool     `json:"doubtful"`
	New         *string  `json:"new" doc:"Since when the part is new, in EDTF, or null"`
	// Unidentified is what nobody knows, be it a chip or not.
	Unidentified bool         `json:"unidentified" doc:"A chip that nobody named, or another part marked with ?"`
	Findings     []sheet.Mark `json:"findings"`
}

// EntryOf is what goes out of one.
func EntryOf(r storesheets.EntryRow) Entry { return Entry(r) }
