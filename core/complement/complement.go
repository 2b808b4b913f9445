// Package complement answers: how do the boards and cards of a machine sit in it, slot by slot, and what of that cannot be?
package complement

import (
	"cmp"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// Unit is an assembly that is in the machine.
type Unit struct {
	ID     int64
	Title  string
	Kind   string   // board, card, drive, supply ...
	Slot   string   // in which it is said to sit; empty where nobody said
	Gives  []Slots  // that it has for others, as far as it is known
	Covers []string // slots that nothing else fits in while it is there, in words
}

// Slots are some that a board has for others.
type Slots struct {
	Count int
	Kind  string
	Names []string // what they are called; empty where they are numbered on
}

// Bay is a slot, with what sits in it.
type Bay struct {
	Slot      string  `json:"slot" doc:"Its number or name"`
	Kind      string  `json:"kind" says:"text" doc:"What fits in it; empty where that is not known"`
	Units     []int64 `json:"units" doc:"Assemblies by id; more than one cannot be"`
	CoveredBy int64   `json:"coveredBy" doc:"The assembly by which it is covered; 0 for none"`
}

// Layout is how the assemblies of a machine sit.
type Layout struct {
	Boards  []int64  `json:"boards" doc:"What sits in no slot of another, and has some"`
	Bays    []Bay    `json:"bays" doc:"The slots, in their order"`
	Others  []int64  `json:"others" doc:"Drives, supplies and the like, and cards of which nobody said where they sit"`
	Remarks []string `json:"remarks" says:"text" doc:"What is not told, and what cannot be"`
}

// Lay lays the assemblies of a machine out, in the order in which they are given.
func Lay(units []Unit) Layout {
	l := Layout{Boards: []int64{}, Bays: []Bay{}, Others: []int64{}, Remarks: []string{}}
	for _, u := range units {
		for _, given := range u.Gives {
			for i := range given.Count {
				name := strconv.Itoa(len(l.Bays) + 1)
				if i < len(given.Names) {
					name = NameOf(given.Names[i])
				}
				l.Bays = append(l.Bays, Bay{Slot: name, Kind: given.Kind, Units: []int64{}})
			}
		}
	}
	known := len(l.Bays)
	for _, u := range units {
		switch name := NameOf(u.Slot); {
		case name != "":
			l.sit(u, name, known)
		case u.Kind == "board" || len(u.Gives) > 0:
			l.Boards = append(l.Boards, u.ID)
		default:
			l.Others = append(l.Others, u.ID)
			if u.Kind == "card" {
				l.Remarks = append(l.Remarks, "in which slot "+u.Title+" sits is not told")
			}
		}
	}
	slices.SortStableFunc(l.Bays, func(a, b Bay) int { return Order(a.Slot, b.Slot) })
	l.cover(units)
	l.remark(units, known)
	return l
}

// sit puts an assembly into its slot; one that nobody gives is a slot all the same.
func (l *Layout) sit(u Unit, name string, known int) {
	at := slices.IndexFunc(l.Bays, func(b Bay) bool { return b.Slot == name })
	if at < 0 {
		at = len(l.Bays)
		l.Bays = append(l.Bays, Bay{Slot: name, Units: []int64{}})
		if n, err := strconv.Atoi(name); err == nil && known > 0 {
			l.Remarks = append(l.Remarks, fmt.Sprintf("%s is said to sit in slot %d; %d are known", u.Title, n, known))
		}
	}
	l.Bays[at].Units = append(l.Bays[at].Units, u.ID)
}

// cover marks slots that are covered by what sits elsewhere.
func (l *Layout) cover(units []Unit) {
	for _, u := range units {
		for _, covered := range u.Covers {
			at := slices.IndexFunc(l.Bays, func(b Bay) bool { return b.Slot == NameOf(covered) })
			if at < 0 || slices.Contains(l.Bays[at].Units, u.ID) {
				continue
			}
			l.Bays[at].CoveredBy = u.ID
			if len(l.Bays[at].Units) > 0 {
				l.Remarks = append(l.Remarks, fmt.Sprintf("slot %s is covered by %s, and something is said to sit in it",
					l.Bays[at].Slot, u.Title))
			}
		}
	}
}

func (l *Layout) remark(units []Unit, known int) {
	titles := map[int64]string{}
	for _, u := range units {
		titles[u.ID] = u.Title
	}
	for _, b := range l.Bays {
		if len(b.Units) < 2 {
			continue
		}
		names := []string{}
		for _, id := range b.Units {
			names = append(names, titles[id])
		}
		l.Remarks = append(l.Remarks, fmt.Sprintf("%s are said to sit in slot %s; look again", strings.Join(names, " and "),
			b.Slot))
	}
	if known == 0 && len(l.Bays) > 0 {
		l.Remarks = append(l.Remarks, "how many slots there are is not known; the record of the main board can say it, as "+
			"gives 5 slots | 8-bit")
	}
}

var slotWord = regexp.MustCompile(`(?i)^(?:slot|position|no\.?)\s*`)

// NameOf is the number or name of a slot, without the word for it and zeros before a number.
func NameOf(slot string) string {
	name := slotWord.ReplaceAllString(strings.TrimSpace(slot), "")
	if n, err := strconv.Atoi(name); err == nil && n > 0 {
		return strconv.Itoa(n)
	}
	return name
}

// Order puts numbers by value before names.
func Order(a, b string) int {
	first, errFirst := strconv.Atoi(a)
	second, errSecond := strconv.Atoi(b)
	switch {
	case errFirst == nil && errSecond == nil:
		return cmp.Compare(first, second)
	case errFirst == nil:
		return -1
	case errSecond == nil:
		return 1
	}
	return cmp.Compare(strings.ToLower(a), strings.ToLower(b))
}
