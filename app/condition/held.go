package condition

import (
	"context"
	"strings"

	appinventory "frugalheron/app/inventory"
	"frugalheron/core/condition"
	storecondition "frugalheron/store/condition"
	"frugalheron/store/pg"
)

// heldParts are what a machine holds, as surveys and the ranking of what ages know it: the lines of its
// sheets, and its boards by their kind and name.
func heldParts(ctx context.Context, h pg.Handle, machineID int64) ([]condition.Part, []storecondition.HeldPart, error) {
	rows, err := storecondition.HeldParts(ctx, h, machineID)
	if err != nil {
		return nil, nil, err
	}
	assemblies, err := appinventory.AssembliesOf(ctx, h, machineID)
	if err != nil {
		return nil, nil, err
	}
	parts := []condition.Part{}
	for _, a := range assemblies {
		parts = append(parts,
			condition.Part{AssemblyID: a.ID, Board: a.Title, Place: a.Title,
				Tells: condition.Tells(condition.Words{Kind: "board", Marking: a.Title + " " + a.Kind})})
	}
	for _, r := range rows {
		parts = append(parts,
			condition.Part{AssemblyID: r.AssemblyID, Board: r.Board, Line: r.Line, Place: r.Places,
				Words: strings.TrimSpace(r.Marking + " " + r.Findings), Tells: condition.Tells(wordsOf(r))})
	}
	return parts, rows, nil
}

func wordsOf(r storecondition.HeldPart) condition.Words {
	return condition.Words{Kind: r.Kind, Class: r.Class, Ages: r.Ages, Marking: r.Marking,
		Places:   strings.Fields(r.Places),
		Socketed: r.Socketed, Board: r.Board}
}
