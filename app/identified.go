package app

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/app/evidence"
	"frugalheron/core/dating"
	"frugalheron/core/reckoning"
	"frugalheron/core/rom"
)

// IdentifyStage says how far the identifying of a machine has come.
func (a *App) IdentifyStage(ctx context.Context, actor action.Actor, machineID int64) (reckoning.Stage, error) {
	dated, err := a.Dating.Dating(ctx, actor, machineID)
	if err != nil {
		return reckoning.Stage{}, err
	}
	sockets, err := a.Roms.Roms(ctx, actor, machineID)
	if err != nil {
		return reckoning.Stage{}, err
	}
	puzzles, err := a.Unknowns.Mysteries(ctx, actor, machineID)
	if err != nil {
		return reckoning.Stage{}, err
	}
	totals, err := evidence.KeptTotals(ctx, a.Kernel.DB, machineID)
	if err != nil {
		return reckoning.Stage{}, err
	}
	so := dating.Identified{Chips: totals.Chips, Unknown: totals.Unidentified, Conflicts: len(dated.Result.Conflicts), Sockets: len(sockets)}
	for _, part := range dated.Parts {
		if part.Kind == dating.DateCode {
			so.Dated++
		}
	}
	for _, socket := range sockets {
		switch socket.Chip.State {
		case rom.Accepted:
			so.Read++
		case rom.Fading, rom.Differing:
			so.Fading++
		}
	}
	for _, p := range puzzles {
		if p.Decision == nil {
			so.Open++
		}
	}
	return dating.StageOf(so), nil
}
