package work

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/input"
	appinventory "frugalheron/app/inventory"
	"frugalheron/core/job"
	"frugalheron/store/inventory"
	"frugalheron/store/sheets"
	"frugalheron/store/work"
)

// FinishInput is how a job ended.
type FinishInput struct {
	On       string `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	Minutes  int    `json:"minutes" minimum:"0" maximum:"100000" required:"false" doc:"Spent on it since it was last said"`
	New      string `json:"new" says:"text" maxLength:"300" required:"false" doc:"The part that is in now: it goes onto the sheet of the board, in the place of the old one"`
	TakenOut bool   `json:"takenOut" required:"false" doc:"The place is empty now: that goes onto the sheet"`
	OldPart  string `json:"oldPart" enum:",kept,returned,scrapped" required:"false" doc:"A kept one goes into the stores, with its past"`
	KeptAt   string `json:"keptAt" says:"text" maxLength:"200" required:"false" doc:"Where the kept one lies; empty while nobody said"`
	Proven   bool   `json:"proven" required:"false" doc:"The test that proves it was made, and says so"`
	ProvenBy string `json:"provenBy" says:"text" maxLength:"300" required:"false" doc:"What the test said"`
	Undo     string `json:"undo" says:"text" maxLength:"1000" required:"false" doc:"What would undo it, where that is not as usual"`
	Remain   bool   `json:"remain" required:"false" doc:"The findings are not gone by it"`
}

// FinishJob ends a job: the findings that it mends are gone, a part that was replaced begins a life of its own on the sheet,
// and what would undo it is kept. A place whose sheet is to be written by hand is refused with the reason.
func (s *Service) FinishJob(ctx context.Context, actor action.Actor, id int64, version int,
	in FinishInput) (Job, error) {
	err := input.CheckAll(input.OneLine("new", &in.New), input.OneLine("provenBy", &in.ProvenBy),
		input.OneLine("keptAt", &in.KeptAt), input.Lines("undo", &in.Undo))
	if err != nil {
		return Job{}, err
	}
	in.On = cmp.Or(in.On, actor.Today())
	if err := input.PastDay("on", in.On, actor.Today()); err != nil {
		return Job{}, err
	}
	var done Job
	err = s.kernel.Whole(ctx, actor, action.MayWriteSheets, func(ctx context.Context, tx *sqlx.Tx) error {
		row, err := work.JobByID(ctx, tx, id)
		if err != nil {
			return err
		}
		// The machine first, as all do who write of it.
		if _, err := inventory.LockMachine(ctx, tx, row.MachineID); err != nil {
			return err
		}
		if row, err = jobs.Locked(ctx, tx, id, version); err != nil {
			return err
		}
		if row.Voided {
			return action.ErrNotFound
		}
		j := tellJob(row)
		if !j.State.IsOpen() {
			return action.Reject("id", "it is ended already; take it up again first")
		}
		if err := s.parts.UseUp(ctx, tx, actor, id); err != nil {
			return err
		}
		if err := s.keepOld(ctx, tx, actor, j, in); err != nil {
			return err
		}
		if err := s.putIn(ctx, tx, actor, j, in); err != nil {
			return err
		}
		if !in.Remain {
			if err := s.mended(ctx, actor, j, in.On); err != nil {
				return err
			}
		}
		kept := j.kept()
		kept.Minutes, kept.Left, kept.Why = kept.Minutes+in.Minutes, "", ""
		kept.Ending = Ending{On: in.On, New: in.New, TakenOut: in.TakenOut, OldPart: in.OldPart, Proven: in.Proven,
			ProvenBy: in.ProvenBy,
			Undo:     in.Undo, By: actor.Name}
		if in.Proven {
			kept.Ending.Proofs = []job.Proof{{On: in.On, Passed: true, Said: in.ProvenBy, By: actor.Name}}
		}
		if j.Usual != nil {
			kept.Ending.Reversible, kept.Ending.Undo = j.Usual.Reversible, cmp.Or(in.Undo, j.Usual.Undo)
		}
		if err := work.UpdateJob(ctx, tx, id, string(job.Done), action.ToKeep(kept), false); err != nil {
			return err
		}
		if row, err = work.JobByID(ctx, tx, id); err != nil {
			return err
		}
		done = tellJob(row)
		told := done.told()
		told["proven"] = !done.Unproven
		return action.Record(ctx, tx, actor, eventFinishJob, id, &row.MachineID, j.told(), told)
	})
	return done, err
}

// putIn writes the part that is in now onto the sheet of its board.
func (s *Service) putIn(ctx context.Context, tx *sqlx.Tx, actor action.Actor, j Job, in FinishInput) error {
	field := "new"
	switch {
	case in.New == "" && !in.TakenOut:
		return nil
	case in.New != "" && in.TakenOut:
		return action.Reject("takenOut", "a place is empty, or another part is in: say one of them")
	case in.TakenOut:
		field = "takenOut"
	}
	place := strings.TrimSpace(j.Place)
	if j.AssemblyID == nil || place == "" {
		return action.Reject(field, "the job does not say on which board and where; say that on the job, or write the new part on the sheet")
	}
	// What went with its board to another machine is mended there.
	if err := appinventory.OfMachine(ctx, tx, j.MachineID, appinventory.NamedIf(field, inventory.OwnedBoard,
		j.AssemblyID)...); err != nil {
		return err
	}
	newest, err := sheets.NewestRevision(ctx, tx, *j.AssemblyID)
	if err != nil {
		return input.Missing(err, field, "the board has no sheet yet; write the new part there")
	}
	body, err := job.TakeOutOf(newest.Body, place)
	if in.New != "" {
		body, err = job.PutInto(newest.Body, place, in.New, in.On)
	}
	if err != nil {
		return action.Reject(field, err.Error())
	}
	return action.Second(s.sheets.SaveSheet(ctx, actor, *j.AssemblyID, newest.N, body))
}

// mended says of the findings of a job that they are gone.
func (s *Service) mended(ctx context.Context, actor action.Actor, j Job, on string) error {
	if len(j.FindingKeys) == 0 {
		return nil
	}
	how, err := s.condition.Condition(ctx, actor, j.MachineID)
	if err != nil {
		return err
	}
	for _, key := range j.FindingKeys {
		at := slices.IndexFunc(how.Findings, func(f condition.FindingView) bool { return f.Key == key })
		if at < 0 || !how.Findings[at].Story.Open {
			continue // it went with its part, or with its board
		}
		f := how.Findings[at]
		seen := condition.ObservedFinding{FindingID: f.ID, Severity: f.Story.Severity, Gone: true,
			Note: "by the job " + j.Title}
		if f.ID == 0 {
			seen.Key = key
		}
		if _, err := s.condition.NoteFinding(ctx, actor, j.MachineID, condition.NotedFinding{Subsystem: f.Subsystem,
			ObservedFinding: seen, On: on}); err != nil {
			return err
		}
	}
	return nil
}
