package library

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/core/device"
)

// Types lists library types whose number starts with a text, for completion while typing.
func (s *Service) Types(ctx context.Context, actor action.Actor, start string, limit int) ([]device.Type, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	library, err := s.Read(ctx)
	if err != nil {
		return nil, err
	}
	return library.Completions(start, limit), nil
}
