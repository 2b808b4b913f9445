package condition

import (
	"context"
	"errors"
	"slices"
	"strings"

	"frugalheron/app/action"
	"frugalheron/core/condition"
	"frugalheron/core/lives"
	"frugalheron/core/sheet"
	storecondition "frugalheron/store/condition"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
)

// records are what is kept of a machine, or of a board in store, from which its findings follow.
type records struct {
	found        []storecondition.Finding
	observations []storecondition.ObservationRow
	stories      []sheets.StoryRow
	measured     []storecondition.MeasurementRow
	held         []storecondition.HeldPart
	boards       map[int64]board
	fitted       []storecondition.BoardName // the same in their order
}

// board is one of those whose sheets speak.
type board struct {
	title      string
	isExterior bool
}

// recordsOf reads those of a machine.
func recordsOf(ctx context.Context, h pg.Handle, machineID int64) (records, error) {
	var r records
	var err error
	if r.found, err = storecondition.FindingsOf(ctx, h, machineID); err != nil {
		return r, err
	}
	if r.observations, err = storecondition.ObservationsOf(ctx, h, machineID); err != nil {
		return r, err
	}
	if r.stories, err = sheets.StoriesIn(ctx, h, machineID); err != nil {
		return r, err
	}
	if r.measured, err = measurementRows(ctx, h, machineID); err != nil {
		return r, err
	}
	if r.held, err = storecondition.HeldParts(ctx, h, machineID); err != nil {
		return r, err
	}
	r.fitted, err = storecondition.BoardsIn(ctx, h, machineID)
	r.boards = boardsOf(r.fitted)
	return r, err
}

func boardsOf(rows []storecondition.BoardName) map[int64]board {
	boards := make(map[int64]board, len(rows))
	for _, b := range rows {
		boards[b.ID] = board{b.Title, b.Kind == "exterior"}
	}
	return boards
}

// known is the one list of findings, with the records from which it follows.
type known struct {
	records
	findings []condition.Finding
	told     map[int64]lives.Story // by assembly
	readings []condition.Measured  // the oldest first
	said     []condition.Said
}

// knownOf is the one list of a machine.
func knownOf(ctx context.Context, h pg.Handle, machineID int64) (known, error) {
	return action.Once(ctx, "findings", machineID, func() (known, error) {
		r, err := recordsOf(ctx, h, machineID)
		if err != nil {
			return known{}, err
		}
		return r.list()
	})
}

// knownOfBoard is the one list of a board that is in no machine.
func knownOfBoard(ctx context.Context, h pg.Handle, assemblyID int64) (known, error) {
	var r records
	assembly, err := inventory.AssemblyByID(ctx, h, assemblyID)
	if err != nil {
		return known{}, err
	}
	r.boards = map[int64]board{assembly.ID: {assembly.Title, assembly.IsExterior()}}
	if r.found, err = storecondition.FindingsOnBoard(ctx, h, assemblyID); err != nil {
		return known{}, err
	}
	if r.observations, err = storecondition.ObservationsOnBoard(ctx, h, assemblyID); err != nil {
		return known{}, err
	}
	story, err := sheets.StoryOf(ctx, h, assemblyID)
	if err != nil && !errors.Is(err, action.ErrNotFound) {
		return known{}, err
	}
	if err == nil {
		r.stories = []sheets.StoryRow{story}
	}
	if r.measured, err = storecondition.MeasurementsOnBoard(ctx, h, assemblyID, mostMeasurements); err != nil {
		return known{}, err
	}
	if r.held, err = storecondition.PartsOnBoard(ctx, h, assemblyID); err != nil {
		return known{}, err
	}
	return r.list()
}

// list puts together what all sources know.
func (r records) list() (known, error) {
	k := known{records: r, told: map[int64]lives.Story{}}
	for _, row := range r.stories {
		story, err := action.ReadKept[lives.Story](row.Story)
		if err != nil {
			return k, err
		}
		k.told[row.AssemblyID] = story
	}
	k.said = r.saidByPeople()
	k.said = append(k.said, r.saidOnSheets(k.told)...)
	var err error
	if k.readings, err = r.measurements(); err != nil {
		return k, err
	}
	k.said = append(k.said, condition.Failures(k.readings, k.told)...)
	k.findings = condition.OneList(k.said, k.told)
	return k, nil
}

