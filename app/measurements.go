package app

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/fit"
	"frugalheron/core/measure"
	"frugalheron/store"
)

// Measurement is one point that was measured, with what that amounts to.
type Measurement struct {
	ID           int64             `json:"id"`
	MachineID    int64             `json:"machineId"`
	AssemblyID   *int64            `json:"assemblyId"`
	Assembly     string            `json:"assembly"`
	Point        string            `json:"point"`
	Quantity     measure.Quantity  `json:"quantity" enum:"volts,volts-ac,amperes,ohms,microfarads,esr,hertz,seconds,millimetres,celsius,grams"`
	Unit         string            `json:"unit"`
	Readings     []float64         `json:"readings" doc:"In the unit, in the order they were taken"`
	Expected     *measure.Expected `json:"expected"`
	Judged       measure.Judged    `json:"judged"`
	Fit          *fit.Result       `json:"fit" doc:"Where a part and its opening were measured, whether it goes in; else null"`
	Instrument   string            `json:"instrument"`
	On           string            `json:"on"`
	By           string            `json:"by"`
	FindingID    *int64            `json:"findingId"`
	AttachmentID *int64            `json:"attachmentId" doc:"A picture of the waveform, or null"`
	Note         string            `json:"note"`
	Trouble      string            `json:"trouble" doc:"Why the meter stopped; empty when it did not"`
	Version      int               `json:"version"`
}

// mostMeasurements bounds a list; who needs older ones exports the machine.
const mostMeasurements = 500

// Measurements lists what was measured on a machine, the newest first.
func (a *App) Measurements(ctx context.Context, actor Actor, machineID int64) ([]Measurement, error) {
	if _, err := a.Machine(ctx, actor, machineID); err != nil {
		return nil, err
	}
	return measurementsOf(ctx, a.db, machineID)
}

func measurementsOf(ctx context.Context, h store.Handle, machineID int64) ([]Measurement, error) {
	rows, err := store.MeasurementsOf(ctx, h, machineID, mostMeasurements)
	if err != nil {
		return nil, err
	}
	told := make([]Measurement, len(rows))
	for i, row := range rows {
		if told[i], err = tellMeasurement(row); err != nil {
			return nil, err
		}
	}
	return told, nil
}

func tellMeasurement(row store.MeasurementRow) (Measurement, error) {
	m := Measurement{
		ID: row.ID, MachineID: row.MachineID, AssemblyID: row.AssemblyID, Assembly: row.Assembly, Point: row.Point, Quantity: measure.Quantity(row.Quantity),
		Instrument: row.Instrument, On: row.On, By: row.By, FindingID: row.FindingID, AttachmentID: row.AttachmentID, Note: row.Note, Trouble: row.Trouble, Version: row.Version,
	}
	m.Unit = m.Quantity.Unit()
	var err error
	if m.Readings, err = readKept[[]float64](row.Readings); err != nil {
		return m, err
	}
	if row.Expected != nil {
		e, err := readKept[measure.Expected](*row.Expected)
		if err != nil {
			return m, err
		}
		m.Expected = &e
	}
	m.Judged = measure.Judge(m.Quantity, m.Readings, m.Expected)
	if row.Opening != nil && len(m.Readings) > 0 {
		judged := fit.Judge(fit.Measured(m.Judged.Stats.Average), fit.Measured(*row.Opening), 0)
		m.Fit = &judged
		m.Judged.Said += fmt.Sprintf(" into %s", m.Quantity.Say(*row.Opening))
		m.Judged.Verdict = map[fit.Verdict]measure.Verdict{fit.Clearance: measure.Pass, fit.Tight: measure.Marginal, fit.Interference: measure.Fail}[judged.Verdict]
		m.Judged.Why = judged.Why
	}
	return m, nil
}

// failedMeasurements are the points of a machine whose last measurement is out of tolerance.
func failedMeasurements(ctx context.Context, h store.Handle, machineID int64) ([]Measurement, error) {
	all, err := measurementsOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	failed, met := []Measurement{}, map[string]bool{}
	for _, m := range all {
		key := strings.ToLower(m.Assembly + " " + m.Point + " " + string(m.Quantity))
		if !met[key] && m.Judged.Verdict == measure.Fail {
			failed = append(failed, m)
		}
		met[key] = true
	}
	return failed, nil
}

