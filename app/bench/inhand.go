package bench

import (
	"context"
	"time"

	"frugalheron/app/action"
	"frugalheron/store/condition"
)

// InHand is work on a machine that was begun and not ended.
type InHand struct {
	Kind      string    `json:"kind" enum:"survey,log" doc:"A survey that runs, or the log of a machine that is open"`
	MachineID int64     `json:"machineId"`
	Accession string    `json:"accession"`
	Machine   string    `json:"machine" says:"text"`
	Done      int       `json:"done" doc:"Subsystems that were looked at, or steps that were written down"`
	Since     time.Time `json:"since"`
}

// InHand lists what was begun and not ended, the oldest first.
func (s *Service) InHand(ctx context.Context, actor action.Actor) ([]InHand, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	rows, err := condition.BegunWork(ctx, s.kernel.Reader(ctx))
	begun := make([]InHand, len(rows))
	for i, row := range rows {
		begun[i] = InHand(row)
	}
	return begun, err
}
