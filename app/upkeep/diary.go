package upkeep

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/work"
	"frugalheron/core/calendar"
	"frugalheron/core/upkeep"
	storeupkeep "frugalheron/store/upkeep"
)

// EntryKind is what an entry of the diary is about.
type EntryKind string

// Kinds of entries.
const (
	KindUpkeep   EntryKind = "upkeep"
	KindDeadline EntryKind = "deadline" // a lasting repair, what must go back, an order
	KindPlan     EntryKind = "plan"
)

// DiaryEntry is a line of the diary: of one task, all that falls due on one day.
type DiaryEntry struct {
	Sort        upkeep.Sort `json:"sort" enum:"due,planned,done"`
	Kind        EntryKind   `json:"kind" enum:"upkeep,deadline,plan,round,job,survey,power-up,log"`
	On          string      `json:"on"`
	What        string      `json:"what" says:"text"`
	Count       int         `json:"count" doc:"Machines, or deeds"`
	Accessions  []string    `json:"accessions" says:"text" doc:"Of the first of them; of a board that is in none, what it is called"`
	MachineID   *int64      `json:"machineId" doc:"Where it is about one; else null"`
	OverdueDays int         `json:"overdueDays" doc:"Of what falls due; below 0 before the day"`
	Minutes     int         `json:"minutes" doc:"0 where nobody knows"`
	Who         string      `json:"who" says:"text"`
	IsDone      bool        `json:"isDone" doc:"Of what was planned: it was done"`
	ID          int64       `json:"id" doc:"Of the rule, the plan, the round, the job or what else it is"`
	Plan        *Plan       `json:"plan" doc:"The plan that it is, or null"`
}

// DiaryWeek is a week of the diary with its entries, by day.
type DiaryWeek struct {
	upkeep.Week
	Lines []DiaryEntry `json:"lines"`
}

// mostNamed is how many machines of one entry are named.
const mostNamed = 12

// Diary tells weeks: what falls due in each, what is planned, and what was done. What was planned and what was done stand
// apart.
func (s *Service) Diary(ctx context.Context, actor action.Actor, from string, weeks int) ([]DiaryWeek, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	if from == "" {
		from = actor.Today()
	}
	if err := input.Day("from", from); err != nil {
		return nil, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) ([]DiaryWeek, error) {
		first, err := calendar.Parse(from)
		if err != nil {
			return nil, err
		}
		first = upkeep.Monday(first)
		entries, err := s.entries(ctx, actor, first.String(), first.AddDays(7*weeks-1).String())
		if err != nil {
			return nil, err
		}
		given := make([]upkeep.Entry, len(entries))
		for i, e := range entries {
			on, err := calendar.Parse(e.On)
			if err != nil {
				return nil, err // it was checked when it was written
			}
			given[i] = upkeep.Entry{On: on, Sort: e.Sort}
			if e.Minutes > 0 {
				hours := float64(e.Minutes) / 60
				given[i].Hours = &hours
			}
		}
		told := make([]DiaryWeek, weeks)
		for i, w := range upkeep.Weeks(actor.Day(), first, weeks, given) {
			told[i] = DiaryWeek{Week: w, Lines: make([]DiaryEntry, len(w.Entries))}
			for n, at := range w.Entries {
				told[i].Lines[n] = entries[at]
			}
		}
		return told, nil
	})
}

// entries are those of days, and all that is due by the last of them: what is due first.
func (s *Service) entries(ctx context.Context, actor action.Actor, from, to string) ([]DiaryEntry, error) {
	h := s.kernel.Reader(ctx)
	entries, err := s.dueEntries(ctx, actor, to)
	if err != nil {
		return nil, err
	}
	done, err := storeupkeep.DoneBetween(ctx, h, from, max(to, actor.Today()), actor.ZoneName())
	if err != nil {
		return nil, err
	}
	planned, err := storeupkeep.PlansBetween(ctx, h, from, to)
	if err != nil {
		return nil, err
	}
	for _, row := range planned {
		p := tellPlan(row)
		e := DiaryEntry{Sort: upkeep.IsPlan, Kind: KindPlan, On: p.On, What: p.Task, Count: 1, Accessions: []string{},
			MachineID: p.MachineID, Minutes: p.Minutes, Who: p.Who, IsDone: isDone(row, p, done), ID: p.ID, Plan: &p}
		if p.Accession != "" {
			e.Accessions = []string{p.Accession}
		}
		entries = append(entries, e)
	}
	for _, d := range done {
		if d.On > to {
			continue
		}
		e := DiaryEntry{Sort: upkeep.WasDone, Kind: EntryKind(d.Kind), On: d.On, What: d.What, Count: d.Count,
			Accessions: []string{},
			ID:         d.ID}
		if d.Minutes != nil {
			e.Minutes = *d.Minutes
		}
		if d.MachineID != 0 {
			e.MachineID, e.Accessions = &d.MachineID, []string{d.Accession}
		}
		entries = append(entries, e)
	}
	return entries, nil
}

// dueEntries are what falls due by a day: of upkeep one a task and day, and what else has a day.
func (s *Service) dueEntries(ctx context.Context, actor action.Actor, to string) ([]DiaryEntry, error) {
	l, err := readLedger(ctx, s.kernel.Reader(ctx), actor, 0)
	if err != nil {
		return nil, err
	}
	all, err := l.due()
	if err != nil {
		return nil, err
	}
	entries, at := []DiaryEntry{}, map[string]int{}
	for _, d := range all {
		if d.On > to {
			continue
		}
		key := d.On
		if d.OverdueDays > 0 {
			key = "overdue" // one line, not one a day on which something was missed
		}
		key += " " + d.Task
		i, met := at[key]
		if !met {
			i = len(entries)
			at[key] = i
			entries = append(entries, DiaryEntry{Sort: upkeep.FallsDue, Kind: KindUpkeep, On: d.On, What: d.Task,
				ID:         d.RuleID,
				Accessions: []string{}, OverdueDays: d.OverdueDays})
		}
		e := &entries[i]
		e.Count++
		e.Minutes += d.Minutes
		if e.MachineID = d.MachineID; e.Count > 1 {
			e.MachineID = nil
		}
		if name := d.Accession; len(e.Accessions) < mostNamed {
			if name == "" {
				name = d.Name
			}
			e.Accessions = append(e.Accessions, name)
		}
	}
	deadlines, err := s.work.DeadlinesUntil(ctx, actor, to)
	if err != nil {
		return nil, err
	}
	for _, d := range deadlines {
		e := DiaryEntry{Sort: upkeep.FallsDue, Kind: KindDeadline, On: d.On, What: deadlineWords[d.Kind] + d.What,
			Count:      1,
			Accessions: []string{}, MachineID: d.MachineID, OverdueDays: d.OverdueDays, ID: d.ID}
		if d.Accession != "" {
			e.Accessions = []string{d.Accession}
		}
		entries = append(entries, e)
	}
	return entries, nil
}

// deadlineWords say before what has a day what is due of it.
var deadlineWords = map[work.DeadlineKind]string{work.LastingRepair: "Lasting repair: ", work.GoesBack: "Goes back: ",
	work.OrderDue: "Order: ", work.TestAgain: "Test again: "}
