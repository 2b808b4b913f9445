// Package quickentry is about the one field in which everything can be said: a line of a sheet, a measurement, a note.
package quickentry

import (
	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/evidence"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
)

// Service understands what is said, and keeps it.
type Service struct {
	kernel    *action.Kernel
	library   *library.Service
	inventory *inventory.Service
	evidence  *evidence.Service
	condition *condition.Service
}

// New returns it.
func New(kernel *action.Kernel, library *library.Service, inventory *inventory.Service, evidence *evidence.Service,
	condition *condition.Service) *Service {
	s := &Service{kernel: kernel, library: library, inventory: inventory, evidence: evidence, condition: condition}
	kernel.CanBeUndone(eventNote, action.MayWriteSheets, s.undoNote)
	return s
}
