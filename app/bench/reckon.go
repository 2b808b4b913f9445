package bench

import (
	"context"
	"errors"
	"fmt"

	"frugalheron/app/action"
	appevidence "frugalheron/app/evidence"
	"frugalheron/app/inventory"
	"frugalheron/app/sheets"
	"frugalheron/core/calendar"
	"frugalheron/core/datecode"
	"frugalheron/core/device"
	"frugalheron/core/exterior"
	"frugalheron/core/facts"
	"frugalheron/core/malformed"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/core/verdict"
)

// Reckoned is a sheet's reckoning with the state of each line.
type Reckoned struct {
	reckoning.Result
	Lines    []reckoning.Line  `json:"lines"`
	Verdicts []verdict.Verdict `json:"verdicts"`
}

// Reckon reckons a text, headings and all, without keeping anything.
func (s *Service) Reckon(ctx context.Context, actor action.Actor, text string, era datecode.Era) (Reckoned, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Reckoned{}, err
	}
	library, err := s.subjects.Library.Read(ctx)
	if err != nil {
		return Reckoned{}, err
	}
	result, err := reckoning.Of(library, []byte(text), reckoning.Options{Era: era, Today: actor.Day()})
	var refused *malformed.Error
	if errors.As(err, &refused) {
		return Reckoned{}, action.Reject("text", refused.Error())
	}
	if err != nil {
		return Reckoned{}, err
	}
	return Reckoned{
		Result: result, Lines: result.Lines(),
		Verdicts: reckoning.Verdicts([]reckoning.Board{{Title: "this sheet", Result: result}}),
	}, nil
}

// ReckonedBoard is one board of a reckoned machine.
type ReckonedBoard struct {
	AssemblyID int64             `json:"assemblyId"`
	Totals     reckoning.Totals  `json:"totals"`
	Entries    []reckoning.Entry `json:"-"`
	Records    []sheet.Record    `json:"records" doc:"The entries as written, for the table: one for each, in the same order"`
	Lines      []reckoning.Line  `json:"lines"`

	body string // of which this speaks
}

// ReckonedMachine is what all boards of a machine amount to together.
type ReckonedMachine struct {
	Answer   string            `json:"answer" doc:"The name by which the next answer can be asked for as what changed; may be empty"`
	Stage    reckoning.Stage   `json:"stage" doc:"How far taking stock has come; of an outside, looking over"`
	Verdicts []verdict.Verdict `json:"verdicts"`
	Boards   []ReckonedBoard   `json:"boards"`
	Walk     []exterior.Step   `json:"walk" doc:"The sides of the machine, where its outside was reckoned; else empty"`
	Left     []string          `json:"left" doc:"What is still to be looked at, where its outside was reckoned"`
}

// ReckonMachine reckons a machine from its kept sheets, with drafts in place of some of them by
// assembly. Nothing is kept.
func (s *Service) ReckonMachine(ctx context.Context, actor action.Actor, machineID int64,
	drafts map[int64]string) (ReckonedMachine, error) {
	out, err := action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (ReckonedMachine, error) {
		return s.reckonMachine(ctx, actor, machineID, drafts)
	})
	if err == nil {
		out.Answer = s.answers.keep(answered{machine: machineID, account: actor.AccountID, drafts: drafts,
			reckoning: out})
	}
	return out, err
}

func (s *Service) reckonMachine(ctx context.Context, actor action.Actor, machineID int64,
	drafts map[int64]string) (ReckonedMachine, error) {
	machine, err := s.subjects.Inventory.Machine(ctx, actor, machineID)
	if err != nil {
		return ReckonedMachine{}, err
	}
	fitted, err := sheets.Contents(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return ReckonedMachine{}, err
	}
	library, err := s.subjects.Library.Read(ctx)
	if err != nil {
		return ReckonedMachine{}, err
	}
	boards, out, err := reckonBoards(ctx, library, fitted, inventory.EraOf(machine.EraFrom, machine.EraTo),
		actor.Day(), drafts)
	if err != nil {
		return ReckonedMachine{}, err
	}
	seen, exteriorID, err := appevidence.ExteriorOf(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return ReckonedMachine{}, err
	}
	dossier, err := s.readDossier(ctx, s.kernel.Reader(ctx), actor, machine, reckoning.Combine(boards),
		exteriorID, seen)
	facts.Doubt(out.Verdicts, appevidence.FactsOf(dossier.Known))
	if err != nil {
		return out, err
	}
	out.Verdicts = verdict.Together(out.Verdicts, dossier.verdicts(seen))
	for i, tell := range s.verdicts {
		told, err := action.Once(ctx, fmt.Sprint("verdicts ", i, actor.Role), machineID,
			func() ([]verdict.Verdict, error) { return tell(ctx, actor, machineID) })
		if err != nil {
			return out, err
		}
		out.Verdicts = verdict.Together(out.Verdicts, told)
	}
	out.Verdicts = worked(out.Verdicts)
	return out, nil
}

