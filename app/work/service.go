// Package work is about the jobs that are done on machines: what they mend, what they wait for, and how they ended.
package work

import (
	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/library"
	"frugalheron/app/parts"
	"frugalheron/app/sheets"
	"frugalheron/app/wanted"
)

// Service does what is done about jobs.
type Service struct {
	kernel    *action.Kernel
	sheets    *sheets.Service
	condition *condition.Service
	library   *library.Service
	parts     *parts.Service
	wanted    *wanted.Service
}

// New returns it.
func New(kernel *action.Kernel, library *library.Service, sheets *sheets.Service, condition *condition.Service,
	parts *parts.Service, wanted *wanted.Service) *Service {
	s := &Service{kernel, sheets, condition, library, parts, wanted}
	parts.WhenChanged(s.goesOn)
	kernel.CanBeUndone(eventVoidJob, action.MayWriteSheets, s.undoVoidJob)
	return s
}
