package app

import (
	"context"
	"fmt"

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

// identifyVerdicts are the lines of the reckoning that dates and read-only memories give, by what is kept.
func (a *App) identifyVerdicts(ctx context.Context, actor action.Actor, machineID int64) ([]reckoning.Verdict, error) {
	sockets, err := a.Roms.Roms(ctx, actor, machineID)
	if err != nil {
		return nil, err
	}
	dated, err := a.Dating.Dating(ctx, actor, machineID)
	if err != nil {
		return nil, err
	}
	verdicts := []reckoning.Verdict{}
	fading := reckoning.Verdict{Key: "fading", Label: "Read-only memories", State: reckoning.Attention, Why: []reckoning.Reason{}}
	for _, socket := range sockets {
		if socket.Chip.State == rom.Fading {
			fading.Why = append(fading.Why, reckoning.Reason{Text: socket.Designator + ": " + socket.Chip.Why, Spot: &reckoning.Spot{Assembly: socket.AssemblyID, Line: max(1, socket.Line)}})
		}
	}
	if n := len(fading.Why); n > 0 {
		fading.Value = fmt.Sprintf("%d fading: read again now", n)
		verdicts = append(verdicts, fading)
	}
	if built := dated.Result.Estimate; built != nil {
		line := reckoning.Verdict{Key: "built", Label: "Built", Value: fmt.Sprintf("%s to %s", built.From, built.To), State: reckoning.Plain, Why: []reckoning.Reason{}}
		for _, c := range dated.Result.Conflicts {
			line.State = reckoning.Attention
			line.Why = append(line.Why, reckoning.Reason{Text: "that does not go together: " + c.Why})
		}
		for _, because := range dated.Result.Basis {
			line.Why = append(line.Why, reckoning.Reason{Text: because})
		}
		verdicts = append(verdicts, line)
	}
	return verdicts, nil
}
