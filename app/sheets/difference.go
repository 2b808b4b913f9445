package sheets

import (
	"context"
	"strings"

	"frugalheron/app/action"
	"frugalheron/core/linediff"
	"frugalheron/store/sheets"
)

// Difference is how a sheet changed from one revision to another.
type Difference struct {
	From  Revision        `json:"from" doc:"Without its text; number 0 for the empty sheet before the first"`
	To    Revision        `json:"to" doc:"Without its text"`
	Lines []linediff.Line `json:"lines"`
}

// SheetDifference compares two revisions of an assembly's sheet; from may be 0.
func (s *Service) SheetDifference(ctx context.Context, actor action.Actor, assemblyID int64,
	from, to int) (Difference, error) {
	if _, err := s.inventory.Assembly(ctx, actor, assemblyID); err != nil {
		return Difference{}, err
	}
	older, newer := sheets.Revision{AssemblyID: assemblyID}, sheets.Revision{}
	var err error
	if from > 0 {
		if older, err = sheets.RevisionOf(ctx, s.kernel.Reader(ctx), assemblyID, from); err != nil {
			return Difference{}, err
		}
	}
	if newer, err = sheets.RevisionOf(ctx, s.kernel.Reader(ctx), assemblyID, to); err != nil {
		return Difference{}, err
	}
	d := Difference{Lines: linediff.Of(LinesOf(older.Body), LinesOf(newer.Body))}
	older.Body, newer.Body = "", ""
	d.From, d.To = RevisionOf(older), RevisionOf(newer)
	return d, nil
}

// LinesOf splits a text into lines, however they end; an empty one has none.
func LinesOf(body string) []string {
	if body == "" {
		return nil
	}
	return strings.Split(strings.ReplaceAll(body, "\r\n", "\n"), "\n")
}
