package teardown

import (
	"context"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/core/teardown"
	"frugalheron/core/wiring"
	storeteardown "frugalheron/store/teardown"
)

// unplug notes that plugs are out; a name that the map does not have is put on it.
func unplug(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64, names []string) error {
	plugs, err := wiringOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	for _, name := range names {
		name = strings.TrimSpace(name)
		at := plugs.Find(name)
		var c ConnectorView
		switch {
		case at < 0:
			fresh := wiring.Connector{Name: name, FromBoard: "not said yet"}
			if err := checkConnector(ctx, tx, &fresh); err != nil {
				return err
			}
			id, err := mapConnector(ctx, tx, actor, machineID, fresh)
			if err != nil {
				return err
			}
			c = ConnectorView{ID: id, Placed: wiring.Placed{Connector: fresh}}
		case plugs.Connectors[at].SocketOnly:
			return action.Reject("connectors",
				name+" is a socket without a plug on the map; say there what is plugged in")
		default:
			c = plugs.Connectors[at]
		}
		if err := openConnector(ctx, tx, actor, machineID, c, true); err != nil {
			return err
		}
	}
	return nil
}

func plugIn(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64, names []string) error {
	plugs, err := wiringOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	for _, name := range names {
		if at := plugs.Find(name); at >= 0 {
			if err := openConnector(ctx, tx, actor, machineID, plugs.Connectors[at], false); err != nil {
				return err
			}
		}
	}
	return nil
}

// renameInLog lets the steps of the log that is open know a connector by its new name, so that it is found when
// they are reversed. Logs that ended keep the name that stood there then.
func renameInLog(ctx context.Context, tx *sqlx.Tx, machineID int64, old, name string) error {
	if old == name {
		return nil
	}
	logs, err := storeteardown.TeardownsOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	for _, log := range logs {
		if log.Outcome != string(teardown.StillOff) {
			continue
		}
		rows, err := storeteardown.StepsOf(ctx, tx, log.ID)
		if err != nil {
			return err
		}
		for _, row := range rows {
			step, err := action.ReadKept[teardown.Step](row.Body)
			if err != nil {
				return err
			}
			at := slices.IndexFunc(step.Connectors, func(named string) bool { return strings.EqualFold(named, old) })
			if at < 0 {
				continue
			}
			step.Connectors[at] = name
			if err := storeteardown.UpdateStep(ctx, tx, row.ID, action.ToKeep(step), row.Pictures, false); err != nil {
				return err
			}
		}
	}
	return nil
}

// PlugConnector notes that a plug was pulled, or went back in, outside of a step.
func (s *Service) PlugConnector(ctx context.Context, actor action.Actor, id int64, version int,
	open bool) (Wiring, error) {
	return s.onConnector(ctx, actor, id, version, func(tx *sqlx.Tx, before ConnectorView, machineID int64) error {
		if before.SocketOnly {
			return action.Reject("open", before.Name+" has no plug")
		}
		if !open && before.IsFoundOpen() && before.ToBoard == "" {
			return action.Reject("open", "say first where "+before.Name+" goes: it was found open, and its socket is not known")
		}
		return openConnector(ctx, tx, actor, machineID, before, open)
	})
}

func openConnector(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64, c ConnectorView,
	open bool) error {
	if c.Open == open {
		return nil
	}
	if err := storeteardown.OpenConnector(ctx, tx, c.ID, open); err != nil {
		return err
	}
	done := eventPlugInConnector
	if open {
		done = eventUnplugConnector
	}
	return action.Record(ctx, tx, actor, done, c.ID, &machineID, nil, map[string]any{"name": c.Name})
}