// saidByPeople is what surveys and notes said.
func (r records) saidByPeople() []condition.Said {
	by := map[int64][]condition.Observation{}
	for _, row := range r.observations {
		by[row.FindingID] = append(by[row.FindingID], seenOf(row))
	}
	said := make([]condition.Said, len(r.found))
	for i, f := range r.found {
		one := r.saidOf(f.FindingFields)
		one.ID, one.Observations = f.ID, by[f.ID]
		if f.LeftOn != nil {
			one = one.LeftWithBoard(*f.LeftOn)
			one.Board = f.Assembly
		}
		said[i] = one
	}
	return said
}

// saidOf is what somebody wrote of a finding. A designator without a board is that of the one board that has it.
func (r records) saidOf(f storecondition.FindingFields) condition.Said {
	one := condition.Said{Subsystem: f.Subsystem, Kind: f.Kind, Parts: f.Designator, Place: f.Place}
	if f.AssemblyID != nil {
		one.Assembly = *f.AssemblyID
	} else if id := r.onlyBoardWith(f.Designator); id != 0 {
		one.Assembly = id
	}
	one.Board = r.boards[one.Assembly].title
	one.Tells = r.tells(one.Assembly, one.Parts)
	return one
}

func seenOf(row storecondition.ObservationRow) condition.Observation {
	seen := condition.Observation{ID: row.ID, On: row.On, At: row.At, Severity: condition.Severity(row.Severity),
		Trend: row.Trend, Gone: row.Gone, Note: row.Note, By: row.By, Source: condition.FromNote}
	if row.SurveyID != nil {
		seen.SurveyID, seen.Source = *row.SurveyID, condition.FromSurvey
	}
	return seen
}

// onlyBoardWith finds the board on whose sheet a designator stands; 0 for none, or several.
func (r records) onlyBoardWith(designator string) int64 {
	id := int64(0)
	for _, p := range r.held {
		if designator == "" || !slices.ContainsFunc(strings.Fields(p.Places), func(d string) bool {
			return strings.EqualFold(d, designator)
		}) {
			continue
		}
		if id != 0 && id != p.AssemblyID {
			return 0
		}
		id = p.AssemblyID
	}
	return id
}

// tells says what sort of part sits at a place today; empty when nobody knows.
func (r records) tells(assembly int64, parts string) string {
	for _, p := range r.held {
		if parts != "" && p.AssemblyID == assembly &&
			slices.ContainsFunc(strings.Fields(p.Places), func(d string) bool { return sheet.Names(parts, d) }) {
			return condition.Tells(wordsOf(p))
		}
	}
	return ""
}

// saidOnSheets is what is marked, and was marked, on the sheets of boards and of the outside.
func (r records) saidOnSheets(stories map[int64]lives.Story) []condition.Said {
	said := []condition.Said{}
	for _, row := range r.stories {
		on, isThere := r.boards[row.AssemblyID]
		if !isThere {
			continue
		}
		for _, m := range stories[row.AssemblyID].Marks {
			said = append(said, condition.OnSheet(m, condition.Sheet{Assembly: row.AssemblyID, Title: on.title,
				IsExterior: on.isExterior}))
		}
	}
	return said
}

// measurements are what was measured, as the core knows it, the oldest first.
func (r records) measurements() ([]condition.Measured, error) {
	measured := make([]condition.Measured, 0, len(r.measured))
	for _, row := range slices.Backward(r.measured) {
		m, err := TellMeasurement(row)
		if err != nil {
			return nil, err
		}
		one := condition.Measured{Point: m.Point, Quantity: m.Quantity, Expected: m.Expected, Judged: m.Judged,
			On: m.On,
			At: row.At, By: m.By}
		if m.AssemblyID != nil {
			one.Assembly, one.Board = *m.AssemblyID, r.boards[*m.AssemblyID].title
			one.Tells = r.tells(one.Assembly, one.Designator())
		}
		measured = append(measured, one)
	}
	return measured, nil
}
