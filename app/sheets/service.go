// Package sheets is about what stands on the sheets of boards: they are saved revision by revision, compared, merged,
// and read into entries, positions and totals.
package sheets

import (
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/store/pg"
)

// Service does what is done to sheets.
type Service struct {
	kernel    *action.Kernel
	library   *library.Service
	inventory *inventory.Service
}

// New returns it, and has the kernel follow what newest revisions say.
func New(kernel *action.Kernel, library *library.Service, inventory *inventory.Service) *Service {
	s := &Service{kernel: kernel, library: library, inventory: inventory}
	kernel.Follow(pg.ProjectedEntries, s.renewEntries)
	kernel.CanRenew("totals", s.RereckonOld)
	kernel.CanRenew("stories of sheets", s.TellOldStories)
	kernel.CanBeUndone(eventSaveSheet, action.MayWriteSheets, s.undoSaveSheet)
	return s
}
