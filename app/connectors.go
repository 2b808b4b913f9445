package app

import (
	"context"
	"errors"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/wiring"
	"frugalheron/store"
)

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
	return id, record(ctx, tx, actor, eventMapConnector, id, &machineID, nil, c)
}

// onWiring does work on the map of a machine, and reads it back.
func (a *App) onWiring(ctx context.Context, actor Actor, machineID int64, work func(tx *sqlx.Tx) error) (Wiring, error) {
	var after Wiring
	err := a.Kernel.Do(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
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
	row, err := store.ConnectorByID(ctx, a.Kernel.DB, id)
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
		return record(ctx, tx, actor, eventChangeConnector, id, &machineID, before.Connector, c)
	})
}

// StrikeConnector takes a connector off the map that was entered by mistake, and returns the event.
func (a *App) StrikeConnector(ctx context.Context, actor Actor, id int64, version int) (event int64, err error) {
	_, err = a.onConnector(ctx, actor, id, version, func(tx *sqlx.Tx, before ToldConnector, machineID int64) error {
		if before.Open {
			return &Invalid{"id", before.Name + " is open; plug it in first, or nobody will ask for it any more"}
		}
		if err := store.UpdateConnector(ctx, tx, id, before.Name, toKeep(before.Connector), true); err != nil {
			return err
		}
		event, err = recordEvent(ctx, tx, actor, eventStrikeConnector, id, &machineID, before.Connector, nil)
		return err
	})
	return event, err
}

func (a *App) undoStrikeConnector(ctx context.Context, actor Actor, e store.ToldEvent) error {
	return a.Kernel.Do(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
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
		return record(ctx, tx, actor, eventTakeBackStrikeOfConnector, row.ID, &row.MachineID, nil, keptFields(row.Body))
	})
}

func keptFields(body string) fields {
	kept, err := readKept[fields](body)
	if err != nil {
		return fields{}
	}
	return kept
}
