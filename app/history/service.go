// Package history tells what was done, to whom may read of it, and takes it back.
package history

import (
	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
)

// Service reads the history.
type Service struct {
	kernel    *action.Kernel
	people    *people.Service
	inventory *inventory.Service
	arrivals  *arrivals.Service
}

// New returns it.
func New(kernel *action.Kernel, people *people.Service, inventory *inventory.Service,
	arrivals *arrivals.Service) *Service {
	return &Service{kernel: kernel, people: people, inventory: inventory, arrivals: arrivals}
}
