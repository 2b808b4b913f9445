package configuration

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/complement"
	"frugalheron/core/linediff"
)

// What a change is of.
const (
	OfCard     = "card"
	OfSetting  = "setting"
	OfFirmware = "firmware"
	OfMedium   = "medium"
	OfFile     = "file"
)

// Change is one thing in which two ways of setting a machine up differ.
type Change struct {
	Of   string          `json:"of" enum:"card,setting,firmware,medium,file"`
	Card string          `json:"card" says:"text" doc:"The card that is meant; empty for none"`
	What string          `json:"what" says:"text" doc:"Of it: the jumper, the setting, the file"`
	From string          `json:"from" says:"text" doc:"Empty where it was not there, or nobody noted it"`
	To   string          `json:"to" says:"text"`
	Do   string          `json:"do" says:"text" doc:"What makes the one into the other"`
	Open bool            `json:"open" doc:"Only one of them notes it; how it is in the other is not known"`
	Text []linediff.Line `json:"text" doc:"Of a file: line by line"`
}

// Between tells what makes one way of setting a machine up into another, in the order in which it is done: cards out, in and
// to other slots, then jumpers and switches, firmware, media and files. What only one of them notes is open: it may be the same.
func Between(from, to Snapshot) []Change {
	changes := cards(from.Cards, to.Cards)
	for _, now := range to.Cards {
		before, _ := same(from.Cards, now)
		changes = append(changes, settings(before, now)...)
	}
	changes = append(changes, firmware(from.Firmware, to.Firmware)...)
	changes = append(changes, media(from.Media, to.Media)...)
	return append(changes, files(from.Files, to.Files)...)
}

// same finds a card in another snapshot: by its record, else by its title.
func same(cards []Card, c Card) (Card, bool) {
	at := slices.IndexFunc(cards, func(o Card) bool {
		if c.ID != 0 && o.ID != 0 {
			return o.ID == c.ID
		}
		return strings.EqualFold(strings.TrimSpace(o.Title), strings.TrimSpace(c.Title))
	})
	if at < 0 {
		return Card{}, false
	}
	return cards[at], true
}

func cards(from, to []Card) []Change {
	out, in, moved := []Change{}, []Change{}, []Change{}
	for _, c := range from {
		if _, stays := same(to, c); !stays {
			out = append(out, Change{Of: OfCard, Card: c.Title, What: "in the machine", From: there(c.Slot),
				Do: "take out " + c.Title + outOf(c.Slot)})
		}
	}
	for _, c := range to {
		before, wasIn := same(from, c)
		switch {
		case !wasIn:
			in = append(in, Change{Of: OfCard, Card: c.Title, What: "in the machine", To: there(c.Slot),
				Do: "put in " + c.Title + into(c.Slot)})
		case strings.EqualFold(complement.NameOf(before.Slot), complement.NameOf(c.Slot)):
		case c.Slot == "" || before.Slot == "":
			moved = append(moved, Change{Of: OfCard, Card: c.Title, What: "slot", From: before.Slot, To: c.Slot, Open: true,
				Do: c.Title + ": see whether it sits" + into(before.Slot+c.Slot)})
		default:
			moved = append(moved, Change{Of: OfCard, Card: c.Title, What: "slot", From: before.Slot, To: c.Slot,
				Do: fmt.Sprintf("move %s from slot %s to slot %s", c.Title, complement.NameOf(before.Slot),
					complement.NameOf(c.Slot))})
		}
	}
	return slices.Concat(out, in, moved)
}

func there(slot string) string {
	if slot == "" {
		return "there"
	}
	return "slot " + complement.NameOf(slot)
}

func outOf(slot string) string {
	if slot == "" {
		return ""
	}
	return " from slot " + complement.NameOf(slot)
}

func into(slot string) string {
	if slot == "" {
		return ""
	}
	return " in slot " + complement.NameOf(slot)
}

