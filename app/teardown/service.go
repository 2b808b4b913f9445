// Package teardown is about opening machines: logs step by step, connectors and which plug goes where, and procedures.
package teardown

import (
	"frugalheron/app/action"
	"frugalheron/app/dating"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/people"
)

// Service does what is done while a machine is open.
type Service struct {
	kernel    *action.Kernel
	people    *people.Service
	inventory *inventory.Service
	dating    *dating.Service
	library   *library.Service
}

// New returns it.
func New(kernel *action.Kernel, people *people.Service, library *library.Service, inventory *inventory.Service,
	dating *dating.Service) *Service {
	s := &Service{kernel: kernel, people: people, inventory: inventory, dating: dating, library: library}
	kernel.CanBeUndone(eventVoidConnector, action.MayWriteSheets, s.undoVoidConnector)
	kernel.CanBeUndone(eventVoidStep, action.MayWriteSheets, s.undoVoidStep)
	kernel.CanBeUndone(eventEndTeardown, action.MayWriteSheets, s.undoEndTeardown)
	return s
}
