package upkeep

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/input"
	"frugalheron/core/sheet"
	"frugalheron/core/upkeep"
	"frugalheron/store/history"
	"frugalheron/store/pg"
	storeupkeep "frugalheron/store/upkeep"
)

// Stop is a machine on a round, or a board that is in none, as it was when the round was begun.
type Stop struct {
	N           int                   `json:"n" doc:"Counted from 1, in walking order"`
	MachineID   *int64                `json:"machineId" doc:"Null for a board that is in none"`
	AssemblyID  *int64                `json:"assemblyId" doc:"The board that is in no machine; null for a machine"`
	Accession   string                `json:"accession"`
	Name        string                `json:"name" says:"text"`
	Place       string                `json:"place" says:"text"`
	Because     string                `json:"because" doc:"Why it is due"`
	OverdueDays int                   `json:"overdueDays" doc:"When the round was begun"`
	Parts       []condition.ClassPart `json:"parts" doc:"Which parts it is about; empty for the machine as a whole"`
}

func (p Stop) boards() []int64 {
	boards := []int64{}
	for _, part := range p.Parts {
		if !slices.Contains(boards, part.AssemblyID) {
			boards = append(boards, part.AssemblyID)
		}
	}
	return boards
}

// holds reports whether designators of a board name a part that the stop is about.
func (p Stop) holds(board int64, designators string) bool {
	return slices.ContainsFunc(p.Parts, func(part condition.ClassPart) bool {
		return part.AssemblyID == board && slices.ContainsFunc(strings.Fields(part.Place), func(one string) bool {
			return sheet.Names(designators, one)
		})
	})
}

// keptRound is what is kept of a round beside its rule and whether it is open.
type keptRound struct {
	Stops   []Stop `json:"stops"`
	On      string `json:"on"`
	EndedOn string `json:"endedOn"`
	Minutes int    `json:"minutes"`
	Note    string `json:"note"`
}

// RoundStop is a stop with what was said of it.
type RoundStop struct {
	Stop
	Findings []OpenFinding `json:"findings" doc:"Open ones of its parts, of which one may say how they are now"`
	Deed     *Deed         `json:"deed" doc:"What was said of it; null while nobody was there"`
}

// OpenFinding is a finding that is open at a stop.
type OpenFinding struct {
	Key      string `json:"key"`
	Where    string `json:"where" says:"text"`
	Kind     string `json:"kind" says:"text"`
	Severity string `json:"severity"`
}

// RoundSummary is a round in a list.
type RoundSummary struct {
	ID      int64  `json:"id"`
	RuleID  int64  `json:"ruleId"`
	Task    string `json:"task" says:"text"`
	On      string `json:"on" doc:"Day on which it was begun"`
	EndedOn string `json:"endedOn" doc:"Empty while it is open"`
	IsOpen  bool   `json:"isOpen"`
	Stops   int    `json:"stops"`
	Done    int    `json:"done" doc:"Stops of which something was said"`
	Minutes int    `json:"minutes" doc:"That it took; 0 while nobody said"`
	Note    string `json:"note" says:"text"`
	By      string `json:"by"`
	Version int    `json:"version"`
}

// Round is one task over many machines in one walk.
type Round struct {
	RoundSummary
	Rule     Rule        `json:"rule"`
	Took     int         `json:"took" doc:"Minutes from its beginning to the last answer, if that was within 8 hours; else 0"`
	RoundsOf []RoundStop `json:"roundsOf"`
}

func tellSummary(row storeupkeep.Round) RoundSummary {
	kept, _ := action.ReadKept[keptRound](row.Body) // written by this package alone
	rule, _ := action.ReadKept[RuleInput](row.Rule)
	return RoundSummary{ID: row.ID, RuleID: row.RuleID, Task: rule.Task, On: kept.On, EndedOn: kept.EndedOn,
		IsOpen: row.IsOpen, Stops: len(kept.Stops), Done: row.Done, Minutes: kept.Minutes, Note: kept.Note, By: row.By,
		Version: row.Version}
}

func (r RoundSummary) told() map[string]any {
	return map[string]any{"task": r.Task, "on": r.On, "stops": r.Stops, "done": r.Done, "minutes": r.Minutes,
		"note":   r.Note,
		"isOpen": r.IsOpen}
}

