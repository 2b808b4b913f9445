package teardown

import (
	"context"
	"errors"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/malformed"
	"frugalheron/core/wiring"
	"frugalheron/store/files"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/teardown"
)

func checkConnector(ctx context.Context, h pg.Handle, c *wiring.Connector) error {
	for field, text := range map[string]*string{
		"name": &c.Name, "fromBoard": &c.FromBoard, "fromPlace": &c.FromPlace, "toBoard": &c.ToBoard,
		"toPlace": &c.ToPlace, "kind": &c.Kind,
		"pin1": &c.Pin1, "key": &c.Key, "colours": &c.Colours, "cable": &c.Cable, "never": &c.Never,
	} {
		if err := input.OneLine(field, text); err != nil {
			return err
		}
	}
	if err := input.Lines("note", &c.Note); err != nil {
		return err
	}
	if c.PictureID != nil {
		if _, err := files.AttachmentByID(ctx, h, *c.PictureID); err != nil {
			return input.Missing(err, "pictureId", "choose a picture of the collection")
		}
	}
	var wrong *malformed.Error
	if err := c.Check(); errors.As(err, &wrong) {
		return action.Reject(wrong.Field, wrong.Err.Error())
	}
	return nil
}

func connectorTaken(err error, name string) error {
	if pg.Violates(err, "connector_name_key") {
		return action.Reject("name", name+" is on the map already; a name stands for one connector")
	}
	return err
}

// MapConnector adds a connector to the map of a machine.
func (s *Service) MapConnector(ctx context.Context, actor action.Actor, machineID int64,
	c wiring.Connector) (Wiring, error) {
	return s.onWiring(ctx, actor, machineID, func(tx *sqlx.Tx) error {
		if err := checkConnector(ctx, tx, &c); err != nil {
			return err
		}
		id, err := mapConnector(ctx, tx, actor, machineID, c)
		if err != nil || !c.FoundOpen {
			return err
		}
		return openConnector(ctx, tx, actor, machineID, ConnectorView{ID: id, Placed: wiring.Placed{Connector: c}},
			true)
	})
}

func mapConnector(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64,
	c wiring.Connector) (int64, error) {
	id, err := teardown.InsertConnector(ctx, tx, machineID, c.Name, action.ToKeep(c))
	if err != nil {
		return 0, connectorTaken(err, c.Name)
	}
	return id, action.Record(ctx, tx, actor, eventMapConnector, id, &machineID, nil, c)
}

// onWiring does work on the map of a machine, and reads it back.
func (s *Service) onWiring(ctx context.Context, actor action.Actor, machineID int64,
	work func(tx *sqlx.Tx) error) (Wiring, error) {
	var after Wiring
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
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
func (s *Service) onConnector(ctx context.Context, actor action.Actor, id int64, version int,
	work func(tx *sqlx.Tx, before ConnectorView, machineID int64) error) (Wiring, error) {
	row, err := teardown.ConnectorByID(ctx, s.kernel.Reader(ctx), id)
	if err != nil {
		return Wiring{}, err
	}
	return s.onWiring(ctx, actor, row.MachineID, func(tx *sqlx.Tx) error {
		row, err := teardown.ConnectorByID(ctx, tx, id)
		if err == nil && row.Voided {
			err = action.ErrNotFound
		}
		if err != nil {
			return err
		}
		before, err := tellConnector(row)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &action.Stale{What: "the connector", Newer: before}
		}
		return work(tx, before, row.MachineID)
	})
}

// ChangeConnector rewrites what the map says of a connector.
func (s *Service) ChangeConnector(ctx context.Context, actor action.Actor, id int64, version int,
	c wiring.Connector) (Wiring, error) {
	return s.onConnector(ctx, actor, id, version, func(tx *sqlx.Tx, before ConnectorView, machineID int64) error {
		if err := checkConnector(ctx, tx, &c); err != nil {
			return err
		}
		if c.IsSocketOnly() && before.Open {
			return action.Reject("fromBoard", "its plug is out; say what it comes from, or plug it in first")
		}
		if err := teardown.UpdateConnector(ctx, tx, id, c.Name, action.ToKeep(c), false); err != nil {
			return connectorTaken(err, c.Name)
		}
		if err := renameInLog(ctx, tx, machineID, before.Name, c.Name); err != nil {
			return err
		}
		if err := action.Record(ctx, tx, actor, eventChangeConnector, id, &machineID, before.Connector,
			c); err != nil || !c.FoundOpen || before.FoundOpen {
			return err
		}
		before.Connector = c
		return openConnector(ctx, tx, actor, machineID, before, true)
	})
}

// VoidConnector takes a connector off the map that was entered by mistake, and returns the event.
func (s *Service) VoidConnector(ctx context.Context, actor action.Actor, id int64,
	version int) (event int64, err error) {
	_, err = s.onConnector(ctx, actor, id, version, func(tx *sqlx.Tx, before ConnectorView, machineID int64) error {
		if before.Open {
			return action.Reject("id", before.Name+" is open; plug it in first, or nobody will ask for it any more")
		}
		if err := teardown.UpdateConnector(ctx, tx, id, before.Name, action.ToKeep(before.Connector),
			true); err != nil {
			return err
		}
		event, err = action.RecordEvent(ctx, tx, actor, eventVoidConnector, id, &machineID, before.Connector, nil)
		return err
	})
	return event, err
}

func (s *Service) undoVoidConnector(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := teardown.ConnectorByID(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		if _, err := inventory.LockMachine(ctx, tx, row.MachineID); err != nil {
			return err
		}
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		if err := teardown.UpdateConnector(ctx, tx, row.ID, row.Name, row.Body, false); err != nil {
			return connectorTaken(err, row.Name)
		}
		return action.Record(ctx, tx, actor, eventTakeBackVoidOfConnector, row.ID, &row.MachineID, nil,
			keptFields(row.Body))
	})
}

func keptFields(body string) action.Fields {
	kept, err := action.ReadKept[action.Fields](body)
	if err != nil {
		return action.Fields{}
	}
	return kept
}
