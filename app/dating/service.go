// Package dating is about when machines were built.
package dating

import (
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/roms"
)

// Service tells when machines were built.
type Service struct {
	kernel    *action.Kernel
	inventory *inventory.Service
	library   *library.Service
	roms      *roms.Service
}

// New returns it.
func New(kernel *action.Kernel, library *library.Service, inventory *inventory.Service, roms *roms.Service) *Service {
	return &Service{kernel: kernel, inventory: inventory, library: library, roms: roms}
}
