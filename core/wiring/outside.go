package wiring

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"frugalheron/core/verdict"
)

// Port is a connector that can be reached from outside.
type Port struct {
	Where string            // as rear, or Video card J2
	Words string            // what it is, as D-sub 25 female
	Label string            // what is printed beside it
	Use   string            // what it is for
	Pins  map[string]string // what each carries, as far as it is known
	Line  int               // of the sheet of the outside; 0 for one that only the library knows
}

// Name is what a port is called in a sentence.
func (p Port) Name() string {
	name := p.Words
	if p.Label != "" {
		name += ` "` + p.Label + `"`
	}
	return name + ", " + p.Where
}

// Twins are two ports that take the same plug and are not the same.
type Twins struct {
	A     string `json:"a" says:"text"`
	B     string `json:"b" says:"text"`
	State string `json:"state" enum:"differ,unknown" doc:"Unknown where nobody says whether they are alike"`
	Harm  bool   `json:"harm" doc:"A supply meets something else where they are mistaken"`
	Why   string `json:"why" says:"text"`
	lines []int
}

// OutsideTwins finds ports of one machine that take the same plug but differ: by what is printed beside them, by what they
// are for, and by what their pins carry. Those that are alike are left out.
func OutsideTwins(ports []Port) []Twins {
	told := []Twins{}
	for i, b := range ports {
		for _, a := range ports[:i] {
			plugA, okA := PlugOf(a.Words)
			plugB, okB := PlugOf(b.Words)
			if !okA || !okB {
				continue
			}
			takes, perhaps := plugA.Takes(plugB)
			if !takes {
				continue
			}
			if t, differ := compare(a, b); differ {
				if perhaps {
					t.State, t.Why = "unknown", t.Why+"; whether both take the same plug is not told wholly"
				}
				told = append(told, t)
			}
		}
	}
	slices.SortStableFunc(told, func(a, b Twins) int { return rank(a) - rank(b) })
	return told
}

func rank(t Twins) int {
	switch {
	case t.Harm:
		return 0
	case t.State == "differ":
		return 1
	}
	return 2
}

// compare tells in what two ports differ that take the same plug.
func compare(a, b Port) (t Twins, differ bool) {
	t = Twins{A: a.Name(), B: b.Name(), State: "differ", lines: []int{a.Line, b.Line}}
	pins := []string{}
	for pin, signal := range a.Pins {
		other, isTold := b.Pins[pin]
		if !isTold || strings.EqualFold(signal, other) {
			continue
		}
		pins = append(pins, fmt.Sprintf("pin %s is %s here and %s there", pin, signal, other))
		t.Harm = t.Harm || supply.MatchString(signal) != supply.MatchString(other)
	}
	slices.Sort(pins)
	forA, forB := kindOf(a), kindOf(b)
	switch {
	case len(pins) > 0:
		t.Why = strings.Join(pins, "; ")
	case forA == "" || forB == "":
		t.State, t.Why = "unknown", "what "+unsaid(a, b, forA)+" is for is not told"
	case forA != forB:
		t.Why = fmt.Sprintf("one is for %s, the other for %s", saidOf(a), saidOf(b))
		t.Harm = powers.MatchString(forA) != powers.MatchString(forB)
	default:
		return t, false
	}
	return t, true
}

func unsaid(a, b Port, forA string) string {
	if forA == "" {
		return a.Name()
	}
	return b.Name()
}

var (
	// supply is a signal that feeds something.
	supply = regexp.MustCompile(`(?i)^[+-]?\s*\d+([.,]\d+)?\s*v\b|^[+-]\d+([.,]\d+)?$|\b(vcc|vdd|vbb|power|supply|feed|mains)\b`)
	powers = regexp.MustCompile(`(?i)\b(power|supply|mains|[+-]?\d+([.,]\d+)?\s*v)\b`)
	counts = regexp.MustCompile(`[\s\d#.]+|\b[a-z]\b`)
)

// kindOf is what a port is for: what is printed beside it without its number, else what it is used for. Two of a kind
// are alike, whatever hangs on them.
func kindOf(p Port) string {
	if label := strings.TrimSpace(counts.ReplaceAllString(strings.ToLower(p.Label), " ")); label != "" {
		return label
	}
	return strings.ToLower(strings.Join(strings.Fields(p.Use), " "))
}

func saidOf(p Port) string {
	if kindOf(Port{Label: p.Label}) != "" {
		return p.Label
	}
	return p.Use
}

// Joined puts what the library knows of the connectors of boards to the ports that were seen: one that is the only one of
// its shape on both sides, or that shares a word with what is printed there. Those that are on no port beyond doubt follow,
// unless they may be one that was seen.
func Joined(seen, known []Port) []Port {
	joined, left := slices.Clone(seen), []Port{}
	taken := make([]bool, len(seen))
	for _, k := range known {
		plug, ok := PlugOf(k.Words)
		if !ok || plug.Family == "edge" {
			continue
		}
		like := func(of []Port) (at []int) {
			for i, p := range of {
				if other, ok := PlugOf(p.Words); ok {
					if takes, _ := plug.Takes(other); takes {
						at = append(at, i)
					}
				}
			}
			return at
		}
		here := like(seen)
		at := slices.IndexFunc(here, func(i int) bool { return !taken[i] && shareWord(seen[i], k) })
		switch {
		case at >= 0:
			at = here[at]
		case len(here) == 1 && len(like(known)) == 1 && !taken[here[0]]:
			at = here[0]
		default:
			if !slices.ContainsFunc(here, func(i int) bool { return !taken[i] }) {
				left = append(left, k)
			}
			continue
		}
		taken[at] = true
		joined[at].Pins = k.Pins
		if joined[at].Use == "" {
			joined[at].Use = k.Use
		}
	}
	return append(joined, left...)
}

func shareWord(a, b Port) bool {
	words := strings.Fields(strings.ToLower(a.Label + " " + a.Use))
	return slices.ContainsFunc(strings.Fields(strings.ToLower(b.Label+" "+b.Use)), func(w string) bool {
		return len(w) > 2 && slices.Contains(words, w)
	})
}

var outsideTwins = verdict.NewSentence("outside-twins", "{a} takes the same plug as {b}: {why}")

// TwinsVerdict says which ports of a machine may be mistaken, by lines of the sheet of its outside.
func TwinsVerdict(twins []Twins, outside int64) verdict.Verdict {
	v := verdict.Verdict{Key: "outside-twins", Label: "Easily mistaken outside"}
	v.Value = verdict.Counted(len(twins), "pair of ports", "pairs of ports")
	for _, t := range twins {
		reason := outsideTwins.Because(t.A, t.B, t.Why)
		for _, line := range t.lines {
			if line > 0 && reason.Spot == nil {
				reason = reason.At(outside, line)
			}
		}
		v.Why = append(v.Why, reason)
		if t.State == "differ" {
			v.State = verdict.Attention
		}
		if t.Harm {
			v.Caution = "A lead in the wrong one of them puts a supply where none belongs: label both, and plug with everything off."
		}
	}
	return v
}
