// Package unknowns is about what nobody knows yet: questions with what was guessed, and what a board could be.
package unknowns

import (
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/signs"
)

// Service does what is done about unknowns.
type Service struct {
	kernel    *action.Kernel
	library   *library.Service
	inventory *inventory.Service
	signs     *signs.Service
}

// New returns it.
func New(kernel *action.Kernel, library *library.Service, inventory *inventory.Service,
	signs *signs.Service) *Service {
	return &Service{kernel: kernel, library: library, inventory: inventory, signs: signs}
}
