// Package work is about the jobs that are done on machines: what they mend, what they wait for, and how they ended.
package work

import (
	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/sheets"
)

// Service does what is done about jobs.
type Service struct {
	kernel    *action.Kernel
	sheets    *sheets.Service
	condition *condition.Service
}

// New returns it.
func New(kernel *action.Kernel, sheets *sheets.Service, condition *condition.Service) *Service {
	s := &Service{kernel, sheets, condition}
	kernel.CanBeUndone(eventVoidJob, action.MayWriteSheets, s.undoVoidJob)
	return s
}
