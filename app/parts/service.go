// Package parts is about the stores: what lies in their drawers, what is on order, and what of both is set aside for jobs.
package parts

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
)

// Service does what is done about the stores.
type Service struct {
	kernel  *action.Kernel
	changed func(ctx context.Context, tx *sqlx.Tx, actor action.Actor, jobID int64) error
}

// New returns it.
func New(kernel *action.Kernel) *Service {
	s := &Service{kernel: kernel, changed: func(context.Context, *sqlx.Tx, action.Actor, int64) error { return nil }}
	kernel.CanBeUndone(eventVoidStock, action.MayWriteSheets, s.undoVoidStock)
	kernel.CanBeUndone(eventVoidOrder, action.MayWriteSheets, s.undoVoidOrder)
	return s
}

// WhenChanged says what follows when a part came for a job, or was given away.
func (s *Service) WhenChanged(then func(ctx context.Context, tx *sqlx.Tx, actor action.Actor, jobID int64) error) {
	s.changed = then
}
