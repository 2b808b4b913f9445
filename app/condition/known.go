package condition

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"frugalheron/app/action"
	"frugalheron/core/condition"
	"frugalheron/core/exterior"
	"frugalheron/core/lives"
	"frugalheron/core/measure"
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
	measured, err := r.saidByMeasuring(k.told)
	if err != nil {
		return k, err
	}
	k.said = append(k.said, measured...)
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
		if f.LeftOn != nil && len(one.Observations) > 0 {
			last := one.Observations[len(one.Observations)-1]
			if !last.Gone {
				one.Observations = append(one.Observations,
					condition.Observation{On: max(*f.LeftOn, last.On), At: last.At,
						Gone: true, Severity: last.Severity, Note: "it went with its board",
						Source: condition.FromPart})
			}
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
			one := condition.Said{Kind: m.Kind, Assembly: row.AssemblyID, Board: on.title, Parts: m.Parts,
				Tells:    m.Tells,
				Standing: m.Until == ""}
			source := condition.FromSheet
			if on.isExterior {
				one.Board, one.Place, source = "", m.Words, condition.FromOutside
				one.Subsystem = cmp.Or(exterior.SubsystemOf(m.Tells), condition.Other)
			} else {
				one.Subsystem = condition.SubsystemFor(m.Tells, m.Kind)
				if m.Parts == "" {
					one.Place = m.Words
				}
			}
			if one.Standing {
				one.Line = m.Line
			}
			one.Observations = condition.Marked(m, source)
			said = append(said, one)
		}
	}
	return said
}

// series are the readings of one point while one part was there, the oldest first.
type series struct {
	condition.Said
	seen []condition.Observation // each with the verdict that follows
	kind []string                // of the failure; empty where there is none
}

// saidByMeasuring is what was out of its limits, and whether a newer reading is good.
func (r records) saidByMeasuring(stories map[int64]lives.Story) ([]condition.Said, error) {
	points, order := map[string]*series{}, []string{}
	for _, row := range slices.Backward(r.measured) {
		m, err := TellMeasurement(row)
		if err != nil {
			return nil, err
		}
		if m.Judged.Verdict == measure.Noted {
			continue
		}
		one := r.pointOf(m)
		seen := condition.Observation{On: m.On, At: row.At, Note: "measured " + m.Judged.InWords, By: m.By,
			Source: condition.FromMeasurement}
		nth, _ := stories[one.Assembly].Occupant(one.Parts, m.On, row.At)
		key := strings.ToLower(fmt.Sprintf("%d %s %s %d", one.Assembly, m.Point, m.Quantity, nth))
		if points[key] == nil {
			points[key], order = &series{Said: one}, append(order, key)
		}
		kind := ""
		if m.Judged.Verdict == measure.Fail {
			kind = condition.FailureKind(m.Quantity, m.Expected != nil && m.Expected.IsLow(m.Judged.Stats.Average))
		}
		points[key].seen, points[key].kind = append(points[key].seen, seen), append(points[key].kind, kind)
	}
	said := []condition.Said{}
	for _, key := range order {
		said = append(said, points[key].failures()...)
	}
	return said, nil
}

// pointOf says where something was measured.
func (r records) pointOf(m Measurement) condition.Said {
	one := condition.Said{Place: m.Point}
	designator, rest, _ := strings.Cut(m.Point, " ")
	if m.AssemblyID != nil {
		one.Assembly, one.Board = *m.AssemblyID, r.boards[*m.AssemblyID].title
		if sheet.IsDesignator(designator) {
			one.Parts, one.Place, one.Tells = designator, rest, r.tells(*m.AssemblyID, designator)
		}
	}
	_, isRail := measure.Rail(designator)
	switch {
	case isRail:
		one.Subsystem = "supply"
	case one.Tells != "":
		one.Subsystem = condition.SubsystemFor(one.Tells, "")
	default:
		// By what the point is called, as a drive guide.
		one.Subsystem = condition.SubsystemOfPlace(m.Point, "")
	}
	return one
}

// failures are the findings of a series: one for each kind of failure, gone when a reading is otherwise.
func (s series) failures() []condition.Said {
	kinds, said := []string{}, []condition.Said{}
	for _, kind := range s.kind {
		if kind == "" || slices.Contains(kinds, kind) {
			continue
		}
		kinds = append(kinds, kind)
		one := s.Said
		one.Kind = kind
		for i, seen := range s.seen {
			seen.Gone = s.kind[i] != kind
			if len(one.Observations) > 0 || !seen.Gone {
				one.Observations = append(one.Observations, seen)
			}
		}
		said = append(said, one)
	}
	return said
}
