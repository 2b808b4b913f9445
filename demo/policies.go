package demo

import (
	"fmt"
	"maps"
	"slices"

	"frugalheron/app/work"
)

// policies tells by which school the collection restores, and which machines go their own way.
func (t teller) policies() error {
	told, err := readWorld[map[string][]struct {
		Question string
		work.ChoiceInput
	}]("policies.json")
	if err != nil {
		return err
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		id := t.machines[accession] // 0 for the collection
		now, err := t.actions.Work.Policies(t.ctx, t.curator, id)
		if err != nil {
			return err
		}
		for _, one := range told[accession] {
			if slices.ContainsFunc(now, func(p work.Policy) bool {
				return p.Key == one.Question && (p.Own == nil && p.Collection.Version > 0 || p.Own != nil &&
					p.Own.Version > 0)
			}) {
				continue
			}
			if _, err := t.actions.Work.Choose(t.ctx, t.curator, id, one.Question, 0, one.ChoiceInput); err != nil {
				return fmt.Errorf("%s of %q: %w", one.Question, accession, err)
			}
		}
	}
	return nil
}
