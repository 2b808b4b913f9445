package condition

import (
	"context"
	"strings"

	"frugalheron/app/evidence"
	"frugalheron/core/caution"
	"frugalheron/core/condition"
	storecondition "frugalheron/store/condition"
	"frugalheron/store/pg"
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

// HoldingsIn is what a machine is known to hold that adds to cautions, by its sheets, its boards and its outside.
func HoldingsIn(ctx context.Context, h pg.Handle, machineID int64) ([]caution.Holding, error) {
	words := []string{}
	held, err := storecondition.HeldParts(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	for _, p := range held {
		words = append(words, condition.Tells(wordsOf(p)))
	}
	boards, err := storecondition.BoardsIn(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	for _, b := range boards {
		words = append(words, b.Title)
	}
	outside, _, err := evidence.ExteriorOf(ctx, h, machineID)
	for _, e := range outside.Entries {
		words = append(words, e.Thing+" "+e.Words)
	}
	return caution.HoldingsOf(words), err
}
