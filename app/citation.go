package app

import (
	"context"

	"frugalheron/core/evidence"
	"frugalheron/store"
)

// checkCitation trims what the citation of a statement about a machine says, and refuses what cannot
// be one. The picture that is cited already stays, wherever it is by now.
func checkCitation(ctx context.Context, h store.Handle, machineID int64, cited *int64, c *store.Citation) error {
	err := checkAll(oneLine("cited", &c.Cited), oneLine("page", &c.Page), oneLine("link", &c.Link), checkEDTF("saidOn", &c.SaidOn))
	switch {
	case err != nil:
		return err
	case !evidence.Kind(c.Kind).IsKnown():
		return &Invalid{"kind", "choose what kind of source it is"}
	case c.Region != nil && c.PictureID == nil:
		return &Invalid{"region", "lies on no picture; choose the picture first"}
	case c.Region != nil && !inside(*c.Region):
		return &Invalid{"region", "lies outside the picture; draw it again"}
	}
	if c.PartyID != nil {
		if _, err := store.PartyByID(ctx, h, *c.PartyID); err != nil {
			return missing(err, "partyId", "choose somebody who is in the list of people and organisations")
		}
	}
	if c.PictureID == nil || cited != nil && *cited == *c.PictureID {
		return nil
	}
	return ofMachine(ctx, h, machineID, named{"pictureId", store.CitedPicture, *c.PictureID})
}

func inside(r store.Region) bool {
	return r.X >= 0 && r.Y >= 0 && r.W > 0 && r.H > 0 && r.X+r.W <= 1.0001 && r.Y+r.H <= 1.0001
}
