package roms

import (
	"context"
	"fmt"

	"frugalheron/app/action"
	"frugalheron/core/reckoning"
	"frugalheron/core/rom"
)

// Verdicts are the lines of the reckoning that follow from readings of read-only memories.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]reckoning.Verdict, error) {
	sockets, err := s.Roms(ctx, actor, machineID)
	if err != nil {
		return nil, err
	}
	fading := reckoning.Verdict{Key: "fading", Label: "Read-only memories", State: reckoning.Attention,
		Why: []reckoning.Reason{}}
	for _, socket := range sockets {
		if socket.Chip.State == rom.Fading {
			at := &reckoning.Spot{Assembly: socket.AssemblyID, Line: max(1, socket.Line)}
			fading.Why = append(fading.Why,
				reckoning.Reason{Text: socket.Designator + ": " + socket.Chip.Why, Spot: at})
		}
	}
	if n := len(fading.Why); n > 0 {
		fading.Value = fmt.Sprintf("%d fading: read again now", n)
	}
	return reckoning.Telling(fading), nil
}
