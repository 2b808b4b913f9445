// Package roms is about read-only memories: readings of chips, the images in them, and how far each is known.
package roms

import (
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/store/blobs"
)

// Service does what is done to read-only memories.
type Service struct {
	kernel    *action.Kernel
	library   *library.Service
	inventory *inventory.Service
	blobs     *blobs.Store // nil when none is set up
	compared  comparisons
	reader    string // address of the reader of chips; empty when none is set up
}

// New returns it.
func New(kernel *action.Kernel, library *library.Service, inventory *inventory.Service) *Service {
	s := &Service{kernel: kernel, library: library, inventory: inventory}
	action.CanWork(kernel, s.readChip)
	kernel.CanBeUndone(eventVoidRead, action.MayWriteSheets, s.undoVoidRead)
	return s
}

// KeepIn says where images are kept. Without it none can be.
func (s *Service) KeepIn(kept *blobs.Store) { s.blobs = kept }

// ReadFrom says at which address the reader of chips is, as 127.0.0.1:7071.
func (s *Service) ReadFrom(address string) { s.reader = address }
