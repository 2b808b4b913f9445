package evidence

import (
	"context"
	"fmt"

	"frugalheron/app/dating"
	"frugalheron/core/calendar"
	"frugalheron/core/facts"
	"frugalheron/store/pg"
	"frugalheron/store/roms"
)

// followParts is what the date codes of the parts say of when a machine was built.
func followParts(ctx context.Context, h pg.Handle, machineID int64) ([]Stated, error) {
	built, err := dating.Estimate(ctx, h, machineID)
	if err != nil || built == nil {
		return nil, err
	}
	s := Statement{MachineID: machineID}
	s.Attribute, s.Kind, s.Cited = "built", string(facts.Inferred), "the date codes of its parts"
	s.Value = month(built.From) + "/" + month(built.To)
	return []Stated{{Statement: s, Ref: "dated", Follows: s.Cited}}, nil
}

func month(day calendar.Date) string { return fmt.Sprintf("%04d-%02d", day.Year, day.Month) }

// romBlocks are the chips that were read out, and the parts of them that some count and others do not: what repeats,
// what is blank, and what another processor runs, as that of a card.
func romBlocks(ctx context.Context, h pg.Handle, machineID int64) ([]facts.Block, error) {
	chips, err := roms.ReadChipsIn(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	blocks := []facts.Block{}
	add := func(id string, bytes int64, what string) {
		if bytes > 0 {
			blocks = append(blocks, facts.Block{ID: id, Attribute: "rom", Bytes: bytes, What: what})
		}
	}
	for _, c := range chips {
		name := c.Board + ", " + c.Designator
		if c.Purpose == "card" {
			add(name, c.Bytes, "other-processor")
			continue
		}
		add(name, c.Effective-c.Blank, "data")
		add("what is blank in "+name, c.Blank, "blank")
		add("what repeats in "+name, c.Bytes-c.Effective, "repeat")
	}
	return blocks, nil
}
