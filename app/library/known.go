package library

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/people"
	"frugalheron/core/known"
	"frugalheron/core/sign"
	"frugalheron/store/history"
	"frugalheron/store/library"
	"frugalheron/store/pg"
)

// KnownAssemblies lists known assemblies by words of name, maker, kind, number or print, a page at a time.
func (s *Service) KnownAssemblies(ctx context.Context, actor action.Actor, words string, after int64,
	limit int) (KnownPage, error) {
	page := KnownPage{}
	if err := actor.Must(action.MayLook); err != nil {
		return page, err
	}
	rows, err := library.ListKnown(ctx, s.kernel.Reader(ctx), strings.Fields(words), after, limit+1)
	if len(rows) > limit {
		rows = rows[:limit]
		page.Next = rows[limit-1].ID
	}
	page.Known = action.Views(rows, knownOf)
	if err == nil && actor.Hides() {
		err = s.foundByOthers(ctx, &page, strings.Fields(strings.ToLower(words)))
	}
	return page, err
}

// foundByOthers leaves out what was found by words that others than staff do not read in it: a search tells no names.
func (s *Service) foundByOthers(ctx context.Context, page *KnownPage, words []string) error {
	p, err := s.people.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return err
	}
	page.Known = slices.DeleteFunc(people.PublicOf(p, page.Known), func(k KnownAssembly) bool {
		read := strings.ToLower(strings.Join([]string{k.Name, k.Maker, k.Kind, k.Numbers, k.Printed}, " "))
		return slices.ContainsFunc(words, func(word string) bool { return !strings.Contains(read, word) })
	})
	return nil
}

// NameKnown adds a known assembly. It is recognised at once wherever it is.
func (s *Service) NameKnown(ctx context.Context, actor action.Actor, fields KnownInput) (KnownAssembly, error) {
	var added KnownAssembly
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) (err error) {
		added, err = AddKnown(ctx, tx, actor, fields)
		return err
	})
	return added, err
}

// AddKnown adds a known assembly in a transaction under way.
func AddKnown(ctx context.Context, tx *sqlx.Tx, actor action.Actor, fields KnownInput) (KnownAssembly, error) {
	if err := checkKnown(&fields); err != nil {
		return KnownAssembly{}, err
	}
	id, err := library.InsertKnown(ctx, tx, library.KnownFields(fields))
	if err != nil {
		return KnownAssembly{}, err
	}
	row, err := library.KnownByID(ctx, tx, id)
	if err != nil {
		return KnownAssembly{}, err
	}
	return knownOf(row), action.Record(ctx, tx, actor, eventNameKnown, id, nil, nil, fields)
}

var knowns = action.Records[library.Known, KnownAssembly]{
	What: "what is known of the assembly", Lock: library.LockKnown, Read: library.KnownByID,
	Version: func(k library.Known) int { return k.Version },
	Told:    func(k library.Known) any { return KnownInput(k.KnownFields) },
	View:    knownOf,
}

// ChangeKnown rewrites what is known of an assembly, starting from a version.
func (s *Service) ChangeKnown(ctx context.Context, actor action.Actor, id int64, version int,
	fields KnownInput) (KnownAssembly, error) {
	if err := checkKnown(&fields); err != nil {
		return KnownAssembly{}, err
	}
	change := action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChangeKnown, ID: id,
		Version: version}
	return knowns.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, before library.Known) error {
		if before.Struck {
			return action.ErrNotFound
		}
		return library.UpdateKnown(ctx, tx, id, library.KnownFields(fields))
	})
}

// StrikeKnown takes a known assembly that was named by mistake out of what is recognised. The event that is returned
// can be undone.
func (s *Service) StrikeKnown(ctx context.Context, actor action.Actor, id int64) (event int64, err error) {
	return s.strikeKnown(ctx, actor, id, true)
}

func (s *Service) strikeKnown(ctx context.Context, actor action.Actor, id int64, struck bool) (event int64, err error) {
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		before, err := library.LockKnown(ctx, tx, id)
		if err != nil {
			return err
		}
		if before.Struck == struck {
			return action.ErrNotFound
		}
		if err := library.StrikeKnown(ctx, tx, id, struck); err != nil {
			return err
		}
		told := KnownInput(before.KnownFields)
		if struck {
			event, err = action.RecordEvent(ctx, tx, actor, eventStrikeKnown, id, nil, told, nil)
		} else {
			event, err = action.RecordEvent(ctx, tx, actor, eventNameKnown, id, nil, nil, told)
		}
		return err
	})
	return event, err
}

func (s *Service) undoStrikeKnown(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, library.LockKnown,
		func(ctx context.Context, _ *sqlx.Tx, now library.Known) error {
			return action.Second(s.strikeKnown(ctx, actor, now.ID, false))
		})
}

