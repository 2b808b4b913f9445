package cardcage

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/known"
	"frugalheron/core/slotplan"
)

func sameWords(a, b string) bool {
	return strings.EqualFold(strings.Join(strings.Fields(a), " "), strings.Join(strings.Fields(b), " "))
}

// fit says of each card which kinds of slots take it, and leaves out what names a slot that there is not.
func (c *Cage) fit(written *Backplane) {
	slots, all := map[string]bool{}, []string{}
	add := func(id, kind string) {
		slots[id] = true
		if !slices.Contains(all, kind) && !strings.HasPrefix(kind, onBoard) {
			all = append(all, kind)
		}
	}
	for _, s := range c.In.Slots {
		add(s.ID, s.Kind)
	}
	for i := range c.In.Cards {
		one := &c.In.Cards[i]
		one.Gives = slices.DeleteFunc(one.Gives, func(g slotplan.Given) bool {
			if slots[g.ID] {
				c.Remarks = append(c.Remarks, fmt.Sprintf("%s is said to give slot %s, which is there without it", one.ID, g.ID))
				return true
			}
			add(g.ID, g.Kind)
			return false
		})
	}
	for i := range c.In.Cards {
		one := &c.In.Cards[i]
		if c.boards[one.ID] {
			continue
		}
		one.Kinds = []string{}
		wanted := c.wanted(one.ID)
		for _, k := range all {
			if len(wanted) == 0 || k == "" || slices.Contains(wanted, k) || written != nil &&
				slices.ContainsFunc(wanted, func(w string) bool { return slices.Contains(written.Takes[k], w) }) {
				one.Kinds = append(one.Kinds, k)
			}
		}
		if one.At != nil && !slots[*one.At] {
			c.Remarks = append(c.Remarks, fmt.Sprintf("%s is said to sit in slot %s, which the backplane does not have",
				one.ID, *one.At))
			one.At = nil
		}
		one.Blocks = slices.DeleteFunc(one.Blocks, func(blocked string) bool {
			if slots[blocked] || known.NextSlot.MatchString(blocked) {
				return false
			}
			c.Remarks = append(c.Remarks, fmt.Sprintf("%s covers or blocks %s, which is no slot of the plan", one.ID, blocked))
			return true
		})
	}
}

// wanted are the kinds of slots that a card is known to fit into; empty where nobody said.
func (c *Cage) wanted(name string) []string {
	found := []string{}
	for _, need := range c.cards[name].details().Needs {
		if need.Kind == "slot" {
			found = append(found, kinds(need.What)...)
		}
	}
	return found
}

// remark tells what no record says.
func (c *Cage) remark(written *Backplane) {
	tell := func(format string, about ...any) { c.Remarks = append(c.Remarks, fmt.Sprintf(format, about...)) }
	for _, one := range c.In.Cards {
		card := c.cards[one.ID]
		switch {
		case len(card.Details) == 0:
			tell("nothing is known of %s: neither what it needs nor which slots it fits", one.ID)
		case len(card.Details) > 1:
			tell("two records say as firmly what %s is; the plan goes by %s", one.ID, card.Known[0])
		case !card.IsSure:
			tell("it is not sure that %s is a %s; the plan takes it for one", one.ID, card.Known[0])
		case !c.boards[one.ID] && len(c.wanted(one.ID)) == 0:
			tell("which slots %s fits nobody said", one.ID)
		}
		for _, need := range card.details().Needs {
			if _, more, isMore := strings.Cut(need.What, ","); need.Kind == "slot" && isMore {
				tell("%s is %s: see that its slot has the room", one.ID, strings.TrimSpace(more))
			}
		}
		if c.boards[one.ID] || len(card.Details) == 0 {
			continue
		}
		if len(c.In.Chain) > 0 && card.details().Placing.Chain == "" {
			tell("how %s takes part in the chain nobody said; the plan takes its slot as bridged", one.ID)
		}
		if one.At == nil {
			tell("in which slot %s sits is not told", one.ID)
		}
		for _, need := range one.Needs {
			if need.Now == nil {
				tell("how %s is set for %s nobody noted", one.ID, need.Resource)
			}
		}
	}
	if written != nil && len(written.Rows) > 0 && len(written.Chain) > 0 && len(written.Chain) < written.count() {
		tell("the chain goes by %d of %d slots", len(written.Chain), written.count())
	}
}
