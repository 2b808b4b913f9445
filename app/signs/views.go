package signs

import (
	"fmt"
	"strings"

	"frugalheron/core/sign"
	"frugalheron/store/signs"
)

// SightingInput is what somebody saw a machine show.
type SightingInput struct {
	Kind       sign.Kind `json:"kind" enum:"lamps,beeps,screen,code"`
	Shown      string    `json:"shown" says:"text" maxLength:"4000" doc:"Lamps as 1101 or by the names of those that are lit, beeps as 1 long 2 short, what stands on the screen, or the code; nothing, where there was none"`
	During     string    `json:"during" says:"text" maxLength:"200" required:"false" doc:"What the machine was doing; empty where that is not known"`
	AssemblyID *int64    `json:"assemblyId,omitempty" doc:"The card that showed it; left out, it may be any"`
	On         string    `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	Note       string    `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// Signs is what a machine shows: what is listed, what should be shown now, and what was seen.
type Signs struct {
	Lists    []SignList    `json:"lists" doc:"Of the model and of what is in the machine today"`
	States   []string      `json:"states" says:"text" doc:"What it may be doing, as the lists name it"`
	Expected []sign.Expect `json:"expected" doc:"What a sound machine with these cards shows"`
	Seen     []Sighting    `json:"seen" doc:"The newest first"`
	More     bool          `json:"more" doc:"There is more that was seen"`
}

// SignList is the signs of a model or a known assembly.
type SignList struct {
	Of      string     `json:"of" says:"text"`
	ModelID int64      `json:"modelId" doc:"0 for a known assembly"`
	KnownID int64      `json:"knownId" doc:"0 for a model"`
	Table   sign.Table `json:"table"`
}

// Sighting is what somebody saw, with what that amounts to.
type Sighting struct {
	ID        int64     `json:"id"`
	MachineID int64     `json:"machineId"`
	Accession string    `json:"accession"`
	Machine   string    `json:"machine" says:"text"`
	Kind      sign.Kind `json:"kind" enum:"lamps,beeps,screen,code"`
	Shown     string    `json:"shown" says:"text"`
	During    string    `json:"during" says:"text"`
	Assembly  string    `json:"assembly" says:"text" doc:"The card that showed it; empty where that is not told"`
	On        string    `json:"on"`
	Note      string    `json:"note" says:"text"`
	By        string    `json:"by"`
	Version   int       `json:"version"`
	SignReading
}

// SignReading is what something that was seen amounts to.
type SignReading struct {
	Reading sign.Comparison `json:"reading"`
	Of      []string        `json:"of" says:"text" doc:"What the lists are called that the reading names by their place"`
	Subject string          `json:"subject" says:"text" doc:"By which it stands among the unknowns while nobody can say what it means"`
	Answer  *SignAnswer     `json:"answer" doc:"What somebody found out that it means; null for nothing"`
}

// IsOpen reports whether nobody can say what it means.
func (r SignReading) IsOpen() bool { return r.Answer == nil && r.Reading.Outcome.IsOpen() }

// SignAnswer is what somebody found out that a sign means which no list tells of.
type SignAnswer struct {
	Text   string `json:"text" says:"text"`
	Source string `json:"source" says:"text"`
	On     string `json:"on"`
}

// SignSeen is what was kept, and the event by which that can be undone.
type SignSeen struct {
	Sighting
	Event int64 `json:"event" doc:"The event of the history, by which the action can be undone"`
}

func sightingOf(r signs.Sighting) Sighting {
	return Sighting{ID: r.ID, MachineID: r.MachineID, Accession: r.Accession, Machine: r.Machine,
		Kind: sign.Kind(r.Kind), Shown: r.Shown, During: r.During, Assembly: r.Assembly, On: r.On, Note: r.Note,
		By: r.By, Version: r.Version}
}

func (s Sighting) inWords() map[string]any {
	return map[string]any{"kind": s.Kind, "shown": s.Shown, "during": s.During, "on": s.On, "note": s.Note}
}

// subjectOf is by which what nobody can read stands among the unknowns: one for all machines of a model.
func subjectOf(s signs.Sighting, model string) string {
	of := model
	if of == "" {
		of = s.Accession
	}
	text := []rune(strings.Join(strings.Fields(s.Shown), " "))
	subject := fmt.Sprintf("%s %s: %s", of, s.Kind, string(text[:min(len(text), mostSubject)]))
	if s.During != "" {
		during := []rune(s.During)
		subject += ", during " + string(during[:min(len(during), mostDuring)])
	}
	return subject
}

// mostSubject and mostDuring keep a subject shorter than what a question may be about.
const mostSubject, mostDuring = 90, 40
