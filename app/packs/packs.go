// Package packs is about what collections give each other of their libraries: types, known assemblies, models with their
// signs, and procedures.
package packs

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/app/people"
	"frugalheron/app/teardown"
	"frugalheron/core/device"
	"frugalheron/core/pack"
)

// Service does what is done about packs.
type Service struct {
	kernel    *action.Kernel
	people    *people.Service
	inventory *inventory.Service
	library   *library.Service
	teardown  *teardown.Service
}

// New returns it.
func New(kernel *action.Kernel, people *people.Service, inventory *inventory.Service, library *library.Service,
	teardown *teardown.Service) *Service {
	return &Service{kernel, people, inventory, library, teardown}
}

// Export writes the library as a pack. Names of private persons stay here.
func (s *Service) Export(ctx context.Context, actor action.Actor) (action.Content, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return action.Content{}, err
	}
	made, err := action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Pack, error) {
		return s.pack(ctx, actor)
	})
	if err != nil {
		return action.Content{}, err
	}
	text, err := json.MarshalIndent(made, "", "  ")
	return action.Content{Data: append(text, '\n'), MediaType: "application/json", FileName: "library.json"}, err
}

func (s *Service) pack(ctx context.Context, actor action.Actor) (Pack, error) {
	p := Pack{Format: Format, Version: Version, Types: []library.OwnTypeInput{},
		KnownAssemblies: []library.KnownInput{}, Models: []library.ModelInput{},
		Procedures: []teardown.ProcedureInput{}}
	collection, err := s.inventory.Collection(ctx, actor)
	if err != nil {
		return p, err
	}
	p.Of = collection.Name
	whole, err := s.library.WholeIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return p, err
	}
	procedures, err := s.teardown.Procedures(ctx, actor)
	if err != nil {
		return p, err
	}
	for _, t := range whole.Types {
		p.Types = append(p.Types, t.OwnTypeInput)
	}
	for _, k := range whole.Known {
		p.KnownAssemblies = append(p.KnownAssemblies, k.KnownInput)
	}
	for _, m := range whole.Models {
		p.Models = append(p.Models, m.ModelInput)
	}
	for _, one := range procedures {
		p.Procedures = append(p.Procedures, one.ProcedureInput)
	}
	privacy, err := s.people.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return p, err
	}
	return people.PublicOf(privacy, p), nil
}

// mostEntries bounds a pack.
const mostEntries = 20_000

// read reads a pack from its text.
func read(text string) (Pack, error) {
	var p Pack
	d := json.NewDecoder(bytes.NewReader([]byte(strings.TrimPrefix(text, "\ufeff"))))
	d.DisallowUnknownFields()
	err := d.Decode(&p)
	var not *json.SyntaxError
	switch {
	case errors.As(err, &not):
		return p, action.Reject("text", fmt.Sprintf("line %d: %v; the file is damaged or none of a library",
			1+strings.Count(text[:min(int(not.Offset), len(text))], "\n"), err))
	case err != nil:
		return p, action.Reject("text", strings.TrimPrefix(err.Error(), "json: ")+
			"; the file is none of a library, or of a newer version")
	case p.Format != Format:
		return p, action.Reject("text", fmt.Sprintf("format is %q; the file of a library says %q", p.Format, Format))
	case p.Version != Version:
		return p, action.Reject("text", fmt.Sprintf("version %d of the file is not known; %d is", p.Version, Version))
	}
	if _, err := d.Token(); !errors.Is(err, io.EOF) {
		return p, action.Reject("text", "something stands behind the end of the pack; take it out")
	}
	if n := len(p.Types) + len(p.KnownAssemblies) + len(p.Models) + len(p.Procedures); n > mostEntries {
		return p, action.Reject("text", fmt.Sprintf("%d entries are too many; a pack has at most %d", n, mostEntries))
	}
	return p, nil
}

// entry is one of a pack, with how it is taken.
type entry struct {
	LibraryPackRow
	take func(ctx context.Context) error
}

