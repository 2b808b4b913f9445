// Package condition is about how machines are: surveys, findings, measurements, what ages, and what to look at first.
package condition

import (
	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/store/pg"
)

// Service does what is done about the condition of machines.
type Service struct {
	kernel    *action.Kernel
	inventory *inventory.Service
	files     *files.Service
	library   *library.Service
	meter     string // address of the meter; empty when none is set up
}

// whatAges names the renewal of which parts age.
const whatAges = "what ages"

// New returns it, and has the kernel follow what ages in machines.
func New(kernel *action.Kernel, inventory *inventory.Service, files *files.Service,
	library *library.Service) *Service {
	s := &Service{kernel: kernel, inventory: inventory, files: files, library: library}
	kernel.Follow(pg.ProjectedMachineAgeing, action.Each(renewAgeing))
	kernel.Follow(pg.ProjectedBoardAgeing, action.Each(renewBoardAgeing))
	kernel.CanRenew(whatAges, s.RenewAgeing)
	kernel.CanBeUndone(eventFind, action.MayWriteSheets, s.undoFind)
	kernel.CanBeUndone(eventVoidFinding, action.MayWriteSheets, s.undoVoidFinding)
	kernel.CanBeUndone(eventMeasure, action.MayWriteSheets, s.undoMeasure)
	kernel.CanBeUndone(eventVoidMeasurement, action.MayWriteSheets, s.undoVoidMeasurement)
	return s
}

// MeasureBy says at which address the meter is, as 127.0.0.1:7072.
func (s *Service) MeasureBy(address string) { s.meter = address }
