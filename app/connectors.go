package app

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/teardown"
	"frugalheron/core/wiring"
	"frugalheron/store"
)

// ToldConnector is a connector of the map with what is to be known before it is touched.
type ToldConnector struct {
	ID      int64 `json:"id"`
	Version int   `json:"version"`
	wiring.Placed
	Since      *time.Time  `json:"since" doc:"Since when it is open, or null"`
	Free       wiring.Free `json:"free"`
	SocketOnly bool        `json:"socketOnly" doc:"Nothing is plugged in here"`
}

// Wiring is the connector map of a machine.
type Wiring struct {
	Connectors []ToldConnector  `json:"connectors"`
	Warnings   []wiring.Warning `json:"warnings" doc:"What may be mistaken, the gravest first"`
	Boards     []string         `json:"boards" doc:"What carries sockets"`
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
		if !c.SocketOnly {
			states = append(states, teardown.Connector{Name: c.Name, Open: c.Open})
		}
	}
	return states
}

// Find is the place of a connector by its name, or -1.
func (w Wiring) Find(name string) int {
	return slices.IndexFunc(w.Connectors, func(c ToldConnector) bool { return strings.EqualFold(c.Name, strings.TrimSpace(name)) })
}

// Wiring reads the connector map of a machine.
func (a *App) Wiring(ctx context.Context, actor Actor, machineID int64) (Wiring, error) {
	if _, err := a.Machine(ctx, actor, machineID); err != nil {
		return Wiring{}, err
	}
	return wiringOf(ctx, a.db, machineID)
}

func wiringOf(ctx context.Context, h store.Handle, machineID int64) (Wiring, error) {
	w := Wiring{Connectors: []ToldConnector{}, Warnings: []wiring.Warning{}, Boards: []string{}}
	rows, err := store.ConnectorsOf(ctx, h, machineID)
	if err != nil {
		return w, err
	}
	plain := []wiring.Connector{}
	for _, row := range rows {
		told, err := tellConnector(row)
		if err != nil {
			return w, err
		}
		if told.Open {
			w.Open++
		}
		w.Connectors = append(w.Connectors, told)
		plain = append(plain, told.Connector)
	}
	w.Warnings = wiring.Warnings(plain)
	w.Boards = wiring.Boards(w.placed())
	return w, nil
}

func tellConnector(row store.ConnectorRow) (ToldConnector, error) {
	c, err := readKept[wiring.Connector](row.Body)
	return ToldConnector{ID: row.ID, Version: row.Version, Placed: wiring.Placed{Connector: c, Open: row.Open}, Since: row.OpenSince, Free: c.Free(), SocketOnly: c.IsSocketOnly()}, err
}

func checkConnector(ctx context.Context, h store.Handle, c *wiring.Connector) error {
	for field, text := range map[string]*string{
		"name": &c.Name, "fromBoard": &c.FromBoard, "fromPlace": &c.FromPlace, "toBoard": &c.ToBoard, "toPlace": &c.ToPlace, "kind": &c.Kind,
		"pin1": &c.Pin1, "key": &c.Key, "colours": &c.Colours, "cable": &c.Cable, "never": &c.Never,
	} {
		if err := oneLine(field, text); err != nil {
			return err
		}
	}
	if err := lines("note", &c.Note); err != nil {
		return err
	}
	if c.PictureID != nil {
		if _, err := store.AttachmentByID(ctx, h, *c.PictureID); err != nil {
			return missing(err, "pictureId", "choose a picture of the collection")
		}
	}
	var wrong *wiring.WrongError
	if err := c.Check(); errors.As(err, &wrong) {
		return &Invalid{wrong.Field, wrong.Why}
	}
	return nil
}

func connectorTaken(err error, name string) error {
	if store.Violates(err, "connector_name_key") {
		return &Invalid{"name", name + " is on the map already; a name stands for one connector"}
	}
	return err
}

// MapConnector adds a connector to the map of a machine.
func (a *App) MapConnector(ctx context.Context, actor Actor, machineID int64, c wiring.Connector) (Wiring, error) {
	return a.onWiring(ctx, actor, machineID, func(tx *sqlx.Tx) error {
		if err := checkConnector(ctx, tx, &c); err != nil {
			return err
		}
		_, err := mapConnector(ctx, tx, actor, machineID, c)
		return err
	})
}

func mapConnector(ctx context.Context, tx *sqlx.Tx, actor Actor, machineID int64, c wiring.Connector) (int64, error) {
	id, err := store.InsertConnector(ctx, tx, machineID, c.Name, toKeep(c))
	if err != nil {
		return 0, connectorTaken(err, c.Name)
	}
	return id, record(ctx, tx, actor, "map connector", "connector", id, &machineID, nil, c)
}

// onWiring does work on the map of a machine, and reads it back.
func (a *App) onWiring(ctx context.Context, actor Actor, machineID int64, work func(tx *sqlx.Tx) error) (Wiring, error) {
	var after Wiring
	err := a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := store.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		if err := work(tx); err != nil {
			return err
		}
		var err error
		after, err = wiringOf(ctx, tx, machineID)
		return err
	})
	return after, err
}

// onConnector does work on a connector that is on the map, starting from a version.
func (a *App) onConnector(ctx context.Context, actor Actor, id int64, version int, work func(tx *sqlx.Tx, before ToldConnector, machineID int64) error) (Wiring, error) {
	row, err := store.ConnectorByID(ctx, a.db, id)
	if err != nil {
		return Wiring{}, err
	}
	return a.onWiring(ctx, actor, row.MachineID, func(tx *sqlx.Tx) error {
		row, err := store.ConnectorByID(ctx, tx, id)
		if err == nil && row.Struck {
			err = ErrNotFound
		}
		if err != nil {
			return err
		}
		before, err := tellConnector(row)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &Stale{What: "the connector", Newer: before}
		}
		return work(tx, before, row.MachineID)
	})
}

