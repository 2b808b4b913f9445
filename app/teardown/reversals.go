package teardown

import (
	"context"
	"errors"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/input"
	"frugalheron/core/malformed"
	"frugalheron/core/teardown"
	storecondition "frugalheron/store/condition"
	storeteardown "frugalheron/store/teardown"
)

// Reversed is how a step was put back.
type Reversed struct {
	teardown.Reversal
	Plugged []string `json:"plugged" maxItems:"60" required:"false" doc:"Connectors of the step that are plugged in again; the others stay open"`
}

// ReverseStep notes that what came off is back, or stays off for a reason. What a step leaves over is a
// finding of the machine.
func (s *Service) ReverseStep(ctx context.Context, actor action.Actor, id int64, version int,
	r Reversed) (TeardownView, error) {
	return s.onStep(ctx, actor, id, version, func(tx *sqlx.Tx, now TeardownView, before StepView) error {
		if err := input.OneLine("reason", &r.Reason); err != nil {
			return err
		}
		r.Left = append([]teardown.LeftOver{}, r.Left...)
		for i := range r.Left {
			if err := input.OneLine("left", &r.Left[i].Reason); err != nil {
				return err
			}
		}
		if r.State == teardown.Off {
			r.Left, r.Reason, r.Plugged = r.Left[:0], "", nil
		}
		var wrong *malformed.Error
		if err := r.Reversal.Fits(before.Step); errors.As(err, &wrong) {
			return action.Reject(wrong.Field, wrong.Err.Error())
		}
		for _, name := range r.Plugged {
			if !slices.ContainsFunc(before.Connectors, func(of string) bool { return strings.EqualFold(of, name) }) {
				return action.Reject("plugged", name+" is no connector of this step")
			}
		}
		if err := plugIn(ctx, tx, actor, now.MachineID, r.Plugged); err != nil {
			return err
		}
		if r.State == teardown.Off && before.State != teardown.Off {
			if err := unplug(ctx, tx, actor, now.MachineID, before.Connectors); err != nil {
				return err
			}
		}
		if err := storeteardown.ReverseStep(ctx, tx, id, actor.Account(), action.ToKeep(r.Reversal),
			r.State == teardown.Off); err != nil {
			return err
		}
		if err := s.findLeftOver(ctx, tx, actor, now.MachineID, before, r.Reversal); err != nil {
			return err
		}
		done := map[teardown.State]*action.Event{teardown.Back: eventPutBack, teardown.Skipped: eventLeaveOff,
			teardown.Off: eventTakeOffAgain}[r.State]
		return action.Record(ctx, tx, actor, done, id, &now.MachineID, map[string]any{"reversal": before.Reversal},
			map[string]any{"off": before.Off, "reason": r.Reason, "reversal": r.Reversal})
	})
}

// findLeftOver makes a finding of what a step leaves over, once.
func (s *Service) findLeftOver(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64, step StepView,
	r teardown.Reversal) error {
	for _, text := range teardown.LeftOvers([]teardown.Logged{{N: step.N, Step: step.Step, Reversal: r}}) {
		words, _, _ := strings.Cut(text, ": ") // without what became of it
		there, err := storecondition.FindingsOf(ctx, tx, machineID)
		if err != nil {
			return err
		}
		if slices.ContainsFunc(there, func(f storecondition.Finding) bool {
			return f.Kind == leftOverKind && f.Place == words
		}) {
			continue
		}
		f := condition.FindingInput{Subsystem: "plastics", Kind: leftOverKind, Place: words}
		if err := condition.AddFinding(ctx, tx, actor, machineID, f,
			storecondition.ObservationRow{On: actor.Today(), Severity: "watch", Note: text}); err != nil {
			return err
		}
	}
	return nil
}

// leftOverKind is the kind of a finding that putting together leaves.
const leftOverKind = "fastener left over"
