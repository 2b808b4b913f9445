package bench

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/app/evidence"
	"frugalheron/core/dating"
	"frugalheron/core/reckoning"
	"frugalheron/core/rom"
)

// IdentifyStage says how far the identifying of a machine has come.
func (s *Service) IdentifyStage(ctx context.Context, actor action.Actor, machineID int64) (reckoning.Stage, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (reckoning.Stage, error) {
		return s.identifyStage(ctx, actor, machineID)
	})
}

func (s *Service) identifyStage(ctx context.Context, actor action.Actor, machineID int64) (reckoning.Stage, error) {
	dated, err := s.subjects.Dating.Dating(ctx, actor, machineID)
	if err != nil {
		return reckoning.Stage{}, err
	}
	sockets, err := s.subjects.Roms.Roms(ctx, actor, machineID)
	if err != nil {
		return reckoning.Stage{}, err
	}
	puzzles, err := s.subjects.Unknowns.Identifications(ctx, actor, machineID)
	if err != nil {
		return reckoning.Stage{}, err
	}
	totals, err := evidence.KeptTotals(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return reckoning.Stage{}, err
	}
	so := dating.Identified{Chips: totals.Chips, Unknown: totals.Unidentified, Conflicts: len(dated.Result.Conflicts),
		Sockets: len(sockets)}
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
