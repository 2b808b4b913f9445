package app

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/caution"
	"frugalheron/core/teardown"
	"frugalheron/core/wiring"
	"frugalheron/store"
)

// WrittenStep is a step as somebody typed it, or as it was tapped: the line goes first.
type WrittenStep struct {
	Line     string         `json:"line" maxLength:"4000" required:"false" doc:"As Lid | 4x M3x8 PH1 @A1 | unplug J5"`
	Step     *teardown.Step `json:"step,omitempty" doc:"The same in its parts, where there is no line"`
	Pictures []int64        `json:"pictures" maxItems:"40" required:"false" doc:"Pictures of the machine that show it"`
}

// read reads the step, and refuses what the tray does not hold.
func (w WrittenStep) read(tray teardown.Tray) (teardown.Step, error) {
	var step teardown.Step
	var err error
	switch {
	case strings.TrimSpace(w.Line) != "":
		step, err = teardown.ParseStep(w.Line)
	case w.Step != nil:
		step = w.Step.Whole()
	default:
		return step, &Invalid{"line", "say what comes off, as Lid | 4x M3x8 PH1 @A1"}
	}
	if err == nil {
		err = step.Check(tray)
	}
	var wrong *teardown.WrongError
	if errors.As(err, &wrong) {
		field := wrong.Field
		if w.Line != "" {
			field = "line"
		}
		return step, &Invalid{field, wrong.Why}
	}
	for _, text := range append([]string{step.Off, step.Note}, append(step.Tabs, step.Connectors...)...) {
		if err := noControl("line", text, "\n\t"); err != nil {
			return step, err
		}
	}
	return step, err
}

// ReadStep is a step as it is being written: nothing of it is kept.
type ReadStep struct {
	Step     teardown.Step     `json:"step"`
	Problem  string            `json:"problem" doc:"What cannot be read of it, else empty"`
	Cautions []caution.Caution `json:"cautions" doc:"What to take care of before it comes off, where it was not said at a step before"`
	Warnings []wiring.Warning  `json:"warnings" doc:"What may be mistaken among the plugs that it names"`
}

// ReadStep reads a step that is being written, to say what to take care of before it comes off.
func (a *App) ReadStep(ctx context.Context, actor Actor, teardownID int64, written WrittenStep) (ReadStep, error) {
	read := ReadStep{Cautions: []caution.Caution{}, Warnings: []wiring.Warning{}}
	now, err := a.Teardown(ctx, actor, teardownID)
	if err != nil {
		return read, err
	}
	step, err := written.read(trayOf(now))
	var invalid *Invalid
	if errors.As(err, &invalid) {
		read.Problem = invalid.Why
	} else if err != nil {
		return read, err
	}
	read.Step = step.Whole()
	said := caution.Said{}
	for _, s := range now.Steps {
		said.Now(s.Step.Cautions())
	}
	read.Cautions = caution.All(said.Now(step.Cautions()))
	plugs, err := wiringOf(ctx, a.db, now.MachineID)
	if err != nil {
		return read, err
	}
	for _, w := range wiring.Of(plugs.Warnings, step.Connectors) {
		if w.Kind != "not counted" {
			read.Warnings = append(read.Warnings, w)
		}
	}
	return read, nil
}

func trayOf(t ToldTeardown) teardown.Tray { return teardown.Tray{Rows: t.Rows, Columns: t.Columns} }

// checkPictures refuses pictures that are not of the machine.
func checkPictures(ctx context.Context, h store.Handle, machineID int64, ids []int64) error {
	for _, id := range ids {
		one, err := store.AttachmentByID(ctx, h, id)
		if err == nil && (one.Struck || one.MachineID == nil || *one.MachineID != machineID) {
			err = ErrNotFound
		}
		if err != nil {
			return missing(err, "pictures", fmt.Sprintf("picture %d is none of this machine", id))
		}
	}
	return nil
}

// AddStep writes down what came off, with its plugs: those of the map are open now, others are put on it to be
// described.
func (a *App) AddStep(ctx context.Context, actor Actor, teardownID int64, written WrittenStep) (ToldTeardown, error) {
	return a.onTeardown(ctx, actor, teardownID, func(tx *sqlx.Tx, now ToldTeardown) error {
		step, err := written.read(trayOf(now))
		if err != nil {
			return err
		}
		if err := checkPictures(ctx, tx, now.MachineID, written.Pictures); err != nil {
			return err
		}
		if err := unplug(ctx, tx, actor, now.MachineID, step.Connectors); err != nil {
			return err
		}
		id, err := store.InsertStep(ctx, tx, teardownID, actor.account(), toKeep(step.Whole()), toKeep(append([]int64{}, written.Pictures...)))
		if err != nil {
			return err
		}
		return record(ctx, tx, actor, "take off", "teardown step", id, &now.MachineID, nil, map[string]any{"off": step.Off, "line": step.String()})
	})
}

