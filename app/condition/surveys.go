package condition

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/condition"
	storecondition "frugalheron/store/condition"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// Inspection is what was said of a subsystem in a survey.
type Inspection struct {
	Coverage condition.Coverage `json:"coverage" enum:"inspected,not inspected,absent"`
	Note     string             `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// InspectionView is a look with the subsystem it is about.
type InspectionView struct {
	Subsystem string `json:"subsystem"`
	Inspection
}

// SurveyView is an inspection of a machine.
type SurveyView struct {
	ID          int64            `json:"id"`
	On          string           `json:"on"`
	By          string           `json:"by"`
	Inspections []InspectionView `json:"inspections"`
	Cosmetic    string           `json:"cosmetic" doc:"Cosmetic grade; empty while nobody gave one"`
	Note        string           `json:"note" says:"text"`
	Finished    bool             `json:"finished"`
	Version     int              `json:"version"`
}

func tellSurvey(row storecondition.SurveyRow) (SurveyView, condition.Survey, error) {
	looks, err := action.ReadKept[map[string]Inspection](row.Inspections)
	told := SurveyView{ID: row.ID, On: row.On, By: row.By, Inspections: []InspectionView{}, Cosmetic: row.Cosmetic,
		Note:     row.Note,
		Finished: row.Finished, Version: row.Version}
	survey := condition.Survey{ID: row.ID, On: row.On, Coverage: map[string]condition.Coverage{}}
	for _, s := range condition.Subsystems() {
		if l, ok := looks[s.Key]; ok {
			told.Inspections = append(told.Inspections, InspectionView{s.Key, l})
			survey.Coverage[s.Key] = l.Coverage
		}
	}
	return told, survey, err
}

// StartSurvey begins an inspection. A machine is inspected once at a time.
func (s *Service) StartSurvey(ctx context.Context, actor action.Actor, machineID int64,
	on, by string) (Condition, error) {
	if on == "" {
		on = actor.Today()
	}
	if err := input.CheckAll(input.PastDay("on", on, actor.Today()), input.OneLine("by", &by)); err != nil {
		return Condition{}, err
	}
	return s.onCondition(ctx, actor, machineID, func(tx *sqlx.Tx) error {
		id, err := storecondition.InsertSurvey(ctx, tx, actor.Account(), machineID, on, by)
		if pg.Violates(err, "survey_running_key") {
			return action.Reject("on", "a survey of this machine is being made already; go on with that one")
		}
		if err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventStartSurvey, id, &machineID, nil, map[string]any{"on": on})
	})
}

// onCondition does work on what is found on a machine, and reads its condition back.
func (s *Service) onCondition(ctx context.Context, actor action.Actor, machineID int64,
	work func(tx *sqlx.Tx) error) (Condition, error) {
	var after Condition
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		if err := work(tx); err != nil {
			return err
		}
		var err error
		after, err = conditionOf(ctx, tx, machineID)
		return err
	})
	return after, err
}

// keptInspection is a look with the version of the survey that it came with.
type keptInspection struct {
	Inspection
	At int `json:"at"`
}

// onSurvey does work on a survey, with what was said of each subsystem so far.
func (s *Service) onSurvey(ctx context.Context, actor action.Actor, id int64,
	work func(tx *sqlx.Tx, row storecondition.SurveyRow, looks map[string]keptInspection) error) (Condition, error) {
	row, err := storecondition.SurveyByID(ctx, s.kernel.Reader(ctx), id)
	if err != nil {
		return Condition{}, err
	}
	return s.onCondition(ctx, actor, row.MachineID, func(tx *sqlx.Tx) error {
		row, err := storecondition.SurveyByID(ctx, tx, id)
		if err != nil {
			return err
		}
		looks, err := action.ReadKept[map[string]keptInspection](row.Inspections)
		if err != nil {
			return err
		}
		return work(tx, row, looks)
	})
}

// staleSurvey says what a survey is now.
func staleSurvey(row storecondition.SurveyRow) error {
	told, _, err := tellSurvey(row)
	if err != nil {
		return err
	}
	return &action.Stale{What: "the survey", Newer: told}
}

// JudgedItem is what somebody says of a subsystem: that they looked, and what they saw.
type JudgedItem struct {
	Inspection
	Observed []ObservedFinding `json:"observed" maxItems:"60" required:"false"`
}

// JudgeItem keeps what was said of a subsystem in a survey. Several people may look at once, each at another
// subsystem: only what was said of the same one since the version that the caller read is stale.
func (s *Service) JudgeItem(ctx context.Context, actor action.Actor, surveyID int64, version int, subsystem string,
	judged JudgedItem) (Condition, error) {
	sub, ok := condition.SubsystemOf(subsystem)
	if !ok {
		return Condition{}, action.ErrNotFound
	}
	if err := input.Lines("note", &judged.Note); err != nil {
		return Condition{}, err
	}
	if judged.Coverage != condition.Inspected && len(judged.Observed) > 0 {
		return Condition{}, action.Reject("coverage", "something was seen there, so it was inspected")
	}
	return s.onSurvey(ctx, actor, surveyID,
		func(tx *sqlx.Tx, row storecondition.SurveyRow, looks map[string]keptInspection) error {
			if row.Finished {
				return action.Reject("id", "the survey has ended; make another one")
			}
			if looks[subsystem].At > version {
				return staleSurvey(row)
			}
			looks[subsystem] = keptInspection{judged.Inspection, row.Version + 1}
			if judged.Coverage == condition.NotLooked && judged.Note == "" {
				delete(looks, subsystem)
			}
			if err := storecondition.UpdateSurvey(ctx, tx, surveyID, action.ToKeep(looks), row.Cosmetic, row.Note,
				false); err != nil {
				return err
			}
			for _, seen := range judged.Observed {
				_, err := seeFinding(ctx, tx, actor, onMachine(row.MachineID), subsystem, seen, &surveyID, row.On)
				if err != nil {
					return err
				}
			}
			if judged.Coverage != condition.NotLooked {
				if err := everyFindingAnswered(ctx, tx, "observed", row, subsystem); err != nil {
					return err
				}
			}
			after := map[string]any{"subsystem": sub.Name, "look": judged.Coverage, "findings": len(judged.Observed),
				"on": row.On, "note": judged.Note}
			return action.Record(ctx, tx, actor, eventInspect, surveyID, &row.MachineID, nil, after)
		})
}

// everyFindingAnswered refuses that a subsystem was looked at while nothing is said of what was found there before.
func everyFindingAnswered(ctx context.Context, tx *sqlx.Tx, field string, row storecondition.SurveyRow,
	subsystem string) error {
	list, err := knownOf(ctx, tx, row.MachineID)
	if err != nil {
		return err
	}
	left := condition.Unanswered(condition.Survey{ID: row.ID, On: row.On}, subsystem, list.findings)
	if len(left) == 0 {
		return nil
	}
	names := make([]string, len(left))
	for i, f := range left {
		names[i] = fmt.Sprintf("%s, %s", f.Place, f.Kind)
	}
	return action.Reject(field, fmt.Sprintf("say of each finding of %s how it is now: gone, same, worse or better. Left: %s",
		condition.NameOf(subsystem), strings.Join(names, "; ")))
}

// EndSurvey ends an inspection; what was not inspected stays so.
func (s *Service) EndSurvey(ctx context.Context, actor action.Actor, surveyID int64, version int,
	cosmetic, note string) (Condition, error) {
	if err := input.Lines("note", &note); err != nil {
		return Condition{}, err
	}
	if cosmetic != "" && !slices.ContainsFunc(condition.CosmeticGrades(), func(g condition.GradeMeans) bool {
		return g.Grade == cosmetic
	}) {
		return Condition{}, action.Reject("cosmetic", "choose one of the cosmetic grades")
	}
	return s.onSurvey(ctx, actor, surveyID,
		func(tx *sqlx.Tx, row storecondition.SurveyRow, looks map[string]keptInspection) error {
			if row.Version != version {
				return staleSurvey(row)
			}
			inspected := 0
			for _, l := range looks {
				if l.Coverage == condition.Inspected {
					inspected++
				}
			}
			if inspected == 0 {
				return action.Reject("id", "nothing was inspected yet; look at one subsystem at least")
			}
			for _, sub := range condition.Subsystems() {
				if look, ok := looks[sub.Key]; !ok || look.Coverage == condition.NotLooked {
					continue
				}
				if err := everyFindingAnswered(ctx, tx, "id", row, sub.Key); err != nil {
					return err
				}
			}
			if err := storecondition.UpdateSurvey(ctx, tx, surveyID, row.Inspections, cosmetic, note,
				true); err != nil {
				return err
			}
			after := map[string]any{"on": row.On, "inspected": inspected, "cosmetic": cosmetic, "note": note}
			return action.Record(ctx, tx, actor, eventEndSurvey, surveyID, &row.MachineID, nil, after)
		})
}