// flat is how each jumper and each single switch of a card stands, by name in upper case, in the order of the text.
func flat(settings []Setting) (names []string, at map[string]Setting) {
	at = map[string]Setting{}
	put := func(s Setting) {
		key := strings.ToUpper(s.Name)
		if _, isThere := at[key]; !isThere {
			names = append(names, key)
		}
		at[key] = s
	}
	for _, s := range settings {
		row, isRow := elementsOf(s.At)
		where := spanOf(s.Name)
		if !isRow || len(row) < 2 {
			put(s)
			continue
		}
		block, first := s.Name, max(where.from, 1)
		if where.from > 0 {
			block = s.Name[:len(where.block)]
		}
		for i, e := range row {
			if e != unseen {
				put(Setting{s.Line, fmt.Sprintf("%s.%d", block, first+i), sayElement(e)})
			}
		}
	}
	return names, at
}

func settings(from, to Card) []Change {
	changes := []Change{}
	_, before := flat(from.Settings)
	names, after := flat(to.Settings)
	for _, name := range names {
		now, was := after[name], before[name]
		switch {
		case was.Name == "":
			changes = append(changes, Change{Of: OfSetting, Card: to.Title, What: now.Name, To: now.At, Open: true,
				Do: fmt.Sprintf("%s: set %s to %s; how it stands nobody noted", to.Title, now.Name, now.At)})
		case folded(was.At) != folded(now.At):
			changes = append(changes, Change{Of: OfSetting, Card: to.Title, What: now.Name, From: was.At, To: now.At,
				Do: fmt.Sprintf("%s: set %s from %s to %s", to.Title, now.Name, was.At, now.At)})
		}
	}
	return changes
}

func firmware(from, to []Entry) []Change {
	changes := []Change{}
	for _, now := range to {
		at := slices.IndexFunc(from, func(e Entry) bool { return strings.EqualFold(e.Name, now.Name) })
		switch {
		case at < 0:
			changes = append(changes, Change{Of: OfFirmware, What: now.Name, To: now.Value, Open: true,
				Do: fmt.Sprintf("enter %s = %s in the setup of the firmware; how it is nobody noted", now.Name, now.Value)})
		case from[at].Value != now.Value:
			changes = append(changes, Change{Of: OfFirmware, What: now.Name, From: from[at].Value, To: now.Value,
				Do: fmt.Sprintf("change %s from %s to %s in the setup of the firmware", now.Name, from[at].Value, now.Value)})
		}
	}
	return changes
}

func media(from, to []string) []Change {
	changes := []Change{}
	holds := func(all []string, one string) bool {
		return slices.ContainsFunc(all, func(other string) bool { return strings.EqualFold(one, other) })
	}
	for _, m := range from {
		if !holds(to, m) {
			changes = append(changes, Change{Of: OfMedium, What: m, From: "there", Do: "take out: " + m})
		}
	}
	for _, m := range to {
		if !holds(from, m) {
			changes = append(changes, Change{Of: OfMedium, What: m, To: "there", Do: "put in: " + m})
		}
	}
	return changes
}

func files(from, to []File) []Change {
	changes := []Change{}
	find := func(all []File, name string) int {
		return slices.IndexFunc(all, func(f File) bool { return strings.EqualFold(f.Name, name) })
	}
	for _, now := range to {
		at := find(from, now.Name)
		switch {
		case at < 0:
			changes = append(changes, Change{Of: OfFile, What: now.Name, To: "as written", Open: true,
				Do: "write " + now.Name + "; what it holds nobody noted", Text: linediff.Of(nil, lines(now.Text))})
		case from[at].Text != now.Text:
			changes = append(changes, Change{Of: OfFile, What: now.Name, From: "other", To: "as written",
				Do: "change " + now.Name, Text: linediff.Of(lines(from[at].Text), lines(now.Text))})
		}
	}
	return changes
}

func lines(text string) []string { return strings.Split(strings.TrimRight(text, "\n"), "\n") }
