package setup

import (
	"context"
	"errors"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/malformed"
	"frugalheron/store/pg"
	"frugalheron/store/setup"
)

// document is a kind of what a machine has one of.
type document[View any] struct {
	kind    string // as the store keeps it
	event   *action.Event
	records action.Records[setup.Document, View]
}

// documentsOf are those of a kind: what a refusal calls one, what goes out of one, and what the history keeps of that.
func documentsOf[View any](kind, what string, event *action.Event, tell func(setup.Document) View,
	told func(View) any) document[View] {
	return document[View]{kind, event, action.Records[setup.Document, View]{What: what,
		Lock: func(ctx context.Context, h pg.Handle, machineID int64) (setup.Document, error) {
			return setup.LockDocument(ctx, h, kind, machineID)
		},
		Read: func(ctx context.Context, h pg.Handle, machineID int64) (setup.Document, error) {
			return setup.DocumentOf(ctx, h, kind, machineID)
		},
		Version: func(r setup.Document) int { return r.Version },
		Told:    func(r setup.Document) any { return told(tell(r)) }, View: tell,
		Machine: func(r setup.Document) *int64 { return &r.MachineID }}}
}

// change writes that of a machine, from the version that somebody saw.
func (d document[View]) change(ctx context.Context, k *action.Kernel, actor action.Actor, machineID int64, version int,
	in any) (View, error) {
	return d.records.Change(ctx, k, action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: d.event,
		ID: machineID, Version: version}, func(tx *sqlx.Tx, _ setup.Document) error {
		return setup.PutDocument(ctx, tx, d.kind, setup.Document{MachineID: machineID, Body: action.ToKeep(in)})
	})
}

// refusedIn puts what a rule of the job refuses by its line into the field that holds the text.
func refusedIn(field string, err error) error {
	if broken := (*malformed.Error)(nil); errors.As(err, &broken) && broken.Field == "" {
		return action.Reject(field, broken.Error())
	}
	return input.Refused(err)
}

// refusedAs puts whatever a rule of the job refuses into the field that holds the text.
func refusedAs(field string, err error) error {
	if broken := (*malformed.Error)(nil); errors.As(err, &broken) {
		return action.Reject(field, broken.Error())
	}
	return err
}
