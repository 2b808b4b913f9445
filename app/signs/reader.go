package signs

import (
	"context"
	"slices"
	"strings"

	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/sign"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/signs"
)

// reader reads what was seen on some machines: by the signs of their models and of what was in them on the day.
type reader struct {
	models   map[int64]signs.ModelSigns
	fitted   map[int64][]signs.Fitted
	known    map[int64][]library.KnownSigns // by assembly
	answered []signs.Answered
	tables   map[string]sign.Table // by what they are written as, read once
}

func (s *Service) readerOf(ctx context.Context, h pg.Handle, machineIDs []int64) (*reader, error) {
	r := &reader{models: map[int64]signs.ModelSigns{}, fitted: map[int64][]signs.Fitted{},
		tables: map[string]sign.Table{}}
	models, err := signs.ModelsOf(ctx, h, machineIDs)
	if err != nil {
		return r, err
	}
	for _, m := range models {
		r.models[m.MachineID] = m
	}
	fitted, err := signs.FittedIn(ctx, h, machineIDs)
	if err != nil {
		return r, err
	}
	assemblyIDs := make([]int64, len(fitted))
	for i, f := range fitted {
		r.fitted[f.MachineID] = append(r.fitted[f.MachineID], f)
		assemblyIDs[i] = f.AssemblyID
	}
	if r.known, err = s.library.SignsOf(ctx, h, assemblyIDs); err != nil {
		return r, err
	}
	r.answered, err = signs.AnsweredSigns(ctx, h)
	return r, err
}

// on gives the lists that speak for a machine on a day, or today where none is told, or for one card of it, and the cards
// that were in it.
func (r *reader) on(machineID int64, of *int64, day string) ([]SignList, sign.Cards) {
	lists, cards := []SignList{}, sign.Cards{}
	if m, ok := r.models[machineID]; ok && m.Signs != "" && of == nil {
		list := SignList{Of: strings.TrimSpace(m.Maker + " " + m.Model), ModelID: m.ModelID}
		list.Table = r.table(m.Signs)
		lists = append(lists, list)
	}
	for _, f := range r.fitted[machineID] {
		card, was := cardOf(f, day)
		if !was {
			continue
		}
		for _, k := range r.known[f.AssemblyID] {
			card.Known = append(card.Known, k.Names...)
			isListed := slices.ContainsFunc(lists, func(l SignList) bool { return l.KnownID == k.ID })
			if k.Signs == "" || isListed || of != nil && *of != f.AssemblyID {
				continue
			}
			list := SignList{Of: k.Name, KnownID: k.ID}
			list.Table = r.table(k.Signs)
			lists = append(lists, list)
		}
		cards = append(cards, card)
	}
	return lists, cards
}

// table reads what was checked when it was written.
func (r *reader) table(text string) sign.Table {
	t, isRead := r.tables[text]
	if !isRead {
		t, _ = sign.Parse(text)
		r.tables[text] = t
	}
	return t
}

// cardOf is an assembly that was in a machine on a day, or may have been.
func cardOf(f signs.Fitted, day string) (card sign.Card, was bool) {
	card = sign.Card{Title: f.Title, Part: f.Part, Known: []string{}}
	switch {
	case day == "":
		return card, f.Until == nil
	case f.Until != nil && *f.Until < day:
		return card, false
	case f.Until != nil && *f.Until == day:
		card.Doubt = f.Title + " left on that day"
	case f.Since > day && f.IsFirst && f.Fit == "factory":
	case f.Since > day && f.IsFirst:
		card.Doubt = "where " + f.Title + " was before " + f.Since + " is not told"
	case f.Since > day:
		return card, false
	}
	return card, true
}

func (r *reader) read(row signs.Sighting) SignReading {
	lists, cards := r.on(row.MachineID, row.AssemblyID, row.On)
	told := SignReading{Of: []string{}}
	for _, l := range lists {
		told.Of = append(told.Of, l.Of)
	}
	seen := sign.Seen{Kind: sign.Kind(row.Kind), Text: row.Shown, State: row.During}
	told.Reading = sign.Read(seen, tablesOf(lists), cards)
	m := r.models[row.MachineID]
	told.Subject = subjectOf(row, strings.TrimSpace(m.Maker+" "+m.Model))
	if told.Reading.Outcome.IsOpen() {
		at := slices.IndexFunc(r.answered, func(a signs.Answered) bool {
			return a.Subject == told.Subject && (a.MachineID == nil || *a.MachineID == row.MachineID)
		})
		if at >= 0 {
			told.Answer = &SignAnswer{r.answered[at].Answer, r.answered[at].Source, r.answered[at].On}
		}
	}
	return told
}

func (r *reader) sighting(row signs.Sighting) Sighting {
	told := sightingOf(row)
	told.SignReading = r.read(row)
	return told
}

func tablesOf(lists []SignList) []sign.List {
	tables := make([]sign.List, len(lists))
	for i, l := range lists {
		tables[i] = sign.List{Of: l.Of, Table: l.Table}
	}
	return tables
}

func (s *Service) sightingIn(ctx context.Context, h pg.Handle, id int64) (Sighting, error) {
	row, err := signs.SightingByID(ctx, h, id)
	if err != nil {
		return Sighting{}, err
	}
	reader, err := s.readerOf(ctx, h, []int64{row.MachineID})
	return reader.sighting(row), err
}

// OpenSigns lists what was seen on a machine, or with 0 on any, and nobody can say what it means; at most limit sightings
// are looked at.
func (s *Service) OpenSigns(ctx context.Context, h pg.Handle, machineID int64, limit int) ([]Sighting, error) {
	rows, err := signs.SightingsOf(ctx, h, machineID, limit)
	if err != nil || len(rows) == 0 {
		return nil, err
	}
	machineIDs := []int64{}
	for _, row := range rows {
		if !slices.Contains(machineIDs, row.MachineID) {
			machineIDs = append(machineIDs, row.MachineID)
		}
	}
	reader, err := s.readerOf(ctx, h, machineIDs)
	if err != nil {
		return nil, err
	}
	open := []Sighting{}
	for _, row := range rows {
		if told := reader.sighting(row); told.IsOpen() {
			open = append(open, told)
		}
	}
	return open, nil
}

// belongs refuses a card that is none of the machine.
func (in *SightingInput) belongs(ctx context.Context, h pg.Handle, machineID int64) error {
	return inventory.OfMachine(ctx, h, machineID,
		inventory.NamedIf("assemblyId", storeinventory.OwnedBoard, in.AssemblyID)...)
}
