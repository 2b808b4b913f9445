package teardown

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"frugalheron/app/action"
	"frugalheron/app/people"
	"frugalheron/core/teardown"
	"frugalheron/core/verdict"
	"frugalheron/core/wiring"
	"frugalheron/store/pg"
	storeteardown "frugalheron/store/teardown"
)

// ConnectorView is a connector of the map with what is to be known before it is touched.
type ConnectorView struct {
	ID      int64 `json:"id"`
	Version int   `json:"version"`
	wiring.Placed
	Since      *time.Time  `json:"since" doc:"Since when it is open, or null"`
	Free       wiring.Free `json:"free"`
	SocketOnly bool        `json:"socketOnly" doc:"Nothing is plugged in here"`
}

// Wiring is the connector map of a machine.
type Wiring struct {
	Connectors []ConnectorView  `json:"connectors"`
	Warnings   []wiring.Warning `json:"warnings" doc:"What may be mistaken, the gravest first"`
	Boards     []string         `json:"boards" says:"text" doc:"What carries sockets"`
	Open       int              `json:"open" doc:"Connectors that are open now"`
}

func (w Wiring) placed() []wiring.Placed {
	placed := make([]wiring.Placed, len(w.Connectors))
	for i, c := range w.Connectors {
		placed[i] = c.Placed
	}
	return placed
}

// states are the connectors as a teardown sees them.
func (w Wiring) states() []teardown.Connector {
	states := []teardown.Connector{}
	for _, c := range w.Connectors {
		if !c.SocketOnly && !c.IsFoundOpen() {
			states = append(states, teardown.Connector{Name: c.Name, Open: c.Open})
		}
	}
	return states
}

// Find is the place of a connector by its name, or -1.
func (w Wiring) Find(name string) int {
	return slices.IndexFunc(w.Connectors, func(c ConnectorView) bool {
		return strings.EqualFold(c.Name, strings.TrimSpace(name))
	})
}

// Wiring reads the connector map of a machine.
func (s *Service) Wiring(ctx context.Context, actor action.Actor, machineID int64) (Wiring, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return Wiring{}, err
	}
	return wiringOf(ctx, s.kernel.Reader(ctx), machineID)
}

func wiringOf(ctx context.Context, h pg.Handle, machineID int64) (Wiring, error) {
	w := Wiring{Connectors: []ConnectorView{}, Warnings: []wiring.Warning{}, Boards: []string{}}
	rows, err := storeteardown.ConnectorsOf(ctx, h, machineID)
	if err != nil {
		return w, err
	}
	plain := []wiring.Connector{}
	for _, row := range rows {
		told, err := tellConnector(row)
		if err != nil {
			return w, err
		}
		if told.Open && !told.IsFoundOpen() {
			w.Open++
		}
		w.Connectors = append(w.Connectors, told)
		plain = append(plain, told.Connector)
	}
	w.Warnings = wiring.Warnings(plain)
	w.Boards = wiring.Boards(w.placed())
	return w, nil
}

func tellConnector(row storeteardown.ConnectorRow) (ConnectorView, error) {
	c, err := action.ReadKept[wiring.Connector](row.Body)
	return ConnectorView{ID: row.ID, Version: row.Version, Placed: wiring.Placed{Connector: c, Open: row.Open},
		Since: row.OpenSince, Free: c.Free(), SocketOnly: c.IsSocketOnly()}, err
}

// WiringDrawing draws the sockets of a board as SVG.
func (s *Service) WiringDrawing(ctx context.Context, actor action.Actor, machineID int64,
	board string) (action.Content, error) {
	w, err := s.Wiring(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	p, err := s.people.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return action.Content{}, err
	}
	drawing := wiring.Draw(p.Text(board), people.PublicOf(p, w.placed()))
	return action.Content{MediaType: "image/svg+xml", FileName: "connectors.svg", Data: []byte(drawing)}, nil
}

// WiringList writes the connector map as CSV.
func (s *Service) WiringList(ctx context.Context, actor action.Actor, machineID int64) (action.Content, error) {
	machine, err := s.inventory.Machine(ctx, actor, machineID)
	if err != nil {
		return action.Content{}, err
	}
	w, err := wiringOf(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return action.Content{}, err
	}
	p, err := s.people.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return action.Content{}, err
	}
	return action.CsvOf(fmt.Sprintf("wiring-%s.csv", machine.Accession), wiring.List(people.PublicOf(p, w.placed()))),
		nil
}

// Verdicts are the lines of the reckoning that follow from open connectors.
func (s *Service) Verdicts(ctx context.Context, _ action.Actor, machineID int64) ([]verdict.Verdict, error) {
	plugs, err := wiringOf(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return nil, err
	}
	return verdict.Telling(wiring.OpenVerdict(plugs.placed())), nil
}
