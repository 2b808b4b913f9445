// Package evidence is about what sources say of machines, what that amounts to, and the identifiers that records share.
package evidence

import (
	"frugalheron/app/action"
	"frugalheron/store/pg"
)

// Service does what is done to evidence.
type Service struct {
	kernel *action.Kernel
}

// New returns it, and has the kernel follow identifiers and how much is disputed.
func New(kernel *action.Kernel) *Service {
	s := &Service{kernel: kernel}
	kernel.Follow(pg.ProjectedAssemblyIdentifiers, action.Each(renewAssemblyIdentifiers))
	kernel.Follow(pg.ProjectedLotIdentifiers, action.Each(renewLotIdentifiers))
	kernel.Follow(pg.ProjectedMachineEvidence, action.Each(renewEvidence))
	kernel.CanBeUndone(eventRetractStatement, action.MayWriteSheets, ofEvidence.Undo(kernel))
	return s
}
