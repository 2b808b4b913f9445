// Package bench puts together what the subjects tell of a machine: its reckoning, its dossier, its stages, and files of
// them. It does nothing and keeps nothing.
package bench

import (
	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/dating"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/people"
	"frugalheron/app/power"
	"frugalheron/app/roms"
	"frugalheron/app/sheets"
	"frugalheron/app/teardown"
	"frugalheron/app/unknowns"
	"frugalheron/app/work"
)

// Subjects are those that are put together.
type Subjects struct {
	People    *people.Service
	Library   *library.Service
	Inventory *inventory.Service
	Sheets    *sheets.Service
	Roms      *roms.Service
	Dating    *dating.Service
	Condition *condition.Service
	Teardown  *teardown.Service
	Power     *power.Service
	Work      *work.Service
	Unknowns  *unknowns.Service
}

// Service reads machines as they lie on the bench.
type Service struct {
	kernel   *action.Kernel
	subjects Subjects
	verdicts []Verdicts
	answers  answers
}

// New returns it. What the subjects tell of a machine stands in its reckoning in the order in which they are given.
func New(kernel *action.Kernel, subjects Subjects, verdicts ...Verdicts) *Service {
	return &Service{kernel: kernel, subjects: subjects, verdicts: verdicts, answers: newAnswers()}
}
