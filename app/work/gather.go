package work

import (
	"context"
	"slices"
	"strconv"

	"frugalheron/app/condition"
	corecondition "frugalheron/core/condition"
	"frugalheron/core/gather"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
)

// Gathering brings the bad chips of several boards of a machine onto one of them, so that one replacement serves.
type Gathering struct {
	gather.Plan
	Boards map[string]string `json:"boards" says:"text" doc:"What the boards are called, by their ids"`
}

// mostOnABoard bounds the lines of a board that are compared.
const mostOnABoard = 2000

// gatherOnOneBoard looks for swaps between the boards of a machine. A chip is bad while an open finding names it that asks
// for more than a watchful eye; one whose type nobody read has no like. Nil where there is nothing to gain.
func gatherOnOneBoard(ctx context.Context, h pg.Handle, machineID int64,
	found []condition.FindingView) (*Gathering, error) {
	bad := map[int64][]string{}
	for _, f := range found {
		isGrave := f.Story.Severity == corecondition.Repair || f.Story.Severity == corecondition.Hazard
		if f.Story.Open && isGrave && f.AssemblyID != nil && f.Designator != "" {
			bad[*f.AssemblyID] = append(bad[*f.AssemblyID], f.Designator)
		}
	}
	if len(bad) < 2 {
		return nil, nil
	}
	fitted, err := inventory.AssembliesOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	boards, titles := []gather.Board{}, map[int64]string{}
	for _, one := range fitted {
		lines, err := sheets.EntriesOf(ctx, h, one.ID, 0, mostOnABoard)
		if err != nil {
			return nil, err
		}
		titles[one.ID] = one.Title
		boards = append(boards, gather.Board{ID: one.ID, Chips: chipsOf(lines, bad[one.ID])})
	}
	plan, ok := gather.Onto(boards)
	if !ok {
		return nil, nil
	}
	told := &Gathering{Plan: plan, Boards: map[string]string{}}
	for _, swap := range plan.Swaps {
		for _, id := range []int64{swap.Bad.Board, swap.Good.Board} {
			told.Boards[strconv.FormatInt(id, 10)] = titles[id]
		}
	}
	return told, nil
}

// chipsOf lists what sits on a board. A bad chip whose type nobody read, or that stands on no line, stays where it is.
func chipsOf(lines []sheets.EntryRow, bad []string) []gather.Chip {
	chips, onLines := []gather.Chip{}, []string{}
	for _, line := range lines {
		for _, place := range line.Designators {
			isBad := slices.ContainsFunc(bad, func(written string) bool { return sheet.Names(written, place) })
			onLines = append(onLines, place)
			if line.Empty || reckoning.Kind(line.Kind) != reckoning.Chip || line.TypeNumber == "" && !isBad {
				continue
			}
			chips = append(chips, gather.Chip{Place: place, Type: line.TypeNumber, SpeedNs: line.SpeedNs, Bad: isBad,
				Fixed: !line.Socketed || line.TypeNumber == ""})
		}
	}
	for _, written := range bad {
		if !slices.ContainsFunc(onLines, func(place string) bool { return sheet.Names(written, place) }) {
			chips = append(chips, gather.Chip{Place: written, Bad: true, Fixed: true})
		}
	}
	return chips
}