// unplug notes that plugs are out; a name that the map does not have is put on it.
func unplug(ctx context.Context, tx *sqlx.Tx, actor Actor, machineID int64, names []string) error {
	plugs, err := wiringOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	for _, name := range names {
		name = strings.TrimSpace(name)
		at := plugs.Find(name)
		var c ToldConnector
		switch {
		case at < 0:
			fresh := wiring.Connector{Name: name, FromBoard: "not said yet"}
			if err := checkConnector(ctx, tx, &fresh); err != nil {
				return err
			}
			id, err := mapConnector(ctx, tx, actor, machineID, fresh)
			if err != nil {
				return err
			}
			c = ToldConnector{ID: id, Placed: wiring.Placed{Connector: fresh}}
		case plugs.Connectors[at].SocketOnly:
			return &Invalid{"connectors", name + " is a socket without a plug on the map; say there what is plugged in"}
		default:
			c = plugs.Connectors[at]
		}
		if err := openConnector(ctx, tx, actor, machineID, c, true); err != nil {
			return err
		}
	}
	return nil
}

// onStep does work on a step of an open log, starting from a version.
func (a *App) onStep(ctx context.Context, actor Actor, id int64, version int, work func(tx *sqlx.Tx, now ToldTeardown, before ToldStep) error) (ToldTeardown, error) {
	row, err := store.StepByID(ctx, a.db, id)
	if err != nil {
		return ToldTeardown{}, err
	}
	return a.onTeardown(ctx, actor, row.TeardownID, func(tx *sqlx.Tx, now ToldTeardown) error {
		at := slices.IndexFunc(now.Steps, func(s ToldStep) bool { return s.ID == id })
		if at < 0 {
			return ErrNotFound
		}
		if now.Steps[at].Version != version {
			return &Stale{What: "the step", Newer: now.Steps[at]}
		}
		return work(tx, now, now.Steps[at])
	})
}

// ChangeStep rewrites what came off. A plug that the step does not name any more counts as plugged in, as
// nobody pulled it.
func (a *App) ChangeStep(ctx context.Context, actor Actor, id int64, version int, written WrittenStep) (ToldTeardown, error) {
	return a.onStep(ctx, actor, id, version, func(tx *sqlx.Tx, now ToldTeardown, before ToldStep) error {
		step, err := written.read(trayOf(now))
		if err != nil {
			return err
		}
		if err := before.Reversal.Fits(step); err != nil {
			return &Invalid{"fasteners", "some of its fasteners are noted as left over: " + err.Error()}
		}
		if err := checkPictures(ctx, tx, now.MachineID, written.Pictures); err != nil {
			return err
		}
		if before.State == teardown.Off {
			dropped := slices.DeleteFunc(slices.Clone(before.Connectors), func(name string) bool {
				return slices.ContainsFunc(step.Connectors, func(kept string) bool { return strings.EqualFold(kept, name) })
			})
			if err := plugIn(ctx, tx, actor, now.MachineID, dropped); err != nil {
				return err
			}
			if err := unplug(ctx, tx, actor, now.MachineID, step.Connectors); err != nil {
				return err
			}
		}
		if err := store.UpdateStep(ctx, tx, id, toKeep(step.Whole()), toKeep(append([]int64{}, written.Pictures...)), false); err != nil {
			return err
		}
		return record(ctx, tx, actor, "change step", "teardown step", id, &now.MachineID, map[string]any{"off": before.Off, "line": before.Line}, map[string]any{"off": step.Off, "line": step.String()})
	})
}

func plugIn(ctx context.Context, tx *sqlx.Tx, actor Actor, machineID int64, names []string) error {
	plugs, err := wiringOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	for _, name := range names {
		if at := plugs.Find(name); at >= 0 {
			if err := openConnector(ctx, tx, actor, machineID, plugs.Connectors[at], false); err != nil {
				return err
			}
		}
	}
	return nil
}

// StrikeStep takes a step out of the log that was entered by mistake; its plugs count as plugged in.
func (a *App) StrikeStep(ctx context.Context, actor Actor, id int64, version int) (ToldTeardown, error) {
	return a.onStep(ctx, actor, id, version, func(tx *sqlx.Tx, now ToldTeardown, before ToldStep) error {
		if before.State == teardown.Off {
			if err := plugIn(ctx, tx, actor, now.MachineID, before.Connectors); err != nil {
				return err
			}
		}
		if err := store.UpdateStep(ctx, tx, id, toKeep(before.Step), toKeep(before.Pictures), true); err != nil {
			return err
		}
		return record(ctx, tx, actor, "strike step", "teardown step", id, &now.MachineID, map[string]any{"off": before.Off, "line": before.Line}, nil)
	})
}

