package cardcage

import (
	"slices"
	"strings"

	"frugalheron/core/complement"
	"frugalheron/core/malformed"
	"frugalheron/core/measure"
	"frugalheron/core/quantity"
)

// Row is a row of slots, as they stand beside each other.
type Row struct {
	Chassis string
	Name    string
	Kind    string
	Slots   []string
}

// Backplane is what people write of one.
type Backplane struct {
	Rows  []Row
	Chain []string            // slots in the order of the bus; empty where nothing is handed on
	Takes map[string][]string // kinds of cards that a kind of slots takes beside its own
	Rails map[string]float64  // amperes that each may give
	Base  map[string]float64  // amperes that are drawn beside the cards
}

// MostSlots is how many slots a backplane has at most.
const MostSlots = 200

const howBackplane = "write chassis, row, chain, takes, rail or base, as in row A | 8-bit | 1 2 3 4"

// Parse reads a backplane, a line each:
//
//	chassis Main box
//	row A | 8-bit | 1 2 3 4
//	row B | 16-bit | 5 6 7 8
//	takes 16-bit | 8-bit
//	chain 1 2 3 4 8 7 6 5
//	rail +5 | 20 A
//	base +5 | 2.1 A
//
// A chassis is that of the rows behind it. The chain names slots in bus order: in a serpentine every other row runs back. A
// *malformed.Error names the line of what cannot be read.
func Parse(text string) (Backplane, error) {
	b := Backplane{Takes: map[string][]string{}, Rails: map[string]float64{}, Base: map[string]float64{}}
	chassis, chainAt := "", 0
	for i, line := range strings.Split(text, "\n") {
		if before, _, isNoted := strings.Cut(" "+line, " #"); isNoted {
			line = before
		}
		if line = strings.TrimSpace(line); line == "" {
			continue
		}
		word, rest, _ := strings.Cut(line, " ")
		cells := strings.Split(rest, "|")
		for j := range cells {
			cells[j] = strings.Join(strings.Fields(cells[j]), " ")
		}
		var err error
		switch strings.ToLower(word) {
		case "chassis":
			chassis = cells[0]
		case "row":
			err = b.row(chassis, cells)
		case "chain":
			chainAt = i + 1
			b.Chain = append(b.Chain, slotNames(rest)...)
		case "takes":
			if len(cells) != 2 || cells[0] == "" || cells[1] == "" {
				err = malformed.Of("says no kinds; write takes 16-bit | 8-bit")
			} else {
				b.Takes[kind(cells[0])] = append(b.Takes[kind(cells[0])], kinds(cells[1])...)
			}
		case "rail":
			err = current(b.Rails, cells)
		case "base":
			err = current(b.Base, cells)
		default:
			err = malformed.Of("begins with %q; %s", word, howBackplane)
		}
		if err != nil {
			return Backplane{}, malformed.At(i+1, "%w", err)
		}
	}
	for i, id := range b.Chain {
		switch {
		case !b.has(id):
			return Backplane{}, malformed.At(chainAt, "the chain names slot %s, which no row has", id)
		case slices.Contains(b.Chain[:i], id):
			return Backplane{}, malformed.At(chainAt, "the chain comes to slot %s twice", id)
		}
	}
	return b, nil
}

func slotNames(text string) []string {
	names := []string{}
	for _, name := range strings.FieldsFunc(text, func(r rune) bool { return r == ' ' || r == ',' || r == '\t' }) {
		names = append(names, complement.NameOf(name))
	}
	return names
}

func (b *Backplane) row(chassis string, cells []string) error {
	if len(cells) != 3 || len(slotNames(cells[2])) == 0 {
		return malformed.Of("says no slots; write row A | 8-bit | 1 2 3 4")
	}
	r := Row{Chassis: chassis, Name: cells[0], Kind: cells[1]}
	for _, id := range slotNames(cells[2]) {
		if b.has(id) || slices.Contains(r.Slots, id) {
			return malformed.Of("names slot %s again", id)
		}
		r.Slots = append(r.Slots, id)
	}
	b.Rows = append(b.Rows, r)
	if n := b.count(); n > MostSlots {
		return malformed.Of("comes to %d slots; at most %d are taken", n, MostSlots)
	}
	return nil
}

func (b Backplane) count() (n int) {
	for _, r := range b.Rows {
		n += len(r.Slots)
	}
	return n
}

func (b Backplane) has(id string) bool {
	return slices.ContainsFunc(b.Rows, func(r Row) bool { return slices.Contains(r.Slots, id) })
}

func current(of map[string]float64, cells []string) error {
	rail := strings.Join(strings.Fields(cells[0]), "")
	if _, isRail := measure.Rail(rail); !isRail || len(cells) != 2 {
		return malformed.Of("%q is no rail with its current; write rail +5 | 20 A", strings.Join(cells, " | "))
	}
	amperes, _, err := quantity.Parse(cells[1], quantity.Amperes)
	if err == nil {
		err = quantity.Amperes.Check(amperes)
	}
	switch _, isThere := of[rail]; {
	case err != nil:
		return err
	case amperes < 0:
		return malformed.Of("%s is no current", cells[1])
	case isThere:
		return malformed.Of("names %s again", rail)
	}
	of[rail] = amperes
	return nil
}

// kind is a kind of slots as it is compared: what stands behind a comma is a remark.
func kind(text string) string {
	before, _, _ := strings.Cut(text, ",")
	return strings.ToLower(strings.Join(strings.Fields(before), " "))
}

// kinds divides kinds that serve as well: 8-bit or 16-bit.
func kinds(text string) []string {
	found := []string{}
	for one := range strings.SplitSeq(text, " or ") {
		if k := kind(one); k != "" {
			found = append(found, k)
		}
	}
	return found
}
