package upkeep

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/job"
	"frugalheron/store/history"
	"frugalheron/store/pg"
	"frugalheron/store/upkeep"
)

// PlanInput is what somebody means to do on a day.
type PlanInput struct {
	On        string `json:"on" maxLength:"10" doc:"YYYY-MM-DD"`
	What      string `json:"what" says:"text" maxLength:"300" required:"false" doc:"In words; left out where it is a job or a rule"`
	Minutes   int    `json:"minutes" minimum:"0" maximum:"100000" required:"false" doc:"That it is to take; 0 where nobody says"`
	Who       string `json:"who" says:"text" maxLength:"200" required:"false"`
	RuleID    *int64 `json:"ruleId,omitempty" doc:"The round that it is"`
	JobID     *int64 `json:"jobId,omitempty" doc:"The job that it is"`
	MachineID *int64 `json:"machineId,omitempty" doc:"The machine that it is about"`
	DoneOn    string `json:"doneOn" maxLength:"10" required:"false" doc:"When it was done; a plan of a job or a round is done by doing that"`
}

// Plan is a plan as it is kept.
type Plan struct {
	ID int64 `json:"id"`
	PlanInput
	Accession string `json:"accession"`
	Task      string `json:"task" says:"text" doc:"What it is called: by its words, its job or its rule"`
	Version   int    `json:"version"`
}

func tellPlan(row upkeep.Plan) Plan {
	kept, _ := action.ReadKept[PlanInput](row.Body) // written by this package alone
	kept.On, kept.RuleID, kept.JobID, kept.MachineID = row.On, row.RuleID, row.JobID, row.MachineID
	p := Plan{ID: row.ID, PlanInput: kept, Accession: row.Accession, Task: kept.What, Version: row.Version}
	if row.Rule != "" && p.Task == "" {
		rule, _ := action.ReadKept[RuleInput](row.Rule)
		p.Task = rule.Task
	}
	if p.Task == "" {
		p.Task = row.Job
	}
	return p
}

func (in PlanInput) row(id int64, voided bool) upkeep.Plan {
	return upkeep.Plan{ID: id, On: in.On, RuleID: in.RuleID, JobID: in.JobID, MachineID: in.MachineID,
		Body: action.ToKeep(in), Voided: voided}
}

func (p Plan) told() map[string]any {
	return map[string]any{"what": p.Task, "on": p.On, "minutes": p.Minutes, "who": p.Who, "accession": p.Accession,
		"doneOn": p.DoneOn}
}

var plans = action.Records[upkeep.Plan, Plan]{What: "the plan", Lock: upkeep.LockPlan, Read: upkeep.PlanByID,
	Version: func(r upkeep.Plan) int { return r.Version },
	Told:    func(r upkeep.Plan) any { return tellPlan(r).told() }, View: tellPlan,
	Machine: func(r upkeep.Plan) *int64 { return r.MachineID }}

func (in *PlanInput) check(actor action.Actor) error {
	err := input.CheckAll(input.OneLine("what", &in.What), input.OneLine("who", &in.Who), input.Day("on", in.On))
	if err != nil {
		return err
	}
	if in.DoneOn != "" {
		if err := input.PastDay("doneOn", in.DoneOn, actor.Today()); err != nil {
			return err
		}
	}
	switch {
	case in.RuleID != nil && in.JobID != nil:
		return action.Reject("jobId", "a plan is of a job or of a round; make two")
	case in.What == "" && in.RuleID == nil && in.JobID == nil:
		return action.Reject("what", "say what is planned")
	case in.DoneOn != "" && in.JobID != nil:
		return action.Reject("doneOn", "a job is done by ending the job")
	}
	return nil
}

// noSubject says of which record of a plan there is none.
func noSubject(err error) error {
	switch {
	case pg.Violates(err, "plan_rule_fkey"):
		return action.Reject("ruleId", "there is no such rule")
	case pg.Violates(err, "plan_job_fkey"):
		return action.Reject("jobId", "there is no such job")
	case pg.Violates(err, "plan_machine_fkey"):
		return action.Reject("machineId", "there is no such machine")
	}
	return err
}

// AddPlan writes one.
func (s *Service) AddPlan(ctx context.Context, actor action.Actor, in PlanInput) (Plan, error) {
	if err := in.check(actor); err != nil {
		return Plan{}, err
	}
	var added Plan
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		id, err := upkeep.InsertPlan(ctx, tx, in.row(0, false))
		if err != nil {
			return noSubject(err)
		}
		row, err := upkeep.PlanByID(ctx, tx, id)
		if err != nil {
			return err
		}
		added = tellPlan(row)
		return action.Record(ctx, tx, actor, eventAddPlan, id, row.MachineID, nil, added.told())
	})
	return added, err
}

// ChangePlan rewrites one, starting from a version.
func (s *Service) ChangePlan(ctx context.Context, actor action.Actor, id int64, version int, in PlanInput) (Plan,
	error) {
	if err := in.check(actor); err != nil {
		return Plan{}, err
	}
	return plans.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChangePlan,
		ID: id, Version: version}, func(tx *sqlx.Tx, before upkeep.Plan) error {
		if before.Voided {
			return action.ErrNotFound
		}
		return noSubject(upkeep.UpdatePlan(ctx, tx, in.row(id, false)))
	})
}

var voidedPlan = action.Voiding[upkeep.Plan]{Roles: action.MayWriteSheets, Event: eventVoidPlan,
	Back: eventTakeBackVoidOfPlan, IsVoided: func(r upkeep.Plan) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r upkeep.Plan, voided bool) error {
		return upkeep.UpdatePlan(ctx, tx, tellPlan(r).row(r.ID, voided))
	}}

// VoidPlan strikes one out.
func (s *Service) VoidPlan(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return plans.Void(ctx, s.kernel, actor, voidedPlan, id, version)
}

func (s *Service) undoVoidPlan(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return plans.Unvoid(ctx, s.kernel, actor, voidedPlan, e)
}

// isDone reports whether what was planned was done, and on which day that is known to be.
func isDone(row upkeep.Plan, p Plan, done []upkeep.WasDone) bool {
	switch {
	case p.DoneOn != "":
		return true
	case p.JobID != nil:
		return row.JobState == string(job.Done)
	case p.RuleID != nil:
		for _, d := range done {
			if d.RuleID == *p.RuleID && d.Count > 0 && d.On >= p.On {
				return true
			}
		}
	}
	return false
}