// Verdicts tells lines of the reckoning of a machine, by what is kept of one subject.
type Verdicts func(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error)

// ReckonAssembly reckons an assembly that is in no machine, with a draft in place of its kept sheet.
func (s *Service) ReckonAssembly(ctx context.Context, actor action.Actor, id int64,
	drafts map[int64]string) (ReckonedMachine, error) {
	out, err := action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (ReckonedMachine, error) {
		return s.reckonAssembly(ctx, actor, id, drafts)
	})
	if err == nil {
		out.Answer = s.answers.keep(answered{assembly: id, account: actor.AccountID, drafts: drafts, reckoning: out})
	}
	return out, err
}

func (s *Service) reckonAssembly(ctx context.Context, actor action.Actor, id int64,
	drafts map[int64]string) (ReckonedMachine, error) {
	assembly, err := s.subjects.Sheets.AssemblyWithSheet(ctx, actor, id)
	if err != nil {
		return ReckonedMachine{}, err
	}
	library, err := s.subjects.Library.Read(ctx)
	if err != nil {
		return ReckonedMachine{}, err
	}
	if assembly.IsExterior() && assembly.MachineID != nil {
		body := assembly.Body
		if draft, ok := drafts[id]; ok {
			body = draft
		}
		return s.reckonExterior(ctx, actor, assembly, body)
	}
	_, out, err := reckonBoards(ctx, library, []sheets.FittedAssembly{assembly}, datecode.Era{}, actor.Day(), drafts)
	return out, err
}

// reckonBoards reckons boards together, with drafts in place of some of their sheets.
func reckonBoards(ctx context.Context, library *device.Library, fitted []sheets.FittedAssembly, era datecode.Era,
	today calendar.Date, drafts map[int64]string) ([]reckoning.Board, ReckonedMachine, error) {
	out := ReckonedMachine{Boards: []ReckonedBoard{}, Walk: []exterior.Step{}, Left: []string{}}
	boards, counts := []reckoning.Board{}, []reckoning.Counts{}
	for _, f := range fitted {
		reckon := func() (reckonedSheet, error) {
			return reckonSheet(library, f, sheets.OptionsFor(f.Purpose, f.Fit, era, today))
		}
		var one reckonedSheet
		var err error
		if draft, ok := drafts[f.ID]; ok {
			f.Body = draft
			one, err = reckon()
		} else {
			one, err = action.Once(ctx, fmt.Sprint("reckoned ", era), f.ID, reckon)
		}
		if err != nil {
			return nil, out, err
		}
		boards = append(boards, reckoning.Board{Assembly: f.ID, Title: f.Title, Result: one.result})
		counts = append(counts, one.result.Counts())
		out.Boards = append(out.Boards, one.board)
	}
	out.Stage, out.Verdicts = reckoning.StageOf(counts), reckoning.Verdicts(boards)
	return boards, out, nil
}

// reckonedSheet is what a sheet amounts to, and what goes out of it.
type reckonedSheet struct {
	result reckoning.Result
	board  ReckonedBoard
}

func reckonSheet(library *device.Library, f sheets.FittedAssembly, options reckoning.Options) (reckonedSheet, error) {
	parsed, err := sheets.ParseBody(f.Body)
	if err != nil {
		return reckonedSheet{}, err
	}
	result := reckoning.OfSheet(library, parsed, options)
	board := ReckonedBoard{AssemblyID: f.ID, Totals: result.Totals, Entries: []reckoning.Entry{}, Lines: result.Lines(),
		Records: parsed.Records(), body: f.Body}
	for _, assembly := range result.Assemblies {
		board.Entries = append(board.Entries, assembly.Entries...)
	}
	return reckonedSheet{result, board}, nil
}
