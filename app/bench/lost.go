package bench

import (
	"context"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/core/facts"
	"frugalheron/core/sheet"
)

// findLost finds identifiers that the machine shows as lost, with what kept them and what is to be restored.
func (s *Service) findLost(ctx context.Context, actor action.Actor, machine inventory.Machine,
	d *Dossier) error {
	d.Lost = []facts.Lost{}
	for _, known := range d.Known {
		shown, others := "", []facts.Restorative{}
		for _, said := range known.Statements {
			switch {
			case said.Retracted != "":
			case known.Attribute.IsLost(said.Value):
				shown = said.Value
			default:
				others = append(others, facts.Restorative{Value: said.Value, Source: facts.Source(said.Kind),
					Cited: said.Cited})
			}
		}
		if shown == "" {
			continue
		}
		keeper, because, err := s.keeperOf(ctx, actor, machine, known.Attribute)
		if err != nil {
			return err
		}
		d.Lost = append(d.Lost, facts.TellLost(known.Attribute, shown, keeper, because, others))
	}
	return nil
}

// keeperOf is the part that keeps an attribute, by what is told of the machine's model, and what is wrong with it.
func (s *Service) keeperOf(ctx context.Context, actor action.Actor, machine inventory.Machine,
	a facts.Attribute) (keeper, because string, err error) {
	if machine.ModelID == nil {
		return "", "", nil
	}
	_, told, err := s.subjects.Library.FactsOfModel(ctx, actor, *machine.ModelID)
	if err != nil {
		return "", "", err
	}
	if keeper = facts.KeeperOf(told, a); keeper == "" {
		return "", "", nil
	}
	condition, err := s.subjects.Condition.Condition(ctx, actor, machine.ID)
	if err != nil {
		return keeper, "", err
	}
	found := []string{}
	for _, f := range condition.Findings {
		if f.Story.Open && sheet.Names(f.Designator, keeper) {
			found = append(found, f.Kind+" since "+f.Story.FirstOn)
		}
	}
	return keeper, strings.Join(found, ", "), nil
}