func (a *App) undoStrikeStep(ctx context.Context, actor Actor, e store.ToldEvent) error {
	row, err := store.StepByID(ctx, a.db, e.SubjectID)
	if err != nil {
		return err
	}
	_, err = a.onTeardown(ctx, actor, row.TeardownID, func(tx *sqlx.Tx, now ToldTeardown) error {
		if err := newestStill(ctx, tx, e); err != nil {
			return err
		}
		step, err := readKept[teardown.Step](row.Body)
		if err != nil {
			return err
		}
		reversal, err := readKept[teardown.Reversal](row.Reversal)
		if err != nil {
			return err
		}
		if reversal.State == teardown.Off {
			if err := unplug(ctx, tx, actor, now.MachineID, step.Connectors); err != nil {
				return err
			}
		}
		if err := store.UpdateStep(ctx, tx, row.ID, row.Body, row.Pictures, false); err != nil {
			return err
		}
		return record(ctx, tx, actor, "take back strike of step", "teardown step", row.ID, &now.MachineID, nil, map[string]any{"off": step.Off})
	})
	return err
}

// Reversed is how a step was put back.
type Reversed struct {
	teardown.Reversal
	Plugged []string `json:"plugged" maxItems:"60" required:"false" doc:"Connectors of the step that are plugged in again; the others stay open"`
}

// ReverseStep notes that what came off is back, or stays off for a reason. What a step leaves over is a
// finding of the machine.
func (a *App) ReverseStep(ctx context.Context, actor Actor, id int64, version int, r Reversed) (ToldTeardown, error) {
	return a.onStep(ctx, actor, id, version, func(tx *sqlx.Tx, now ToldTeardown, before ToldStep) error {
		if err := oneLine("reason", &r.Reason); err != nil {
			return err
		}
		r.Left = append([]teardown.LeftOver{}, r.Left...)
		for i := range r.Left {
			if err := oneLine("left", &r.Left[i].Reason); err != nil {
				return err
			}
		}
		if r.State == teardown.Off {
			r.Left, r.Reason, r.Plugged = r.Left[:0], "", nil
		}
		var wrong *teardown.WrongError
		if err := r.Reversal.Fits(before.Step); errors.As(err, &wrong) {
			return &Invalid{wrong.Field, wrong.Why}
		}
		for _, name := range r.Plugged {
			if !slices.ContainsFunc(before.Connectors, func(of string) bool { return strings.EqualFold(of, name) }) {
				return &Invalid{"plugged", name + " is no connector of this step"}
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
		if err := store.ReverseStep(ctx, tx, id, actor.account(), toKeep(r.Reversal), r.State == teardown.Off); err != nil {
			return err
		}
		if err := a.findLeftOver(ctx, tx, actor, now.MachineID, before, r.Reversal); err != nil {
			return err
		}
		deed := map[teardown.State]string{teardown.Back: "put back", teardown.Skipped: "leave off", teardown.Off: "take off again"}[r.State]
		return record(ctx, tx, actor, deed, "teardown step", id, &now.MachineID, map[string]any{"reversal": before.Reversal}, map[string]any{"off": before.Off, "reason": r.Reason, "reversal": r.Reversal})
	})
}

// findLeftOver makes a finding of what a step leaves over, once.
func (a *App) findLeftOver(ctx context.Context, tx *sqlx.Tx, actor Actor, machineID int64, step ToldStep, r teardown.Reversal) error {
	for _, text := range teardown.LeftOvers([]teardown.Logged{{N: step.N, Step: step.Step, Reversal: r}}) {
		words, _, _ := strings.Cut(text, ": ") // without what became of it
		there, err := store.FindingsOf(ctx, tx, machineID)
		if err != nil {
			return err
		}
		if slices.ContainsFunc(there, func(f store.Finding) bool { return f.Kind == leftOverKind && f.Place == words }) {
			continue
		}
		f := store.FindingFields{Subsystem: "plastics", Kind: leftOverKind, Place: words}
		if err := addFinding(ctx, tx, actor, machineID, f, store.SightingRow{On: today(), Severity: "watch", Note: text}); err != nil {
			return err
		}
	}
	return nil
}

// leftOverKind is the kind of a finding that putting together leaves.
const leftOverKind = "fastener left over"
