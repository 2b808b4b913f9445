package cardcage

import (
	"fmt"
	"slices"

	"frugalheron/core/configuration"
	"frugalheron/core/known"
	"frugalheron/core/slotplan"
)

// needs are the resources that a card takes: those that its jumpers and switches choose, and those that its record says
// it uses.
func (c *Cage) needs(name string, card Card) []slotplan.Need {
	needs, chosen := []slotplan.Need{}, map[string]bool{}
	c.how[name] = map[slotplan.Choice][]Way{}
	for _, s := range card.details().Settings {
		for _, resource := range known.Resources() {
			need, ok := c.chosenBy(name, s, resource, card.Settings)
			if ok {
				chosen[resource] = true
				need.Shared = slices.ContainsFunc(card.details().Placing.Uses, func(u known.Use) bool {
					return u.Resource == resource && u.Shared
				})
				needs = append(needs, need)
			}
		}
	}
	for _, u := range card.details().Placing.Uses {
		if chosen[u.Resource] {
			continue // its jumpers say which
		}
		need := slotplan.Need{Resource: u.Resource, Shared: u.Shared}
		for _, written := range u.Choices {
			choice, _ := slotplan.ChoiceOf(u.Resource, written) // checked when it was read
			need.Choices = append(need.Choices, choice)
		}
		if len(need.Choices) == 1 {
			need.Now = &need.Choices[0]
		}
		need.Now = now(need, u.Resource, card.Settings)
		needs = append(needs, need)
	}
	return needs
}

// chosenBy is what a jumper or switch chooses of a resource, and how it stands.
func (c *Cage) chosenBy(name string, s known.Setting, resource string,
	stands []configuration.Meaning) (slotplan.Need, bool) {
	need := slotplan.Need{Resource: resource}
	for _, p := range s.Positions {
		for _, r := range configuration.Resources(p.Meaning) {
			choice, err := slotplan.ChoiceOf(resource, r.Choice)
			if r.Name != resource || err != nil {
				continue
			}
			if !slices.Contains(need.Choices, choice) {
				need.Choices = append(need.Choices, choice)
			}
			c.how[name][choice] = append(c.how[name][choice], Way{s.Name, p.At})
		}
	}
	if len(need.Choices) == 0 {
		return need, false
	}
	for _, m := range stands {
		if m.Name == s.Name && m.State == configuration.Known {
			for _, r := range configuration.Resources(m.Means[0]) {
				if choice, err := slotplan.ChoiceOf(resource, r.Choice); err == nil && r.Name == resource {
					need.Now = &choice
				}
			}
			if need.Now == nil {
				return need, false // so it takes none
			}
		}
	}
	return need, true
}

// now is how a card is set by what was noted of it in words: irq 3.
func now(need slotplan.Need, resource string, stands []configuration.Meaning) *slotplan.Choice {
	for _, m := range stands {
		if m.State != configuration.Known {
			continue
		}
		for _, r := range configuration.Resources(m.Means[0]) {
			choice, err := slotplan.ChoiceOf(resource, r.Choice)
			if err == nil && r.Name == resource && slices.Contains(need.Choices, choice) {
				return &choice
			}
		}
	}
	return need.Now
}

// relate turns what records say of other cards into names of the plan.
func (c *Cage) relate(cards []Card) {
	for i := range c.In.Cards {
		one := &c.In.Cards[i]
		placing := c.cards[one.ID].details().Placing
		for _, other := range placing.Behind {
			for _, name := range c.called(other, cards) {
				if name != one.ID && !c.boards[name] && !slices.Contains(one.After, name) {
					one.After = append(one.After, name)
				}
			}
		}
		if placing.Beside == "" {
			continue
		}
		names := slices.DeleteFunc(c.called(placing.Beside, cards), func(name string) bool {
			return name == one.ID || c.boards[name]
		})
		switch {
		case len(names) > 1:
			c.Remarks = append(c.Remarks, fmt.Sprintf("%s stands beside one of %d that are called %s; which is not looked at",
				one.ID, len(names), placing.Beside))
		case len(names) == 1:
			one.Beside = &names[0]
		}
	}
}

// called finds the cards of the plan that a record names by number or name.
func (c *Cage) called(what string, cards []Card) []string {
	names := []string{}
	for _, card := range cards {
		name := c.NameOf(card.ID)
		isPlanned := slices.ContainsFunc(c.In.Cards, func(o slotplan.Card) bool { return o.ID == name })
		if isPlanned && (card.Part != "" && known.Fold(card.Part) == known.Fold(what) || sameWords(card.Title, what) ||
			slices.ContainsFunc(card.Known, func(known string) bool { return sameWords(known, what) })) {
			names = append(names, name)
		}
	}
	return names
}
