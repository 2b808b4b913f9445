package teardown

import (
	"context"
	"slices"
	"time"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/core/caution"
	"frugalheron/core/teardown"
	"frugalheron/core/wiring"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	storeteardown "frugalheron/store/teardown"
)

// StepView is a step of a log, with what is to be known at it.
type StepView struct {
	ID int64 `json:"id"`
	N  int   `json:"n" doc:"Number in the log, from 1"`
	teardown.Step
	teardown.Reversal
	Line       string            `json:"line" says:"text" doc:"The step as a line"`
	Pictures   []int64           `json:"pictures"`
	Cautions   []caution.Caution `json:"cautions" doc:"What to take care of at taking off, where it was not said at a step before it"`
	BackOn     []caution.Caution `json:"backOn" doc:"What to take care of at putting back, where it is not said at a step that goes on before it"`
	Warnings   []wiring.Warning  `json:"warnings" doc:"What may be mistaken among its connectors"`
	Open       []string          `json:"open" doc:"Its connectors that are open now"`
	First      []string          `json:"first" says:"text" doc:"What must be back before it, as it was taken off after it or needs it off"`
	By         string            `json:"by"`
	At         time.Time         `json:"at"`
	ReversedBy string            `json:"reversedBy"`
	ReversedAt *time.Time        `json:"reversedAt"`
	Version    int               `json:"version"`
}

// TeardownView is a log and what it amounts to.
type TeardownView struct {
	Teardown
	Machine   string             `json:"machine" says:"text" doc:"Accession number and name"`
	Steps     []StepView         `json:"steps"`
	Cells     []teardown.Cell    `json:"cells" doc:"The tray, row by row"`
	FreeCell  string             `json:"freeCell" doc:"The first cell that holds nothing; empty when all are taken"`
	Sums      teardown.Sums      `json:"sums"`
	Blockers  []teardown.Blocker `json:"blockers" doc:"What keeps it from counting as closed"`
	LeftOver  []string           `json:"leftOver" says:"text" doc:"Fasteners that did not go back"`
	Next      int                `json:"next" doc:"Number of the step to be reversed now; 0 when none is"`
	Procedure string             `json:"procedure" says:"text" doc:"What the procedure is called that it started from; empty for none"`
	Warnings  string             `json:"procedureWarnings" says:"text" doc:"What the procedure says before one starts"`
	Upcoming  []teardown.Step    `json:"upcoming" doc:"Steps of the procedure that the log does not have yet"`
	Changes   []teardown.Change  `json:"changes" doc:"How this machine differs from the procedure"`

	held []caution.Holding // what adds to cautions
}

// logged are the steps as the core knows them.
func (t TeardownView) logged() []teardown.Logged {
	steps := make([]teardown.Logged, len(t.Steps))
	for i, s := range t.Steps {
		steps[i] = teardown.Logged{N: s.N, Step: s.Step, Reversal: s.Reversal}
	}
	return steps
}

// Teardown reads a log.
func (s *Service) Teardown(ctx context.Context, actor action.Actor, id int64) (TeardownView, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return TeardownView{}, err
	}
	return teardownByID(ctx, s.kernel.Reader(ctx), id)
}

func teardownByID(ctx context.Context, h pg.Handle, id int64) (TeardownView, error) {
	one, err := storeteardown.TeardownByID(ctx, h, id)
	if err != nil {
		return TeardownView{}, err
	}
	machine, err := inventory.MachineByID(ctx, h, one.MachineID)
	if err != nil {
		return TeardownView{}, err
	}
	return tellTeardown(ctx, h, machine.Accession+" "+machine.Name, one)
}

func tellTeardown(ctx context.Context, h pg.Handle, machine string,
	one storeteardown.Teardown) (TeardownView, error) {
	t := TeardownView{Teardown: Teardown(one), Machine: machine, Steps: []StepView{},
		Upcoming: []teardown.Step{}, Changes: []teardown.Change{}}
	rows, err := storeteardown.StepsOf(ctx, h, one.ID)
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
	if t.held, err = condition.HoldingsIn(ctx, h, one.MachineID); err != nil {
		return t, err
	}
	steps, tray := t.logged(), teardown.Tray{Rows: one.Rows, Columns: one.Columns}
	for i, step := range t.Steps {
		t.Steps[i].First = teardown.TooEarly(steps, step.N)
	}
	t.sayOnce()
	t.Cells, t.FreeCell = tray.Filled(steps), tray.Free(steps)
	t.Sums, t.LeftOver = teardown.Sum(steps, plugs.states()), teardown.LeftOvers(steps)
	t.Blockers = []teardown.Blocker{}
	if one.Outcome == string(teardown.StillOff) {
		t.Blockers = teardown.Blockers(steps, plugs.states())
	}
	if next := teardown.Next(steps); next != nil {
		t.Next = next.N
	}
	if one.ProcedureID != nil {
		err = t.besideProcedure(ctx, h, *one.ProcedureID)
	}
	return t, err
}

func tellStep(row storeteardown.StepRow, plugs Wiring) (StepView, error) {
	step, err := action.ReadKept[teardown.Step](row.Body)
	if err != nil {
		return StepView{}, err
	}
	reversal, err := action.ReadKept[teardown.Reversal](row.Reversal)
	if err != nil {
		return StepView{}, err
	}
	pictures, err := action.ReadKept[[]int64](row.Pictures)
	if err != nil {
		return StepView{}, err
	}
	reversal.Left = append([]teardown.LeftOver{}, reversal.Left...)
	told := StepView{
		ID: row.ID, Step: step.Whole(), Reversal: reversal, Line: step.String(),
		Pictures: append([]int64{}, pictures...), Open: []string{},
		Warnings: wiring.Of(plugs.Warnings, step.Connectors), By: row.By, At: row.At, ReversedBy: row.ReversedBy,
		ReversedAt: row.ReversedAt, Version: row.Version,
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
func (t *TeardownView) sayOnce() {
	out, back := caution.Shown{}, caution.Shown{}
	for i := range t.Steps {
		t.Steps[i].Cautions = caution.All(out.Now(t.Steps[i].Step.Cautions(t.held)))
		t.Steps[i].BackOn = []caution.Caution{}
	}
	for i := len(t.Steps) - 1; i >= 0; i-- {
		if t.Steps[i].State == teardown.Off {
			t.Steps[i].BackOn = caution.All(back.Now(t.Steps[i].Step.Cautions(t.held)))
		}
	}
}

func (t *TeardownView) besideProcedure(ctx context.Context, h pg.Handle, id int64) error {
	p, err := storeteardown.ProcedureByID(ctx, h, id)
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
