package condition

import (
	"context"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/condition"
)

// SubsystemName is a subsystem under which something can be found.
type SubsystemName struct {
	Subsystem string   `json:"subsystem"`
	Name      string   `json:"name"`
	Kinds     []string `json:"kinds" doc:"Kinds of findings that are usual there"`
}

// BoardCondition is how a board is that is in no machine.
type BoardCondition struct {
	AssemblyID   int64                  `json:"assemblyId"`
	Findings     []FindingView          `json:"findings" doc:"From its sheet, from measurements, and what was noted, here and in the machines it was in"`
	Compared     []condition.Compared   `json:"compared" doc:"The same, the gravest open ones first"`
	Technical    condition.Grade        `json:"technical" enum:"good,watch,repair,hazard,not inspected"`
	TechnicalWhy string                 `json:"technicalWhy" says:"text"`
	Subsystems   []SubsystemName        `json:"subsystems"`
	Severities   []condition.GradeMeans `json:"severities" doc:"What each severity means"`
}

// BoardCondition reads it. A board that is in a machine is judged with the machine; what is known of it is told all the
// same.
func (s *Service) BoardCondition(ctx context.Context, actor action.Actor, assemblyID int64) (BoardCondition, error) {
	b := BoardCondition{AssemblyID: assemblyID, Subsystems: []SubsystemName{}, Severities: condition.Severities()}
	if _, err := s.inventory.Assembly(ctx, actor, assemblyID); err != nil {
		return b, err
	}
	list, err := knownOfBoard(ctx, s.kernel.Reader(ctx), assemblyID)
	if err != nil {
		return b, err
	}
	b.Findings, b.Compared = list.views(), condition.CompareSurveys(nil, list.findings)
	b.Technical, b.TechnicalWhy = condition.Technical(nil, nil, list.findings)
	if b.Technical == condition.NotInspected {
		b.TechnicalWhy = "nothing is open; surveys are made of machines"
	}
	for _, one := range condition.Subsystems() {
		b.Subsystems = append(b.Subsystems, SubsystemName{one.Key, one.Name, one.Kinds})
	}
	return b, nil
}

// NoteBoardFinding keeps something found on a board, or says that a finding is gone, or how it is now. On a board that is in
// a machine it is found on that machine.
func (s *Service) NoteBoardFinding(ctx context.Context, actor action.Actor, assemblyID int64,
	noted NotedFinding) (BoardCondition, error) {
	if noted.On == "" {
		noted.On = actor.Today()
	}
	if err := input.PastDay("on", noted.On, actor.Today()); err != nil {
		return BoardCondition{}, err
	}
	at, err := homeOf(ctx, s.kernel.Reader(ctx), assemblyID)
	if err != nil {
		return BoardCondition{}, err
	}
	if noted.New != nil {
		noted.New.AssemblyID = &assemblyID
		noted.New.Designator = strings.TrimSpace(noted.New.Designator)
	}
	err = s.onFound(ctx, actor, at, func(tx *sqlx.Tx) error {
		return action.Second(seeFinding(ctx, tx, actor, at, noted.Subsystem, noted.ObservedFinding, nil, noted.On))
	})
	if err != nil {
		return BoardCondition{}, err
	}
	return s.BoardCondition(ctx, actor, assemblyID)
}
