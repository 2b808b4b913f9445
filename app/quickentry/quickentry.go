package quickentry

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/app/sheets"
	"frugalheron/core/measure"
	"frugalheron/core/statement"
	storecondition "frugalheron/store/condition"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// Understood is what a statement about a machine would do. Nothing of it is kept yet.
type Understood struct {
	Machine      *inventory.Machine `json:"machine" doc:"The machine it is about; null when nothing was understood"`
	Note         string             `json:"note" says:"text" doc:"A note for the machine, or empty"`
	Sure         bool               `json:"sure" doc:"The words say what they are; else it is rather something to look for"`
	Destinations []Destination      `json:"destinations" doc:"The sheets that a line could go to"`
	// NoteInstead is set where nothing else can be done with the words, or not everywhere.
	NoteInstead string `json:"noteInstead" says:"text" doc:"The words, where they can be kept as a note instead; else empty"`
	Happened    string `json:"happened" says:"text" doc:"What would be noted of the machine or a board as a whole, in a sentence; empty where the words say nothing of these"`
	// Measured is set where the words can be meant as a measurement.
	Measured *UnderstoodMeasurement `json:"measured" doc:"What was measured, where the words can be meant so; else null"`
}

// UnderstoodMeasurement is a measurement that was said.
type UnderstoodMeasurement struct {
	Line    string          `json:"line" says:"text" doc:"The words, without the accession number before them"`
	Point   string          `json:"point"`
	InWords string          `json:"inWords" doc:"The value in words"`
	Verdict measure.Verdict `json:"verdict" enum:"pass,marginal,fail,noted"`
	Why     []string        `json:"why" says:"text"`
	Sure    bool            `json:"sure" doc:"It is rather that than a line of a sheet"`
}

// Destination is one sheet that a line could go to.
type Destination struct {
	AssemblyID int64  `json:"assemblyId"`
	Title      string `json:"title" says:"text"`
	Base       int    `json:"base" doc:"Revision that the line would be put on; a save names it"`
	Line       int    `json:"line"`
	Text       string `json:"text" says:"text" doc:"The line as it would stand there"`
	Replaces   string `json:"replaces" doc:"The line whose place it takes, or empty"`
	Leaves     string `json:"leaves" says:"sheet" doc:"What of that line stays as a line of its own, or empty"`
	Blocked    string `json:"blocked" doc:"Why it cannot go there, or empty"`
	Reading    string `json:"reading" doc:"What the line would be taken for"`
	Does       string `json:"does" says:"text" doc:"What happens to the part, in a sentence; empty where the words are a line as it stands on a sheet"`
}

// Understand reads a statement about the machine on the bench (0 for none), or about the one whose
// accession number it starts with.
func (s *Service) Understand(ctx context.Context, actor action.Actor, machineID int64,
	text string) (Understood, error) {
	nothing := Understood{Destinations: []Destination{}}
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nothing, err
	}
	machine, rest, err := s.about(ctx, machineID, text)
	if err != nil || machine.ID == 0 {
		return nothing, err
	}
	fitted, err := sheets.Contents(ctx, s.kernel.Reader(ctx), machine.ID)
	if err != nil {
		return nothing, err
	}
	said, isStatement := statement.Read(rest, titlesOf(fitted)...)
	measured, err := understandMeasurement(ctx, s.kernel.Reader(ctx), machine.ID, rest)
	if err != nil || !isStatement && measured == nil {
		return nothing, err
	}
	if measured != nil && said.Happened != nil {
		measured.Sure = false // what happened goes before what was measured: C12 high esr 12 ohm is found
	}
	u := Understood{Machine: &machine, Note: said.Note, Sure: said.Note != "", Destinations: []Destination{},
		Measured: measured}
	switch {
	case said.Note != "":
		u.Measured = nil
	case said.Entry != nil:
		err = s.understandParts(ctx, actor, machine, fitted, said, rest, &u)
	case said.Happened != nil:
		u.Happened, u.Sure = said.Happened.Would(said.Board), said.Happened.IsSure()
		if said.Happened.Deed == statement.Treated {
			u.NoteInstead, u.Happened = rest, ""
		}
		if !said.Happened.CanBe() {
			u.NoteInstead, u.Happened, u.Sure = rest, "", false
		}
		if said.Happened.Deed == statement.Moved {
			err = s.tellNewPlace(ctx, actor, said.Happened.Words, &u)
		}
	}
	// What was measured on a part that stands on a sheet is never its marking.
	if measured != nil && measured.Sure {
		u.Sure, u.Destinations, u.NoteInstead = true, []Destination{}, ""
	}
	return u, err
}

// tellNewPlace says of a move that it goes to a place that is not in the list yet: it may be a slip of the pen.
func (s *Service) tellNewPlace(ctx context.Context, actor action.Actor, place string, u *Understood) error {
	known, err := s.inventory.Places(ctx, actor)
	if err == nil && !slices.Contains(known, place) {
		u.Happened += ", a place that is not in the list yet"
	}
	return err
}

func titlesOf(fitted []sheets.FittedAssembly) []string {
	titles := make([]string, len(fitted))
	for i, f := range fitted {
		titles[i] = f.Title
	}
	return titles
}

