package teardown

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/sheets"
	"frugalheron/core/malformed"
	"frugalheron/core/teardown"
	"frugalheron/store/pg"
	storeteardown "frugalheron/store/teardown"
)

func isBlankOrComment(line string) bool {
	line = strings.TrimSpace(line)
	return line == "" || strings.HasPrefix(line, "#")
}

// Procedures lists how models are taken apart.
func (s *Service) Procedures(ctx context.Context, actor action.Actor) ([]Procedure, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	all, err := storeteardown.ProceduresOf(ctx, s.kernel.Reader(ctx), "", "")
	return action.Views(all, procedureOf), err
}

// ProceduresOf lists how a model is taken apart.
func (s *Service) ProceduresOf(ctx context.Context, actor action.Actor, maker, model string) ([]Procedure, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	rows, err := storeteardown.ProceduresOf(ctx, s.kernel.Reader(ctx), maker, model)
	return action.Views(rows, procedureOf), err
}

// ProcedureView is a procedure with its steps read, and what is not made the same on all machines.
type ProcedureView struct {
	Procedure
	Steps    []teardown.Step      `json:"steps"`
	Variants []teardown.Differing `json:"variants"`
}

// Procedure reads one.
func (s *Service) Procedure(ctx context.Context, actor action.Actor, id int64) (ProcedureView, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return ProcedureView{}, err
	}
	p, err := storeteardown.ProcedureByID(ctx, s.kernel.Reader(ctx), id)
	if err != nil {
		return ProcedureView{}, err
	}
	told := ProcedureView{Procedure: procedureOf(p)}
	if told.Steps, err = stepsOf(p.Body); err != nil {
		return told, err
	}
	told.Variants, err = s.variants(ctx, actor, p.Maker, p.Model)
	return told, err
}

// MakeProcedure makes the log of a machine the procedure of its model. Cells of the tray are left as they
// were: the next tray is filled the same way.
func (s *Service) MakeProcedure(ctx context.Context, actor action.Actor, teardownID int64,
	title, warnings string) (Procedure, error) {
	var made Procedure
	told, err := s.Teardown(ctx, actor, teardownID)
	if err != nil {
		return made, err
	}
	machine, err := s.inventory.Machine(ctx, actor, told.MachineID)
	if err != nil {
		return made, err
	}
	if len(told.Steps) == 0 {
		return made, action.Reject("title", "the log has no steps yet")
	}
	written := []string{}
	for _, step := range told.Steps {
		written = append(written, step.Line)
	}
	f := ProcedureInput{Maker: machine.Maker, Model: machine.Model, Title: title,
		Body: strings.Join(written, "\n"), Warnings: warnings}
	if err := checkProcedure(&f); err != nil {
		return made, err
	}
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		id, err := storeteardown.InsertProcedure(ctx, tx, storeteardown.ProcedureFields(f), &teardownID)
		if err != nil {
			return procedureTaken(err, f)
		}
		row, err := storeteardown.ProcedureByID(ctx, tx, id)
		if err != nil {
			return err
		}
		made = procedureOf(row)
		return action.Record(ctx, tx, actor, eventMakeProcedure, id, &told.MachineID, nil, f)
	})
	return made, err
}

// AddProcedure adds one that no log of this collection was made into, as one of another collection.
func (s *Service) AddProcedure(ctx context.Context, actor action.Actor, f ProcedureInput) (Procedure, error) {
	var added Procedure
	if err := CheckProcedure(&f); err != nil {
		return added, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		id, err := storeteardown.InsertProcedure(ctx, tx, storeteardown.ProcedureFields(f), nil)
		if err != nil {
			return procedureTaken(err, f)
		}
		row, err := storeteardown.ProcedureByID(ctx, tx, id)
		if err != nil {
			return err
		}
		added = procedureOf(row)
		return action.Record(ctx, tx, actor, eventMakeProcedure, id, nil, nil, f)
	})
	return added, err
}

