package power

import (
	"context"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	appinventory "frugalheron/app/inventory"
	"frugalheron/core/ladder"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/power"
)

// RungView is a step of a machine's ladder, with what became of it last.
type RungView struct {
	ID        int64 `json:"id"`
	MachineID int64 `json:"machineId"`
	ladder.Rung
	Result     string   `json:"result" enum:",as-expected,not" doc:"Of the last time; empty while it was not tried"`
	On         string   `json:"on" doc:"YYYY-MM-DD of the last time; empty while it was not tried"`
	Signs      []string `json:"signs" says:"text" doc:"What a sound machine shows with the cards that are in on this rung, by the signs of its model and cards"`
	CannotTell string   `json:"cannotTell" doc:"What the last time does not tell, as several rungs were tried at once; else empty"`
	Version    int      `json:"version"`
}

func tellRung(row power.Rung) RungView {
	kept, _ := action.ReadKept[ladder.Rung](row.Body)
	return RungView{ID: row.ID, MachineID: row.MachineID, Rung: kept, Version: row.Version, Signs: []string{}}
}

// signsAt tells each rung what the machine should show with what is in then: all but what later rungs add.
func (s *Service) signsAt(ctx context.Context, h pg.Handle, machineID int64, rungs []RungView) error {
	if len(rungs) == 0 {
		return nil
	}
	out := make([][]string, len(rungs))
	for i := range rungs {
		for _, later := range rungs[i+1:] {
			if later.Kind == ladder.Add {
				out[i] = append(out[i], later.Step)
			}
		}
	}
	told, err := s.signs.ExpectedWithout(ctx, h, machineID, out)
	for i := range told {
		rungs[i].Signs = told[i]
	}
	return err
}

var rungs = action.Records[power.Rung, RungView]{
	What: "the rung", Lock: power.LockRung, Read: power.RungByID,
	Version: func(r power.Rung) int { return r.Version },
	Told:    func(r power.Rung) any { return tellRung(r).Rung }, View: tellRung,
	Machine: func(r power.Rung) *int64 { return &r.MachineID },
}

// mostRungs bounds a ladder.
const mostRungs = 60

func checkRung(r *ladder.Rung) error {
	err := input.CheckAll(input.OneLine("step", &r.Step), input.OneLine("sign", &r.Sign), input.OneLine("stop",
		&r.Stop))
	if err == nil && r.Step == "" {
		return action.Reject("step", "say what is in, or what is added")
	}
	return err
}

// proposal works out the ladder of a machine from what is fitted in it.
func proposal(ctx context.Context, h pg.Handle, machineID int64) ([]ladder.Rung, error) {
	fitted, err := appinventory.AssembliesOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	units := []ladder.Unit{}
	for _, a := range fitted {
		units = append(units, ladder.Unit{Title: a.Title, Kind: a.Kind, Slot: a.Slot})
	}
	return ladder.Propose(units), nil
}

// BuildLadder puts the rungs on a machine's ladder that are worked out from what is fitted in it. It has to have none.
func (s *Service) BuildLadder(ctx context.Context, actor action.Actor, machineID int64) (Power, error) {
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		there, err := power.RungsOf(ctx, tx, machineID)
		if err != nil {
			return err
		}
		if len(there) > 0 {
			return action.Reject("machine", "it has a ladder already; add rungs to it, or take some off")
		}
		proposed, err := proposal(ctx, tx, machineID)
		if err != nil {
			return err
		}
		if len(proposed) > mostRungs {
			proposed = proposed[:mostRungs]
		}
		for _, r := range proposed {
			if _, err := power.InsertRung(ctx, tx, machineID, action.ToKeep(r)); err != nil {
				return err
			}
		}
		return action.Record(ctx, tx, actor, eventBuildLadder, machineID, &machineID, nil,
			map[string]any{"rungs": len(proposed)})
	})
	if err != nil {
		return Power{}, err
	}
	return s.Power(ctx, actor, machineID)
}

// isTaken refuses the words of a rung that another one of the ladder has.
func isTaken(ctx context.Context, h pg.Handle, machineID, id int64, step string) error {
	rows, err := power.RungsOf(ctx, h, machineID)
	if err != nil {
		return err
	}
	if len(rows) >= mostRungs && id == 0 {
		return action.Reject("step", "the ladder has as many rungs as it may; put several things on one")
	}
	if slices.ContainsFunc(rows, func(r power.Rung) bool {
		return r.ID != id && strings.EqualFold(tellRung(r).Step, step)
	}) {
		return action.Reject("step", "another rung is called so; each needs its own words")
	}
	return nil
}

// AddRung puts a rung on top of a machine's ladder.
func (s *Service) AddRung(ctx context.Context, actor action.Actor, machineID int64, r ladder.Rung) (RungView, error) {
	if err := checkRung(&r); err != nil {
		return RungView{}, err
	}
	var added RungView
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		if err := isTaken(ctx, tx, machineID, 0, r.Step); err != nil {
			return err
		}
		id, err := power.InsertRung(ctx, tx, machineID, action.ToKeep(r))
		if err != nil {
			return err
		}
		added = RungView{ID: id, MachineID: machineID, Rung: r, Version: 1, Signs: []string{}}
		return action.Record(ctx, tx, actor, eventAddRung, id, &machineID, nil, r)
	})
	return added, err
}

// ChangeRung rewrites one, starting from a version.
func (s *Service) ChangeRung(ctx context.Context, actor action.Actor, id int64, version int,
	r ladder.Rung) (RungView, error) {
	if err := checkRung(&r); err != nil {
		return RungView{}, err
	}
	return rungs.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChangeRung,
		ID: id, Version: version}, func(tx *sqlx.Tx, before power.Rung) error {
		if before.Voided {
			return action.ErrNotFound
		}
		if err := isTaken(ctx, tx, before.MachineID, id, r.Step); err != nil {
			return err
		}
		before.Body = action.ToKeep(r)
		return power.UpdateRung(ctx, tx, before)
	})
}

var voidedRungs = action.Voiding[power.Rung]{Roles: action.MayWriteSheets, Event: eventVoidRung,
	Back: eventTakeBackVoidOfRung, IsVoided: func(r power.Rung) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r power.Rung, voided bool) error {
		r.Voided = voided
		return power.UpdateRung(ctx, tx, r)
	},
	MayComeBack: func(ctx context.Context, tx *sqlx.Tx, r power.Rung) error {
		return isTaken(ctx, tx, r.MachineID, r.ID, tellRung(r).Step)
	}}

// VoidRung takes one off the ladder.
func (s *Service) VoidRung(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return rungs.Void(ctx, s.kernel, actor, voidedRungs, id, version)
}

func (s *Service) undoVoidRung(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return rungs.Unvoid(ctx, s.kernel, actor, voidedRungs, e)
}
