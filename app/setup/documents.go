package setup

import (
	"context"
	"errors"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/malformed"
	"frugalheron/store/pg"
	"frugalheron/store/setup"
)

// documents gives a way of reading documents those of a kind alone.
func documents(read func(ctx context.Context, h pg.Handle, kind string, machineID int64) (setup.Document, error),
	kind string) func(ctx context.Context, h pg.Handle, machineID int64) (setup.Document, error) {
	return func(ctx context.Context, h pg.Handle, machineID int64) (setup.Document, error) {
		return read(ctx, h, kind, machineID)
	}
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
