package library

import (
	"context"
	"slices"

	"frugalheron/app/action"
	"frugalheron/core/known"
	"frugalheron/core/sign"
	"frugalheron/store/library"
	"frugalheron/store/pg"
)

// RecognisedAs tells what an assembly is known as, wherever it is.
func (s *Service) RecognisedAs(ctx context.Context, actor action.Actor, assemblyID int64) (Recognised, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Recognised{}, err
	}
	told, err := s.RecognisedIn(ctx, s.kernel.Reader(ctx), []int64{assemblyID})
	if err == nil && len(told) == 0 {
		err = action.ErrNotFound
	}
	if err != nil {
		return Recognised{}, err
	}
	return told[0], nil
}

// Knows reports whether a record knows a part number, or words that are printed on something.
func (s *Service) Knows(ctx context.Context, h pg.Handle, subject string) (bool, error) {
	now, err := s.knownIn(ctx, h)
	return err == nil && len(now.find.Recognise(known.Thing{Part: subject, Words: []string{subject}})) > 0, err
}

// UnknownNumbers lists part numbers that no record knows, of a machine, or with 0 of all: what stands on most first.
func (s *Service) UnknownNumbers(ctx context.Context, h pg.Handle, machineID int64,
	limit int) ([]library.NumberInUse, error) {
	now, err := s.knownIn(ctx, h)
	if err != nil {
		return nil, err
	}
	numbers, err := library.NumbersInUse(ctx, h, machineID, now.find.Numbers(), limit)
	return slices.DeleteFunc(numbers, func(n library.NumberInUse) bool {
		return len(now.find.Recognise(known.Thing{Part: n.Part})) > 0
	}), err
}

// RecognisedIn tells what assemblies are known as, each by its record and the chips of its kept sheet.
func (s *Service) RecognisedIn(ctx context.Context, h pg.Handle, assemblyIDs []int64) ([]Recognised, error) {
	known, err := s.knownIn(ctx, h)
	if err != nil {
		return nil, err
	}
	things, err := library.ThingsOf(ctx, h, assemblyIDs)
	if err != nil {
		return nil, err
	}
	chips, err := chipsOf(ctx, h, things)
	if err != nil {
		return nil, err
	}
	matches := known.recognise(things, chips)
	checks, err := library.FaultChecks(ctx, h, assemblyIDs)
	if err != nil {
		return nil, err
	}
	told := make([]Recognised, len(things))
	for i, thing := range things {
		told[i] = Recognised{AssemblyID: thing.AssemblyID, Title: thing.Title, Part: thing.Part, Claims: []KnownClaim{}}
		if of := chips[thing.AssemblyID]; of.Tell() {
			told[i].Chips = of.String()
		}
		for _, m := range matches[i] {
			told[i].Claims = append(told[i].Claims, known.claim(m, thing, checks))
		}
		told[i].IsDisputed = len(matches[i]) > 1 && matches[i][0].Claims(matches[i][1])
	}
	return told, nil
}

// chipsOf counts the identified chips of things by their kept sheets.
func chipsOf(ctx context.Context, h pg.Handle, things []library.KnownThing) (map[int64]known.Chips, error) {
	ids := make([]int64, len(things))
	for i, thing := range things {
		ids[i] = thing.AssemblyID
	}
	counts, err := library.ChipsOf(ctx, h, ids)
	chips := map[int64]known.Chips{}
	for _, c := range counts {
		if chips[c.AssemblyID] == nil {
			chips[c.AssemblyID] = known.Chips{}
		}
		chips[c.AssemblyID][c.Number] = c.Count
	}
	return chips, err
}

// NumbersOf lists by assembly the part numbers of what each is known as beyond doubt.
func (s *Service) NumbersOf(ctx context.Context, h pg.Handle, assemblyIDs []int64) (map[int64][]string, error) {
	now, err := s.knownIn(ctx, h)
	if err != nil {
		return nil, err
	}
	told, err := s.RecognisedIn(ctx, h, assemblyIDs)
	numbers := map[int64][]string{}
	for _, one := range told {
		for _, claim := range one.Claims {
			if claim.Sure {
				numbers[one.AssemblyID] = append(numbers[one.AssemblyID], linesOf(now.all[claim.ID].Numbers)...)
			}
		}
	}
	return numbers, err
}

// KnownSigns is what a record that knows an assembly beyond doubt says that it shows.
type KnownSigns struct {
	ID    int64
	Name  string
	Names []string // its name, and the part numbers that it has
	Signs string
}

// SignsOf lists by assembly what the records say that know each beyond doubt.
func (s *Service) SignsOf(ctx context.Context, h pg.Handle, assemblyIDs []int64) (map[int64][]KnownSigns, error) {
	now, err := s.knownIn(ctx, h)
	if err != nil {
		return nil, err
	}
	told, err := s.RecognisedIn(ctx, h, assemblyIDs)
	found := map[int64][]KnownSigns{}
	for _, one := range told {
		for _, claim := range one.Claims {
			if k := now.all[claim.ID]; claim.Sure {
				found[one.AssemblyID] = append(found[one.AssemblyID],
					KnownSigns{k.ID, k.Name, append([]string{k.Name}, linesOf(k.Numbers)...), k.Signs})
			}
		}
	}
	return found, err
}

