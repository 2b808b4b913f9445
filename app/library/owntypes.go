package library

import (
	"context"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/device"
	"frugalheron/store/library"
	"frugalheron/store/pg"
)

// NamedType is an own type, and what naming it did.
type NamedType struct {
	OwnType
	Recognised int `json:"recognised" doc:"Parts on all sheets that are of this type now"`
	Machines   int `json:"machines" doc:"Machines that they are in"`
}

// NameType adds an own type. It is recognised at once on every sheet, old ones included; their
// text is not touched.
func (s *Service) NameType(ctx context.Context, actor action.Actor, fields OwnTypeInput) (NamedType, error) {
	return s.nameTypeAs(ctx, actor, 0, fields)
}

// nameTypeAs names a type; one that was there before is the same again, so that what was done to it can be taken back.
func (s *Service) nameTypeAs(ctx context.Context, actor action.Actor, was int64,
	fields OwnTypeInput) (NamedType, error) {
	return s.TypeAction(ctx, actor, EventNameType, &fields,
		func(tx *sqlx.Tx) (before *library.OwnType, id int64, err error) {
			id, err = library.InsertOwnType(ctx, tx, was, library.OwnTypeFields(fields))
			return nil, id, err
		})
}

// ChangeType rewrites an own type, starting from a version.
func (s *Service) ChangeType(ctx context.Context, actor action.Actor, id int64, version int,
	fields OwnTypeInput) (NamedType, error) {
	return s.TypeAction(ctx, actor, eventChangeType, &fields, func(tx *sqlx.Tx) (*library.OwnType, int64, error) {
		before, err := library.OwnTypeByID(ctx, tx, id)
		if err != nil {
			return nil, 0, err
		}
		if before.Version != version {
			return nil, 0, &action.Stale{What: "the type", Newer: ownTypeOf(before)}
		}
		return &before, id, library.UpdateOwnType(ctx, tx, id, library.OwnTypeFields(fields))
	})
}

// TypeAction checks the fields, lets work write them, and has the sheets that the type touches
// reckoned anew, all in one transaction that keeps sheets from being saved meanwhile.
func (s *Service) TypeAction(ctx context.Context, actor action.Actor, done *action.Event, fields *OwnTypeInput,
	work func(tx *sqlx.Tx) (before *library.OwnType, id int64, err error)) (NamedType, error) {
	if err := checkOwnType(fields); err != nil {
		return NamedType{}, err
	}
	var named NamedType
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := library.ChangeLibrary(ctx, tx); err != nil {
			return err
		}
		before, id, err := work(tx)
		if pg.Violates(err, "own_type_number_key") {
			return action.Reject("number", fields.Number+" is named already")
		}
		if err != nil {
			return err
		}
		row, err := library.OwnTypeByID(ctx, tx, id)
		if err != nil {
			return err
		}
		named.OwnType = ownTypeOf(row)
		touched := []string{named.Number}
		var was any
		if before != nil {
			touched, was = append(touched, before.Number), OwnTypeInput(before.OwnTypeFields)
		}
		if err := noteMarked(ctx, tx, touched); err != nil {
			return err
		}
		if err := s.kernel.UpToDate(ctx, tx); err != nil { // what is counted next follows from it
			return err
		}
		counts, err := library.CountOccurrences(ctx, tx, []string{named.Number})
		named.Recognised = counts[named.Number]
		if err != nil {
			return err
		}
		isNew := before == nil || before.Number != named.Number
		if named.Machines, err = tellRecognised(ctx, tx, actor, named.OwnType, isNew); err != nil {
			return err
		}
		// Last, so that it is what the history offers to take back first.
		return action.Record(ctx, tx, actor, done, id, nil, was, named.OwnTypeInput)
	})
	return named, err
}

// mostTold bounds in how many histories a type is told of that is recognised.
const mostTold = 1000

// tellRecognised writes into the history of each machine that chips of it are known now, where the number
// is new, and returns how many machines these are.
func tellRecognised(ctx context.Context, tx *sqlx.Tx, actor action.Actor, named OwnType,
	isNew bool) (int, error) {
	holders, err := library.HoldersOf(ctx, tx, named.Number, mostTold)
	if err != nil {
		return 0, err
	}
	for _, holder := range holders {
		if !isNew {
			break
		}
		told := map[string]any{"number": named.Number, "function": named.Function, "parts": holder.Parts}
		if err := action.Record(ctx, tx, actor, eventRecogniseType, holder.MachineID, &holder.MachineID, nil,
			told); err != nil {
			return 0, err
		}
	}
	return len(holders), nil
}

