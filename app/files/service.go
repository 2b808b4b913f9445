// Package files is about pictures and documents: how they are kept, shown, numbered and drawn on.
package files

import (
	"golang.org/x/sync/semaphore"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/people"
	"frugalheron/app/picture"
	"frugalheron/store/blobs"
)

// Service does what is done to files.
type Service struct {
	kernel    *action.Kernel
	people    *people.Service
	inventory *inventory.Service
	blobs     *blobs.Store        // nil when none is set up
	memory    *semaphore.Weighted // what decoding pictures may take, in bytes
}

// New returns it.
func New(kernel *action.Kernel, people *people.Service, inventory *inventory.Service) *Service {
	s := &Service{kernel: kernel, people: people, inventory: inventory,
		memory: semaphore.NewWeighted(picture.MostMemory)}
	kernel.CanBeUndone(eventVoidAttachment, action.MayWriteSheets, s.undoVoidAttachment)
	return s
}

// KeepIn says where uploads are kept. Without it nothing can be uploaded.
func (s *Service) KeepIn(kept *blobs.Store) { s.blobs = kept }
