package quickentry

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/app/sheets"
	"frugalheron/core/measure"
	"frugalheron/core/reckoning"
	"frugalheron/core/statement"
	storecondition "frugalheron/store/condition"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
	storesheets "frugalheron/store/sheets"
)

// Understood is what a statement about a machine would do. Nothing of it is kept yet.
type Understood struct {
	Machine      *inventory.Machine `json:"machine" doc:"The machine it is about; null when nothing was understood"`
	Note         string             `json:"note" says:"text" doc:"A note for the machine, or empty"`
	Sure         bool               `json:"sure" doc:"The words say what they are; else it is rather something to look for"`
	Destinations []Destination      `json:"destinations" doc:"The sheets that a line could go to"`
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
	Blocked    string `json:"blocked" doc:"Why it cannot go there, or empty"`
	Reading    string `json:"reading" doc:"What the line would be taken for"`
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
	said, isStatement := statement.Read(rest)
	measured, err := understandMeasurement(ctx, s.kernel.Reader(ctx), machine.ID, rest)
	if err != nil || !isStatement && measured == nil {
		return nothing, err
	}
	u := Understood{Machine: &machine, Note: said.Note, Sure: said.Note != "", Destinations: []Destination{}, Measured: measured}
	if u.Note != "" {
		u.Measured = nil
	}
	if said.Entry == nil {
		u.Sure = u.Sure || measured != nil && measured.Sure
		return u, nil
	}
	fitted, err := sheets.Contents(ctx, s.kernel.Reader(ctx), machine.ID)
	if err != nil {
		return nothing, err
	}
	library, err := s.library.Read(ctx)
	if err != nil {
		return nothing, err
	}
	for _, f := range fitted {
		placed, err := statement.Place(f.Body, said)
		if err != nil {
			return nothing, err
		}
		way := Destination{AssemblyID: f.ID, Title: f.Title, Base: f.Revision, Line: placed.Line, Text: said.Line,
			Replaces: placed.Replaces, Blocked: placed.Blocked}
		alone, err := sheets.ReckonBody(library, said.Line,
			sheets.OptionsFor(f.Purpose, f.Fit, inventory.EraOf(machine.EraFrom, machine.EraTo), actor.ThisYear()))
		if err != nil {
			return nothing, err
		}
		if lines := alone.Lines(); len(lines) > 0 {
			way.Reading = lines[0].Text
		}
		u.Sure = u.Sure || alone.Totals.Chips > 0 || alone.Assemblies[0].Entries[0].Kind != reckoning.Other
		u.Destinations = append(u.Destinations, way)
	}
	slices.SortStableFunc(u.Destinations, func(a, b Destination) int { return cmp.Compare(a.rank(), b.rank()) })
	return u, nil
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
		if !errors.Is(err, action.ErrNotFound) {
			return inventory.MachineOf(machine), rest, err
		}
	}
	if machineID == 0 {
		return machine, text, nil
	}
	row, err := storeinventory.MachineByID(ctx, s.kernel.Reader(ctx), machineID)
	return inventory.MachineOf(row), text, err
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
	if err := condition.ExpectFromSheet(ctx, h, &row, said); err != nil {
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

// Entered is what was kept of a statement.
type Entered struct {
	Event    int64            `json:"event" doc:"The event of the history, by which the action can be undone"`
	Revision *sheets.Revision `json:"revision" doc:"The sheet as it is now, or null for a note"`
}

// Enter keeps a statement about a machine: a note, or a line put on revision base of an assembly's
// sheet. When somebody saved another since, the answer is *Stale with that revision.
func (s *Service) Enter(ctx context.Context, actor action.Actor, machineID, assemblyID int64, base int,
	text string) (Entered, error) {
	var kept Entered
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		machine, rest, err := s.about(ctx, machineID, text)
		if err != nil {
			return err
		}
		said, ok := statement.Read(rest)
		if !ok || machine.ID == 0 {
			return action.Reject("text",
				"states nothing; write a line of a sheet, as U14 27128-25 8533, or note and what is to be noted")
		}
		if said.Note != "" {
			if err := input.Lines("text", &said.Note); err != nil {
				return err
			}
			// Who takes back what was done before waits, or finds the note.
			if _, err := storeinventory.LockMachine(ctx, tx, machine.ID); err != nil {
				return err
			}
			note := map[string]string{"note": said.Note}
			kept.Event, err = action.RecordEvent(ctx, tx, actor, eventNote, machine.ID, &machine.ID, nil, note)
			return err
		}
		if err := s.library.Hold(ctx, tx); err != nil {
			return err
		}
		assembly, err := storeinventory.LockAssembly(ctx, tx, assemblyID)
		if err != nil {
			return err
		}
		if assembly.MachineID == nil || *assembly.MachineID != machine.ID {
			return action.Reject("assemblyId", "is not fitted in "+machine.Accession)
		}
		newest, err := storesheets.NewestRevision(ctx, tx, assemblyID)
		if err != nil && !errors.Is(err, action.ErrNotFound) {
			return err
		}
		if newest.N != base {
			return &action.Stale{What: "the sheet", Newer: sheets.RevisionOf(newest)}
		}
		placed, err := statement.Place(newest.Body, said)
		if err != nil {
			return err
		}
		if placed.Blocked != "" {
			return action.Reject("text", placed.Blocked)
		}
		if err := sheets.Readable(placed.Body); err != nil {
			return err
		}
		revision, event, err := sheets.AddRevision(ctx, tx, actor, assembly, newest.N+1, placed.Body)
		if err != nil {
			return err
		}
		kept = Entered{event, &revision}
		return nil
	})
	return kept, err
}