// WrittenMeasurement is a measurement as it is typed, or as a meter is to take it: the line goes first.
type WrittenMeasurement struct {
	Line         string            `json:"line" maxLength:"400" required:"false" doc:"As BT1 2.1 V, +5 4.93, drive guide 31.4 mm / 30.9 mm"`
	Point        string            `json:"point" maxLength:"200" required:"false" doc:"Where there is no line: what is measured"`
	Quantity     measure.Quantity  `json:"quantity" enum:"volts,volts-ac,amperes,ohms,microfarads,esr,hertz,seconds,millimetres,celsius,grams" required:"false"`
	Expected     *measure.Expected `json:"expected,omitempty"`
	AssemblyID   *int64            `json:"assemblyId,omitempty" doc:"The board that the point is on; left out, one whose sheet has the designator"`
	Instrument   string            `json:"instrument" maxLength:"200" required:"false"`
	On           string            `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	FindingID    *int64            `json:"findingId,omitempty" doc:"The finding that it was measured for"`
	AttachmentID *int64            `json:"attachmentId,omitempty" doc:"A picture of the waveform"`
	Note         string            `json:"note" maxLength:"1000" required:"false"`
}

// Measured is a measurement that was kept, and the event by which that can be undone.
type Measured struct {
	Measurement
	Event int64 `json:"event" doc:"The event of the history, by which the deed can be undone"`
}

// Measure keeps what was measured on a machine. Without a line it is a point that a meter is to read.
func (a *App) Measure(ctx context.Context, actor Actor, machineID int64, w WrittenMeasurement) (Measured, error) {
	var kept Measured
	err := a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := store.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		m, said, err := w.read(ctx, tx, machineID)
		if err != nil {
			return err
		}
		if err := expectFromSheet(ctx, tx, &m, said); err != nil {
			return err
		}
		id, err := store.InsertMeasurement(ctx, tx, actor.account(), m)
		if err != nil {
			return err
		}
		if kept.Measurement, err = measurementByID(ctx, tx, id); err != nil {
			return err
		}
		kept.Event, err = recordEvent(ctx, tx, actor, "measure", "measurement", id, &machineID, nil, kept.inWords())
		return err
	})
	return kept, err
}

func (m Measurement) inWords() map[string]any {
	return map[string]any{"point": m.Point, "said": m.Judged.Said, "verdict": m.Judged.Verdict, "readings": len(m.Readings), "why": m.Judged.Why}
}

func measurementByID(ctx context.Context, h store.Handle, id int64) (Measurement, error) {
	row, err := store.MeasurementByID(ctx, h, id)
	if err != nil {
		return Measurement{}, err
	}
	return tellMeasurement(row)
}

// read turns what was written into a row, and what the line says.
func (w WrittenMeasurement) read(ctx context.Context, tx *sqlx.Tx, machineID int64) (store.MeasurementRow, measure.Said, error) {
	row := store.MeasurementRow{MachineID: machineID, AssemblyID: w.AssemblyID, FindingID: w.FindingID, AttachmentID: w.AttachmentID}
	said := measure.Said{Point: w.Point, Quantity: w.Quantity, Readings: []float64{}, Expected: w.Expected}
	err := checkAll(oneLine("line", &w.Line), oneLine("point", &said.Point), oneLine("instrument", &w.Instrument), lines("note", &w.Note))
	if err != nil {
		return row, said, err
	}
	if w.On == "" {
		w.On = today()
	}
	if err := pastDay("on", w.On); err != nil {
		return row, said, err
	}
	if w.Line != "" {
		parsed, err := measure.Parse(w.Line)
		var not *measure.NotMeasuredError
		if errors.As(err, &not) {
			return row, said, &Invalid{"line", not.Why}
		}
		if parsed.Expected == nil {
			parsed.Expected = w.Expected
		}
		said = parsed
	} else if e, ok := measure.Rail(said.Point); ok && said.Expected == nil && said.Quantity == measure.Volts {
		said.Expected = &e
	}
	switch {
	case said.Point == "":
		return row, said, &Invalid{"point", "say what is measured, as +5 or BT1"}
	case said.Quantity.Unit() == "":
		return row, said, &Invalid{"quantity", "say what is measured: volts, ohms"}
	}
	if said.Expected != nil {
		if err := said.Expected.Check(); err != nil {
			return row, said, &Invalid{"expected", err.Error()}
		}
	}
	if w.AttachmentID != nil {
		if err := checkPictures(ctx, tx, machineID, []int64{*w.AttachmentID}); err != nil {
			return row, said, err
		}
	}
	if w.FindingID != nil {
		f, err := store.FindingByID(ctx, tx, *w.FindingID)
		if err == nil && f.MachineID != machineID {
			err = ErrNotFound
		}
		if err != nil {
			return row, said, missing(err, "findingId", "choose a finding of this machine")
		}
	}
	row.Point, row.Quantity, row.Readings, row.Opening = said.Point, string(said.Quantity), toKeep(said.Readings), said.Opening
	row.Instrument, row.On, row.Note = w.Instrument, w.On, w.Note
	return row, said, nil
}

// expectFromSheet says on which board the point is, and what it should have by what is printed on the part,
// unless that is said already.
func expectFromSheet(ctx context.Context, h store.Handle, row *store.MeasurementRow, said measure.Said) error {
	expected := said.Expected
	held, err := store.HeldParts(ctx, h, row.MachineID)
	if err != nil {
		return err
	}
	designator, rest, _ := strings.Cut(row.Point, " ")
	designator = strings.ToUpper(designator)
	found := []store.HeldPart{}
	for _, p := range held {
		if slices.Contains(strings.Fields(p.Places), designator) && (row.AssemblyID == nil || *row.AssemblyID == p.AssemblyID) {
			found = append(found, p)
		}
	}
	if len(found) > 0 {
		// Who says it in passing need not hold the key for capitals down.
		row.Point = strings.TrimSpace(designator + " " + rest)
	}
	// A designator that stands on several boards means none of them.
	if len(found) == 1 {
		row.AssemblyID = &found[0].AssemblyID
		if e, ok := measure.FromMarking(found[0].Marking, said.Quantity); ok && expected == nil {
			expected = &e
		}
	}
	if expected != nil {
		text := toKeep(expected)
		row.Expected = &text
	}
	return nil
}

// onMeasurement does work on a measurement that counts, and reads it back.
func (a *App) onMeasurement(ctx context.Context, actor Actor, id int64, work func(tx *sqlx.Tx, row *store.MeasurementRow, readings []float64) error) (Measurement, error) {
	var after Measurement
	err := a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := store.LockMeasurement(ctx, tx, id)
		if err == nil && row.Struck {
			err = ErrNotFound
		}
		if err != nil {
			return err
		}
		readings, err := readKept[[]float64](row.Readings)
		if err != nil {
			return err
		}
		if err := work(tx, &row, readings); err != nil {
			return err
		}
		if err := store.UpdateMeasurement(ctx, tx, row); err != nil {
			return err
		}
		after, err = measurementByID(ctx, tx, id)
		return err
	})
	return after, err
}

// mostReadings bounds a series.
const mostReadings = 200

// AddReading puts a reading to a point that was typed or read off.
func (a *App) AddReading(ctx context.Context, actor Actor, id int64, value float64) (Measurement, error) {
	return a.addReading(ctx, actor, id, value, "")
}

func (a *App) addReading(ctx context.Context, actor Actor, id int64, value float64, instrument string) (Measurement, error) {
	return a.onMeasurement(ctx, actor, id, func(tx *sqlx.Tx, row *store.MeasurementRow, readings []float64) error {
		if len(readings) >= mostReadings {
			return &Invalid{"value", fmt.Sprintf("a series takes %d readings; begin another", mostReadings)}
		}
		row.Readings, row.Trouble = toKeep(append(readings, value)), ""
		if instrument != "" {
			row.Instrument = instrument
		}
		of := measure.Quantity(row.Quantity)
		return record(ctx, tx, actor, "read meter", "measurement", id, &row.MachineID, nil, map[string]any{"point": row.Point, "value": of.Say(value), "n": len(readings) + 1})
	})
}

// DropReading takes the last reading of a series out that slipped: the history keeps it.
func (a *App) DropReading(ctx context.Context, actor Actor, id int64, version int) (Measurement, error) {
	return a.onMeasurement(ctx, actor, id, func(tx *sqlx.Tx, row *store.MeasurementRow, readings []float64) error {
		switch {
		case row.Version != version:
			return stale(*row)
		case len(readings) == 0:
			return &Invalid{"id", "there is no reading to take out"}
		}
		last := readings[len(readings)-1]
		row.Readings = toKeep(readings[:len(readings)-1])
		of := measure.Quantity(row.Quantity)
		return record(ctx, tx, actor, "drop reading", "measurement", id, &row.MachineID, map[string]any{"point": row.Point, "value": of.Say(last)}, nil)
	})
}

func stale(row store.MeasurementRow) error {
	now, err := tellMeasurement(row)
	if err != nil {
		return err
	}
	return &Stale{What: "the measurement", Newer: now}
}

// StrikeMeasurement strikes out a measurement that was entered by mistake.
func (a *App) StrikeMeasurement(ctx context.Context, actor Actor, id int64, version int) (int64, error) {
	var event int64
	err := a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := store.LockMeasurement(ctx, tx, id)
		switch {
		case err != nil:
			return err
		case row.Struck:
			return ErrNotFound
		case row.Version != version:
			return stale(row)
		}
		row.Struck = true
		if err := store.UpdateMeasurement(ctx, tx, row); err != nil {
			return err
		}
		told, err := tellMeasurement(row)
		if err != nil {
			return err
		}
		event, err = recordEvent(ctx, tx, actor, "strike measurement", "measurement", id, &row.MachineID, told.inWords(), nil)
		return err
	})
	return event, err
}

func (a *App) undoMeasure(ctx context.Context, actor Actor, e store.ToldEvent) error {
	now, err := store.MeasurementByID(ctx, a.db, e.SubjectID)
	if err != nil {
		return err
	}
	if err := newestStill(ctx, a.db, e); err != nil {
		return err
	}
	_, err = a.StrikeMeasurement(ctx, actor, now.ID, now.Version)
	return err
}

func (a *App) undoStrikeMeasurement(ctx context.Context, actor Actor, e store.ToldEvent) error {
	return a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := store.LockMeasurement(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		if err := newestStill(ctx, tx, e); err != nil {
			return err
		}
		row.Struck = false
		if err := store.UpdateMeasurement(ctx, tx, row); err != nil {
			return err
		}
		told, err := tellMeasurement(row)
		if err != nil {
			return err
		}
		return record(ctx, tx, actor, "take back strike of measurement", "measurement", row.ID, &row.MachineID, nil, told.inWords())
	})
}
