package demo

import (
	"fmt"
	"slices"

	"frugalheron/app/library"
)

// models describes the models of the sample world.
func (t teller) models() error {
	told, err := readWorld[[]library.ModelInput]("models.json")
	if err != nil {
		return err
	}
	there, err := t.actions.Library.Models(t.ctx, t.curator, "")
	if err != nil {
		return err
	}
	for _, fields := range told {
		if slices.ContainsFunc(there, func(m library.MachineModel) bool {
			return m.Maker == fields.Maker && m.Model == fields.Model
		}) {
			continue
		}
		if _, err := t.actions.Library.AddModel(t.ctx, t.curator, fields); err != nil {
			return fmt.Errorf("%s: %w", fields.Model, err)
		}
	}
	return nil
}

// makers describes the makers of the sample world.
func (t teller) makers() error {
	told, err := readWorld[[]library.MakerInput]("makers.json")
	if err != nil {
		return err
	}
	there, err := t.actions.Library.Makers(t.ctx, t.curator, "")
	if err != nil {
		return err
	}
	for _, fields := range told {
		if slices.ContainsFunc(there, func(m library.MakerView) bool { return m.Name == fields.Name }) {
			continue
		}
		if _, err := t.actions.Library.AddMaker(t.ctx, t.curator, fields); err != nil {
			return fmt.Errorf("%s: %w", fields.Name, err)
		}
	}
	return nil
}

// known names cards, boards and other units of the sample world.
func (t teller) known() error {
	told, err := readWorld[[]library.KnownInput]("known.json")
	if err != nil {
		return err
	}
	there, err := t.actions.Library.KnownAssemblies(t.ctx, t.curator, "", 0, 200)
	if err != nil {
		return err
	}
	for _, fields := range told {
		if slices.ContainsFunc(there.Known, func(k library.KnownAssembly) bool { return k.Name == fields.Name }) {
			continue
		}
		if _, err := t.actions.Library.NameKnown(t.ctx, t.curator, fields); err != nil {
			return fmt.Errorf("%s: %w", fields.Name, err)
		}
	}
	return nil
}
