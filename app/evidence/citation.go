package evidence

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/core/facts"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/people"
	"frugalheron/store/pg"
)

// CheckCitation trims what the citation of a statement about a machine says, and refuses what cannot
// be one. The picture that is cited already stays, wherever it is by now.
func CheckCitation(ctx context.Context, h pg.Handle, machineID int64, cited *int64, c *Citation) error {
	err := input.CheckAll(input.OneLine("cited", &c.Cited), input.OneLine("page", &c.Page),
		input.OneLine("link", &c.Link), input.CheckEDTF("statedOn", &c.StatedOn))
	switch {
	case err != nil:
		return err
	case !facts.Source(c.Kind).IsKnown():
		return action.Reject("kind", "choose what kind of source it is")
	case c.Region != nil && c.PictureID == nil:
		return action.Reject("region", "lies on no picture; choose the picture first")
	case c.Region != nil && !Inside(*c.Region):
		return action.Reject("region", "lies outside the picture; draw it again")
	}
	if c.PartyID != nil {
		if _, err := people.PartyByID(ctx, h, *c.PartyID); err != nil {
			return input.Missing(err, "partyId", "choose somebody who is in the list of people and organisations")
		}
	}
	if c.PictureID == nil || cited != nil && *cited == *c.PictureID {
		return nil
	}
	return inventory.OfMachine(ctx, h, machineID,
		inventory.NamedAs("pictureId", storeinventory.CitedPicture, *c.PictureID))
}

// Inside reports whether a region lies on its picture: its sides are parts of it, from 0 to 1.
func Inside(r Region) bool {
	return r.X >= 0 && r.Y >= 0 && r.W > 0 && r.H > 0 && r.X+r.W <= 1.0001 && r.Y+r.H <= 1.0001
}
