package condition

import (
	"context"
	"strings"

	"frugalheron/core/condition"
	"frugalheron/store/pg"
)

// AgeingPiece is one part that ages, by itself.
type AgeingPiece struct {
	AssemblyID int64
	Class      string
	Place      string // its designator; empty where it has none
	Words      string // what it is, as it stands on it
}

// AgeingPieces lists those of a machine, each by itself, in the order of its sheets.
func AgeingPieces(ctx context.Context, h pg.Handle, machineID int64) ([]AgeingPiece, error) {
	all, err := knownOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	table, _, err := tableIn(ctx, h)
	if err != nil {
		return nil, err
	}
	pieces := []AgeingPiece{}
	for _, p := range all.parts() {
		if class := table.ClassOf(p.Tells); p.Line == 0 && class != "" {
			pieces = append(pieces, AgeingPiece{p.AssemblyID, class, "", p.Board}) // a board of its own, as a drive
		}
	}
	for _, r := range all.held {
		class := table.ClassOf(condition.Tells(wordsOf(r)))
		if class == "" {
			continue
		}
		places := strings.Fields(r.Places)
		for n := range max(r.Count, len(places)) {
			one := AgeingPiece{r.AssemblyID, class, "", r.Marking}
			if n < len(places) {
				one.Place = places[n]
			}
			pieces = append(pieces, one)
		}
	}
	return pieces, nil
}
