package work

import (
	"cmp"
	"context"
	"slices"

	"frugalheron/app/action"
	"frugalheron/core/calendar"
	"frugalheron/core/job"
	"frugalheron/store/work"
)

// DeadlineKind is what has a day.
type DeadlineKind string

// Kinds of deadlines.
const (
	LastingRepair DeadlineKind = "lasting repair" // of a temporary one
	GoesBack      DeadlineKind = "goes back"      // what was lent to the stores
	OrderDue      DeadlineKind = "order"          // what should be here
	OfferEnds     DeadlineKind = "offer ends"     // after which it is gone
	TestAgain     DeadlineKind = "test again"     // what proves a job, after months without power
)

// Deadline is something that has a day: a lasting repair, what must go back, an order, the end of an offer.
type Deadline struct {
	Kind        DeadlineKind `json:"kind" enum:"lasting repair,goes back,order,offer ends,test again"`
	On          string       `json:"on"`
	OverdueDays int          `json:"overdueDays" doc:"Below zero before its day"`
	What        string       `json:"what" says:"text"`
	MachineID   *int64       `json:"machineId" doc:"Null for what is about no machine"`
	Accession   string       `json:"accession"`
	ID          int64        `json:"id" doc:"Of the job, the drawer, the order or the offer"`
}

// ahead is how many days before its day something is told.
const ahead = 31

// Deadlines lists what is overdue, and what falls due within a month, by day. What is in the stores is for staff.
func (s *Service) Deadlines(ctx context.Context, actor action.Actor) ([]Deadline, error) {
	return s.DeadlinesUntil(ctx, actor, actor.Day().AddDays(ahead).String())
}

// DeadlinesUntil lists what is overdue, and what falls due by a day, by day. What is in the stores is for staff.
func (s *Service) DeadlinesUntil(ctx context.Context, actor action.Actor, until string) ([]Deadline, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) ([]Deadline, error) {
		rows, err := work.TemporaryJobs(ctx, s.kernel.Reader(ctx))
		if err != nil {
			return nil, err
		}
		all := []Deadline{}
		for _, row := range rows {
			j := tellJob(row)
			all = append(all, Deadline{Kind: LastingRepair, On: j.Temporary, What: j.Title, MachineID: &j.MachineID,
				Accession: j.Accession, ID: j.ID})
		}
		proven, err := work.ProvenJobs(ctx, s.kernel.Reader(ctx))
		if err != nil {
			return nil, err
		}
		for _, row := range proven {
			if j := tellJob(row); j.ProofDue != "" {
				all = append(all, Deadline{Kind: TestAgain, On: j.ProofDue, What: j.Proof + " (" + j.Title + ")",
					MachineID: &j.MachineID, Accession: j.Accession, ID: j.ID})
			}
		}
		if action.MayWriteSheets.Include(actor.Role) {
			stores, err := s.parts.Stores(ctx, actor)
			if err != nil {
				return nil, err
			}
			for _, one := range stores.Stock {
				if one.BackBy != "" && one.Count > 0 {
					back := Deadline{Kind: GoesBack, On: one.BackBy, What: one.What, ID: one.ID, MachineID: one.LentBy}
					if one.LentBy != nil {
						back.Accession = one.BackTo
					} else if one.BackTo != "" {
						back.What += ", to " + one.BackTo
					}
					all = append(all, back)
				}
			}
			for _, o := range stores.Orders {
				if o.DueOn != "" {
					all = append(all, Deadline{Kind: OrderDue, On: o.DueOn, What: o.Supplier, ID: o.ID})
				}
			}
			ending, err := s.wanted.Ending(ctx, actor)
			if err != nil {
				return nil, err
			}
			for _, o := range ending {
				all = append(all, Deadline{Kind: OfferEnds, On: o.EndsOn, What: o.Title, ID: o.ID})
			}
		}
		return near(all, actor.Today(), until)
	})
}

// near keeps what is due by a day, and counts the days.
func near(all []Deadline, today, until string) ([]Deadline, error) {
	now, err := calendar.Parse(today)
	if err != nil {
		return nil, err
	}
	kept := []Deadline{}
	for _, one := range all {
		on, err := calendar.Parse(one.On)
		if err != nil {
			return nil, err // it was checked when it was written
		}
		if one.OverdueDays = now.Days() - on.Days(); one.On <= until {
			kept = append(kept, one)
		}
	}
	slices.SortStableFunc(kept, func(a, b Deadline) int { return cmp.Compare(a.On, b.On) })
	return kept, nil
}

// isProvisional reports whether a temporary repair stands whose lasting one was due before a day.
func (j Job) isProvisional(today string) bool {
	return j.Temporary != "" && j.Temporary < today && j.State != job.Declined
}
