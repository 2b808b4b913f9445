package app

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/caution"
	"frugalheron/core/reckoning"
	"frugalheron/core/teardown"
	"frugalheron/core/wiring"
	"frugalheron/store"
)

// ToldStep is a step of a log, with what is to be known at it.
type ToldStep struct {
	ID int64 `json:"id"`
	N  int   `json:"n" doc:"Number in the log, from 1"`
	teardown.Step
	teardown.Reversal
	Line       string            `json:"line" doc:"The step as a line"`
	Pictures   []int64           `json:"pictures"`
	Cautions   []caution.Caution `json:"cautions" doc:"What to take care of at taking off, where it was not said at a step before it"`
	BackOn     []caution.Caution `json:"backOn" doc:"What to take care of at putting back, where it is not said at a step that goes on before it"`
	Warnings   []wiring.Warning  `json:"warnings" doc:"What may be mistaken among its connectors"`
	Open       []string          `json:"open" doc:"Its connectors that are open now"`
	By         string            `json:"by"`
	At         time.Time         `json:"at"`
	ReversedBy string            `json:"reversedBy"`
	ReversedAt *time.Time        `json:"reversedAt"`
	Version    int               `json:"version"`
}

// ToldTeardown is a log and what it amounts to.
type ToldTeardown struct {
	store.Teardown
	Machine   string             `json:"machine" doc:"Accession number and name"`
	Steps     []ToldStep         `json:"steps"`
	Cells     []teardown.Cell    `json:"cells" doc:"The tray, row by row"`
	FreeCell  string             `json:"freeCell" doc:"The first cell that holds nothing; empty when all are taken"`
	Sums      teardown.Sums      `json:"sums"`
	Lacks     []teardown.Lacking `json:"lacks" doc:"What keeps it from counting as closed"`
	LeftOver  []string           `json:"leftOver" doc:"Fasteners that did not go back"`
	Next      int                `json:"next" doc:"Number of the step to be reversed now; 0 when none is"`
	Procedure string             `json:"procedure" doc:"What the procedure is called that it started from; empty for none"`
	Warnings  string             `json:"procedureWarnings" doc:"What the procedure says before one starts"`
	Upcoming  []teardown.Step    `json:"upcoming" doc:"Steps of the procedure that the log does not have yet"`
	Changes   []teardown.Change  `json:"changes" doc:"How this machine differs from the procedure"`
}

// OpenedUp is what is known of taking a machine apart.
type OpenedUp struct {
	Stage      reckoning.Stage      `json:"stage"`
	Now        *ToldTeardown        `json:"now" doc:"The log that is open, or null"`
	Before     []store.Teardown     `json:"before" doc:"Logs that ended, the newest first"`
	Procedures []store.Procedure    `json:"procedures" doc:"Of the machine's model"`
	Variants   []teardown.Differing `json:"variants" doc:"What is not made the same on all machines of the model"`
}

// logged are the steps as the core knows them.
func (t ToldTeardown) logged() []teardown.Logged {
	steps := make([]teardown.Logged, len(t.Steps))
	for i, s := range t.Steps {
		steps[i] = teardown.Logged{N: s.N, Step: s.Step, Reversal: s.Reversal}
	}
	return steps
}

// OpenedUp reads it.
func (a *App) OpenedUp(ctx context.Context, actor Actor, machineID int64) (OpenedUp, error) {
	out := OpenedUp{Before: []store.Teardown{}, Procedures: []store.Procedure{}, Variants: []teardown.Differing{}}
	machine, err := a.Machine(ctx, actor, machineID)
	if err != nil {
		return out, err
	}
	logs, err := store.TeardownsOf(ctx, a.db, machineID)
	if err != nil {
		return out, err
	}
	for _, one := range logs {
		if one.Outcome != string(teardown.StillOff) {
			out.Before = append(out.Before, one)
			continue
		}
		told, err := tellTeardown(ctx, a.db, machine, one)
		if err != nil {
			return out, err
		}
		out.Now = &told
	}
	plugs, err := wiringOf(ctx, a.db, machineID)
	if err != nil {
		return out, err
	}
	out.Stage = openedStage(out.Now, len(out.Before), plugs)
	if machine.Model == "" {
		return out, nil
	}
	if out.Procedures, err = store.ProceduresOf(ctx, a.db, machine.Maker, machine.Model); err != nil {
		return out, err
	}
	out.Variants, err = a.variants(ctx, actor, machine.Maker, machine.Model)
	return out, err
}

// openedStage says how far opening up has come: in hand while a log is open, and in need of attention while a
// connector is open although none is, or two steps share a cell.
func openedStage(now *ToldTeardown, before int, plugs Wiring) reckoning.Stage {
	stage := reckoning.Stage{State: reckoning.Untouched}
	switch {
	case now == nil && plugs.Open > 0:
		return reckoning.Stage{State: reckoning.NeedsAttention, Count: plugs.Open}
	case now != nil:
		stage.State = reckoning.InHand
		for _, cell := range now.Cells {
			if cell.Mixed != "" {
				stage.State = reckoning.NeedsAttention
				stage.Count++
			}
		}
	case before > 0:
		stage.State = reckoning.Settled
	}
	return stage
}