// recognise matches things, each with its chips.
func (k *knownAfter) recognise(things []library.KnownThing, chips map[int64]known.Chips) [][]known.Match {
	matches := make([][]known.Match, len(things))
	for i, t := range things {
		matches[i] = k.find.Recognise(known.Thing{Part: t.Part, Rev: t.Rev, Words: []string{t.Title},
			Chips: chips[t.AssemblyID]})
	}
	return matches
}

// claim tells what a record says of an assembly.
func (k *knownAfter) claim(m known.Match, of library.KnownThing, checks []library.FaultCheck) KnownClaim {
	by := k.all[m.ID]
	read, _ := known.ParseDetails(by.Details)
	c := KnownClaim{Match: m, Name: by.Name, Kind: by.Kind, Maker: by.Maker, Source: by.Source, Details: read,
		Differs: read.Differs(of.RAMBytes), Suspect: []Suspicion{}}
	for _, fault := range read.Faults {
		c.Suspect = append(c.Suspect, SuspicionOf(fault, m.ID, of.AssemblyID, checks))
	}
	return c
}

// SuspicionOf is a fault that assemblies of a record are known to have, and what the newest check found out of one.
func SuspicionOf(fault known.Fault, knownID, assemblyID int64, checks []library.FaultCheck) Suspicion {
	s := Suspicion{Fault: fault, State: "open"}
	for _, c := range checks {
		if c.KnownID == knownID && c.AssemblyID == assemblyID && c.Fault == fault.What {
			s.State, s.On, s.By, s.Note = "clear", c.On, c.By, c.Note
			if c.HasIt {
				s.State = "has it"
			}
		}
	}
	return s
}

// mostPlaces bounds how many assemblies are looked at as what a record may be about.
const mostPlaces = 2000

// KnownAssembly tells what is known of an assembly, and where it is.
func (s *Service) KnownAssembly(ctx context.Context, actor action.Actor, id int64) (KnownDetail, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return KnownDetail{}, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (KnownDetail, error) {
		return s.knownAssembly(ctx, s.kernel.Reader(ctx), id)
	})
}

func (s *Service) knownAssembly(ctx context.Context, h pg.Handle, id int64) (KnownDetail, error) {
	d := KnownDetail{Overlaps: []KnownOverlap{}, Places: []KnownPlace{}, Untested: []Untested{}}
	row, err := library.KnownByID(ctx, h, id)
	if err != nil {
		return d, err
	}
	d.KnownAssembly = knownOf(row)
	d.Details, _ = known.ParseDetails(row.Details)
	d.Shows, _ = sign.Parse(row.Signs)
	d.Remarks = d.Details.SameTime()
	if row.Struck {
		return d, nil
	}
	all, err := s.knownIn(ctx, h)
	if err != nil {
		return d, err
	}
	for _, o := range all.find.Overlaps(id) {
		d.Overlaps = append(d.Overlaps, KnownOverlap{o, all.all[o.ID].Name})
	}
	return d, d.findPlaces(ctx, h, all, recordOf(row))
}

// findPlaces finds where it is: the database tells what may be it, the core whether it is.
func (d *KnownDetail) findPlaces(ctx context.Context, h pg.Handle, all *knownAfter, record known.Record) error {
	keys := make([]string, len(record.Numbers))
	for i, number := range record.Numbers {
		keys[i] = known.Fold(number)
	}
	things, err := library.ThingsLike(ctx, h, keys, record.Patterns(), mostPlaces+1)
	if err != nil {
		return err
	}
	if len(record.Chips) > 0 {
		rare, err := library.RarestTypes(ctx, h, record.Chips.Numbers())
		if err != nil {
			return err
		}
		telling, least := record.Chips.Telling(rare)
		byChips, err := library.ThingsWithChips(ctx, h, telling, least, mostPlaces+1)
		if err != nil {
			return err
		}
		for _, thing := range byChips {
			if !slices.ContainsFunc(things,
				func(t library.KnownThing) bool { return t.AssemblyID == thing.AssemblyID }) {
				things = append(things, thing)
			}
		}
	}
	if len(things) > mostPlaces {
		things, d.More = things[:mostPlaces], true
	}
	chips, err := chipsOf(ctx, h, things)
	if err != nil {
		return err
	}
	matches := all.recognise(things, chips)
	for i, t := range things {
		at := slices.IndexFunc(matches[i], func(m known.Match) bool { return m.ID == d.ID })
		if at >= 0 {
			d.Places = append(d.Places, KnownPlace{t.AssemblyID, t.Title, t.Part, t.Rev, t.MachineID, t.Accession,
				t.Machine,
				t.Place, matches[i][at]})
		}
	}
	slices.SortStableFunc(d.Places, func(a, b KnownPlace) int { return b.Match.Strength() - a.Match.Strength() })
	return nil
}