// CheckProcedure refuses what cannot be a procedure, with the field.
func CheckProcedure(f *ProcedureInput) error {
	if err := input.WithinLimits(*f); err != nil {
		return err
	}
	return checkProcedure(f)
}

var procedures = action.Records[storeteardown.Procedure, Procedure]{
	What: "the procedure", Lock: storeteardown.LockProcedure, Read: storeteardown.ProcedureByID,
	Version: func(p storeteardown.Procedure) int { return p.Version },
	Told:    func(p storeteardown.Procedure) any { return ProcedureInput(p.ProcedureFields) },
	View:    procedureOf,
}

// ChangeProcedure rewrites one, starting from a version.
func (s *Service) ChangeProcedure(ctx context.Context, actor action.Actor, id int64, version int,
	f ProcedureInput) (Procedure, error) {
	if err := checkProcedure(&f); err != nil {
		return Procedure{}, err
	}
	change := action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChangeProcedure, ID: id,
		Version: version}
	return procedures.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, _ storeteardown.Procedure) error {
		return procedureTaken(storeteardown.UpdateProcedure(ctx, tx, id, storeteardown.ProcedureFields(f)), f)
	})
}

func procedureTaken(err error, f ProcedureInput) error {
	if pg.Violates(err, "procedure_title_key") {
		return action.Reject("title",
			f.Maker+" "+f.Model+" has a procedure of that name; change that one, or choose another name")
	}
	return err
}

func checkProcedure(f *ProcedureInput) error {
	err := input.CheckAll(input.OneLine("maker", &f.Maker), input.OneLine("model", &f.Model),
		input.OneLine("title", &f.Title), input.Lines("body", &f.Body), input.Lines("warnings", &f.Warnings))
	switch {
	case err != nil:
		return err
	case f.Model == "":
		return action.Reject("model", "a procedure is one of a model; say in the machine's record which it is")
	case f.Title == "":
		return action.Reject("title", "say how far it goes, as Down to the main board")
	}
	steps, err := stepsOf(f.Body)
	if err == nil && len(steps) == 0 {
		return action.Reject("body", "write a step a line, as Lid | 4x M3x8 PH1 @A1")
	}
	return err
}

// variants puts together how the machines of a model are made, where that differs, with when each was built.
func (s *Service) variants(ctx context.Context, actor action.Actor, maker, model string) ([]teardown.Differing, error) {
	seen, err := storeteardown.ObservedSteps(ctx, s.kernel.Reader(ctx), maker, model)
	if err != nil {
		return nil, err
	}
	built := map[int64][2]string{}
	observed := []teardown.Observed{}
	for _, one := range seen {
		span, ok := built[one.MachineID]
		if !ok {
			dated, err := s.dating.Dating(ctx, actor, one.MachineID)
			if err != nil && !errors.Is(err, action.ErrNotFound) {
				return nil, err
			}
			if e := dated.Result.Estimates; len(e) > 0 {
				span = [2]string{e[0].From.String(), e[len(e)-1].To.String()}
			}
			built[one.MachineID] = span
		}
		step, err := action.ReadKept[teardown.Step](one.Body)
		if err != nil {
			return nil, err
		}
		for _, v := range step.Differs {
			observed = append(observed,
				teardown.Observed{Variant: v, Machine: one.Accession, From: span[0], To: span[1]})
		}
	}
	return teardown.Variants(observed), nil
}

// stepsOf reads the steps of a procedure. A line that cannot be read is Invalid, with its number.
func stepsOf(body string) ([]teardown.Step, error) {
	steps := []teardown.Step{}
	for i, line := range sheets.LinesOf(body) {
		if isBlankOrComment(line) {
			continue
		}
		s, err := teardown.ParseStep(line)
		var wrong *malformed.Error
		if errors.As(err, &wrong) {
			return nil, action.Reject("body", fmt.Sprintf("line %d: %s", i+1, wrong.Err.Error()))
		}
		steps = append(steps, s)
	}
	return steps, nil
}
