// Package diagnosis is about symptoms and the trials that look for their cause, over all machines.
package diagnosis

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/console"
	"frugalheron/app/history"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/core/reckoning"
	"frugalheron/core/trials"
	"frugalheron/core/verdict"
	"frugalheron/store/diagnosis"
	storehistory "frugalheron/store/history"
	storeinventory "frugalheron/store/inventory"
)

// Service does what is done about them.
type Service struct {
	kernel    *action.Kernel
	inventory *inventory.Service
	history   *history.Service
	console   *console.Service
}

// New returns it.
func New(kernel *action.Kernel, inventory *inventory.Service, history *history.Service,
	console *console.Service) *Service {
	s := &Service{kernel, inventory, history, console}
	kernel.CanBeUndone(eventVoid, action.MayWriteSheets, s.undoVoid)
	return s
}

// mostOfMachine bounds what is told of one machine.
const mostOfMachine = 100

var diagnoses = action.Records[diagnosis.Diagnosis, Diagnosis]{What: "the diagnosis", Lock: diagnosis.Lock,
	Read: diagnosis.ByID, Version: func(r diagnosis.Diagnosis) int { return r.Version },
	Told: func(r diagnosis.Diagnosis) any { return tell(r).told() }, View: tell,
	Machine: func(r diagnosis.Diagnosis) *int64 { return &r.MachineID }}

// Diagnoses tells those of a machine, what trials elsewhere tell of the boards in them, and what was changed lately.
func (s *Service) Diagnoses(ctx context.Context, actor action.Actor, machineID int64) (Diagnoses, error) {
	told := Diagnoses{Stage: stageOf(nil), Diagnoses: []Diagnosis{}, Boards: []Elsewhere{}, Offered: []Offered{}}
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return told, err
	}
	rows, err := diagnosis.OfMachine(ctx, s.kernel.Reader(ctx), machineID, mostOfMachine)
	if err != nil {
		return told, err
	}
	told.Diagnoses, told.Stage = action.Views(rows, tell), stageOf(rows)
	if told.Boards, err = s.elsewhere(ctx, boardsOf(told.Diagnoses...)); err != nil {
		return told, err
	}
	told.Offered, err = s.offered(ctx, actor, machineID)
	return told, err
}

// stageOf says that a symptom which nobody has explained yet needs attention.
func stageOf(rows []diagnosis.Diagnosis) reckoning.Stage {
	stage := reckoning.Stage{State: reckoning.Untouched}
	for _, row := range rows {
		if stage.State == reckoning.Untouched {
			stage.State = reckoning.InHand
		}
		if row.IsOpen {
			stage.State, stage.Count = reckoning.NeedsAttention, stage.Count+1
		}
	}
	return stage
}

func boardsOf(all ...Diagnosis) []int64 {
	ids := []int64{}
	for _, d := range all {
		for _, f := range d.Factors {
			if f.AssemblyID != nil && !slices.Contains(ids, *f.AssemblyID) {
				ids = append(ids, *f.AssemblyID)
			}
		}
	}
	return ids
}

func (in *DiagnosisInput) check(actor action.Actor) error {
	in.tidy()
	if in.Since == "" {
		in.Since = actor.Today()
	}
	if in.State == "" {
		in.State = "open"
	}
	err := input.CheckAll(input.OneLine("symptom", &in.Symptom), input.Lines("cause", &in.Cause),
		input.Lines("note", &in.Note), input.PastDay("since", in.Since, actor.Today()))
	switch {
	case err != nil:
		return err
	case in.Symptom == "":
		return action.Reject("symptom", "say what it does, or does not")
	case in.State == "found" && in.Cause == "":
		return action.Reject("cause", "say what it was")
	}
	for i := range in.Factors {
		f := &in.Factors[i]
		if err := input.OneLine(fmt.Sprintf("factors[%d].name", i), &f.Name); err != nil {
			return err
		}
		if f.Kind == "" {
			f.Kind = "other"
		}
	}
	for i := range in.Trials {
		if err := in.Trials[i].check(fmt.Sprintf("trials[%d]", i), actor); err != nil {
			return err
		}
	}
	_, err = trials.Judge(in.core())
	return input.Refused(err)
}