// Teardown reads a log.
func (a *App) Teardown(ctx context.Context, actor Actor, id int64) (ToldTeardown, error) {
	if err := actor.must(MayLook); err != nil {
		return ToldTeardown{}, err
	}
	return teardownByID(ctx, a.db, id)
}

func teardownByID(ctx context.Context, h store.Handle, id int64) (ToldTeardown, error) {
	one, err := store.TeardownByID(ctx, h, id)
	if err != nil {
		return ToldTeardown{}, err
	}
	machine, err := store.MachineByID(ctx, h, one.MachineID)
	if err != nil {
		return ToldTeardown{}, err
	}
	return tellTeardown(ctx, h, machine, one)
}

func tellTeardown(ctx context.Context, h store.Handle, machine store.Machine, one store.Teardown) (ToldTeardown, error) {
	t := ToldTeardown{Teardown: one, Machine: machine.Accession + " " + machine.Name, Steps: []ToldStep{}, Upcoming: []teardown.Step{}, Changes: []teardown.Change{}}
	rows, err := store.StepsOf(ctx, h, one.ID)
	if err != nil {
		return t, err
	}
	plugs, err := wiringOf(ctx, h, one.MachineID)
	if err != nil {
		return t, err
	}
	for i, row := range rows {
		step, err := tellStep(row, plugs)
		if err != nil {
			return t, err
		}
		step.N = i + 1
		t.Steps = append(t.Steps, step)
	}
	steps, tray := t.logged(), teardown.Tray{Rows: one.Rows, Columns: one.Columns}
	sayOnce(t.Steps)
	t.Cells, t.FreeCell = tray.Filled(steps), tray.Free(steps)
	t.Sums, t.LeftOver = teardown.Sum(steps, plugs.states()), teardown.LeftOvers(steps)
	t.Lacks = []teardown.Lacking{}
	if one.Outcome == string(teardown.StillOff) {
		t.Lacks = teardown.Lacks(steps, plugs.states())
	}
	if next := teardown.Next(steps); next != nil {
		t.Next = next.N
	}
	if one.ProcedureID != nil {
		err = t.besideProcedure(ctx, h, *one.ProcedureID)
	}
	return t, err
}

func tellStep(row store.StepRow, plugs Wiring) (ToldStep, error) {
	step, err := readKept[teardown.Step](row.Body)
	if err != nil {
		return ToldStep{}, err
	}
	reversal, err := readKept[teardown.Reversal](row.Reversal)
	if err != nil {
		return ToldStep{}, err
	}
	pictures, err := readKept[[]int64](row.Pictures)
	if err != nil {
		return ToldStep{}, err
	}
	reversal.Left = append([]teardown.LeftOver{}, reversal.Left...)
	told := ToldStep{
		ID: row.ID, Step: step.Whole(), Reversal: reversal, Line: step.String(), Pictures: append([]int64{}, pictures...), Open: []string{},
		Warnings: wiring.Of(plugs.Warnings, step.Connectors), By: row.By, At: row.At, ReversedBy: row.ReversedBy, ReversedAt: row.ReversedAt, Version: row.Version,
	}
	for _, name := range step.Connectors {
		if at := plugs.Find(name); at >= 0 && plugs.Connectors[at].Open {
			told.Open = append(told.Open, plugs.Connectors[at].Name)
		}
	}
	return told, nil
}

// sayOnce gives each caution to the step at which it is due first, on the way out and, of those that are off, on
// the way back.
func sayOnce(steps []ToldStep) {
	out, back := caution.Said{}, caution.Said{}
	for i := range steps {
		steps[i].Cautions = caution.All(out.Now(steps[i].Step.Cautions()))
		steps[i].BackOn = []caution.Caution{}
	}
	for i := len(steps) - 1; i >= 0; i-- {
		if steps[i].State == teardown.Off {
			steps[i].BackOn = caution.All(back.Now(steps[i].Step.Cautions()))
		}
	}
}

func (t *ToldTeardown) besideProcedure(ctx context.Context, h store.Handle, id int64) error {
	p, err := store.ProcedureByID(ctx, h, id)
	if err != nil {
		return err
	}
	t.Procedure, t.Warnings = p.Title, p.Warnings
	usual, err := stepsOf(p.Body)
	if err != nil {
		return err
	}
	done := make([]teardown.Step, len(t.Steps))
	for i, s := range t.Steps {
		done[i] = s.Step
	}
	t.Upcoming = teardown.Upcoming(usual, done)
	t.Changes = teardown.Compare(usual, done)
	// What has not come off yet is no difference while the log is open.
	if t.Outcome == string(teardown.StillOff) {
		t.Changes = slices.DeleteFunc(t.Changes, func(c teardown.Change) bool { return c.Step == 0 })
	}
	return nil
}

