package condition

import (
	"context"
	"errors"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/malformed"
	"frugalheron/core/measure"
	"frugalheron/core/quantity"
	"frugalheron/store/condition"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// MeasurementInput is a measurement as it is typed, or as a meter is to take it: the line goes first.
type MeasurementInput struct {
	Line         string            `json:"line" says:"text" maxLength:"400" required:"false" doc:"As BT1 2.1 V, +5 4.93, drive guide 31.4 mm / 30.9 mm"`
	Point        string            `json:"point" maxLength:"200" required:"false" doc:"Where there is no line: what is measured"`
	Quantity     quantity.Quantity `json:"quantity" enum:"volts,volts-ac,volts-pp,amperes,ohms,microfarads,esr,hertz,seconds,millimetres,celsius,grams" required:"false"`
	Expected     *measure.Expected `json:"expected,omitempty"`
	AssemblyID   *int64            `json:"assemblyId,omitempty" doc:"The board that the point is on; left out, one whose sheet has the designator"`
	Instrument   string            `json:"instrument" says:"text" maxLength:"200" required:"false"`
	On           string            `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	FindingID    *int64            `json:"findingId,omitempty" doc:"The finding that it was measured for"`
	AttachmentID *int64            `json:"attachmentId,omitempty" doc:"A picture of the waveform"`
	Note         string            `json:"note" says:"text" maxLength:"1000" required:"false"`
	Load         string            `json:"load" enum:",dummy,machine,none" required:"false" doc:"What a rail was loaded with"`
	SupplyID     *int64            `json:"supplyId,omitempty" doc:"The supply of the machine that it was measured on"`
}

// Measured is a measurement that was kept, and the event by which that can be undone.
type Measured struct {
	Measurement
	Event int64 `json:"event" doc:"The event of the history, by which the action can be undone"`
}

// Measure keeps what was measured on a machine. Without a line it is a point that a meter is to read.
func (s *Service) Measure(ctx context.Context, actor action.Actor, machineID int64,
	w MeasurementInput) (Measured, error) {
	var kept Measured
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := storeinventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		m, said, err := w.read(ctx, tx, actor, machineID)
		if err != nil {
			return err
		}
		if err := Expect(ctx, tx, &m, said); err != nil {
			return err
		}
		id, err := condition.InsertMeasurement(ctx, tx, actor.Account(), m)
		if err != nil {
			return err
		}
		if kept.Measurement, err = measurementByID(ctx, tx, id); err != nil {
			return err
		}
		kept.Event, err = action.RecordEvent(ctx, tx, actor, eventMeasure, id, &machineID, nil, kept.inWords())
		return err
	})
	return kept, err
}

// read turns what was written into a row, and what the line says.
func (w MeasurementInput) read(ctx context.Context, tx *sqlx.Tx, actor action.Actor,
	machineID int64) (condition.MeasurementRow, measure.Line, error) {
	row := condition.MeasurementRow{MachineID: machineID, AssemblyID: w.AssemblyID, FindingID: w.FindingID,
		AttachmentID: w.AttachmentID}
	said := measure.Line{Point: w.Point, Quantity: w.Quantity, Readings: []float64{}, Expected: w.Expected}
	err := input.CheckAll(input.OneLine("line", &w.Line), input.OneLine("point", &said.Point),
		input.OneLine("instrument", &w.Instrument), input.Lines("note", &w.Note))
	if err != nil {
		return row, said, err
	}
	if w.On == "" {
		w.On = actor.Today()
	}
	if err := input.PastDay("on", w.On, actor.Today()); err != nil {
		return row, said, err
	}
	if w.Line != "" {
		parsed, err := measure.Parse(w.Line)
		var not *malformed.Error
		if errors.As(err, &not) {
			return row, said, action.Reject("line", not.Err.Error())
		}
		if (parsed.Expected == nil || parsed.ByRule) && w.Expected != nil {
			parsed.Expected, parsed.ByRule = w.Expected, false
		}
		said = parsed
	} else if e, ok := measure.Rail(said.Point); ok && said.Expected == nil && said.Quantity == quantity.Volts {
		said.Expected, said.ByRule = &e, true
	}
	switch {
	case said.Point == "":
		return row, said, action.Reject("point", "say what is measured, as +5 or BT1")
	case said.Quantity.Unit() == "":
		return row, said, action.Reject("quantity", "say what is measured: volts, ohms")
	}
	for _, value := range said.Readings {
		if err := said.Quantity.Check(value); err != nil {
			return row, said, action.Reject("line", err.Error())
		}
	}
	if said.Expected != nil {
		if err := said.Expected.Check(); err != nil {
			return row, said, action.Reject("expected", err.Error())
		}
	}
	err = inventory.OfMachine(ctx, tx, machineID,
		slices.Concat(inventory.NamedIf("assemblyId", storeinventory.OwnedBoard, w.AssemblyID),
			inventory.NamedIf("attachmentId", storeinventory.OwnedPicture, w.AttachmentID),
			inventory.NamedIf("findingId", storeinventory.OwnedFinding, w.FindingID),
			inventory.NamedIf("supplyId", storeinventory.OwnedSupply, w.SupplyID))...)
	if err != nil {
		return row, said, err
	}
	row.Point, row.Quantity, row.Readings, row.Opening = said.Point, string(said.Quantity),
		action.ToKeep(said.Readings), said.Opening
	row.Instrument, row.On, row.Note, row.Load, row.SupplyID = w.Instrument, w.On, w.Note, w.Load, w.SupplyID
	return row, said, nil
}

// Expect says on which board the point is, and what it should have: as it was said; else as the model of the machine
// says; else by what is printed on the part, or by what rails of that name usually have.
func Expect(ctx context.Context, h pg.Handle, row *condition.MeasurementRow, said measure.Line) error {
	expected := said.Expected
	if expected == nil || said.ByRule {
		figures, err := library.FiguresOf(ctx, h, row.MachineID)
		if err != nil {
			return err
		}
		if e, ok := figures.At(said.Point, said.Quantity); ok {
			expected = &e
		}
	}
	held, err := condition.HeldParts(ctx, h, row.MachineID)
	if err != nil {
		return err
	}
	designator, rest, _ := strings.Cut(row.Point, " ")
	designator = strings.ToUpper(designator)
	found := []condition.HeldPart{}
	for _, p := range held {
		if slices.Contains(strings.Fields(p.Places), designator) &&
			(row.AssemblyID == nil || *row.AssemblyID == p.AssemblyID) {
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
		text := action.ToKeep(expected)
		row.Expected = &text
	}
	return nil
}
