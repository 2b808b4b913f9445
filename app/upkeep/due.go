package upkeep

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/core/calendar"
	"frugalheron/core/risk"
	"frugalheron/core/upkeep"
	"frugalheron/store/pg"
	storeupkeep "frugalheron/store/upkeep"
)

// Due is a task that falls due at a machine, or at a board that is in none.
type Due struct {
	RuleID      int64  `json:"ruleId"`
	Task        string `json:"task" says:"text"`
	MachineID   *int64 `json:"machineId" doc:"Null for a board that is in none"`
	AssemblyID  *int64 `json:"assemblyId" doc:"The board that is in no machine; null for a machine"`
	Accession   string `json:"accession" doc:"Empty for a board"`
	Name        string `json:"name" says:"text"`
	Place       string `json:"place" says:"text"`
	Away        string `json:"away" says:"text" doc:"Where it is while it is not in the house; then it is on no round"`
	On          string `json:"on" doc:"YYYY-MM-DD"`
	OverdueDays int    `json:"overdueDays" doc:"Below 0 before the day"`
	Because     string `json:"because"`
	Minutes     int    `json:"minutes" doc:"That it usually takes; 0 where nobody knows"`
}

// target is a machine, or a board that is in none, with what upkeep knows of it.
type target struct {
	machineID, assemblyID *int64
	accession, name       string
	place, away           string
	modelID               *int64
	acquired, looked, ran string
}

func (t target) thing() upkeep.Thing {
	places := strings.Split(t.place, ",")
	for i := range places {
		places[i] = strings.TrimSpace(places[i])
	}
	return upkeep.Thing{ID: t.accession + t.name, Place: places}
}

// ledger is all that due days follow from.
type ledger struct {
	rules   []Rule
	targets []target
	of      map[int64]int // place among the targets, by machine, or by the board as if it were one
	ageing  condition.Ageing
	deeds   map[deedKey][]storeupkeep.Counted
	now     calendar.Date
}

type deedKey struct{ rule, machine, board int64 }

func day(text *string) string {
	if text == nil {
		return ""
	}
	return *text
}

// readLedger reads it for a machine, or for 0 for the collection.
func readLedger(ctx context.Context, h pg.Handle, actor action.Actor, machineID int64) (ledger, error) {
	l := ledger{of: map[int64]int{}, deeds: map[deedKey][]storeupkeep.Counted{}, now: actor.Day()}
	var err error
	if l.rules, err = rulesIn(ctx, h); err != nil || len(l.rules) == 0 {
		return l, err
	}
	machines, err := storeupkeep.Machines(ctx, h, machineID)
	if err != nil {
		return l, err
	}
	for _, m := range machines {
		l.of[m.ID] = len(l.targets)
		l.targets = append(l.targets, target{machineID: &m.ID, accession: m.Accession, name: m.Name, place: m.Place,
			away: m.Away, modelID: m.ModelID, acquired: day(m.Acquired), looked: day(m.Looked), ran: day(m.Ran)})
	}
	if machineID == 0 {
		boards, err := storeupkeep.LooseBoards(ctx, h)
		if err != nil {
			return l, err
		}
		for _, b := range boards {
			l.of[-b.ID] = len(l.targets)
			l.targets = append(l.targets, target{assemblyID: &b.ID, name: b.Title, place: b.Place,
				acquired: day(b.Acquired)})
		}
	}
	done, err := storeupkeep.CountedDeeds(ctx, h)
	if err != nil {
		return l, err
	}
	for _, d := range done {
		key := deedKey{d.RuleID, d.MachineID, d.BoardID}
		l.deeds[key] = append(l.deeds[key], d)
	}
	if slices.ContainsFunc(l.rules, func(r Rule) bool { return r.Of != ofMachine }) {
		l.ageing, err = condition.AgeingIn(ctx, h, machineID)
	}
	return l, err
}

// applies reports whether a rule is one of a target, as far as models go. Of two rules with the same words the one of the
// model goes before that of all.
func (l ledger) applies(r Rule, t target) bool {
	if r.ModelID != nil {
		return t.modelID != nil && *r.ModelID == *t.modelID
	}
	return t.modelID == nil || !slices.ContainsFunc(l.rules, func(other Rule) bool {
		return other.ModelID != nil && *other.ModelID == *t.modelID && other.Of == r.Of &&
			strings.EqualFold(other.Task, r.Task)
	})
}

