package bench

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/core/exterior"
	"frugalheron/core/wiring"
	"frugalheron/store/pg"
)

// findTwins finds ports of a machine that take the same plug but differ, by the sheet of its outside and by what the
// library knows of its boards.
func (s *Service) findTwins(ctx context.Context, h pg.Handle, machineID int64,
	seen exterior.Sheet) ([]wiring.Twins, error) {
	known, err := action.Once(ctx, "known ports", machineID, func() ([]wiring.Port, error) {
		return s.knownPorts(ctx, h, machineID)
	})
	ports := []wiring.Port{}
	for _, e := range seen.Entries {
		if e.Thing == "port" {
			ports = append(ports, wiring.Port{Where: string(e.Face), Words: e.Words, Label: e.Reading, Use: e.Use,
				Line: e.Line})
		}
	}
	return wiring.OutsideTwins(wiring.Joined(ports, known)), err
}

// knownPorts lists the connectors that the library knows on the boards of a machine beyond doubt.
func (s *Service) knownPorts(ctx context.Context, h pg.Handle, machineID int64) ([]wiring.Port, error) {
	assemblies, err := inventory.AssembliesOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	ids := make([]int64, len(assemblies))
	for i, a := range assemblies {
		ids[i] = a.ID
	}
	recognised, err := s.subjects.Library.RecognisedIn(ctx, h, ids)
	ports := []wiring.Port{}
	for _, one := range recognised {
		if len(one.Claims) == 0 || !one.Claims[0].Sure || one.IsDisputed {
			continue
		}
		for _, c := range one.Claims[0].Details.Connectors {
			pins := map[string]string{}
			for _, pin := range c.Pins {
				pins[pin.Name] = pin.Signal
			}
			ports = append(ports, wiring.Port{Where: one.Title + " " + c.Name, Words: c.Kind, Use: c.For, Pins: pins})
		}
	}
	return ports, err
}
