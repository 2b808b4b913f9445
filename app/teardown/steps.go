package teardown

import (
	"context"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/core/teardown"
	"frugalheron/store/history"
	storeteardown "frugalheron/store/teardown"
)

// AddStep writes down what came off, with its plugs: those of the map are open now, others are put on it to be
// described.
func (s *Service) AddStep(ctx context.Context, actor action.Actor, teardownID int64,
	written StepInput) (TeardownView, error) {
	return s.onTeardown(ctx, actor, teardownID, func(tx *sqlx.Tx, now TeardownView) error {
		step, err := written.read(trayOf(now))
		if err != nil {
			return err
		}
		if err := inventory.OfMachine(ctx, tx, now.MachineID, picturesOf(written.Pictures)...); err != nil {
			return err
		}
		if err := unplug(ctx, tx, actor, now.MachineID, step.Connectors); err != nil {
			return err
		}
		id, err := storeteardown.InsertStep(ctx, tx, teardownID, actor.Account(), action.ToKeep(step.Whole()),
			action.ToKeep(append([]int64{}, written.Pictures...)))
		if err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeOff, id, &now.MachineID, nil,
			map[string]any{"off": step.Off, "line": step.String()})
	})
}

// onStep does work on a step of an open log, starting from a version.
func (s *Service) onStep(ctx context.Context, actor action.Actor, id int64, version int,
	work func(tx *sqlx.Tx, now TeardownView, before StepView) error) (TeardownView, error) {
	row, err := storeteardown.StepByID(ctx, s.kernel.Reader(ctx), id)
	if err != nil {
		return TeardownView{}, err
	}
	return s.onTeardown(ctx, actor, row.TeardownID, func(tx *sqlx.Tx, now TeardownView) error {
		at := slices.IndexFunc(now.Steps, func(step StepView) bool { return step.ID == id })
		if at < 0 {
			return action.ErrNotFound
		}
		if now.Steps[at].Version != version {
			return &action.Stale{What: "the step", Newer: now.Steps[at]}
		}
		return work(tx, now, now.Steps[at])
	})
}

// ChangeStep rewrites what came off. A plug that the step does not name any more counts as plugged in, as
// nobody pulled it.
func (s *Service) ChangeStep(ctx context.Context, actor action.Actor, id int64, version int,
	written StepInput) (TeardownView, error) {
	return s.onStep(ctx, actor, id, version, func(tx *sqlx.Tx, now TeardownView, before StepView) error {
		step, err := written.read(trayOf(now))
		if err != nil {
			return err
		}
		if err := before.Reversal.Fits(step); err != nil {
			return action.Reject("fasteners", "some of its fasteners are noted as left over: "+err.Error())
		}
		if err := inventory.OfMachine(ctx, tx, now.MachineID, picturesOf(written.Pictures)...); err != nil {
			return err
		}
		if before.State == teardown.Off {
			dropped := slices.DeleteFunc(slices.Clone(before.Connectors), func(name string) bool {
				return slices.ContainsFunc(step.Connectors, func(kept string) bool {
					return strings.EqualFold(kept, name)
				})
			})
			if err := plugIn(ctx, tx, actor, now.MachineID, dropped); err != nil {
				return err
			}
			if err := unplug(ctx, tx, actor, now.MachineID, step.Connectors); err != nil {
				return err
			}
		}
		if err := storeteardown.UpdateStep(ctx, tx, id, action.ToKeep(step.Whole()),
			action.ToKeep(append([]int64{}, written.Pictures...)), false); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventChangeStep, id, &now.MachineID,
			map[string]any{"off": before.Off, "line": before.Line},
			map[string]any{"off": step.Off, "line": step.String()})
	})
}

// VoidStep takes a step out of the log that was entered by mistake, and returns the event; its plugs count as
// plugged in.
func (s *Service) VoidStep(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	_, err = s.onStep(ctx, actor, id, version, func(tx *sqlx.Tx, now TeardownView, before StepView) error {
		if before.State == teardown.Off {
			if err := plugIn(ctx, tx, actor, now.MachineID, before.Connectors); err != nil {
				return err
			}
		}
		if err := storeteardown.UpdateStep(ctx, tx, id, action.ToKeep(before.Step), action.ToKeep(before.Pictures),
			true); err != nil {
			return err
		}
		event, err = action.RecordEvent(ctx, tx, actor, eventVoidStep, id, &now.MachineID,
			map[string]any{"off": before.Off, "line": before.Line}, nil)
		return err
	})
	return event, err
}

func (s *Service) undoVoidStep(ctx context.Context, actor action.Actor, e history.EventRow) error {
	row, err := storeteardown.StepByID(ctx, s.kernel.Reader(ctx), e.SubjectID)
	if err != nil {
		return err
	}
	_, err = s.onTeardown(ctx, actor, row.TeardownID, func(tx *sqlx.Tx, now TeardownView) error {
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		step, err := action.ReadKept[teardown.Step](row.Body)
		if err != nil {
			return err
		}
		reversal, err := action.ReadKept[teardown.Reversal](row.Reversal)
		if err != nil {
			return err
		}
		if reversal.State == teardown.Off {
			if err := unplug(ctx, tx, actor, now.MachineID, step.Connectors); err != nil {
				return err
			}
		}
		if err := storeteardown.UpdateStep(ctx, tx, row.ID, row.Body, row.Pictures, false); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeBackVoidOfStep, row.ID, &now.MachineID, nil,
			map[string]any{"off": step.Off})
	})
	return err
}
