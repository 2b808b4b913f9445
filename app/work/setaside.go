package work

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/parts"
	"frugalheron/core/job"
	"frugalheron/core/stock"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
	"frugalheron/store/work"
)

// SetAside keeps a part for a need of a job: of a drawer, or of an order.
func (s *Service) SetAside(ctx context.Context, actor action.Actor, jobID int64, in parts.SetAsideInput) (Job, error) {
	var told Job
	err := s.kernel.Whole(ctx, actor, action.MayWriteSheets, func(ctx context.Context, tx *sqlx.Tx) error {
		row, err := work.JobByID(ctx, tx, jobID)
		if err != nil {
			return err
		}
		if _, err := inventory.LockMachine(ctx, tx, row.MachineID); err != nil {
			return err
		}
		if row, err = work.LockJob(ctx, tx, jobID); err != nil {
			return err
		}
		j := tellJob(row)
		if row.Voided || !j.State.IsOpen() {
			return action.Reject("id", "the job is ended")
		}
		if !slices.Contains(j.Needs, in.Need) {
			return action.Reject("need", "the job does not need that any more; somebody may have changed it")
		}
		aside, err := s.parts.AsideFor(ctx, tx, jobID)
		if err != nil {
			return err
		}
		if open := needed(j, in.Need) - asideOf(aside, in.Need, false); in.Count > open {
			return action.Reject("count", "more than the job still needs; set aside fewer")
		}
		if err := s.parts.SetAside(ctx, tx, actor, parts.ForJob{ID: j.ID, MachineID: j.MachineID, Title: j.Title},
			in); err != nil {
			return err
		}
		if err := s.goesOn(ctx, tx, actor, jobID); err != nil {
			return err
		}
		row, err = work.JobByID(ctx, tx, jobID)
		told = tellJob(row)
		return err
	})
	return told, err
}

// needed is how many pieces a job asks for in these words; said twice, they are asked for twice.
func needed(j Job, need string) int {
	total := 0
	for _, text := range j.Needs {
		if text == need {
			count, _ := stock.ReadCount(text)
			total += count
		}
	}
	return total
}

func asideOf(aside []parts.SetAside, need string, onlyHere bool) int {
	total := 0
	for _, a := range aside {
		if a.Need == need && (!onlyHere || a.StockID != nil) {
			total += a.Count
		}
	}
	return total
}

// goesOn has a job wait for hands that waited for parts, once all of them lie ready for it, and for parts again where one
// of them was given away. The caller holds its machine.
func (s *Service) goesOn(ctx context.Context, tx *sqlx.Tx, actor action.Actor, jobID int64) error {
	row, err := work.LockJob(ctx, tx, jobID)
	if err != nil {
		return err
	}
	j := tellJob(row)
	if row.Voided || j.State != job.WaitsForPart && j.State != job.WaitsForHands || len(j.Needs) == 0 {
		return nil
	}
	aside, err := s.parts.AsideFor(ctx, tx, jobID)
	if err != nil {
		return err
	}
	state := job.WaitsForHands
	for _, need := range j.Needs {
		if asideOf(aside, need, true) < needed(j, need) {
			state = job.WaitsForPart
		}
	}
	if state == j.State {
		return nil
	}
	if err := work.UpdateJob(ctx, tx, jobID, string(state), row.Body, false); err != nil {
		return err
	}
	if row, err = work.JobByID(ctx, tx, jobID); err != nil {
		return err
	}
	return action.Record(ctx, tx, actor, eventWorkOnJob, jobID, &row.MachineID, j.told(), tellJob(row).told())
}

// keepOld puts the part that a job took out into the stores, as its sheet calls it.
func (s *Service) keepOld(ctx context.Context, tx *sqlx.Tx, actor action.Actor, j Job, in FinishInput) error {
	if in.OldPart != "kept" {
		return nil
	}
	kept := parts.KeptPart{What: j.Place, Condition: "untested", Place: in.KeptAt,
		Past: parts.PartPast{MachineID: j.MachineID, Place: j.Place, JobID: j.ID, Job: j.Title, On: in.On}}
	if len(j.FindingKeys) > 0 {
		kept.Condition = "faulty"
	}
	if j.AssemblyID != nil {
		board, err := inventory.AssemblyByID(ctx, tx, *j.AssemblyID)
		if err != nil {
			return err
		}
		kept.Past.Board = board.Title
		newest, err := sheets.NewestRevision(ctx, tx, *j.AssemblyID)
		if err != nil && !errors.Is(err, pg.ErrNotFound) {
			return err
		}
		kept.What = cmp.Or(job.WordsAt(newest.Body, strings.TrimSpace(j.Place)), kept.What)
	}
	if kept.What == "" {
		kept.What = "part of " + j.Title
	}
	return s.parts.Keep(ctx, tx, actor, kept)
}