func (t *TrialInput) check(at string, actor action.Actor) error {
	for n := range t.On {
		if err := input.OneLine(fmt.Sprintf("%s.on[%d]", at, n), &t.On[n]); err != nil {
			return err
		}
	}
	if t.Day == "" {
		t.Day = actor.Today()
	}
	t.Runs = max(t.Runs, 1)
	if t.Failed < 0 || t.Failed > t.Runs {
		return action.Reject(at+".failed", fmt.Sprintf("%d of %d runs cannot have failed", t.Failed, t.Runs))
	}
	return input.CheckAll(input.PastDay(at+".day", t.Day, actor.Today()), input.Lines(at+".note", &t.Note))
}

// haveBoards refuses boards that are not there.
func haveBoards(ctx context.Context, tx *sqlx.Tx, in DiagnosisInput) error {
	for i, f := range in.Factors {
		if f.AssemblyID == nil {
			continue
		}
		if _, err := storeinventory.AssemblyByID(ctx, tx, *f.AssemblyID); errors.Is(err, action.ErrNotFound) {
			return action.Reject(fmt.Sprintf("factors[%d].assemblyId", i), fmt.Sprintf("there is no board %d",
				*f.AssemblyID))
		} else if err != nil {
			return err
		}
	}
	return nil
}

// Begin keeps a symptom that is looked into.
func (s *Service) Begin(ctx context.Context, actor action.Actor, machineID int64, in DiagnosisInput) (Diagnosis,
	error) {
	var added Diagnosis
	if err := in.check(actor); err != nil {
		return added, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := storeinventory.MachineByID(ctx, tx, machineID); err != nil {
			return err
		}
		if err := haveBoards(ctx, tx, in); err != nil {
			return err
		}
		one := Diagnosis{DiagnosisInput: in}
		id, err := diagnosis.Insert(ctx, tx, diagnosis.Diagnosis{MachineID: machineID, Body: action.ToKeep(in),
			IsOpen: in.State == "open"}, boardsOf(one))
		if err != nil {
			return err
		}
		row, err := diagnosis.ByID(ctx, tx, id)
		if err != nil {
			return err
		}
		added = tell(row)
		return action.Record(ctx, tx, actor, eventAdd, id, &machineID, nil, added.told())
	})
	return added, err
}

// Change rewrites one with its trials, starting from a version.
func (s *Service) Change(ctx context.Context, actor action.Actor, id int64, version int, in DiagnosisInput) (Diagnosis,
	error) {
	if err := in.check(actor); err != nil {
		return Diagnosis{}, err
	}
	return diagnoses.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChange,
		ID: id, Version: version}, func(tx *sqlx.Tx, before diagnosis.Diagnosis) error {
		if before.Voided {
			return action.ErrNotFound
		}
		if err := haveBoards(ctx, tx, in); err != nil {
			return err
		}
		return diagnosis.Update(ctx, tx, diagnosis.Diagnosis{ID: id, Body: action.ToKeep(in),
			IsOpen: in.State == "open"},
			boardsOf(Diagnosis{DiagnosisInput: in}))
	})
}

var voided = action.Voiding[diagnosis.Diagnosis]{Roles: action.MayWriteSheets, Event: eventVoid,
	Back:     eventTakeBackVoid,
	IsVoided: func(r diagnosis.Diagnosis) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r diagnosis.Diagnosis, voided bool) error {
		return diagnosis.Void(ctx, tx, r.ID, voided)
	}}

// Void strikes one out that was begun by mistake.
func (s *Service) Void(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return diagnoses.Void(ctx, s.kernel, actor, voided, id, version)
}

func (s *Service) undoVoid(ctx context.Context, actor action.Actor, e storehistory.EventRow) error {
	return diagnoses.Unvoid(ctx, s.kernel, actor, voided, e)
}

// Verdicts are the lines of the reckoning that follow from symptoms that nobody has explained yet.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	rows, err := diagnosis.OfMachine(ctx, s.kernel.Reader(ctx), machineID, mostOfMachine)
	open := []trials.Case{}
	for _, row := range rows {
		if !row.IsOpen {
			continue
		}
		kept, _ := action.ReadKept[DiagnosisInput](row.Body)
		out, errOfRules := trials.Judge(kept.core())
		if errOfRules != nil {
			return nil, errOfRules
		}
		open = append(open, trials.Case{Symptom: kept.Symptom, Output: out})
	}
	return verdict.Telling(trials.VerdictOf(open)), err
}
