package library

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/model"
	"frugalheron/core/sign"
	"frugalheron/store/library"
	"frugalheron/store/pg"
)

// mostModels bounds a list of models.
const mostModels = 500

// Models lists models by words of maker, name or variant.
func (s *Service) Models(ctx context.Context, actor action.Actor, words string) ([]MachineModel, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	rows, err := library.ListModels(ctx, s.kernel.Reader(ctx), strings.Fields(words), mostModels)
	return action.Views(rows, machineModelOf), err
}

// ModelOf reads the model that a machine is of; ErrNotFound for none.
func ModelOf(ctx context.Context, h pg.Handle, machineID int64) (MachineModel, error) {
	row, err := library.ModelOfMachine(ctx, h, machineID)
	return machineModelOf(row), err
}

// AddModel adds a model.
func (s *Service) AddModel(ctx context.Context, actor action.Actor,
	fields ModelInput) (MachineModel, error) {
	var added library.MachineModel
	if err := checkModel(&fields, actor.Today()); err != nil {
		return machineModelOf(added), err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		id, err := library.InsertModel(ctx, tx, library.ModelFields(fields))
		if err != nil {
			return modelTaken(err, fields)
		}
		if err := library.TakeMachines(ctx, tx, id); err != nil {
			return err
		}
		if added, err = library.ModelByID(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventAddModel, id, nil, nil, fields)
	})
	return machineModelOf(added), err
}

var models = action.Records[library.MachineModel, MachineModel]{
	What: "the model", Lock: library.LockModel, Read: library.ModelByID,
	Version: func(m library.MachineModel) int { return m.Version },
	Told:    func(m library.MachineModel) any { return ModelInput(m.ModelFields) },
	View:    machineModelOf,
}

// ChangeModel rewrites what is said of a model, starting from a version.
func (s *Service) ChangeModel(ctx context.Context, actor action.Actor, id int64, version int,
	fields ModelInput) (MachineModel, error) {
	if err := checkModel(&fields, actor.Today()); err != nil {
		return MachineModel{}, err
	}
	change := action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChangeModel, ID: id,
		Version: version}
	return models.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, _ library.MachineModel) error {
		if err := library.UpdateModel(ctx, tx, id, library.ModelFields(fields)); err != nil {
			return modelTaken(err, fields)
		}
		return library.TakeMachines(ctx, tx, id)
	})
}

func modelTaken(err error, fields ModelInput) error {
	if pg.Violates(err, "machine_model_key") {
		return action.Reject("model", fields.Maker+" "+fields.Model+" is in the list already")
	}
	return err
}

func checkModel(f *ModelInput, today string) error {
	err := input.CheckAll(input.OneLine("maker", &f.Maker), input.OneLine("model", &f.Model),
		input.CheckEDTF("made", &f.Made), input.Lines("variants", &f.Variants),
		input.Lines("expected", &f.Expected), input.Lines("figures", &f.Figures),
		input.Lines("facts", &f.Facts), input.Lines("signs", &f.Signs), input.Lines("note", &f.Note),
		input.OneLine("source", &f.Source))
	switch {
	case err != nil:
		return err
	case f.Maker == "":
		return action.Reject("maker", "say who made it")
	case f.Model == "":
		return action.Reject("model", "say what the maker called it")
	}
	if _, problems := model.Parse(f.Expected); len(problems) > 0 {
		return action.Reject("expected", fmt.Sprintf("line %d %s", problems[0].Line, problems[0].Message))
	}
	if _, problems := f.figures(); len(problems) > 0 {
		return action.Reject("figures", fmt.Sprintf("line %d: %s", problems[0].Line, problems[0].Message))
	}
	if _, problems := sign.Parse(f.Signs); len(problems) > 0 {
		return action.Reject("signs", fmt.Sprintf("line %d %s", problems[0].Line, problems[0].Message))
	}
	told, problems := model.ParseFacts(f.Facts)
	if len(problems) == 0 {
		_, problems, err = model.CheckFacts(told, today)
	}
	if len(problems) > 0 {
		return action.Reject("facts", fmt.Sprintf("line %d %s", problems[0].Line, problems[0].Message))
	}
	return err
}

func (f ModelInput) figures() (model.Figures, []model.Problem) {
	return model.ParseFigures(f.Maker+" "+f.Model, f.Figures)
}

// FiguresOf are the figures of the model that a machine's record names; none where nobody described it.
func FiguresOf(ctx context.Context, h pg.Handle, machineID int64) (model.Figures, error) {
	known, err := ModelOf(ctx, h, machineID)
	if errors.Is(err, action.ErrNotFound) {
		return model.Figures{}, nil
	}
	figures, _ := known.figures()
	return figures, err
}
