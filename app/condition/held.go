package condition

import (
	"strings"

	"frugalheron/core/condition"
	storecondition "frugalheron/store/condition"
)

// parts are what a machine holds, as surveys and the ranking of what ages know it: the lines of its sheets, and its boards by
// their kind and name.
func (r records) parts() []condition.Part {
	parts := []condition.Part{}
	for _, b := range r.fitted {
		if !r.boards[b.ID].isExterior {
			parts = append(parts, condition.Part{AssemblyID: b.ID, Board: b.Title, Place: b.Title,
				Tells: condition.Tells(condition.Words{Kind: "board", Marking: b.Title + " " + b.Kind})})
		}
	}
	for _, p := range r.held {
		parts = append(parts, condition.Part{AssemblyID: p.AssemblyID, Board: p.Board, Line: p.Line, Place: p.Places,
			Words: strings.TrimSpace(p.Marking + " " + p.Findings), Tells: condition.Tells(wordsOf(p))})
	}
	return parts
}

func wordsOf(r storecondition.HeldPart) condition.Words {
	return condition.Words{Kind: r.Kind, Class: r.Class, Ages: r.Ages, Marking: r.Marking,
		Places:   strings.Fields(r.Places),
		Socketed: r.Socketed, Board: r.Board}
}
