package teardown

import (
	"context"
	"errors"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/core/caution"
	"frugalheron/core/malformed"
	"frugalheron/core/teardown"
	"frugalheron/core/wiring"
	storeinventory "frugalheron/store/inventory"
)

// StepInput is a step as somebody typed it, or as it was tapped: the line goes first.
type StepInput struct {
	Line     string         `json:"line" says:"text" maxLength:"4000" required:"false" doc:"As Lid | 4x M3x8 PH1 @A1 | unplug J5"`
	Step     *teardown.Step `json:"step,omitempty" doc:"The same in its parts, where there is no line"`
	Pictures []int64        `json:"pictures" maxItems:"40" required:"false" doc:"Pictures of the machine that show it"`
}

// read reads the step, and refuses what the tray does not hold.
func (w StepInput) read(tray teardown.Tray) (teardown.Step, error) {
	var step teardown.Step
	var err error
	switch {
	case strings.TrimSpace(w.Line) != "":
		step, err = teardown.ParseStep(w.Line)
	case w.Step != nil:
		step = w.Step.Whole()
	default:
		return step, action.Reject("line", "say what comes off, as Lid | 4x M3x8 PH1 @A1")
	}
	if err == nil {
		err = step.Check(tray)
	}
	var wrong *malformed.Error
	if errors.As(err, &wrong) {
		field := wrong.Field
		if w.Line != "" {
			field = "line"
		}
		return step, action.Reject(field, wrong.Err.Error())
	}
	for _, text := range append([]string{step.Off, step.Note}, append(step.Tabs, step.Connectors...)...) {
		if err := input.NoControl("line", text, "\n\t"); err != nil {
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
func (s *Service) ReadStep(ctx context.Context, actor action.Actor, teardownID int64,
	written StepInput) (ReadStep, error) {
	read := ReadStep{Cautions: []caution.Caution{}, Warnings: []wiring.Warning{}}
	now, err := s.Teardown(ctx, actor, teardownID)
	if err != nil {
		return read, err
	}
	step, err := written.read(trayOf(now))
	var invalid *action.Invalid
	if errors.As(err, &invalid) {
		read.Problem = invalid.Why
	} else if err != nil {
		return read, err
	}
	read.Step = step.Whole()
	said := caution.Shown{}
	for _, step := range now.Steps {
		said.Now(step.Step.Cautions(now.held))
	}
	read.Cautions = caution.All(said.Now(step.Cautions(now.held)))
	plugs, err := wiringOf(ctx, s.kernel.Reader(ctx), now.MachineID)
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

func trayOf(t TeardownView) teardown.Tray { return teardown.Tray{Rows: t.Rows, Columns: t.Columns} }

// picturesOf names the pictures of a step.
func picturesOf(ids []int64) []inventory.Named {
	pictures := make([]inventory.Named, len(ids))
	for i, id := range ids {
		pictures[i] = inventory.NamedAs("pictures", storeinventory.OwnedPicture, id)
	}
	return pictures
}
