package roms

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/core/rom"
	"frugalheron/core/verdict"
)

// Verdicts are the lines of the reckoning that follow from readings of read-only memories.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error) {
	sockets, err := s.Roms(ctx, actor, machineID)
	if err != nil {
		return nil, err
	}
	fades := []rom.Fade{}
	for _, socket := range sockets {
		if socket.Chip.State == rom.Fading {
			fades = append(fades, rom.Fade{Designator: socket.Designator, Why: socket.Chip.Why,
				Assembly: socket.AssemblyID, Line: socket.Line})
		}
	}
	return verdict.Telling(rom.FadingVerdict(fades)), nil
}