// due lists what falls due, by day.
func (l ledger) due() ([]Due, error) {
	in := upkeep.Input{Now: calendar.On(l.now)}
	type source struct{ rule, target int }
	sources := map[string]source{}
	for ri, r := range l.rules {
		if r.EveryMonths == 0 {
			continue
		}
		task := strconv.FormatInt(r.ID, 10)
		in.Rules = append(in.Rules, upkeep.Rule{Task: task, Of: task, EveryMonths: r.EveryMonths, Looks: r.Looks})
		add := func(ti int, id, since string, deeds []storeupkeep.Counted, looked string) {
			in.Things = append(in.Things, upkeep.Thing{ID: id, Kind: task, Since: calendar.Written(since)})
			sources[id] = source{ri, ti}
			for _, d := range deeds {
				in.Done = append(in.Done, upkeep.Deed{Thing: id, Task: task, On: calendar.Written(d.On),
					How: upkeep.How(d.How)})
			}
			if looked != "" && r.Looks {
				in.Done = append(in.Done, upkeep.Deed{Thing: id, Task: task, On: calendar.Written(looked),
					How: upkeep.Seen})
			}
		}
		if r.Of == ofMachine {
			for ti, t := range l.targets {
				if t.machineID == nil || !l.applies(r, t) {
					continue
				}
				deeds := l.deeds[deedKey{r.ID, *t.machineID, 0}]
				if r.Runs && t.ran != "" {
					deeds = append(slices.Clone(deeds), storeupkeep.Counted{On: t.ran, How: string(upkeep.Did)})
				}
				add(ti, fmt.Sprintf("%s %d", task, *t.machineID), t.acquired, deeds, t.looked)
			}
			continue
		}
		for i, p := range l.ageing.Parts {
			if !risk.Covers(r.Of, p.Class) {
				continue
			}
			ti, known := l.of[p.Machine]
			if !known || !l.applies(r, l.targets[ti]) {
				continue
			}
			since := max(dayIn(p.Renewed), dayIn(p.CameIn), l.targets[ti].acquired)
			add(ti, fmt.Sprintf("%s %d %d", task, p.Machine, i), since, l.deeds[deedKey{r.ID, 0, p.Assembly}], dayIn(p.Looked))
		}
	}
	// Days are those of the collection's zone, which can be set to another.
	in.Done = slices.DeleteFunc(in.Done, func(d upkeep.Deed) bool { return l.now.Before(d.On.Date) })
	out, err := upkeep.Plan(in)
	if err != nil {
		return nil, err
	}
	found, met := []Due{}, map[source]bool{}
	for _, d := range out.Due {
		from := sources[d.Thing]
		if met[from] {
			continue // the part that is due first speaks for all of the machine
		}
		met[from] = true
		r, t := l.rules[from.rule], l.targets[from.target]
		found = append(found, Due{RuleID: r.ID, Task: r.Task, MachineID: t.machineID, AssemblyID: t.assemblyID,
			Accession: t.accession, Name: t.name, Place: t.place, Away: t.away, On: d.On.String(),
			OverdueDays: d.OverdueDays, Because: d.Because, Minutes: r.Minutes})
	}
	return found, nil
}

// dayIn writes a day of the ranking; empty for none.
func dayIn(d risk.Day) string {
	if d == risk.NoDay || d == 0 {
		return ""
	}
	return calendar.FromDays(int(d)).String()
}

// RoundDue is a round that could be walked today.
type RoundDue struct {
	Rule      Rule   `json:"rule"`
	Stops     int    `json:"stops" doc:"Machines, and boards that are in none"`
	Minutes   int    `json:"minutes" doc:"0 where nobody knows"`
	Oldest    string `json:"oldest" doc:"The day on which the first of them was due"`
	Away      int    `json:"away" doc:"Due, and not in the house"`
	OpenRound *int64 `json:"openRound" doc:"The round of the task that is walked now, or null"`
}

// RoundsDue lists the tasks that are due today, each as a round, in the order of the rules.
func (s *Service) RoundsDue(ctx context.Context, actor action.Actor) ([]RoundDue, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) ([]RoundDue, error) {
		h := s.kernel.Reader(ctx)
		l, err := readLedger(ctx, h, actor, 0)
		if err != nil {
			return nil, err
		}
		all, err := l.due()
		if err != nil {
			return nil, err
		}
		open, err := storeupkeep.Rounds(ctx, h, mostRounds)
		if err != nil {
			return nil, err
		}
		found := []RoundDue{}
		for _, r := range l.rules {
			one := RoundDue{Rule: r}
			for _, d := range all {
				switch {
				case d.RuleID != r.ID || d.OverdueDays < 0:
					continue
				case d.Away != "":
					one.Away++
					continue
				case one.Oldest == "" || d.On < one.Oldest:
					one.Oldest = d.On
				}
				one.Stops++
				one.Minutes += d.Minutes
			}
			for _, o := range open {
				if o.IsOpen && o.RuleID == r.ID {
					one.OpenRound = &o.ID
				}
			}
			if one.Stops+one.Away > 0 || one.OpenRound != nil {
				found = append(found, one)
			}
		}
		return found, nil
	})
}

// MachineUpkeep is what is done again and again at a machine.
type MachineUpkeep struct {
	Due    []Due  `json:"due" doc:"By day"`
	Always []Rule `json:"always" doc:"What always holds of it"`
	Done   []Deed `json:"done" doc:"The newest first"`
}

// OfMachine says what falls due at a machine, what always holds of it, and what was done.
func (s *Service) OfMachine(ctx context.Context, actor action.Actor, machineID int64) (MachineUpkeep, error) {
	m := MachineUpkeep{Due: []Due{}, Always: []Rule{}, Done: []Deed{}}
	if err := actor.Must(action.MayLook); err != nil {
		return m, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (MachineUpkeep, error) {
		h := s.kernel.Reader(ctx)
		l, err := readLedger(ctx, h, actor, machineID)
		if err != nil {
			return m, err
		}
		if len(l.rules) > 0 && len(l.targets) == 0 {
			return m, action.ErrNotFound
		}
		if m.Due, err = l.due(); err != nil {
			return m, err
		}
		for _, r := range l.rules {
			holds := r.Of == ofMachine || slices.ContainsFunc(l.ageing.Parts, func(p risk.Part) bool {
				return risk.Covers(r.Of, p.Class)
			})
			if r.EveryMonths == 0 && holds && l.applies(r, l.targets[0]) {
				m.Always = append(m.Always, r)
			}
		}
		rows, err := storeupkeep.DeedsOfMachine(ctx, h, machineID, mostDeeds)
		for _, row := range rows {
			m.Done = append(m.Done, tellDeed(row))
		}
		return m, err
	})
}

// Bounds of lists.
const (
	mostRounds = 60
	mostDeeds  = 100
	mostStops  = 500
)
