// Package ladder answers: with what is a machine tried first, and in which order does the rest come back?
//
// It proposes rungs by rule of thumb; people change them. Nothing in it permits power: that is for the gate, for local
// rules and for competent people.
package ladder

import (
	"cmp"
	_ "embed"
	"fmt"
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
	Slot  string // in which it sits; empty for none, or where nobody said
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
		switch {
		case u.Kind == "supply" || u.Kind == "exterior" || u.Kind == "cable":
		case (u.Kind == "board" || u.Kind == "") && u.Slot == "":
			inside = append(inside, u.Title)
		default:
			others = append(others, u) // what sits in a slot can be left out
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
	rungs := []Rung{{Step: shortened(step, 0), Kind: Minimum, Sign: minimumSign, Stop: minimumStop}}
	slices.SortStableFunc(others, func(a, b Unit) int { return rankOf(a) - rankOf(b) })
	named := map[string]int{strings.ToLower(rungs[0].Step): 1}
	for _, u := range others {
		row := orderRows()[rankOf(u)]
		step := shortened(cmp.Or(strings.TrimSpace(u.Title), u.Kind, "one without a name"), 0)
		if named[strings.ToLower(step)]++; named[strings.ToLower(step)] > 1 {
			// Two of one name are two rungs.
			number := fmt.Sprintf(", number %d", named[strings.ToLower(step)])
			step = shortened(step, len(number)) + number
		}
		rungs = append(rungs, Rung{Step: step, Kind: Add, Sign: row.sign, Stop: row.stop})
	}
	return rungs
}

func rankOf(u Unit) int {
	return slices.IndexFunc(orderRows(),
		func(row orderRow) bool { return row.words.MatchString(u.Title + " " + u.Kind + " ") })
}

// longest is how long the words of a rung may be, in characters.
const longest = 200

// shortened keeps words within what fits, with room for so many characters behind them.
func shortened(text string, room int) string {
	if runes := []rune(text); len(runes) > longest-room {
		return string(runes[:longest-room-1]) + "…"
	}
	return text
}
