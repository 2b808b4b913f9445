package reckoning

import (
	"fmt"

	"frugalheron/core/verdict"
)

// Board is a reckoned sheet and the assembly it belongs to.
type Board struct {
	Assembly int64 // the id under which the assembly is kept
	Title    string
	Result   Result
}

// Verdicts reckons all boards of a machine together, the largest consequence first. Lines that
// would say nothing are left out.
func Verdicts(boards []Board) []verdict.Verdict {
	t := Combine(boards)
	return verdict.Telling(
		findings(boards), batteries(boards), problems(boards), ram(boards, t), rom(boards, t),
		dates(boards, t), unidentified(boards, t), parts(boards, t), emptySockets(boards, t), draw(boards, t),
		notes(boards),
	)
}

// reasons collects what say has to tell of each entry, with the line that it is on; nothing is left out.
func reasons(boards []Board, say func(e *Entry) (reason verdict.Reason, tells bool)) []verdict.Reason {
	why := []verdict.Reason{}
	for _, b := range boards {
		for _, a := range b.Result.Assemblies {
			for i := range a.Entries {
				if reason, tells := say(&a.Entries[i]); tells {
					why = append(why, reason.At(b.Assembly, a.Entries[i].Line))
				}
			}
		}
	}
	return why
}

func number(n int) string {
	if n == 0 {
		return ""
	}
	return fmt.Sprint(n)
}
