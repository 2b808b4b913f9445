package teardown

import (
	"context"
	"errors"

	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/core/reckoning"
	"frugalheron/core/teardown"
	storeteardown "frugalheron/store/teardown"
)

// OpenedUp is what is known of taking a machine apart.
type OpenedUp struct {
	Stage      reckoning.Stage      `json:"stage"`
	Now        *TeardownView        `json:"now" doc:"The log that is open, or null"`
	Before     []Teardown           `json:"before" doc:"Logs that ended, the newest first"`
	Procedures []Procedure          `json:"procedures" doc:"Of the machine's model"`
	Variants   []teardown.Differing `json:"variants" doc:"What is not made the same on all machines of the model"`
}

// OpenedUp reads it.
func (s *Service) OpenedUp(ctx context.Context, actor action.Actor, machineID int64) (OpenedUp, error) {
	out := OpenedUp{Before: []Teardown{}, Procedures: []Procedure{},
		Variants: []teardown.Differing{}}
	machine, err := s.inventory.Machine(ctx, actor, machineID)
	if err != nil {
		return out, err
	}
	logs, err := storeteardown.TeardownsOf(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return out, err
	}
	for _, one := range logs {
		if one.Outcome != string(teardown.StillOff) {
			out.Before = append(out.Before, Teardown(one))
			continue
		}
		told, err := tellTeardown(ctx, s.kernel.Reader(ctx), machine.Accession+" "+machine.Name, one)
		if err != nil {
			return out, err
		}
		out.Now = &told
	}
	plugs, err := wiringOf(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return out, err
	}
	out.Stage = openedStage(out.Now, len(out.Before), plugs)
	maker, model := machine.Maker, machine.Model
	if known, err := library.ModelOf(ctx, s.kernel.Reader(ctx), machineID); err == nil {
		maker, model = known.Maker, known.Model
	} else if !errors.Is(err, action.ErrNotFound) {
		return out, err
	}
	if model == "" {
		return out, nil
	}
	procedures, err := storeteardown.ProceduresOf(ctx, s.kernel.Reader(ctx), maker, model)
	if err != nil {
		return out, err
	}
	out.Procedures = action.Views(procedures, procedureOf)
	out.Variants, err = s.variants(ctx, actor, maker, model)
	return out, err
}

// openedStage says how far opening up has come: in hand while a log is open, and in need of attention while a
// connector is open although none is, or two steps share a cell.
func openedStage(now *TeardownView, before int, plugs Wiring) reckoning.Stage {
	stage := reckoning.Stage{State: reckoning.Untouched}
	switch {
	case now == nil && plugs.Open > 0:
		return reckoning.Stage{State: reckoning.NeedsAttention, Count: plugs.Open}
	case now != nil:
		stage.State = reckoning.InHand
		for _, cell := range now.Cells {
			if cell.Mixed != "" {
				stage.State = reckoning.NeedsAttention
				stage.Count++
			}
		}
	case before > 0:
		stage.State = reckoning.Settled
	}
	return stage
}
