package library

import (
	"context"
	"maps"
	"slices"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/library"
	"frugalheron/store/pg"
)

// Whole is all that the collection has written into the library itself.
type Whole struct {
	Types  []OwnType
	Known  []KnownAssembly
	Models []MachineModel
}

// allModels is more than a collection has.
const allModels = 1 << 20

// WholeIn reads it.
func (s *Service) WholeIn(ctx context.Context, h pg.Handle) (Whole, error) {
	var w Whole
	types, err := library.ListOwnTypes(ctx, h)
	if err != nil {
		return w, err
	}
	now, err := s.knownIn(ctx, h)
	if err != nil {
		return w, err
	}
	models, err := library.ListModels(ctx, h, nil, allModels)
	w.Types, w.Models = action.Views(types, ownTypeOf), action.Views(models, machineModelOf)
	for _, id := range slices.Sorted(maps.Keys(now.all)) {
		w.Known = append(w.Known, now.all[id])
	}
	return w, err
}

// CheckKnown refuses what cannot be a known assembly, with the field.
func CheckKnown(f *KnownInput) error {
	if err := input.WithinLimits(*f); err != nil {
		return err
	}
	return checkKnown(f)
}

// CheckModel refuses what cannot be a model, with the field.
func CheckModel(f *ModelInput, today string) error {
	if err := input.WithinLimits(*f); err != nil {
		return err
	}
	return checkModel(f, today)
}

// CheckType refuses what cannot be a type, with the field.
func CheckType(f *OwnTypeInput) error {
	if err := input.WithinLimits(*f); err != nil {
		return err
	}
	return checkOwnType(f)
}
