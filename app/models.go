package app

import (
	"context"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/model"
	"frugalheron/store"
)

// mostModels bounds a list of models.
const mostModels = 500

// Models lists models by words of maker, name or variant.
func (a *App) Models(ctx context.Context, actor Actor, words string) ([]store.MachineModel, error) {
	if err := actor.must(MayLook); err != nil {
		return nil, err
	}
	return store.ListModels(ctx, a.Kernel.DB, strings.Fields(words), mostModels)
}

// AddModel adds a model.
func (a *App) AddModel(ctx context.Context, actor Actor, fields store.ModelFields) (store.MachineModel, error) {
	var added store.MachineModel
	if err := checkModel(&fields); err != nil {
		return added, err
	}
	err := a.Kernel.Do(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		id, err := store.InsertModel(ctx, tx, fields)
		if err != nil {
			return modelTaken(err, fields)
		}
		if added, err = store.ModelByID(ctx, tx, id); err != nil {
			return err
		}
		return record(ctx, tx, actor, eventAddModel, id, nil, nil, fields)
	})
	return added, err
}

// ChangeModel rewrites what is said of a model, starting from a version.
func (a *App) ChangeModel(ctx context.Context, actor Actor, id int64, version int, fields store.ModelFields) (store.MachineModel, error) {
	var changed store.MachineModel
	if err := checkModel(&fields); err != nil {
		return changed, err
	}
	err := a.Kernel.Do(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		before, err := store.LockModel(ctx, tx, id)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &Stale{What: "the model", Newer: before}
		}
		if err := store.UpdateModel(ctx, tx, id, fields); err != nil {
			return modelTaken(err, fields)
		}
		if changed, err = store.ModelByID(ctx, tx, id); err != nil {
			return err
		}
		return record(ctx, tx, actor, eventChangeModel, id, nil, before.ModelFields, changed.ModelFields)
	})
	return changed, err
}

func modelTaken(err error, fields store.ModelFields) error {
	if store.Violates(err, "machine_model_key") {
		return &Invalid{"model", fields.Maker + " " + fields.Model + " is in the list already"}
	}
	return err
}

func checkModel(f *store.ModelFields) error {
	err := checkAll(oneLine("maker", &f.Maker), oneLine("model", &f.Model), checkEDTF("made", &f.Made), lines("variants", &f.Variants),
		lines("expected", &f.Expected), lines("note", &f.Note), oneLine("source", &f.Source))
	switch {
	case err != nil:
		return err
	case f.Maker == "":
		return &Invalid{"maker", "say who made it"}
	case f.Model == "":
		return &Invalid{"model", "say what the maker called it"}
	}
	if _, problems := model.Parse(f.Expected); len(problems) > 0 {
		return &Invalid{"expected", fmt.Sprintf("line %d %s", problems[0].Line, problems[0].Message)}
	}
	return nil
}
