// Package power is about applying power to machines: what is missing before anybody may think of it, what feeds them, their
// ladders, and each time that it was done.
package power

import (
	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/inventory"
	"frugalheron/app/signs"
	"frugalheron/app/teardown"
)

// Service does what is done about power.
type Service struct {
	kernel    *action.Kernel
	inventory *inventory.Service
	condition *condition.Service
	teardown  *teardown.Service
	signs     *signs.Service
}

// New returns it.
func New(kernel *action.Kernel, inventory *inventory.Service, condition *condition.Service,
	teardown *teardown.Service, signs *signs.Service) *Service {
	s := &Service{kernel, inventory, condition, teardown, signs}
	kernel.CanBeUndone(eventPowerUp, action.MayWriteSheets, s.undoPowerUp)
	kernel.CanBeUndone(eventVoidPowerUp, action.MayWriteSheets, s.undoVoidPowerUp)
	kernel.CanBeUndone(eventVoidSupply, action.MayWriteSheets, s.undoVoidSupply)
	kernel.CanBeUndone(eventVoidRung, action.MayWriteSheets, s.undoVoidRung)
	return s
}
