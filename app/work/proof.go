package work

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/job"
	"frugalheron/store/work"
)

// ProofInput is what the test of a job said.
type ProofInput struct {
	On     string `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	Passed bool   `json:"passed"`
	Said   string `json:"said" says:"text" maxLength:"300" required:"false" doc:"What the test said; of one that did not pass it has to be said"`
}

// ProveJob says that the test of a job that is done was made, the first time or again. One that did not pass leaves the job
// unproven: what is to be done then is for people to say.
func (s *Service) ProveJob(ctx context.Context, actor action.Actor, id int64, version int, in ProofInput) (Job, error) {
	in.On = cmp.Or(in.On, actor.Today())
	if err := input.CheckAll(input.OneLine("said", &in.Said), input.PastDay("on", in.On, actor.Today())); err != nil {
		return Job{}, err
	}
	if !in.Passed && in.Said == "" {
		return Job{}, action.Reject("said", "say what the test said, as it did not pass")
	}
	var proved Job
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := jobs.Locked(ctx, tx, id, version)
		if err != nil {
			return err
		}
		j := tellJob(row)
		switch {
		case row.Voided:
			return action.ErrNotFound
		case j.State != job.Done:
			return action.Reject("id", "the job is not done; the test is said when it ends")
		case j.Proof == "":
			return action.Reject("id", "the job names no test; write it on the job first")
		case in.On < j.Ending.On:
			return action.Reject("on", fmt.Sprintf("the job was done on %s; a test before that proves nothing of it", j.Ending.On))
		}
		kept := j.kept()
		kept.Ending.Proofs = append(kept.Ending.Proofs, job.Proof{On: in.On, Passed: in.Passed, Said: in.Said,
			By: actor.Name})
		slices.SortStableFunc(kept.Ending.Proofs, func(a, b job.Proof) int { return cmp.Compare(a.On, b.On) })
		last := kept.Ending.Proofs[len(kept.Ending.Proofs)-1]
		kept.Ending.Proven, kept.Ending.ProvenBy = last.Passed, last.Said
		if err := work.UpdateJob(ctx, tx, id, row.State, action.ToKeep(kept), false); err != nil {
			return err
		}
		if row, err = work.JobByID(ctx, tx, id); err != nil {
			return err
		}
		proved = tellJob(row)
		told := proved.told()
		told["tested"], told["passed"], told["testSaid"] = in.On, in.Passed, in.Said
		return action.Record(ctx, tx, actor, eventProveJob, id, &row.MachineID, j.told(), told)
	})
	return proved, err
}
