package condition

import (
	"context"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/condition"
	storecondition "frugalheron/store/condition"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// Look is what was said of a subsystem in a survey.
type Look struct {
	Look condition.Look `json:"look" enum:"inspected,not inspected,absent"`
	Note string         `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// LookView is a look with the subsystem it is about.
type LookView struct {
	Subsystem string `json:"subsystem"`
	Look
}

// SurveyView is an inspection of a machine.
type SurveyView struct {
	ID       int64      `json:"id"`
	On       string     `json:"on"`
	By       string     `json:"by"`
	Looks    []LookView `json:"looks"`
	Cosmetic string     `json:"cosmetic" doc:"Cosmetic grade; empty while nobody gave one"`
	Note     string     `json:"note" says:"text"`
	Finished bool       `json:"finished"`
	Version  int        `json:"version"`
}

func tellSurvey(row storecondition.SurveyRow) (SurveyView, condition.Survey, error) {
	looks, err := action.ReadKept[map[string]Look](row.Looks)
	told := SurveyView{ID: row.ID, On: row.On, By: row.By, Looks: []LookView{}, Cosmetic: row.Cosmetic, Note: row.Note,
		Finished: row.Finished, Version: row.Version}
	survey := condition.Survey{ID: row.ID, On: row.On, Looks: map[string]condition.Look{}}
	for _, s := range condition.Subsystems() {
		if l, ok := looks[s.Key]; ok {
			told.Looks = append(told.Looks, LookView{s.Key, l})
			survey.Looks[s.Key] = l.Look
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

// keptLook is a look with the version of the survey that it came with.
type keptLook struct {
	Look
	At int `json:"at"`
}

// onSurvey does work on a survey, with what was said of each subsystem so far.
func (s *Service) onSurvey(ctx context.Context, actor action.Actor, id int64,
	work func(tx *sqlx.Tx, row storecondition.SurveyRow, looks map[string]keptLook) error) (Condition, error) {
	row, err := storecondition.SurveyByID(ctx, s.kernel.Reader(ctx), id)
	if err != nil {
		return Condition{}, err
	}
	return s.onCondition(ctx, actor, row.MachineID, func(tx *sqlx.Tx) error {
		row, err := storecondition.SurveyByID(ctx, tx, id)
		if err != nil {
			return err
		}
		looks, err := action.ReadKept[map[string]keptLook](row.Looks)
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
	Look
	Seen []SeenFinding `json:"seen" maxItems:"60" required:"false"`
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
	if judged.Look.Look != condition.Inspected && len(judged.Seen) > 0 {
		return Condition{}, action.Reject("look", "something was seen there, so it was inspected")
	}
	return s.onSurvey(ctx, actor, surveyID,
		func(tx *sqlx.Tx, row storecondition.SurveyRow, looks map[string]keptLook) error {
			if row.Finished {
				return action.Reject("id", "the survey has ended; make another one")
			}
			if looks[subsystem].At > version {
				return staleSurvey(row)
			}
			looks[subsystem] = keptLook{judged.Look, row.Version + 1}
			if judged.Look.Look == condition.NotLooked && judged.Note == "" {
				delete(looks, subsystem)
			}
			if err := storecondition.UpdateSurvey(ctx, tx, surveyID, action.ToKeep(looks), row.Cosmetic, row.Note,
				false); err != nil {
				return err
			}
			for _, seen := range judged.Seen {
				if err := seeFinding(ctx, tx, actor, row.MachineID, subsystem, seen, &surveyID, row.On); err != nil {
					return err
				}
			}
			after := map[string]any{"subsystem": sub.Name, "look": judged.Look.Look, "findings": len(judged.Seen),
				"on": row.On, "note": judged.Note}
			return action.Record(ctx, tx, actor, eventInspect, surveyID, &row.MachineID, nil, after)
		})
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
		func(tx *sqlx.Tx, row storecondition.SurveyRow, looks map[string]keptLook) error {
			if row.Version != version {
				return staleSurvey(row)
			}
			inspected := 0
			for _, l := range looks {
				if l.Look.Look == condition.Inspected {
					inspected++
				}
			}
			if inspected == 0 {
				return action.Reject("id", "nothing was inspected yet; look at one subsystem at least")
			}
			if err := storecondition.UpdateSurvey(ctx, tx, surveyID, row.Looks, cosmetic, note, true); err != nil {
				return err
			}
			after := map[string]any{"on": row.On, "inspected": inspected, "cosmetic": cosmetic, "note": note}
			return action.Record(ctx, tx, actor, eventEndSurvey, surveyID, &row.MachineID, nil, after)
		})
}
