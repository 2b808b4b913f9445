package parts

import (
	"context"
	"fmt"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/store/inventory"
	"frugalheron/store/parts"
)

// SetAside is what of a drawer, or of a line of an order, is meant for a need of a job alone.
type SetAside struct {
	ID        int64  `json:"id"`
	JobID     int64  `json:"jobId"`
	Job       string `json:"job" says:"text"`
	MachineID int64  `json:"machineId"`
	Accession string `json:"accession"`
	Need      string `json:"need" says:"text"`
	StockID   *int64 `json:"stockId" doc:"Null for what is on order"`
	OrderID   *int64 `json:"orderId" doc:"Null for what lies in the stores"`
	Line      int    `json:"line" doc:"Of the order"`
	Count     int    `json:"count"`
}

func tellSetAside(row parts.SetAside) SetAside {
	return SetAside{ID: row.ID, JobID: row.JobID, Job: row.Job, MachineID: row.MachineID, Accession: row.Accession,
		Need: row.Need, StockID: row.StockID, OrderID: row.OrderID, Line: row.Line, Count: row.Count}
}

// SetAsideInput is what is to be kept for a need: of a drawer, or of a line of an order.
type SetAsideInput struct {
	Need    string `json:"need" says:"text" maxLength:"300" doc:"As it stands on the job"`
	StockID *int64 `json:"stockId,omitempty" doc:"The drawer that it lies in"`
	OrderID *int64 `json:"orderId,omitempty" doc:"The order that it comes with"`
	Line    int    `json:"line" minimum:"0" maximum:"1000" required:"false" doc:"Of the order"`
	Count   int    `json:"count" minimum:"1" maximum:"1000"`
}

// ForJob is the job that something is set aside for.
type ForJob struct {
	ID        int64
	MachineID int64
	Title     string
}

type asideTold struct {
	Job   string `json:"job" says:"text"`
	Count int    `json:"count"`
	Part  string `json:"part" says:"text"`
}

// SetAside keeps a part for a job. The caller holds the job, and knows that it needs so many.
func (s *Service) SetAside(ctx context.Context, tx *sqlx.Tx, actor action.Actor, forJob ForJob,
	in SetAsideInput) error {
	if (in.StockID == nil) == (in.OrderID == nil) {
		return action.Reject("stockId", "say the drawer, or the order that it comes with: one of them")
	}
	row := parts.SetAside{JobID: forJob.ID, Need: in.Need, StockID: in.StockID, OrderID: in.OrderID, Line: in.Line,
		Count: in.Count}
	words := ""
	if in.StockID != nil {
		row.Line = 0
		drawer, err := parts.LockStock(ctx, tx, *in.StockID)
		if err != nil {
			return err
		}
		if drawer.Voided {
			return action.ErrNotFound
		}
		told := tellStock(drawer)
		if in.Count > told.Free {
			return action.Reject("count", fmt.Sprintf("%d of %s lie there, and %d are set aside already: %s", told.Count, told.What,
				drawer.SetAside, "release those, or take another drawer"))
		}
		words = told.What
	} else {
		order, err := parts.LockOrder(ctx, tx, *in.OrderID)
		if err != nil {
			return err
		}
		if order.Voided {
			return action.ErrNotFound
		}
		aside, err := parts.SetAsideOfOrder(ctx, tx, order.ID)
		if err != nil {
			return err
		}
		line, ok := tellOrder(order, aside).line(in.Line)
		if !ok {
			return action.Reject("line", "the order has no such line")
		}
		if free := line.ToCome - line.Promised; in.Count > free {
			return action.Reject("count", fmt.Sprintf("%d of %s are to come, and %d of them are set aside already", line.ToCome,
				line.What, line.Promised))
		}
		words = line.What
	}
	if _, err := parts.InsertSetAside(ctx, tx, row); err != nil {
		return err
	}
	return action.Record(ctx, tx, actor, eventSetAside, forJob.ID, &forJob.MachineID, nil,
		asideTold{forJob.Title, in.Count, words})
}

// ReleaseOne gives back what was set aside.
func (s *Service) ReleaseOne(ctx context.Context, actor action.Actor, id int64) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := parts.SetAsideByID(ctx, tx, id)
		if err != nil {
			return err
		}
		// The machine first, as all do who write of it.
		if _, err := inventory.LockMachine(ctx, tx, row.MachineID); err != nil {
			return err
		}
		if row, err = parts.SetAsideByID(ctx, tx, id); err != nil {
			return err
		}
		if err := s.release(ctx, tx, actor, row); err != nil {
			return err
		}
		return s.changed(ctx, tx, actor, row.JobID)
	})
}

// Release gives back what was set aside for needs of a job that it no longer has; all without any. The caller holds the
// job.
func (s *Service) Release(ctx context.Context, tx *sqlx.Tx, actor action.Actor, jobID int64, but []string) error {
	rows, err := parts.SetAsideFor(ctx, tx, jobID)
	if err != nil {
		return err
	}
	for _, row := range rows {
		if slices.Contains(but, row.Need) {
			continue
		}
		if err := s.release(ctx, tx, actor, row); err != nil {
			return err
		}
	}
	return nil
}

func (s *Service) release(ctx context.Context, tx *sqlx.Tx, actor action.Actor, row parts.SetAside) error {
	if err := parts.UpdateSetAside(ctx, tx, row.ID, 0); err != nil {
		return err
	}
	return action.Record(ctx, tx, actor, eventRelease, row.JobID, &row.MachineID,
		asideTold{row.Job, row.Count, row.Need}, nil)
}

// AsideFor lists what is set aside for a job.
func (s *Service) AsideFor(ctx context.Context, tx *sqlx.Tx, jobID int64) ([]SetAside, error) {
	rows, err := parts.SetAsideFor(ctx, tx, jobID)
	return action.Views(rows, tellSetAside), err
}

// UseUp takes out of their drawers what was set aside for a job that is done. Where some of it is still on order, it is
// refused.
func (s *Service) UseUp(ctx context.Context, tx *sqlx.Tx, actor action.Actor, jobID int64) error {
	rows, err := parts.SetAsideFor(ctx, tx, jobID)
	if err != nil {
		return err
	}
	for _, row := range rows {
		if row.StockID == nil {
			return action.Reject("id", fmt.Sprintf(
				"%s is still on order for it; book what arrived, or release it in the stores first", row.Need))
		}
		before, err := parts.LockStock(ctx, tx, *row.StockID)
		if err != nil {
			return err
		}
		if err := parts.UpdateSetAside(ctx, tx, row.ID, 0); err != nil {
			return err
		}
		left := tellStock(before)
		was := left.StockInput
		left.Count -= row.Count
		if err := parts.UpdateStock(ctx, tx, left.row(before.Voided)); err != nil {
			return err
		}
		err = action.Record(ctx, tx, actor, eventUseStock, left.ID, &row.MachineID, was, left.StockInput)
		if err != nil {
			return err
		}
	}
	return nil
}

// KeptPart is a part that was taken out of a machine, and is kept.
type KeptPart struct {
	What      string
	Condition string
	DateCode  string
	Place     string
	Past      PartPast
}

// Keep puts a part into the stores that was taken out of a machine, with its past.
func (s *Service) Keep(ctx context.Context, tx *sqlx.Tx, actor action.Actor, k KeptPart) error {
	_, err := insert(ctx, tx, actor, eventKeepPart, Stock{StockInput: StockInput{What: k.What, Kind: "component",
		Condition: k.Condition, Count: 1, DateCode: k.DateCode, Place: k.Place}, From: &k.Past})
	return err
}