// ForgetType takes an own type out of the library. Its history keeps what it was; the event that is
// returned can be undone.
func (s *Service) ForgetType(ctx context.Context, actor action.Actor, id int64) (event int64, err error) {
	err = s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		if err := library.ChangeLibrary(ctx, tx); err != nil {
			return err
		}
		before, err := library.OwnTypeByID(ctx, tx, id)
		if err != nil {
			return err
		}
		if err := library.DeleteOwnType(ctx, tx, id); err != nil {
			return err
		}
		if event, err = action.RecordEvent(ctx, tx, actor, eventForgetType, id, nil, OwnTypeInput(before.OwnTypeFields),
			nil); err != nil {
			return err
		}
		return noteMarked(ctx, tx, []string{before.Number})
	})
	return event, err
}

// noteMarked has the sheets read anew that hold one of the numbers.
func noteMarked(ctx context.Context, tx *sqlx.Tx, numbers []string) error {
	ids, err := library.AssembliesMarked(ctx, tx, numbers)
	if err != nil {
		return err
	}
	return pg.NoteDue(ctx, tx, pg.ProjectedEntries, ids)
}

func checkOwnType(t *OwnTypeInput) error {
	err := input.CheckAll(input.OneLine("number", &t.Number), input.OneLine("function", &t.Function),
		input.OneLine("package", &t.Package), input.Lines("notes", &t.Notes),
		input.OneLine("maker", &t.Maker), input.OneLine("currents", &t.Currents), input.OneLine("ageing", &t.Ageing),
		input.OneLine("substitutes", &t.Substitutes), input.Lines("documents", &t.Documents))
	t.Number = device.Normal(t.Number)
	if t.Class == "" {
		t.Class = string(device.Own)
	}
	currents, wrongCurrents := device.ParseCurrents(t.Currents)
	for _, c := range currents {
		// What is drawn from +5 V is summed up for the machine.
		if c.Rail == "+5" && t.TypicalMA == 0 {
			t.TypicalMA = c.Typical
		}
	}
	isMemory := device.Class(t.Class).IsMemory()
	switch {
	case err != nil:
		return err
	case len(t.Number) < 3 || strings.ContainsFunc(t.Number, notInNumber) ||
		!strings.ContainsAny(t.Number, "0123456789"):
		return action.Reject("number",
			"write the device number in letters and figures, at least three signs with a figure among them, as HX9040")
	case t.Function == "":
		return action.Reject("function", "say what the device does, as processor, 8 bits")
	case wrongCurrents != nil:
		return action.Reject("currents", wrongCurrents.Error())
	case isMemory && (t.Words == 0 || t.Bits == 0):
		return action.Reject("words", "a memory has words and bits, as 16384 words of 8 bits")
	case !isMemory && (t.Words != 0 || t.Bits != 0):
		return action.Reject("words",
			"only memories have words and bits; choose the class of a memory, or leave them at 0")
	}
	return nil
}

func notInNumber(r rune) bool {
	return !('A' <= r && r <= 'Z' || '0' <= r && r <= '9' || r == '-' || r == '/' || r == '.')
}

// LibraryType is a type of the library with what the collection knows of it.
type LibraryType struct {
	device.Type
	Own         *OwnType `json:"own" doc:"The own type behind it, or null for a built-in one"`
	Occurrences int      `json:"occurrences" doc:"Parts of this type on all sheets"`
}

// SearchLibrary lists types by the start of their number, own ones first. Without text it lists
// the own types.
func (s *Service) SearchLibrary(ctx context.Context, actor action.Actor, start string,
	limit int) ([]LibraryType, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	known, err := s.Read(ctx)
	if err != nil {
		return nil, err
	}
	own, err := library.ListOwnTypes(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return nil, err
	}
	start = device.Normal(strings.TrimSpace(start))
	found, numbers := []LibraryType{}, []string{}
	add := func(t device.Type, own *OwnType) {
		if len(found) < limit {
			found, numbers = append(found, LibraryType{Type: t, Own: own}), append(numbers, t.Number)
		}
	}
	for i := range own {
		if t, ok := known.Lookup(own[i].Number); ok && strings.HasPrefix(own[i].Number, start) {
			view := ownTypeOf(own[i])
			add(t, &view)
		}
	}
	if start != "" {
		for _, t := range known.Completions(start, limit) {
			if !slices.Contains(numbers, t.Number) {
				add(t, nil)
			}
		}
	}
	counts, err := library.CountOccurrences(ctx, s.kernel.Reader(ctx), numbers)
	for i := range found {
		found[i].Occurrences = counts[found[i].Number]
	}
	return found, err
}

// Occurrences lists the lines on which a type occurs.
func (s *Service) Occurrences(ctx context.Context, actor action.Actor, number string,
	limit int) ([]Occurrence, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	rows, err := library.OccurrencesOf(ctx, s.kernel.Reader(ctx), device.Normal(number), limit)
	return action.Views(rows, OccurrenceOf), err
}
