package console

import (
	"crypto/sha256"
	"fmt"
	"sync"
	"time"

	"frugalheron/app/action"
	"frugalheron/core/calendar"
	coreconsole "frugalheron/core/console"
	"frugalheron/store/console"
)

// TextInput is what stood on a screen or a console, pasted or typed off.
type TextInput struct {
	Text   string `json:"text" says:"text" maxLength:"60000" doc:"As it stood there, line by line"`
	During string `json:"during" says:"text" maxLength:"200" required:"false" doc:"What the machine was doing"`
	Note   string `json:"note" says:"text" maxLength:"1000" required:"false"`
	On     string `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
}

// ListenInput says how a console is listened to.
type ListenInput struct {
	Line   string `json:"line" says:"text" maxLength:"200" required:"false" doc:"Speed, bits and parity at which the port stands, in words"`
	During string `json:"during" says:"text" maxLength:"200" required:"false" doc:"What the machine was doing"`
}

// Port is the port through which consoles are heard.
type Port struct {
	Address   string   `json:"address" doc:"Empty when none is set up"`
	Trouble   string   `json:"trouble" doc:"Why it does not answer, else empty"`
	Listening int64    `json:"listening" doc:"The capture that is under way through it; 0 for none"`
	MachineID int64    `json:"machineId" doc:"Of which machine that is; 0 for none"`
	Profiles  []string `json:"profiles" doc:"What a stand-in's console can be; empty for a real one"`
	Profile   string   `json:"profile" doc:"What a stand-in's console is"`
}

// Console is what is known of the console of a machine.
type Console struct {
	Port     Port      `json:"port"`
	Captures []Capture `json:"captures" doc:"The newest first"`
	More     bool      `json:"more" doc:"There are older ones"`
}

// Capture is what a machine said, with what that amounts to.
type Capture struct {
	ID        int64                   `json:"id"`
	MachineID int64                   `json:"machineId"`
	How       string                  `json:"how" enum:"heard,typed" doc:"Through the port, or typed off a screen"`
	Bytes     int                     `json:"bytes"`
	Line      string                  `json:"line" says:"text"`
	During    string                  `json:"during" says:"text"`
	Note      string                  `json:"note" says:"text"`
	On        string                  `json:"on"`
	Since     time.Time               `json:"since"`
	Until     *time.Time              `json:"until" doc:"Null while somebody listens"`
	Ended     string                  `json:"ended" doc:"Why listening ended; empty for what was typed off"`
	By        string                  `json:"by"`
	Version   int                     `json:"version"`
	Reading   coreconsole.TextReading `json:"reading"`
	LinesLeft int                     `json:"linesLeft" doc:"How many more lines there are than are told here; the capture alone tells all"`
	Stated    []StatedLine            `json:"stated" doc:"Statements that were taken from its lines and still count"`
}

// StatedLine is a statement that was taken from a line.
type StatedLine struct {
	Line        int    `json:"line"`
	StatementID int64  `json:"statementId"`
	Attribute   string `json:"attribute"`
	Subject     string `json:"subject" says:"text"`
}

// CaptureKept is a capture that was kept, and the event by which that can be undone.
type CaptureKept struct {
	Capture
	Event int64 `json:"event" doc:"The event of the history, by which the action can be undone"`
}

// TakeInput is a claim of a line that is to count as a statement.
type TakeInput struct {
	Line      int    `json:"line" minimum:"1"`
	Attribute string `json:"attribute" maxLength:"60" doc:"Of the claim"`
}

func captureOf(row console.Capture) Capture {
	return Capture{ID: row.ID, MachineID: row.MachineID, How: row.How, Bytes: len(row.Raw), Line: row.Line,
		During: row.During, Note: row.Note, On: row.On, Since: row.At, Until: row.EndedAt, Ended: row.Ended, By: row.By,
		Version: row.Version, Reading: readOf(row), Stated: []StatedLine{}}
}

// readings keeps what was read, by what it was read from: reading is worth keeping, as a bench asks for it at each key.
var readings = struct {
	sync.Mutex
	of map[readFrom]coreconsole.TextReading
}{of: map[readFrom]coreconsole.TextReading{}}

// readFrom is all on which a reading depends.
type readFrom struct {
	raw     [sha256.Size]byte
	on, how string
}

// mostReadings bounds it.
const mostReadings = 200

func readOf(row console.Capture) coreconsole.TextReading {
	key := readFrom{sha256.Sum256(row.Raw), row.On, row.How}
	readings.Lock()
	read, ok := readings.of[key]
	readings.Unlock()
	if ok {
		return read
	}
	if row.How == "typed" {
		read = coreconsole.ReadTyped(string(row.Raw), dayOf(row.On))
	} else {
		read = coreconsole.Read(row.Raw, dayOf(row.On))
	}
	readings.Lock()
	defer readings.Unlock()
	if len(readings.of) >= mostReadings {
		clear(readings.of)
	}
	readings.of[key] = read
	return read
}

func dayOf(on string) calendar.Date {
	day, _ := calendar.Parse(on) // the database keeps only days
	return day
}

func inWords(row console.Capture) map[string]any {
	return map[string]any{"on": row.On, "during": row.During, "note": row.Note, "line": row.Line, "ended": row.Ended,
		"bytes": fmt.Sprintf("%d bytes", len(row.Raw))}
}

var captures = action.Records[console.Capture, Capture]{What: "what the console said", Lock: console.LockCapture,
	Read: console.CaptureByID, Version: func(r console.Capture) int { return r.Version },
	Told: func(r console.Capture) any { return inWords(r) }, View: captureOf,
	Machine: func(r console.Capture) *int64 { return &r.MachineID }}
