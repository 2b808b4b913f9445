// Package arrivals is about how things came: lots with what they cost, and through whose hands a machine went.
package arrivals

import (
	"frugalheron/app/action"
	"frugalheron/app/evidence"
)

// Service does what is done about arrivals.
type Service struct {
	kernel   *action.Kernel
	evidence *evidence.Service
}

// New returns it.
func New(kernel *action.Kernel, evidence *evidence.Service) *Service {
	s := &Service{kernel: kernel, evidence: evidence}
	kernel.CanBeUndone(eventChangeCustody, action.MayKeepTheRecord, s.undoChangeCustody)
	kernel.CanBeUndone(eventRetractCustody, action.MayKeepTheRecord, ofCustody.Undo(kernel))
	kernel.CanBeUndone(eventChangeLot, action.MayKeepTheRecord, s.undoChangeLot)
	kernel.CanBeUndone(eventVoidLotItem, action.MayKeepTheRecord, s.undoVoidLotItem)
	return s
}