// Take takes entries of a pack, all that are chosen or none; where none is chosen, it tells what the pack would do. What
// contradicts a record here is put beside it, and never over it.
func (s *Service) Take(ctx context.Context, actor action.Actor, text string,
	choices []PackChoice) (LibraryPackTaken, error) {
	taken := LibraryPackTaken{Rows: []LibraryPackRow{}}
	if err := actor.Must(action.MayKeepTheRecord); err != nil {
		return taken, err
	}
	p, err := read(text)
	if err != nil {
		return taken, err
	}
	work := func(ctx context.Context, _ *sqlx.Tx) error {
		taken = LibraryPackTaken{Of: p.Of, Rows: []LibraryPackRow{}} // it may run again
		entries, err := s.entries(ctx, actor, p)
		if err != nil {
			return err
		}
		for _, c := range choices {
			if c.N > len(entries) {
				return action.Reject("take", fmt.Sprintf("the pack has %d entries, there is no %d", len(entries), c.N))
			}
			e := &entries[c.N-1]
			switch {
			case e.Taken:
				continue
			case e.State != c.State:
				return action.Reject("take", fmt.Sprintf("%s %s is %s now, it was %s; look at the pack again", e.Sort,
					e.Name, e.State, c.State))
			case !e.CanBeTaken:
				return action.Reject("take", fmt.Sprintf("%s %s cannot be taken: %s", e.Sort, e.Name, e.Why))
			}
			if err := e.take(ctx); err != nil {
				var not *action.Invalid
				if errors.As(err, &not) {
					return action.Reject("take", fmt.Sprintf("%s %s, %s: %s", e.Sort, e.Name, not.Field, not.Why))
				}
				return err
			}
			e.Taken = true
			taken.Taken++
		}
		for _, e := range entries {
			taken.Rows = append(taken.Rows, e.LibraryPackRow)
		}
		return nil
	}
	if len(choices) > 0 {
		err = s.kernel.Whole(ctx, actor, action.MayKeepTheRecord, work)
		return taken, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (LibraryPackTaken, error) {
		err := work(ctx, nil)
		return taken, err
	})
}

// entries compares all of a pack with what is here.
func (s *Service) entries(ctx context.Context, actor action.Actor, p Pack) ([]entry, error) {
	whole, err := s.library.WholeIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return nil, err
	}
	procedures, err := s.teardown.Procedures(ctx, actor)
	if err != nil {
		return nil, err
	}
	h, entries, met := hereOf(whole, procedures), []entry{}, map[string]int{}
	add := func(e entry, is string, wrong error) {
		e.N = len(entries) + 1
		key := string(e.Sort) + " " + is
		switch at, twice := met[key]; {
		case wrong != nil:
			e.State, e.Why = pack.Wrong, wrong.Error()
		case twice:
			e.State, e.Why = pack.Wrong, fmt.Sprintf("stands in the pack as number %d already", at)
		default:
			met[key] = e.N
		}
		e.CanBeTaken = e.take != nil && (e.State == pack.New || e.State == pack.Adds || e.State == pack.Beside)
		if e.Differences == nil {
			e.Differences = []pack.Unlike{}
		}
		entries = append(entries, e)
	}
	for _, f := range p.Types {
		wrong := library.CheckType(&f)
		add(s.typeEntry(actor, h, f), device.Normal(f.Number), wrong)
	}
	for _, f := range p.KnownAssemblies {
		wrong := library.CheckKnown(&f)
		add(s.knownEntry(actor, h, f), fmt.Sprint(f), wrong) // two may claim a number
	}
	for _, f := range p.Models {
		wrong := library.CheckModel(&f, actor.Today())
		add(s.modelEntry(actor, h, f), nameOf(f.Maker, f.Model), wrong)
	}
	for _, f := range p.Procedures {
		wrong := teardown.CheckProcedure(&f)
		add(s.procedureEntry(actor, h, f, p.Of), nameOf(f.Maker, f.Model, f.Title), wrong)
	}
	return entries, nil
}

func rowOf(sort pack.Sort, name string) entry {
	return entry{LibraryPackRow: LibraryPackRow{Sort: sort, Name: name, State: pack.New}}
}

// compare fills in how an entry stands to the one here.
func (e *entry) compare(id int64, ours, theirs any) (merged pack.Fields) {
	e.HereID = id
	e.State, e.Differences, merged = pack.Compare(e.Sort, fieldsOf(ours), fieldsOf(theirs))
	return merged
}

// adding changes the one here so that it says what was merged.
func adding[Input any](here Input, merged pack.Fields,
	change func(ctx context.Context, next Input) error) func(context.Context) error {
	return func(ctx context.Context) error {
		next, err := entryOf(here, merged)
		if err != nil {
			return err
		}
		return change(ctx, next)
	}
}

