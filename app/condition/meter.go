package condition

import (
	"context"
	"errors"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/core/quantity"
	"frugalheron/instruments/meter"
	"frugalheron/store/condition"
)

// Meter is the meter on the bench, and what a stand-in can be told.
type Meter struct {
	Address string   `json:"address" doc:"Empty when none is set up"`
	Name    string   `json:"name" doc:"What it calls itself; empty when it does not answer"`
	Trouble string   `json:"trouble" doc:"Why it does not answer, else empty"`
	Points  []string `json:"points" doc:"What a stand-in's leads can be put to; empty for a real meter"`
	Faults  []string `json:"faults" doc:"What a stand-in can be told to get wrong"`
	At      string   `json:"at" doc:"Where a stand-in's leads are; empty for a real meter"`
	Fault   string   `json:"fault" doc:"What a stand-in gets wrong"`
}

// Meter asks for the meter on the bench.
func (s *Service) Meter(ctx context.Context, actor action.Actor) (Meter, error) {
	m := Meter{Address: s.meter, Points: []string{}, Faults: []string{}}
	if err := actor.Must(action.MayWriteSheets); err != nil || s.meter == "" {
		return m, err
	}
	client, err := meter.Dial(ctx, s.meter)
	if err != nil {
		m.Trouble = err.Error()
		return m, nil
	}
	defer client.Close()
	m.Name = client.Name()
	if points, err := client.Points(ctx); err == nil && len(points) > 0 {
		m.Points, m.Faults = points, meter.Faults()
		m.At, m.Fault, err = client.State(ctx)
		if err != nil {
			m.Trouble = err.Error()
		}
	}
	return m, nil
}

// TouchPoint puts a stand-in's leads to a point and tells it what to get wrong; what is empty stays as it is. A real
// meter refuses.
func (s *Service) TouchPoint(ctx context.Context, actor action.Actor, point, fault string) error {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return err
	}
	if s.meter == "" {
		return action.Reject("meter", "no meter is set up; start the application with --meter")
	}
	client, err := meter.Dial(ctx, s.meter)
	if err != nil {
		return action.Reject("meter", err.Error())
	}
	defer client.Close()
	if err := client.Touch(ctx, point, fault); err != nil {
		return action.Reject("point", err.Error())
	}
	return nil
}

// TakeReading has the meter read the point of a measurement once more. When it does not answer, or shows
// overload, the readings so far are kept and the measurement says why it stopped; asking again goes on.
func (s *Service) TakeReading(ctx context.Context, actor action.Actor, id int64) (Measurement, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return Measurement{}, err
	}
	now, err := measurementByID(ctx, s.kernel.Reader(ctx), id)
	if err != nil {
		return now, err
	}
	switch {
	case s.meter == "":
		return now, action.Reject("meter",
			"no meter is set up; start the application with --meter, or type what you read")
	case !meter.Knows(now.Quantity):
		return now, action.Reject("quantity", "a meter does not measure that; type what you read")
	}
	value, name, err := s.readMeter(ctx, now.Quantity)
	var refused *meter.RefusedError
	switch {
	case err == nil:
		return s.addReading(ctx, actor, id, value, name)
	case ctx.Err() != nil:
		return now, ctx.Err()
	case errors.Is(err, meter.ErrLost), errors.Is(err, meter.ErrOverload), errors.As(err, &refused),
		errors.Is(err, errNoMeter):
		return s.stopSeries(ctx, actor, id, err.Error())
	}
	return now, err
}

// errNoMeter is returned when no meter answers at its address.
var errNoMeter = errors.New("the meter does not answer")

func (s *Service) readMeter(ctx context.Context, of quantity.Quantity) (value float64, name string, err error) {
	client, err := meter.Dial(ctx, s.meter)
	if err != nil {
		return 0, "", errors.Join(errNoMeter, err)
	}
	defer client.Close()
	value, err = client.Read(ctx, of)
	return value, client.Name(), err
}

func (s *Service) stopSeries(ctx context.Context, actor action.Actor, id int64, why string) (Measurement, error) {
	return s.onMeasurement(ctx, actor, id, func(tx *sqlx.Tx, row *condition.MeasurementRow, readings []float64) error {
		row.Trouble = why
		return action.Record(ctx, tx, actor, eventMeterStopped, id, &row.MachineID, nil,
			map[string]any{"point": row.Point, "why": why, "kept": len(readings)})
	})
}