var rounds = action.Records[storeupkeep.Round, RoundSummary]{What: "the round", Lock: storeupkeep.LockRound,
	Read: storeupkeep.RoundByID, Version: func(r storeupkeep.Round) int { return r.Version },
	Told: func(r storeupkeep.Round) any { return tellSummary(r).told() }, View: tellSummary,
	Machine: func(storeupkeep.Round) *int64 { return nil }}

// Rounds lists those that are walked now, and the newest of the others.
func (s *Service) Rounds(ctx context.Context, actor action.Actor) ([]RoundSummary, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	rows, err := storeupkeep.Rounds(ctx, s.kernel.Reader(ctx), mostRounds)
	return action.Views(rows, tellSummary), err
}

// Round reads one with its stops.
func (s *Service) Round(ctx context.Context, actor action.Actor, id int64) (Round, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Round{}, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Round, error) {
		h := s.kernel.Reader(ctx)
		row, err := storeupkeep.RoundByID(ctx, h, id)
		if err != nil {
			return Round{}, err
		}
		if row.Voided {
			return Round{}, action.ErrNotFound
		}
		kept, err := action.ReadKept[keptRound](row.Body)
		if err != nil {
			return Round{}, err
		}
		rule, err := storeupkeep.RuleByID(ctx, h, row.RuleID)
		if err != nil {
			return Round{}, err
		}
		deeds, err := storeupkeep.DeedsOfRound(ctx, h, id)
		if err != nil {
			return Round{}, err
		}
		r := Round{RoundSummary: tellSummary(row), Rule: tellRule(rule), RoundsOf: make([]RoundStop, len(kept.Stops))}
		if took := int(row.LastAt.Sub(row.At).Minutes()) + 1; row.Done > 0 && took <= 8*60 {
			r.Took = took
		}
		for i, stop := range kept.Stops {
			r.RoundsOf[i] = RoundStop{Stop: stop, Findings: []OpenFinding{}}
		}
		for _, d := range deeds {
			told := tellDeed(d)
			r.RoundsOf[d.Stop-1].Deed = &told
		}
		if r.IsOpen {
			err = s.putFindings(ctx, actor, r.RoundsOf)
		}
		return r, err
	})
}

// mostWithFindings is of how many stops ahead it is told what is open there: more than one walks before the round is read
// again.
const mostWithFindings = 60

// putFindings says at each of the next stops to which nobody was yet which findings are open there.
func (s *Service) putFindings(ctx context.Context, actor action.Actor, stops []RoundStop) error {
	told := 0
	for i := range stops {
		stop := &stops[i]
		if stop.MachineID == nil || len(stop.Parts) == 0 || stop.Deed != nil {
			continue
		}
		if told++; told > mostWithFindings {
			return nil
		}
		how, err := s.condition.Condition(ctx, actor, *stop.MachineID)
		if err != nil {
			return err
		}
		for _, f := range how.Findings {
			if f.AssemblyID != nil && f.Story.Open && stop.holds(*f.AssemblyID, f.Designator) {
				stop.Findings = append(stop.Findings, OpenFinding{f.Key, f.Where, f.Kind, string(f.Story.Severity)})
			}
		}
	}
	return nil
}

// RoundInput says which task is walked.
type RoundInput struct {
	RuleID int64  `json:"ruleId"`
	Until  string `json:"until" maxLength:"10" required:"false" doc:"YYYY-MM-DD: what is due by then; today when it is left out"`
}

// BeginRound puts all that is due of a task into walking order. One task is walked once at a time.
func (s *Service) BeginRound(ctx context.Context, actor action.Actor, in RoundInput) (Round, error) {
	if in.Until != "" {
		if err := input.Day("until", in.Until); err != nil {
			return Round{}, err
		}
	}
	var id int64
	err := s.kernel.Whole(ctx, actor, action.MayWriteSheets, func(ctx context.Context, tx *sqlx.Tx) error {
		rule, err := storeupkeep.LockRule(ctx, tx, in.RuleID)
		if err == nil && rule.Voided {
			err = action.ErrNotFound
		}
		if err != nil {
			return input.Missing(err, "ruleId", "there is no such rule any more")
		}
		stops, err := stopsOf(ctx, tx, actor, tellRule(rule), max(in.Until, actor.Today()))
		if err != nil {
			return err
		}
		if len(stops) == 0 {
			return action.Reject("ruleId", "nothing of that is due; choose a later day to take in what falls due by then")
		}
		kept := keptRound{Stops: stops, On: actor.Today()}
		id, err = storeupkeep.InsertRound(ctx, tx, actor.Account(), in.RuleID, action.ToKeep(kept))
		if pg.Violates(err, "upkeep_round_open_key") {
			return action.Reject("ruleId", "a round of that is walked already; go on with that one")
		}
		if err != nil {
			return err
		}
		row, err := storeupkeep.RoundByID(ctx, tx, id)
		if err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventBeginRound, id, nil, nil, tellSummary(row).told())
	})
	if err != nil {
		return Round{}, err
	}
	return s.Round(ctx, actor, id)
}

