package teardown

import (
	"context"
	"slices"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/core/known"
)

// KnownSocket is a socket or plug that the library knows on a board of a machine.
type KnownSocket struct {
	Board string `json:"board" says:"text"`
	By    string `json:"by" says:"text" doc:"The record of the library that says so"`
	known.Connector
	MappedID int64 `json:"mappedId" doc:"The connector of the map that it is; 0 while it is on no map"`
}

// KnownSockets lists the sockets that the library knows on the boards of a machine, each with the connector of the map that
// it is.
func (s *Service) KnownSockets(ctx context.Context, actor action.Actor, machineID int64) ([]KnownSocket, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) ([]KnownSocket, error) {
		w, err := s.Wiring(ctx, actor, machineID)
		if err != nil {
			return nil, err
		}
		assemblies, err := inventory.AssembliesOf(ctx, s.kernel.Reader(ctx), machineID)
		if err != nil {
			return nil, err
		}
		ids := make([]int64, len(assemblies))
		for i, a := range assemblies {
			ids[i] = a.ID
		}
		recognised, err := s.library.RecognisedIn(ctx, s.kernel.Reader(ctx), ids)
		sockets := []KnownSocket{}
		for _, one := range recognised {
			for _, claim := range one.Claims {
				if !claim.Sure {
					continue
				}
				for _, c := range claim.Details.Connectors {
					sockets = append(sockets, KnownSocket{one.Title, claim.Name, c, w.mapped(one.Title, c.Name)})
				}
			}
		}
		return sockets, err
	})
}

// mapped finds the connector of the map that a socket is: by the board and the place on it, or by its own name.
func (w Wiring) mapped(board, place string) int64 {
	i := slices.IndexFunc(w.Connectors, func(c ConnectorView) bool { return c.IsAt(board, place) })
	if i < 0 {
		return 0
	}
	return w.Connectors[i].ID
}