func (s *Service) typeEntry(actor action.Actor, h here, f library.OwnTypeInput) entry {
	e := rowOf(pack.Type, f.Number)
	ours, isHere := h.types[device.Normal(f.Number)]
	if !isHere {
		e.take = func(ctx context.Context) error { return action.Second(s.library.NameType(ctx, actor, f)) }
		return e
	}
	merged := e.compare(ours.ID, ours.OwnTypeInput, f)
	switch e.State {
	case pack.Adds:
		e.take = adding(ours.OwnTypeInput, merged, func(ctx context.Context, next library.OwnTypeInput) error {
			return action.Second(s.library.ChangeType(ctx, actor, ours.ID, ours.Version, next))
		})
	case pack.Beside:
		e.Why = "a number has one type; ours stays, and theirs is shown here only"
	}
	return e
}

func (s *Service) knownEntry(actor action.Actor, h here, f library.KnownInput) entry {
	name := f.Name
	if f.Numbers != "" {
		name += ", " + strings.Join(strings.Fields(f.Numbers), " ")
	}
	if f.Revisions != "" {
		name += ", rev " + f.Revisions
	}
	e := rowOf(pack.Known, name)
	asOwn := func(ctx context.Context) error { return action.Second(s.library.NameKnown(ctx, actor, f)) }
	ours := h.knownLike(f)
	if ours == nil {
		e.take = asOwn
		return e
	}
	merged := e.compare(ours.ID, ours.KnownInput, f)
	switch e.State {
	case pack.Adds:
		e.take = adding(ours.KnownInput, merged, func(ctx context.Context, next library.KnownInput) error {
			return action.Second(s.library.ChangeKnown(ctx, actor, ours.ID, ours.Version, next))
		})
	case pack.Beside:
		e.take, e.Why = asOwn, "taken as a record of its own beside ours; where it occurs, both are told"
	}
	return e
}

func (s *Service) modelEntry(actor action.Actor, h here, f library.ModelInput) entry {
	e := rowOf(pack.Model, strings.TrimSpace(f.Maker+" "+f.Model))
	ours, isHere := h.models[nameOf(f.Maker, f.Model)]
	if !isHere {
		e.take = func(ctx context.Context) error { return action.Second(s.library.AddModel(ctx, actor, f)) }
		return e
	}
	merged := e.compare(ours.ID, ours.ModelInput, f)
	if e.State == pack.Beside {
		e.Why = "its further lines are added, and facts that differ beside ours, as disputed; the rest stays as it is here"
		for _, d := range e.Differences {
			if d.Field == "facts" && d.Contradicts() {
				merged["facts"] += "\n" + d.Pack
			}
		}
	}
	next, err := entryOf(ours.ModelInput, merged)
	if err != nil || next == ours.ModelInput {
		e.Why = "nothing of it goes beside what is said here"
		return e
	}
	e.take = func(ctx context.Context) error {
		return action.Second(s.library.ChangeModel(ctx, actor, ours.ID, ours.Version, next))
	}
	return e
}

func (s *Service) procedureEntry(actor action.Actor, h here, f teardown.ProcedureInput, of string) entry {
	e := rowOf(pack.Procedure, f.Title+" of "+strings.TrimSpace(f.Maker+" "+f.Model))
	ours, isHere := h.procedures[nameOf(f.Maker, f.Model, f.Title)]
	if !isHere {
		e.take = func(ctx context.Context) error { return action.Second(s.teardown.AddProcedure(ctx, actor, f)) }
		return e
	}
	merged := e.compare(ours.ID, ours.ProcedureInput, f)
	switch e.State {
	case pack.Adds:
		e.take = adding(ours.ProcedureInput, merged, func(ctx context.Context, next teardown.ProcedureInput) error {
			return action.Second(s.teardown.ChangeProcedure(ctx, actor, ours.ID, ours.Version, next))
		})
	case pack.Beside:
		beside := f
		beside.Title = besideTitle(f.Title, of)
		if other, isTaken := h.procedures[nameOf(beside.Maker, beside.Model, beside.Title)]; isTaken {
			if again := f; other.Body == again.Body && other.Warnings == again.Warnings {
				e.State, e.Differences, e.Why = pack.Same, nil, "it was taken beside ours before"
				return e
			}
			e.Why = "one of that collection is beside ours already, and says something else"
			return e
		}
		e.Why = "taken beside ours, as " + beside.Title
		e.take = func(ctx context.Context) error { return action.Second(s.teardown.AddProcedure(ctx, actor, beside)) }
	}
	return e
}

// besideTitle is what a procedure of another collection is called beside ours.
func besideTitle(title, of string) string {
	if of == "" {
		of = "another collection"
	}
	letters := []rune(title + " (" + of + ")")
	return string(letters[:min(len(letters), mostTitle)])
}

// mostTitle bounds what a procedure is called.
const mostTitle = 200