// ChangeConnector rewrites what the map says of a connector.
func (a *App) ChangeConnector(ctx context.Context, actor Actor, id int64, version int, c wiring.Connector) (Wiring, error) {
	return a.onConnector(ctx, actor, id, version, func(tx *sqlx.Tx, before ToldConnector, machineID int64) error {
		if err := checkConnector(ctx, tx, &c); err != nil {
			return err
		}
		if c.IsSocketOnly() && before.Open {
			return &Invalid{"fromBoard", "its plug is out; say what it comes from, or plug it in first"}
		}
		if err := store.UpdateConnector(ctx, tx, id, c.Name, toKeep(c), false); err != nil {
			return connectorTaken(err, c.Name)
		}
		if err := renameInLog(ctx, tx, machineID, before.Name, c.Name); err != nil {
			return err
		}
		return record(ctx, tx, actor, "change connector", "connector", id, &machineID, before.Connector, c)
	})
}

// renameInLog lets the steps of the log that is open know a connector by its new name, so that it is found when
// they are reversed. Logs that ended keep the name that stood there then.
func renameInLog(ctx context.Context, tx *sqlx.Tx, machineID int64, old, name string) error {
	if old == name {
		return nil
	}
	logs, err := store.TeardownsOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	for _, log := range logs {
		if log.Outcome != string(teardown.StillOff) {
			continue
		}
		rows, err := store.StepsOf(ctx, tx, log.ID)
		if err != nil {
			return err
		}
		for _, row := range rows {
			step, err := readKept[teardown.Step](row.Body)
			if err != nil {
				return err
			}
			at := slices.IndexFunc(step.Connectors, func(named string) bool { return strings.EqualFold(named, old) })
			if at < 0 {
				continue
			}
			step.Connectors[at] = name
			if err := store.UpdateStep(ctx, tx, row.ID, toKeep(step), row.Pictures, false); err != nil {
				return err
			}
		}
	}
	return nil
}

// StrikeConnector takes a connector off the map that was entered by mistake.
func (a *App) StrikeConnector(ctx context.Context, actor Actor, id int64, version int) (Wiring, error) {
	return a.onConnector(ctx, actor, id, version, func(tx *sqlx.Tx, before ToldConnector, machineID int64) error {
		if before.Open {
			return &Invalid{"id", before.Name + " is open; plug it in first, or nobody will ask for it any more"}
		}
		if err := store.UpdateConnector(ctx, tx, id, before.Name, toKeep(before.Connector), true); err != nil {
			return err
		}
		return record(ctx, tx, actor, "strike connector", "connector", id, &machineID, before.Connector, nil)
	})
}

func (a *App) undoStrikeConnector(ctx context.Context, actor Actor, e store.ToldEvent) error {
	return a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := store.ConnectorByID(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		if _, err := store.LockMachine(ctx, tx, row.MachineID); err != nil {
			return err
		}
		if err := newestStill(ctx, tx, e); err != nil {
			return err
		}
		if err := store.UpdateConnector(ctx, tx, row.ID, row.Name, row.Body, false); err != nil {
			return connectorTaken(err, row.Name)
		}
		return record(ctx, tx, actor, "take back strike of connector", "connector", row.ID, &row.MachineID, nil, keptFields(row.Body))
	})
}

func keptFields(body string) fields {
	kept, err := readKept[fields](body)
	if err != nil {
		return fields{}
	}
	return kept
}

// PlugConnector notes that a plug was pulled, or went back in, outside of a step.
func (a *App) PlugConnector(ctx context.Context, actor Actor, id int64, version int, open bool) (Wiring, error) {
	return a.onConnector(ctx, actor, id, version, func(tx *sqlx.Tx, before ToldConnector, machineID int64) error {
		if before.SocketOnly {
			return &Invalid{"open", before.Name + " has no plug"}
		}
		return openConnector(ctx, tx, actor, machineID, before, open)
	})
}

func openConnector(ctx context.Context, tx *sqlx.Tx, actor Actor, machineID int64, c ToldConnector, open bool) error {
	if c.Open == open {
		return nil
	}
	if err := store.OpenConnector(ctx, tx, c.ID, open); err != nil {
		return err
	}
	deed := "plug in connector"
	if open {
		deed = "unplug connector"
	}
	return record(ctx, tx, actor, deed, "connector", c.ID, &machineID, nil, map[string]any{"name": c.Name})
}

// WiringDrawing draws the sockets of a board as SVG.
func (a *App) WiringDrawing(ctx context.Context, actor Actor, machineID int64, board string) (Content, error) {
	w, err := a.Wiring(ctx, actor, machineID)
	if err != nil {
		return Content{}, err
	}
	return Content{MediaType: "image/svg+xml", FileName: "connectors.svg", Data: []byte(wiring.Draw(board, w.placed()))}, nil
}

// WiringList writes the connector map as CSV.
func (a *App) WiringList(ctx context.Context, actor Actor, machineID int64) (Content, error) {
	machine, err := a.Machine(ctx, actor, machineID)
	if err != nil {
		return Content{}, err
	}
	w, err := wiringOf(ctx, a.db, machineID)
	if err != nil {
		return Content{}, err
	}
	return Content{MediaType: "text/csv; charset=utf-8", FileName: fmt.Sprintf("wiring-%s.csv", machine.Accession), Data: []byte(wiring.List(w.placed()))}, nil
}