func (s *Service) undoNameKnown(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, library.LockKnown,
		func(ctx context.Context, _ *sqlx.Tx, now library.Known) error {
			return action.Second(s.StrikeKnown(ctx, actor, now.ID))
		})
}

func (s *Service) undoChangeKnown(ctx context.Context, actor action.Actor, e history.EventRow) error {
	before, err := action.StateIn[KnownInput](e.Before)
	if err != nil {
		return err
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, library.LockKnown,
		func(ctx context.Context, _ *sqlx.Tx, now library.Known) error {
			return action.Second(s.ChangeKnown(ctx, actor, now.ID, now.Version, before))
		})
}

func checkKnown(f *KnownInput) error {
	if f.Kind == "" {
		f.Kind = "card"
	}
	err := input.CheckAll(input.OneLine("name", &f.Name), input.OneLine("maker", &f.Maker),
		input.Lines("numbers", &f.Numbers), input.OneLine("revisions", &f.Revisions), input.Lines("printed",
			&f.Printed),
		input.Lines("chips", &f.Chips), input.Lines("details", &f.Details), input.Lines("signs", &f.Signs),
		input.Lines("note", &f.Note),
		input.OneLine("source", &f.Source))
	switch {
	case err != nil:
		return err
	case f.Name == "":
		return action.Reject("name", "say what it is, as Memory card, 384 KB")
	}
	for i, number := range linesOf(f.Numbers) {
		if !known.Tells(number) {
			return action.Reject("numbers", fmt.Sprintf("line %d: %q is too short to tell it from others", i+1, number))
		}
	}
	if _, err := known.ParseRevisions(f.Revisions); err != nil {
		return action.Reject("revisions", err.Error())
	}
	for i, words := range linesOf(f.Printed) {
		if !known.Distinctive(words) {
			return action.Reject("printed", fmt.Sprintf(
				"line %d: %q stands on many; write words that are on no other, as a maker's name with a model", i+1,
				words))
		}
	}
	chips, problems := known.ParseChips(f.Chips)
	if len(problems) > 0 {
		return action.Reject("chips", fmt.Sprintf("line %d %s", problems[0].Line, problems[0].Message))
	}
	if len(chips) > 0 && len(chips) < known.LeastTypes {
		return action.Reject("chips", fmt.Sprintf("%d types are too few to know it by; write at least %d", len(chips),
			known.LeastTypes))
	}
	if _, problems := known.ParseDetails(f.Details); len(problems) > 0 {
		return action.Reject("details", fmt.Sprintf("line %d %s", problems[0].Line, problems[0].Message))
	}
	if _, problems := sign.Parse(f.Signs); len(problems) > 0 {
		return action.Reject("signs", fmt.Sprintf("line %d %s", problems[0].Line, problems[0].Message))
	}
	if f.Numbers == "" && f.Printed == "" && f.Chips == "" {
		return action.Reject("numbers",
			"write by what it is recognised: its part number, words printed on it, or at least four types of its chips")
	}
	return nil
}

// linesOf are the lines of a text that hold something.
func linesOf(text string) []string {
	lines := strings.Split(text, "\n")
	for i := range lines {
		lines[i] = strings.TrimSpace(lines[i])
	}
	return slices.DeleteFunc(lines, func(line string) bool { return line == "" })
}

// knownAfter is what is recognised as it was after n changes.
type knownAfter struct {
	n    int64
	all  map[int64]KnownAssembly
	find *known.Index
}

// knownIn reads what is recognised; one that is current is not read again.
func (s *Service) knownIn(ctx context.Context, h pg.Handle) (*knownAfter, error) {
	n, isOwn, err := library.KnownState(ctx, h)
	if err != nil {
		return nil, err
	}
	if last := s.knowns.Load(); last != nil && last.n == n && !isOwn {
		return last, nil
	}
	rows, err := library.AllKnown(ctx, h)
	if err != nil {
		return nil, err
	}
	now := &knownAfter{n, map[int64]KnownAssembly{}, nil}
	records := make([]known.Record, len(rows))
	for i, row := range rows {
		now.all[row.ID] = knownOf(row)
		records[i] = recordOf(row)
	}
	now.find = known.NewIndex(records)
	if !isOwn { // what this transaction changed is nobody else's yet
		s.knowns.Store(now)
	}
	return now, nil
}

// recordOf is by what a known assembly is recognised; what is kept was checked when it was written.
func recordOf(row library.Known) known.Record {
	revisions, _ := known.ParseRevisions(row.Revisions) //nolint:errcheck // checked when it was written
	chips, _ := known.ParseChips(row.Chips)
	return known.Record{ID: row.ID, Numbers: linesOf(row.Numbers), Revisions: revisions, Words: linesOf(row.Printed),
		Chips: chips}
}
