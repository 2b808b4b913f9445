package app

import (
	"context"
	"fmt"
	"frugalheron/app/action"
	"frugalheron/core/reckoning"
)

func openVerdict(plugs Wiring) reckoning.Verdict {
	v := reckoning.Verdict{Key: "open-connectors", Label: "Connectors", State: reckoning.Attention, Why: []reckoning.Reason{}}
	if plugs.Open > 0 {
		v.Value = fmt.Sprintf("%d open", plugs.Open)
	}
	for _, c := range plugs.Connectors {
		if c.Open {
			v.Why = append(v.Why, reckoning.Reason{Text: fmt.Sprintf("%s, from %s to %s, is unplugged", c.Name, c.FromBoard, c.ToBoard)})
		}
	}
	return v
}

// openVerdicts are the lines of the reckoning that follow from open connectors.
func (a *App) openVerdicts(ctx context.Context, _ action.Actor, machineID int64) ([]reckoning.Verdict, error) {
	plugs, err := wiringOf(ctx, a.Kernel.DB, machineID)
	if err != nil {
		return nil, err
	}
	return reckoning.Telling(openVerdict(plugs)), nil
}
