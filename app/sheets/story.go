package sheets

import (
	"context"
	"errors"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/core/condition"
	"frugalheron/core/device"
	"frugalheron/core/exterior"
	"frugalheron/core/lives"
	"frugalheron/core/reckoning"
	"frugalheron/store/inventory"
	"frugalheron/store/sheets"
)

// storyRules counts up whenever stories are told by other rules, so that what is kept is made anew.
const storyRules = 2

// tellStory goes on with the story of a sheet up to its newest revision; told by other rules it begins anew. Nobody
// counts days as the collection does.
func tellStory(ctx context.Context, tx *sqlx.Tx, nobody action.Actor, assembly inventory.Assembly,
	read func(body string) ([]lives.Written, error)) error {
	kept, err := sheets.StoryOf(ctx, tx, assembly.ID)
	if err != nil && !errors.Is(err, action.ErrNotFound) {
		return err
	}
	story := lives.Story{}
	if kept.Rules == storyRules {
		if story, err = action.ReadKept[lives.Story](kept.Story); err != nil {
			return err
		}
	} else {
		kept.Through = 0
	}
	if kept.Through == assembly.Revision {
		return nil
	}
	// The one before the first that is new tells what was there.
	revisions, err := sheets.RevisionsAfter(ctx, tx, assembly.ID, kept.Through-1)
	if err != nil || len(revisions) == 0 {
		return err
	}
	for i, revision := range revisions {
		if revision.N <= kept.Through {
			continue
		}
		now := lives.Revision{At: revision.At, On: nobody.DayOf(revision.At)}
		if now.Lines, err = read(revision.Body); err != nil {
			return err
		}
		var before []lives.Written
		if i > 0 && now.TellsOfOthers() {
			if before, err = read(revisions[i-1].Body); err != nil {
				return err
			}
		}
		story.Apply(before, now)
	}
	return sheets.PutStory(ctx, tx, sheets.StoryRow{AssemblyID: assembly.ID, Through: revisions[len(revisions)-1].N,
		Rules: storyRules, Story: action.ToKeep(story)})
}

// ChangedPositions lists the positions of an assembly where one part came after another.
func (s *Service) ChangedPositions(ctx context.Context, actor action.Actor,
	assemblyID int64) ([]ChangedPosition, error) {
	changed := []ChangedPosition{}
	if _, err := s.inventory.Assembly(ctx, actor, assemblyID); err != nil {
		return changed, err
	}
	row, err := sheets.StoryOf(ctx, s.kernel.Reader(ctx), assemblyID)
	if errors.Is(err, action.ErrNotFound) {
		return changed, nil
	}
	if err != nil {
		return changed, err
	}
	story, err := action.ReadKept[lives.Story](row.Story)
	for _, p := range story.Positions {
		one := ChangedPosition{Designator: p.Designator}
		for _, l := range p.Lives {
			one.Occupants = append(one.Occupants, Occupant{Words: l.Words, From: l.From, Came: string(l.Came),
				Until: l.Until, Went: string(l.Went)})
		}
		changed = append(changed, one)
	}
	return changed, err
}

// writtenOnBoard reads the sheet of a board for its story.
func writtenOnBoard(result reckoning.Result) []lives.Written {
	lines := []lives.Written{}
	for _, assembly := range result.Assemblies {
		for _, e := range assembly.Entries {
			w := lives.Written{Line: e.Line, Parts: e.Parts, Designators: e.Designators, Words: e.Marking,
				Empty: e.Empty,
				Marks: e.Findings, Tells: condition.Tells(wordsOf(e))}
			if e.New != nil {
				w.New = *e.New
			}
			lines = append(lines, w)
		}
	}
	return lines
}

func wordsOf(e reckoning.Entry) condition.Words {
	words := condition.Words{Kind: string(e.Kind), Marking: e.Marking, Places: e.Designators, Socketed: e.Socketed}
	if e.Type != nil {
		words.Class, words.Ages = string(e.Type.Class), e.Type.Ages
	}
	return words
}

// readOutside reads the sheet of an outside for its story.
func readOutside(body string) ([]lives.Written, error) {
	lines := []lives.Written{}
	for _, e := range exterior.Parse(body).Entries {
		where := strings.TrimSpace(strings.TrimPrefix(string(e.Face)+", ", ", ") + e.Thing + " " + e.Text())
		lines = append(lines, lives.Written{Line: e.Line, Words: where, Marks: e.Findings, Tells: e.Thing})
	}
	return lines, nil
}

// readBoard reads a sheet for its story, with a library; the newest one was reckoned already.
func readBoard(library *device.Library, newest string, reckoned reckoning.Result) func(body string) ([]lives.Written,
	error) {
	return func(body string) ([]lives.Written, error) {
		if body == newest {
			return writtenOnBoard(reckoned), nil
		}
		result, err := ReckonBody(library, body, reckoning.Options{})
		return writtenOnBoard(result), err
	}
}
