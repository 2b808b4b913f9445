package files

import (
	"context"

	"frugalheron/store/files"
	"frugalheron/store/pg"
)

// Part is a part of a board, by its designator.
type Part struct {
	AssemblyID int64
	Designator string
}

// Callout is a number on a picture of a board.
type Callout struct {
	AttachmentID int64 `json:"attachmentId"`
	N            int   `json:"n"`
}

// CalloutsOf finds under which numbers parts of some boards stand on pictures of a machine. Where several pictures number
// one, the last picture counts.
func CalloutsOf(ctx context.Context, h pg.Handle, machineID int64, forViewers bool,
	boards map[int64]bool) (map[Part]Callout, error) {
	found := map[Part]Callout{}
	pictures, err := files.AnnotatedPictures(ctx, h, machineID, forViewers)
	if err != nil {
		return nil, err
	}
	for _, p := range pictures {
		if !boards[p.AssemblyID] {
			continue
		}
		drawn, err := AnnotationOf(ctx, h, p.AttachmentID)
		if err != nil {
			return nil, err
		}
		for _, n := range drawn.Legend.Numbered {
			found[Part{p.AssemblyID, n.Designator}] = Callout{p.AttachmentID, n.N}
		}
	}
	return found, nil
}