// understandParts says what would happen on each sheet that parts can stand on.
func (s *Service) understandParts(ctx context.Context, actor action.Actor, machine inventory.Machine,
	fitted []sheets.FittedAssembly, said statement.Statement, words string, u *Understood) error {
	library, err := s.library.Read(ctx)
	if err != nil {
		return err
	}
	isKnown := false
	for _, f := range fitted {
		if said.Board != "" && f.Title != said.Board {
			continue
		}
		placed, err := statement.Place(f.Body, said, actor.Today())
		if err != nil {
			return err
		}
		way := Destination{AssemblyID: f.ID, Title: f.Title, Base: f.Revision, Line: placed.Line, Text: placed.Text,
			Replaces: placed.Replaces, Leaves: placed.Leaves, Blocked: placed.Blocked}
		text := cmp.Or(placed.Text, said.Line)
		alone, err := sheets.ReckonBody(library, text,
			sheets.OptionsFor(f.Purpose, f.Fit, inventory.EraOf(machine.EraFrom, machine.EraTo), actor.Day()))
		if err != nil {
			return err
		}
		if lines := alone.Lines(); len(lines) > 0 {
			way.Reading = lines[0].Text
		}
		if said.Happened != nil {
			way.Does, u.Sure = said.Happened.Did(said.Entry.Written, way.Reading), true
		} else {
			u.Sure = u.Sure || statement.MeansAPart(alone)
		}
		if way.Blocked == "" {
			way.Blocked = statement.WhyNot(said, placed, alone)
		}
		isKnown = isKnown || placed.Replaces != "" || placed.Blocked != ""
		u.Destinations = append(u.Destinations, way)
	}
	lacks := func(d Destination) bool { return d.Replaces == "" && d.Blocked == "" }
	if isKnown && !slices.ContainsFunc(u.Destinations, func(d Destination) bool {
		return d.Blocked == "" && !lacks(d)
	}) {
		// Where the part is, nothing can be done with the words; then it is not meant anywhere else.
		u.NoteInstead, u.Destinations = words, slices.DeleteFunc(u.Destinations, lacks)
	}
	if said.Happened != nil && said.Happened.Deed == statement.Worked {
		u.Destinations, u.NoteInstead, u.Happened = []Destination{}, "", said.Happened.Would(said.Entry.Written)
	}
	slices.SortStableFunc(u.Destinations, func(a, b Destination) int { return cmp.Compare(a.rank(), b.rank()) })
	return nil
}

// rank puts the sheet first on which the part stands already: that is where it is meant. Last come
// those that cannot take it.
func (w Destination) rank() int {
	switch {
	case w.Blocked != "":
		return 2
	case w.Replaces == "":
		return 1
	}
	return 0
}

// about finds the machine that a statement is about, the one on the bench or the one whose accession number it
// starts with, and what is said of it. Without a machine its id is 0.
func (s *Service) about(ctx context.Context, machineID int64,
	text string) (machine inventory.Machine, rest string, err error) {
	if first, rest, found := strings.Cut(strings.TrimSpace(text), " "); found {
		machine, err := storeinventory.MachineByAccession(ctx, s.kernel.Reader(ctx), first)
		if err == nil {
			rest, err = byDesignator(ctx, s.kernel.Reader(ctx), machine.ID, rest)
		}
		if !errors.Is(err, action.ErrNotFound) {
			return inventory.MachineOf(machine), rest, err
		}
	}
	if machineID == 0 {
		return machine, text, nil
	}
	row, err := storeinventory.MachineByID(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return machine, text, err
	}
	rest, err = byDesignator(ctx, s.kernel.Reader(ctx), row.ID, text)
	return inventory.MachineOf(row), rest, err
}

// byDesignator reads words that call a part by its kind as its designator, by the sheets of a machine.
func byDesignator(ctx context.Context, h pg.Handle, machineID int64, text string) (string, error) {
	if _, _, ok := statement.Called(text); !ok {
		return text, nil
	}
	parts, err := storecondition.HeldParts(ctx, h, machineID)
	held := make([]statement.Held, len(parts))
	for i, p := range parts {
		held[i] = statement.Held{Kind: p.Kind, Places: p.Places}
	}
	return statement.ByDesignator(text, held), err
}

// understandMeasurement reads words as a measurement; nil when they are none.
func understandMeasurement(ctx context.Context, h pg.Handle, machineID int64,
	text string) (*UnderstoodMeasurement, error) {
	said, err := measure.Parse(text)
	if err != nil {
		return nil, nil //nolint:nilerr // then it is something else
	}
	row := storecondition.MeasurementRow{MachineID: machineID, Point: said.Point, Quantity: string(said.Quantity),
		Readings: action.ToKeep(said.Readings), Opening: said.Opening}
	if err := condition.Expect(ctx, h, &row, said); err != nil {
		return nil, err
	}
	told, err := condition.TellMeasurement(row)
	if err != nil {
		return nil, err
	}
	// A part that stands on a sheet is measured; one that does not is rather entered.
	sure := said.Sure || row.AssemblyID != nil && !strings.Contains(said.Point, " ")
	return &UnderstoodMeasurement{Line: strings.TrimSpace(text), Point: row.Point, InWords: told.Judged.InWords,
		Verdict: told.Judged.Verdict, Why: told.Judged.Why, Sure: sure}, nil
}
