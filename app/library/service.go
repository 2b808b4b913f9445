// Package library is about what the collection knows of types of parts, of makers and of models, beside what it has.
package library

import (
	"sync/atomic"

	"frugalheron/app/action"
	"frugalheron/app/people"
)

// Service does what is done to the library.
type Service struct {
	kernel    *action.Kernel
	people    *people.Service
	libraries libraryCache
	knowns    atomic.Pointer[knownAfter]
}

// New returns it.
func New(kernel *action.Kernel, people *people.Service) *Service {
	s := &Service{kernel: kernel, people: people}
	kernel.CanBeUndone(EventNameType, action.MayKeepTheRecord, s.undoNameType)
	kernel.CanBeUndone(eventChangeType, action.MayWriteSheets, s.undoChangeType)
	kernel.CanBeUndone(eventForgetType, action.MayWriteSheets, s.undoForgetType)
	kernel.CanBeUndone(eventNameKnown, action.MayWriteSheets, s.undoNameKnown)
	kernel.CanBeUndone(eventChangeKnown, action.MayWriteSheets, s.undoChangeKnown)
	kernel.CanBeUndone(eventStrikeKnown, action.MayWriteSheets, s.undoStrikeKnown)
	return s
}