// StartedTeardown is how a log begins.
type StartedTeardown struct {
	Purpose     string `json:"purpose" maxLength:"300" doc:"What it is opened for"`
	Rows        int    `json:"rows" minimum:"1" maximum:"12" default:"4" required:"false" doc:"Of the tray"`
	Columns     int    `json:"columns" minimum:"1" maximum:"12" default:"6" required:"false"`
	ProcedureID *int64 `json:"procedureId,omitempty" doc:"A procedure of the model to start from"`
}

// StartTeardown begins a log. A machine is taken apart once at a time.
func (a *App) StartTeardown(ctx context.Context, actor Actor, machineID int64, started StartedTeardown) (ToldTeardown, error) {
	var told ToldTeardown
	if err := oneLine("purpose", &started.Purpose); err != nil {
		return told, err
	}
	if started.Purpose == "" {
		return told, &Invalid{"purpose", "say what it is opened for: whoever finds it open wants to know"}
	}
	err := a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := store.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		if started.ProcedureID != nil {
			if _, err := store.ProcedureByID(ctx, tx, *started.ProcedureID); err != nil {
				return missing(err, "procedureId", "choose a procedure that is in the library")
			}
		}
		id, err := store.InsertTeardown(ctx, tx, actor.account(), store.Teardown{MachineID: machineID, Purpose: started.Purpose, Rows: started.Rows, Columns: started.Columns, ProcedureID: started.ProcedureID})
		if store.Violates(err, "teardown_open_key") {
			return &Invalid{"purpose", "the machine is open already; go on with that log"}
		}
		if err != nil {
			return err
		}
		if told, err = teardownByID(ctx, tx, id); err != nil {
			return err
		}
		return record(ctx, tx, actor, "start teardown", "teardown", id, &machineID, nil, started)
	})
	return told, err
}

// onTeardown does work on a log that is open, and reads it back. The machine's lock keeps its map and its log
// together.
func (a *App) onTeardown(ctx context.Context, actor Actor, id int64, work func(tx *sqlx.Tx, now ToldTeardown) error) (ToldTeardown, error) {
	var after ToldTeardown
	one, err := store.TeardownByID(ctx, a.db, id)
	if err != nil {
		return after, err
	}
	err = a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := store.LockMachine(ctx, tx, one.MachineID); err != nil {
			return err
		}
		now, err := teardownByID(ctx, tx, id)
		if err != nil {
			return err
		}
		if now.Outcome != string(teardown.StillOff) {
			return &Invalid{"id", "the log has ended; start another when the machine is opened again"}
		}
		if err := work(tx, now); err != nil {
			return err
		}
		after, err = teardownByID(ctx, tx, id)
		return err
	})
	return after, err
}

// EndTeardown calls a machine closed. While anything is missing the answer is Invalid, and names all of it.
func (a *App) EndTeardown(ctx context.Context, actor Actor, id int64) (ToldTeardown, error) {
	return a.onTeardown(ctx, actor, id, func(tx *sqlx.Tx, now ToldTeardown) error {
		plugs, err := wiringOf(ctx, tx, now.MachineID)
		if err != nil {
			return err
		}
		if lacks := teardown.Lacks(now.logged(), plugs.states()); len(lacks) > 0 {
			why := lacks[0].Text
			for _, l := range lacks[1:] {
				why += "; " + l.Text
			}
			return &Invalid{"id", "it does not count as closed: " + why}
		}
		outcome, why := teardown.OutcomeOf(now.logged(), plugs.states())
		if err := store.EndTeardown(ctx, tx, id, actor.account(), string(outcome), why); err != nil {
			return err
		}
		return record(ctx, tx, actor, "end teardown", "teardown", id, &now.MachineID, nil, map[string]any{"outcome": outcome, "why": why})
	})
}

func (a *App) undoEndTeardown(ctx context.Context, actor Actor, e store.ToldEvent) error {
	return a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		one, err := store.TeardownByID(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		if _, err := store.LockMachine(ctx, tx, one.MachineID); err != nil {
			return err
		}
		if err := newestStill(ctx, tx, e); err != nil {
			return err
		}
		err = store.ReopenTeardown(ctx, tx, one.ID)
		if store.Violates(err, "teardown_open_key") {
			return &Invalid{"event", "the machine was opened again since; that log is the one to go on with"}
		}
		if err != nil {
			return err
		}
		return record(ctx, tx, actor, "reopen teardown", "teardown", one.ID, &one.MachineID, nil, map[string]any{"purpose": one.Purpose})
	})
}

// stepsOf reads the steps of a procedure. A line that cannot be read is Invalid, with its number.
func stepsOf(body string) ([]teardown.Step, error) {
	steps := []teardown.Step{}
	for i, line := range linesOf(body) {
		if isBlankOrComment(line) {
			continue
		}
		s, err := teardown.ParseStep(line)
		var wrong *teardown.WrongError
		if errors.As(err, &wrong) {
			return nil, &Invalid{"body", fmt.Sprintf("line %d: %s", i+1, wrong.Why)}
		}
		steps = append(steps, s)
	}
	return steps, nil
}
