package sheets

import (
	"context"
	"strings"

	"frugalheron/app/action"
	"frugalheron/core/linemerge"
	"frugalheron/store/sheets"
)

// Merged is a sheet that somebody was writing, together with the revision that somebody else
// saved meanwhile. Nothing of it is kept yet.
type Merged struct {
	Newer     Revision            `json:"newer" doc:"The newest revision, without its text; a save of the merged sheet goes on top of it"`
	Body      string              `json:"body" says:"sheet" doc:"The merged text; where both changed the same lines it holds both versions"`
	Conflicts int                 `json:"conflicts" doc:"Stretches where both changed the same lines"`
	Stretches []linemerge.Stretch `json:"stretches" doc:"The whole sheet, stretch by stretch"`
}

// MergeSheet merges a text that was written on revision base (0 for the empty sheet before the
// first) with the newest revision of an assembly's sheet.
func (s *Service) MergeSheet(ctx context.Context, actor action.Actor, assemblyID int64, base int,
	body string) (Merged, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return Merged{}, err
	}
	if err := Readable(body); err != nil {
		return Merged{}, err
	}
	newest, err := s.Sheet(ctx, actor, assemblyID)
	if err != nil {
		return Merged{}, err
	}
	started := sheets.Revision{}
	if base > 0 {
		if started, err = sheets.RevisionOf(ctx, s.kernel.Reader(ctx), assemblyID, base); err != nil {
			return Merged{}, err
		}
	}
	stretches := linemerge.Of(keptLines(started.Body), keptLines(body), keptLines(newest.Body))
	newest.Body = ""
	return Merged{
		Newer: newest, Body: strings.Join(linemerge.Lines(stretches), "\n"),
		Conflicts: linemerge.Conflicts(stretches), Stretches: stretches,
	}, nil
}

// keptLines splits a text so that joining the lines gives it back byte for byte.
func keptLines(body string) []string {
	if body == "" {
		return nil
	}
	return strings.Split(body, "\n")
}
