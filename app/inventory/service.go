// Package inventory is about what the collection has, and where it is: machines, the assemblies in them and in store,
// their numbers, and the lists and searches over all of them.
package inventory

import (
	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/app/people"
	"frugalheron/store/pg"
)

// Service does what is done to the inventory.
type Service struct {
	kernel  *action.Kernel
	people  *people.Service
	library *library.Service
}

// New returns it, and has the kernel follow the sums of machines.
func New(kernel *action.Kernel, people *people.Service, library *library.Service) *Service {
	s := &Service{kernel: kernel, people: people, library: library}
	kernel.Follow(pg.ProjectedMachineSum, renewSums)
	kernel.CanBeUndone(eventChangeMachine, action.MayKeepTheRecord, s.undoChangeMachine)
	kernel.CanBeUndone(eventMoveMachine, action.MayWriteSheets, s.undoMoveMachine)
	kernel.CanBeUndone(eventRenamePlace, action.MayKeepTheRecord, s.undoRenamePlace)
	kernel.CanBeUndone(eventChangeAssembly, action.MayWriteSheets, s.undoChangeAssembly)
	kernel.CanBeUndone(eventMoveAssembly, action.MayWriteSheets, s.undoMove)
	kernel.CanBeUndone(eventTellPastFitting, action.MayWriteSheets, s.undoPastFitting)
	kernel.CanBeUndone(eventVoidAssembly, action.MayWriteSheets, s.undoVoid)
	return s
}
