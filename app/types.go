package app

import (
	"context"
	"frugalheron/core/device"
)

// Types lists library types whose number starts with a text, for completion while typing.
func (a *App) Types(ctx context.Context, actor Actor, start string, limit int) ([]device.Type, error) {
	if err := actor.must(MayLook); err != nil {
		return nil, err
	}
	library, err := a.library(ctx)
	if err != nil {
		return nil, err
	}
	return library.Completions(start, limit), nil
}
