package teardown

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/teardown"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	storeteardown "frugalheron/store/teardown"
)

// StartedTeardown is how a log begins.
type StartedTeardown struct {
	Purpose     string `json:"purpose" says:"text" maxLength:"300" doc:"What it is opened for"`
	Rows        int    `json:"rows" minimum:"1" maximum:"12" default:"4" required:"false" doc:"Of the tray"`
	Columns     int    `json:"columns" minimum:"1" maximum:"12" default:"6" required:"false"`
	ProcedureID *int64 `json:"procedureId,omitempty" doc:"A procedure of the model to start from"`
}

// StartTeardown begins a log. A machine is taken apart once at a time.
func (s *Service) StartTeardown(ctx context.Context, actor action.Actor, machineID int64,
	started StartedTeardown) (TeardownView, error) {
	var told TeardownView
	if err := input.OneLine("purpose", &started.Purpose); err != nil {
		return told, err
	}
	if started.Purpose == "" {
		return told, action.Reject("purpose", "say what it is opened for: whoever finds it open wants to know")
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		if started.ProcedureID != nil {
			if _, err := storeteardown.ProcedureByID(ctx, tx, *started.ProcedureID); err != nil {
				return input.Missing(err, "procedureId", "choose a procedure that is in the library")
			}
		}
		id, err := storeteardown.InsertTeardown(ctx, tx, actor.Account(),
			storeteardown.Teardown{MachineID: machineID, Purpose: started.Purpose, Rows: started.Rows,
				Columns: started.Columns, ProcedureID: started.ProcedureID})
		if pg.Violates(err, "teardown_open_key") {
			return action.Reject("purpose", "the machine is open already; go on with that log")
		}
		if err != nil {
			return err
		}
		if told, err = teardownByID(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventStartTeardown, id, &machineID, nil, started)
	})
	return told, err
}

// onTeardown does work on a log that is open, and reads it back. The machine's lock keeps its map and its log
// together.
func (s *Service) onTeardown(ctx context.Context, actor action.Actor, id int64,
	work func(tx *sqlx.Tx, now TeardownView) error) (TeardownView, error) {
	var after TeardownView
	one, err := storeteardown.TeardownByID(ctx, s.kernel.Reader(ctx), id)
	if err != nil {
		return after, err
	}
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, one.MachineID); err != nil {
			return err
		}
		now, err := teardownByID(ctx, tx, id)
		if err != nil {
			return err
		}
		if now.Outcome != string(teardown.StillOff) {
			return action.Reject("id", "the log has ended; start another when the machine is opened again")
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
func (s *Service) EndTeardown(ctx context.Context, actor action.Actor, id int64) (TeardownView, error) {
	return s.onTeardown(ctx, actor, id, func(tx *sqlx.Tx, now TeardownView) error {
		plugs, err := wiringOf(ctx, tx, now.MachineID)
		if err != nil {
			return err
		}
		if lacks := teardown.Blockers(now.logged(), plugs.states()); len(lacks) > 0 {
			why := lacks[0].Text
			for _, l := range lacks[1:] {
				why += "; " + l.Text
			}
			return action.Reject("id", "it does not count as closed: "+why)
		}
		outcome, why := teardown.OutcomeOf(now.logged(), plugs.states())
		if err := storeteardown.EndTeardown(ctx, tx, id, actor.Account(), string(outcome), why); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventEndTeardown, id, &now.MachineID, nil,
			map[string]any{"outcome": outcome, "why": why})
	})
}

func (s *Service) undoEndTeardown(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		one, err := storeteardown.TeardownByID(ctx, tx, e.SubjectID)
		if err != nil {
			return err
		}
		if _, err := inventory.LockMachine(ctx, tx, one.MachineID); err != nil {
			return err
		}
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		err = storeteardown.ReopenTeardown(ctx, tx, one.ID)
		if pg.Violates(err, "teardown_open_key") {
			return action.Reject("event", "the machine was opened again since; that log is the one to go on with")
		}
		if err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventReopenTeardown, one.ID, &one.MachineID, nil,
			map[string]any{"purpose": one.Purpose})
	})
}
