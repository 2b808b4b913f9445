package condition

import (
	"context"
	"strings"

	"frugalheron/app/action"
	"frugalheron/core/fit"
	"frugalheron/core/measure"
	"frugalheron/core/quantity"
	"frugalheron/store/condition"
	"frugalheron/store/pg"
)

// Measurement is one point that was measured, with what that amounts to.
type Measurement struct {
	ID           int64             `json:"id"`
	MachineID    int64             `json:"machineId"`
	AssemblyID   *int64            `json:"assemblyId"`
	Assembly     string            `json:"assembly" says:"text"`
	Point        string            `json:"point"`
	Quantity     quantity.Quantity `json:"quantity" enum:"volts,volts-ac,volts-pp,amperes,ohms,microfarads,esr,hertz,seconds,millimetres,celsius,grams"`
	Unit         string            `json:"unit"`
	Readings     []float64         `json:"readings" doc:"In the unit, in the order they were taken"`
	Expected     *measure.Expected `json:"expected"`
	Judged       measure.Judged    `json:"judged"`
	Clearance    *fit.Result       `json:"clearance" doc:"Where a part and its opening were measured, whether it goes in; else null"`
	Instrument   string            `json:"instrument" says:"text"`
	On           string            `json:"on"`
	By           string            `json:"by"`
	FindingID    *int64            `json:"findingId"`
	AttachmentID *int64            `json:"attachmentId" doc:"A picture of the waveform, or null"`
	Note         string            `json:"note" says:"text"`
	Load         string            `json:"load" enum:",dummy,machine,none" doc:"What the rail was loaded with; empty where nobody said"`
	SupplyID     *int64            `json:"supplyId" doc:"The supply that it was measured on, or null"`
	Trouble      string            `json:"trouble" doc:"Why the meter stopped; empty when it did not"`
	Version      int               `json:"version"`
}

// mostMeasurements bounds a list; who needs older ones exports the machine.
const mostMeasurements = 500

// Measurements lists what was measured on a machine, the newest first.
func (s *Service) Measurements(ctx context.Context, actor action.Actor, machineID int64) ([]Measurement, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return nil, err
	}
	return measurementsOf(ctx, s.kernel.Reader(ctx), machineID)
}

// measurementRows reads what was measured on a machine, once in a request.
func measurementRows(ctx context.Context, h pg.Handle, machineID int64) ([]condition.MeasurementRow, error) {
	return action.Once(ctx, "measurements", machineID, func() ([]condition.MeasurementRow, error) {
		return condition.MeasurementsOf(ctx, h, machineID, mostMeasurements)
	})
}

func measurementsOf(ctx context.Context, h pg.Handle, machineID int64) ([]Measurement, error) {
	rows, err := measurementRows(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	told := make([]Measurement, len(rows))
	for i, row := range rows {
		if told[i], err = TellMeasurement(row); err != nil {
			return nil, err
		}
	}
	return told, nil
}

// TellMeasurement judges a measurement as it is kept.
func TellMeasurement(row condition.MeasurementRow) (Measurement, error) {
	m := Measurement{
		ID: row.ID, MachineID: row.MachineID, AssemblyID: row.AssemblyID, Assembly: row.Assembly, Point: row.Point,
		Quantity:   quantity.Quantity(row.Quantity),
		Instrument: row.Instrument, On: row.On, By: row.By, FindingID: row.FindingID, AttachmentID: row.AttachmentID,
		Note: row.Note, Load: row.Load, SupplyID: row.SupplyID, Trouble: row.Trouble, Version: row.Version,
	}
	m.Unit = m.Quantity.Unit()
	var err error
	if m.Readings, err = action.ReadKept[[]float64](row.Readings); err != nil {
		return m, err
	}
	if row.Expected != nil {
		e, err := action.ReadKept[measure.Expected](*row.Expected)
		if err != nil {
			return m, err
		}
		m.Expected = &e
	}
	m.Judged = measure.Judge(m.Quantity, m.Readings, m.Expected)
	if row.Opening != nil && len(m.Readings) > 0 {
		judged, result := measure.JudgeFit(m.Readings, *row.Opening, m.Expected)
		m.Judged, m.Clearance = judged, &result
	}
	return m, nil
}

// failedMeasurements are the points of a machine whose last measurement is out of tolerance.
func failedMeasurements(ctx context.Context, h pg.Handle, machineID int64) ([]Measurement, error) {
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

func (m Measurement) inWords() map[string]any {
	return map[string]any{"point": m.Point, "said": m.Judged.InWords, "verdict": m.Judged.Verdict,
		"readings": len(m.Readings), "why": m.Judged.Why}
}

func measurementByID(ctx context.Context, h pg.Handle, id int64) (Measurement, error) {
	row, err := condition.MeasurementByID(ctx, h, id)
	if err != nil {
		return Measurement{}, err
	}
	return TellMeasurement(row)
}
