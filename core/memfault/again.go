package memfault

import (
	"fmt"
	"slices"
	"strconv"
)

// Test is what a memory test of a day led to.
type Test struct {
	On     string // YYYY-MM-DD
	Output Output
}

// Again is what failed more than once over time.
type Again struct {
	What string   `json:"what" enum:"chip,neighbours,line" doc:"The same chip, chips beside each other in a bank, or one bit in several banks"`
	Is   []string `json:"is" doc:"Designators, or the data line"`
	Days []string `json:"days"`
	Why  string   `json:"why" says:"text"`
}

// Recurring tells what came back: the same chip on two days or more; else one bit that failed in several banks, which is
// rather its line; else chips beside each other in one bank, which share supply and warmth. Tests of one day count once.
func Recurring(banks []Bank, tests []Test) []Again {
	seats := map[string][]pair{}
	for b, bank := range banks {
		for written, designator := range bank.Chips {
			if bit, err := strconv.Atoi(written); err == nil {
				seats[designator] = append(seats[designator], pair{b, bit})
			}
		}
	}
	days, order := map[string][]string{}, []string{}
	for _, t := range tests {
		for _, s := range t.Output.Suspects {
			if s.Kind != Chip || slices.Contains(days[s.Designator], t.On) {
				continue
			}
			if len(days[s.Designator]) == 0 {
				order = append(order, s.Designator)
			}
			days[s.Designator] = append(days[s.Designator], t.On)
		}
	}
	found := []Again{}
	single := []string{}
	for _, designator := range order {
		if on := days[designator]; len(on) > 1 {
			found = append(found, Again{"chip", []string{designator}, sorted(on),
				fmt.Sprintf("%s failed on %d days: the chip, or its socket", designator, len(on))})
			continue
		}
		single = append(single, designator)
	}
	for i, one := range single {
		for _, other := range single[i+1:] {
			if days[one][0] == days[other][0] {
				continue
			}
			on := sorted([]string{days[one][0], days[other][0]})
			for _, a := range seats[one] {
				for _, b := range seats[other] {
					switch {
					case a.bit == b.bit && a.bank != b.bank:
						found = append(found, Again{"line", []string{fmt.Sprintf("D%d", a.bit)}, on,
							fmt.Sprintf("bit %d failed in %s and in %s on other days: rather the line than two chips", a.bit,
								banks[a.bank].ID, banks[b.bank].ID)})
					case a.bank == b.bank && (a.bit-b.bit == 1 || b.bit-a.bit == 1):
						found = append(found, Again{"neighbours", []string{one, other}, on,
							fmt.Sprintf("%s and %s stand beside each other in %s: look at what they share", one, other, banks[a.bank].ID)})
					}
				}
			}
		}
	}
	return found
}

func sorted(days []string) []string {
	days = slices.Clone(days)
	slices.Sort(days)
	return days
}