// stopsOf are those of a rule that fall due by a day, in walking order.
func stopsOf(ctx context.Context, h pg.Handle, actor action.Actor, rule Rule, until string) ([]Stop, error) {
	l, err := readLedger(ctx, h, actor, 0)
	if err != nil {
		return nil, err
	}
	all, err := l.due()
	if err != nil {
		return nil, err
	}
	stops, things := []Stop{}, []upkeep.Thing{}
	for _, d := range all {
		if d.RuleID != rule.ID || d.On > until || d.Away != "" {
			continue
		}
		stops = append(stops, Stop{N: len(things), MachineID: d.MachineID, AssemblyID: d.AssemblyID,
			Accession: d.Accession,
			Name:      d.Name, Place: d.Place, Because: d.Because, OverdueDays: d.OverdueDays,
			Parts: []condition.ClassPart{}})
		things = append(things, target{accession: d.Accession, name: d.Name, place: d.Place}.thing())
	}
	slices.SortStableFunc(stops, func(a, b Stop) int { return upkeep.InWalkingOrder(things[a.N], things[b.N]) })
	stops = stops[:min(len(stops), mostStops)]
	for i := range stops {
		stop := &stops[i]
		stop.N = i + 1
		if rule.Of == ofMachine {
			continue
		}
		machine, board := int64(0), int64(0)
		if stop.MachineID != nil {
			machine = *stop.MachineID
		} else {
			board = *stop.AssemblyID
		}
		if stop.Parts, err = condition.PartsOfClass(ctx, h, machine, board, rule.Of); err != nil {
			return nil, err
		}
	}
	return stops, nil
}

// EndInput is how a round ended.
type EndInput struct {
	Minutes int    `json:"minutes" minimum:"0" maximum:"100000" required:"false" doc:"That it took; 0 where nobody says"`
	Note    string `json:"note" says:"text" maxLength:"2000" required:"false"`
}

// EndRound ends one. Where nobody was stays due.
func (s *Service) EndRound(ctx context.Context, actor action.Actor, id int64, version int,
	in EndInput) (RoundSummary, error) {
	if err := input.Lines("note", &in.Note); err != nil {
		return RoundSummary{}, err
	}
	return rounds.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventEndRound,
		ID: id, Version: version}, func(tx *sqlx.Tx, before storeupkeep.Round) error {
		if before.Voided || !before.IsOpen {
			return action.Reject("id", "the round has ended already")
		}
		kept, err := action.ReadKept[keptRound](before.Body)
		if err != nil {
			return err
		}
		kept.EndedOn, kept.Minutes, kept.Note = actor.Today(), in.Minutes, in.Note
		before.Body, before.IsOpen, before.Voided = action.ToKeep(kept), false, before.Done == 0
		return storeupkeep.UpdateRound(ctx, tx, before)
	})
}

// undoEndRound goes on with a round that was ended.
func (s *Service) undoEndRound(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, storeupkeep.LockRound,
		func(ctx context.Context, tx *sqlx.Tx, now storeupkeep.Round) error {
			kept, err := action.ReadKept[keptRound](now.Body)
			if err != nil {
				return err
			}
			kept.EndedOn, kept.Minutes, kept.Note = "", 0, ""
			now.Body, now.IsOpen, now.Voided = action.ToKeep(kept), true, false
			err = storeupkeep.UpdateRound(ctx, tx, now)
			if pg.Violates(err, "upkeep_round_open_key") {
				return action.Reject("event", fmt.Sprintf("another round of %s was begun since; end that one first", tellSummary(now).Task))
			}
			if err != nil {
				return err
			}
			return action.Record(ctx, tx, actor, eventTakeBackEndOfRound, now.ID, nil, nil, tellSummary(now).told())
		})
}
