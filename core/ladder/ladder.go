// Package ladder answers: with what is a machine tried first, and in which order does the rest come back?
//
// It proposes rungs by rule of thumb; people change them. Nothing in it permits power: that is for the gate, for local
// rules and for competent people.
package ladder

import (
	_ "embed"
	"regexp"
	"slices"
	"strings"
	"sync"

	"frugalheron/core/table"
)

//go:embed order.tsv
var orderTable string

type orderRow struct {
	words      *regexp.Regexp
	sign, stop string
}

var orderRows = sync.OnceValue(func() (rows []orderRow) {
	for _, cells := range table.Reference("ladder", orderTable, "rank", "words", "sign", "stop", "source") {
		rows = append(rows, orderRow{regexp.MustCompile(`(?i)` + cells[1]), cells[2], cells[3]})
	}
	return rows
})

// Unit is an assembly that is in the machine.
type Unit struct {
	Title string
	Kind  string // board, card, drive, supply ...
}

// Kind says whether a rung is the minimum, or adds one thing.
type Kind string

// Kinds of rungs.
const (
	Minimum Kind = "minimum"
	Add     Kind = "add"
)

// Rung is one step: what is in, what one expects to see, and when one stops.
type Rung struct {
	Step string `json:"step" says:"text" maxLength:"200" doc:"What is in, or what is added"`
	Kind Kind   `json:"kind" enum:"minimum,add"`
	Sign string `json:"sign" says:"text" maxLength:"400" required:"false" doc:"What one expects to see, hear or read"`
	Stop string `json:"stop" says:"text" maxLength:"400" required:"false" doc:"When one stops"`
}

const (
	minimumSign = "rails within their limits, nothing hot, a lamp or a beep"
	minimumStop = "smell, smoke, a hot part, a rail outside its limits, no sign after ten seconds"
)

// Propose works out the minimum, with what stays out, and the order in which that comes back.
func Propose(units []Unit) []Rung {
	inside, others := []string{}, []Unit{}
	for _, u := range units {
		switch u.Kind {
		case "board":
			inside = append(inside, u.Title)
		case "supply", "exterior", "cable":
		default:
			others = append(others, u)
		}
	}
	if len(inside) == 0 && len(others) > 0 {
		inside, others = []string{others[0].Title}, others[1:]
	}
	if len(inside) == 0 {
		return []Rung{{Step: "the machine as it is", Kind: Minimum, Sign: minimumSign, Stop: minimumStop}}
	}
	step := strings.Join(inside, ", ") + " alone"
	if len(others) > 0 {
		out := []string{}
		for _, u := range others {
			out = append(out, u.Title)
		}
		step += "; out: " + strings.Join(out, ", ")
	}
	rungs := []Rung{{Step: shortened(step), Kind: Minimum, Sign: minimumSign, Stop: minimumStop}}
	slices.SortStableFunc(others, func(a, b Unit) int { return rankOf(a) - rankOf(b) })
	named := map[string]int{}
	for _, u := range others {
		row := orderRows()[rankOf(u)]
		named[u.Title]++
		title := u.Title
		for range named[u.Title] - 1 {
			title += ", the next one" // two of one name are two rungs
		}
		rungs = append(rungs, Rung{Step: shortened(title), Kind: Add, Sign: row.sign, Stop: row.stop})
	}
	return rungs
}

func rankOf(u Unit) int {
	return slices.IndexFunc(orderRows(), func(row orderRow) bool { return row.words.MatchString(u.Title + " " + u.Kind) })
}

// longest is how long the words of a rung may be, in characters.
const longest = 200

func shortened(text string) string {
	if runes := []rune(text); len(runes) > longest {
		return string(runes[:longest-1]) + "…"
	}
	return text
}
