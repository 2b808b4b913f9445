// Package pack answers: what does an entry of another collection's library say that ours does not, and in what do the two
// contradict each other?
package pack

import (
	"maps"
	"slices"
	"strings"
)

// Sort is what an entry is about.
type Sort string

// Sorts of entries.
const (
	Known     Sort = "known assembly"
	Model     Sort = "model"
	Procedure Sort = "procedure"
	Type      Sort = "type"
)

// Fields are what an entry says, by the names of its fields.
type Fields map[string]string

// State is how an entry of a pack stands to what is here.
type State string

// States.
const (
	New    State = "new"
	Same   State = "same"
	Adds   State = "adds"   // it says more, and contradicts nothing
	Beside State = "beside" // it contradicts what is here
	Wrong  State = "wrong"  // it cannot be taken
)

// Unlike is a field, or a line of one, in which an entry of a pack is not as the one here.
type Unlike struct {
	Field string `json:"field"`
	Here  string `json:"here" says:"text" doc:"Empty where nothing is said here"`
	Pack  string `json:"pack" says:"text"`
}

// Contradicts reports whether both say something of the same, and not the same.
func (d Unlike) Contradicts() bool { return d.Here != "" }

// claim is what a line says of something.
type claim struct{ of, says string }

// lineFields are those that say something on each line, with what a line is about and what it says of that; where nothing
// is told of a field, its lines only add to each other. Other fields say one thing.
var lineFields = map[Sort]map[string]func(line string) claim{
	Known: {"numbers": nil, "printed": nil, "chips": chipClaim, "details": detailClaim, "signs": signClaim,
		"note": nil},
	Model: {"variants": nil, "expected": nil, "figures": figureClaim, "facts": factClaim, "signs": signClaim,
		"note": nil},
}

// Compare tells how an entry of a pack stands to the one here, and what it would add to that.
func Compare(sort Sort, here, pack Fields) (State, []Unlike, Fields) {
	differences, merged := []Unlike{}, maps.Clone(here)
	for _, name := range slices.Sorted(maps.Keys(pack)) {
		ours, theirs := strings.TrimSpace(here[name]), strings.TrimSpace(pack[name])
		of, isLines := lineFields[sort][name]
		switch {
		case theirs == "" || folded(ours) == folded(theirs):
		case isLines:
			found, lines := compareLines(name, ours, theirs, of)
			differences = append(differences, found...)
			merged[name] = strings.TrimSpace(strings.Join(append([]string{ours}, lines...), "\n"))
		default:
			differences = append(differences, Unlike{name, ours, theirs})
			if ours == "" {
				merged[name] = theirs
			}
		}
	}
	switch {
	case len(differences) == 0:
		return Same, differences, merged
	case slices.ContainsFunc(differences, Unlike.Contradicts):
		return Beside, differences, merged
	}
	return Adds, differences, merged
}

// compareLines finds the lines of a pack that are not here, and of these the ones that contradict none that is.
func compareLines(field, ours, theirs string, of func(string) claim) (differences []Unlike, adds []string) {
	here := map[string]bool{}
	claims := map[string]string{}
	for line := range strings.SplitSeq(ours, "\n") {
		here[folded(line)] = true
		if of != nil && strings.TrimSpace(line) != "" {
			c := of(line)
			claims[c.of] = strings.TrimSpace(line)
		}
	}
	for line := range strings.SplitSeq(theirs, "\n") {
		line = strings.TrimSpace(line)
		if line == "" || here[folded(line)] {
			continue
		}
		here[folded(line)] = true
		if of != nil {
			c := of(line)
			if other, isSaid := claims[c.of]; isSaid && c.of != "" && of(other).says != c.says {
				differences = append(differences, Unlike{field, other, line})
				continue
			}
		}
		differences, adds = append(differences, Unlike{field, "", line}), append(adds, line)
	}
	return differences, adds
}

// folded is a text without regard to case and blanks.
func folded(text string) string { return strings.ToLower(strings.Join(strings.Fields(text), " ")) }

func cellsOf(line string) []string {
	cells := strings.Split(line, "|")
	for i := range cells {
		cells[i] = folded(cells[i])
	}
	return cells
}

// factClaim reads processor = HX8810 | who says so: another source is no contradiction.
func factClaim(line string) claim {
	of, rest, _ := strings.Cut(line, "=")
	return claim{folded(of), cellsOf(rest)[0]}
}

// figureClaim reads +5 = 4.9 .. 5.2 V, or disk size <= 504 MiB.
func figureClaim(line string) claim {
	if of, rest, ok := strings.Cut(line, "<="); ok {
		return claim{folded(of) + " <=", folded(rest)}
	}
	of, rest, _ := strings.Cut(line, "=")
	return claim{folded(of), folded(rest)}
}

// signClaim reads lamps 1101 | self-test | what it means | ...; row, radix and fields say one thing. Lines for other cards
// are about something else.
func signClaim(line string) claim {
	cells := cellsOf(line)
	for _, head := range []string{"row", "radix", "fields"} {
		if rest, ok := strings.CutPrefix(cells[0], head+" "); ok {
			return claim{head, rest}
		}
	}
	if len(cells) < 3 {
		return claim{}
	}
	of := strings.TrimPrefix(cells[0], "expect ") + " | " + cells[1]
	if len(cells) > 5 {
		of += " | " + strings.Join(cells[5:], " | ")
	}
	return claim{of, cells[2]}
}

// several are lines about a known assembly of which there may be more than one that say different things.
var several = []string{"needs", "covers", "document", "fault"}

// detailClaim reads jumper JP1 | 1-2 = 256 KB and the like: what stands in the first cell is what the rest is about.
func detailClaim(line string) claim {
	cells := cellsOf(line)
	head, _, _ := strings.Cut(cells[0], " ")
	if slices.Contains(several, head) {
		return claim{}
	}
	if head == "memory" {
		return claim{"memory | " + strings.Join(cells[1:], " | "), cells[0]}
	}
	return claim{cells[0], strings.Join(cells[1:], " | ")}
}

// chipClaim reads 8x 41256: how many of a type there are.
func chipClaim(line string) claim {
	count, number, ok := strings.Cut(folded(line), "x ")
	if !ok {
		return claim{folded(line), "1"}
	}
	return claim{strings.TrimSpace(number), count}
}
