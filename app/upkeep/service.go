// Package upkeep is about what is done again and again: rules, what falls due by them, rounds over many machines, what was
// done, plans, and the diary that shows all of it by week.
package upkeep

import (
	"frugalheron/app/accounts"
	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/people"
	"frugalheron/app/sheets"
	"frugalheron/app/work"
)

// Service does what is done about upkeep.
type Service struct {
	kernel    *action.Kernel
	people    *people.Service
	accounts  *accounts.Service
	sheets    *sheets.Service
	condition *condition.Service
	work      *work.Service
}

// New returns it.
func New(kernel *action.Kernel, people *people.Service, accounts *accounts.Service, sheets *sheets.Service,
	condition *condition.Service, work *work.Service) *Service {
	s := &Service{kernel, people, accounts, sheets, condition, work}
	kernel.CanBeUndone(eventVoidRule, action.MayWriteSheets, s.undoVoidRule)
	kernel.CanBeUndone(eventVoidPlan, action.MayWriteSheets, s.undoVoidPlan)
	kernel.CanBeUndone(eventAnswerStop, action.MayWriteSheets, s.undoAnswer)
	kernel.CanBeUndone(eventEndRound, action.MayWriteSheets, s.undoEndRound)
	return s
}
