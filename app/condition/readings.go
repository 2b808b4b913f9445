package condition

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/core/quantity"
	"frugalheron/store/condition"
	"frugalheron/store/history"
)

// onMeasurement does work on a measurement that counts, and reads it back.
func (s *Service) onMeasurement(ctx context.Context, actor action.Actor, id int64,
	work func(tx *sqlx.Tx, row *condition.MeasurementRow, readings []float64) error) (Measurement, error) {
	var after Measurement
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := condition.LockMeasurement(ctx, tx, id)
		if err == nil && row.Voided {
			err = action.ErrNotFound
		}
		if err != nil {
			return err
		}
		readings, err := action.ReadKept[[]float64](row.Readings)
		if err != nil {
			return err
		}
		if err := work(tx, &row, readings); err != nil {
			return err
		}
		if err := condition.UpdateMeasurement(ctx, tx, row); err != nil {
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
func (s *Service) AddReading(ctx context.Context, actor action.Actor, id int64, value float64) (Measurement, error) {
	return s.addReading(ctx, actor, id, value, "")
}

func (s *Service) addReading(ctx context.Context, actor action.Actor, id int64, value float64,
	instrument string) (Measurement, error) {
	return s.onMeasurement(ctx, actor, id, func(tx *sqlx.Tx, row *condition.MeasurementRow, readings []float64) error {
		if len(readings) >= mostReadings {
			return action.Reject("value", fmt.Sprintf("a series takes %d readings; begin another", mostReadings))
		}
		of := quantity.Quantity(row.Quantity)
		if err := of.Check(value); err != nil {
			return action.Reject("value", err.Error())
		}
		row.Readings, row.Trouble = action.ToKeep(append(readings, value)), ""
		if instrument != "" {
			row.Instrument = instrument
		}
		return action.Record(ctx, tx, actor, eventReadMeter, id, &row.MachineID, nil,
			map[string]any{"point": row.Point, "value": of.Say(value), "n": len(readings) + 1})
	})
}

// DropReading takes the last reading of a series out that slipped: the history keeps it.
func (s *Service) DropReading(ctx context.Context, actor action.Actor, id int64, version int) (Measurement, error) {
	return s.onMeasurement(ctx, actor, id, func(tx *sqlx.Tx, row *condition.MeasurementRow, readings []float64) error {
		switch {
		case row.Version != version:
			return stale(*row)
		case len(readings) == 0:
			return action.Reject("id", "there is no reading to take out")
		}
		last := readings[len(readings)-1]
		row.Readings = action.ToKeep(readings[:len(readings)-1])
		of := quantity.Quantity(row.Quantity)
		return action.Record(ctx, tx, actor, eventDropReading, id, &row.MachineID,
			map[string]any{"point": row.Point, "value": of.Say(last)}, nil)
	})
}

func stale(row condition.MeasurementRow) error {
	now, err := TellMeasurement(row)
	if err != nil {
		return err
	}
	return &action.Stale{What: "the measurement", Newer: now}
}

// VoidMeasurement strikes out a measurement that was entered by mistake.
func (s *Service) VoidMeasurement(ctx context.Context, actor action.Actor, id int64, version int) (int64, error) {
	var event int64
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := condition.LockMeasurement(ctx, tx, id)
		switch {
		case err != nil:
			return err
		case row.Voided:
			return action.ErrNotFound
		case row.Version != version:
			return stale(row)
		}
		row.Voided = true
		if err := condition.UpdateMeasurement(ctx, tx, row); err != nil {
			return err
		}
		told, err := TellMeasurement(row)
		if err != nil {
			return err
		}
		event, err = action.RecordEvent(ctx, tx, actor, eventVoidMeasurement, id, &row.MachineID, told.inWords(), nil)
		return err
	})
	return event, err
}

func (s *Service) undoMeasure(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, condition.LockMeasurement,
		func(ctx context.Context, _ *sqlx.Tx, now condition.MeasurementRow) error {
			return action.Second(s.VoidMeasurement(ctx, actor, now.ID, now.Version))
		})
}

func (s *Service) undoVoidMeasurement(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := condition.LockMeasurement(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		row.Voided = false
		if err := condition.UpdateMeasurement(ctx, tx, row); err != nil {
			return err
		}
		told, err := TellMeasurement(row)
		if err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeBackVoidOfMeasurement, row.ID, &row.MachineID, nil,
			told.inWords())
	})
}
