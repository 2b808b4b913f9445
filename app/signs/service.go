// Package signs is about what machines show: lamps, beeps, screens and codes, what those mean, and what should be shown.
package signs

import (
	"context"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/sign"
	"frugalheron/core/verdict"
	"frugalheron/store/history"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/signs"
)

// Service does what is done about signs.
type Service struct {
	kernel    *action.Kernel
	inventory *inventory.Service
	library   *library.Service
}

// New returns it.
func New(kernel *action.Kernel, inventory *inventory.Service, library *library.Service) *Service {
	s := &Service{kernel, inventory, library}
	kernel.CanBeUndone(eventSeeSign, action.MayWriteSheets, s.undoSeeSign)
	kernel.CanBeUndone(eventVoidSighting, action.MayWriteSheets, s.undoVoidSighting)
	return s
}

// mostSightings bounds a list.
const mostSightings = 500

// Signs tells what a machine shows.
func (s *Service) Signs(ctx context.Context, actor action.Actor, machineID int64) (Signs, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return Signs{}, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Signs, error) {
		told := Signs{Lists: []SignList{}, Expected: []sign.Expect{}, Seen: []Sighting{}}
		h := s.kernel.Reader(ctx)
		rows, err := signs.SightingsOf(ctx, h, machineID, mostSightings+1)
		if err != nil {
			return told, err
		}
		if len(rows) > mostSightings {
			rows, told.More = rows[:mostSightings], true
		}
		reader, err := s.readerOf(ctx, h, []int64{machineID})
		if err != nil {
			return told, err
		}
		for _, row := range rows {
			told.Seen = append(told.Seen, reader.sighting(row))
		}
		var cards sign.Cards
		told.Lists, cards = reader.on(machineID, nil, "")
		lists := tablesOf(told.Lists)
		told.States, told.Expected = sign.States(lists), sign.Expected(lists, cards, "")
		return told, nil
	})
}

// ExpectedWithout tells in words what a machine should show now while some of its assemblies are out, by their titles, for
// each of several such states.
func (s *Service) ExpectedWithout(ctx context.Context, h pg.Handle, machineID int64, out [][]string) ([][]string,
	error) {
	reader, err := s.readerOf(ctx, h, []int64{machineID})
	if err != nil {
		return nil, err
	}
	lists, cards := reader.on(machineID, nil, "")
	told := make([][]string, len(out))
	for i, titles := range out {
		told[i] = []string{}
		for _, e := range sign.Expected(tablesOf(lists), cards.Without(titles), "") {
			told[i] = append(told[i], e.InWords())
		}
	}
	return told, nil
}

// ReadSign tells what something that was seen amounts to, without keeping it.
func (s *Service) ReadSign(ctx context.Context, actor action.Actor, machineID int64,
	in SightingInput) (SignReading, error) {
	machine, err := s.inventory.Machine(ctx, actor, machineID)
	if err != nil {
		return SignReading{}, err
	}
	if err := in.check(actor); err != nil {
		return SignReading{}, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (SignReading, error) {
		h := s.kernel.Reader(ctx)
		if err := in.belongs(ctx, h, machineID); err != nil {
			return SignReading{}, err
		}
		reader, err := s.readerOf(ctx, h, []int64{machineID})
		row := in.row(machineID)
		row.Accession = machine.Accession
		return reader.read(row), err
	})
}

// SeeSign keeps what somebody saw a machine show.
func (s *Service) SeeSign(ctx context.Context, actor action.Actor, machineID int64, in SightingInput) (SignSeen,
	error) {
	var kept SignSeen
	if err := in.check(actor); err != nil {
		return kept, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := storeinventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		if err := in.belongs(ctx, tx, machineID); err != nil {
			return err
		}
		id, err := signs.InsertSighting(ctx, tx, actor.Account(), in.row(machineID))
		if err != nil {
			return err
		}
		if kept.Sighting, err = s.sightingIn(ctx, tx, id); err != nil {
			return err
		}
		kept.Event, err = action.RecordEvent(ctx, tx, actor, eventSeeSign, id, &machineID, nil, kept.inWords())
		return err
	})
	return kept, err
}

// check reads what somebody saw, and fills in the day.
func (in *SightingInput) check(actor action.Actor) error {
	if in.On == "" {
		in.On = actor.Today()
	}
	err := input.CheckAll(input.PastDay("on", in.On, actor.Today()), input.Lines("shown", &in.Shown),
		input.OneLine("during", &in.During), input.Lines("note", &in.Note))
	if err != nil {
		return err
	}
	if strings.EqualFold(in.During, "any") {
		in.During = ""
	}
	if err := (sign.Seen{Kind: in.Kind, Text: in.Shown}).Check(); err != nil {
		return action.Reject("shown", err.Error())
	}
	return nil
}

func (in *SightingInput) row(machineID int64) signs.Sighting {
	return signs.Sighting{MachineID: machineID, AssemblyID: in.AssemblyID, Kind: string(in.Kind), Shown: in.Shown,
		During: in.During, Note: in.Note, On: in.On}
}

var sightings = action.Records[signs.Sighting, Sighting]{
	What: "what was seen", Lock: signs.LockSighting, Read: signs.SightingByID,
	Version: func(r signs.Sighting) int { return r.Version },
	View:    sightingOf,
}

// VoidSighting strikes out what was entered by mistake. The event that is returned can be undone.
func (s *Service) VoidSighting(ctx context.Context, actor action.Actor, id int64, version int) (event int64,
	err error) {
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := sightings.Locked(ctx, tx, id, version)
		if err != nil {
			return err
		}
		if row.Voided {
			return action.ErrNotFound
		}
		if err := signs.VoidSighting(ctx, tx, id, true); err != nil {
			return err
		}
		event, err = action.RecordEvent(ctx, tx, actor, eventVoidSighting, id, &row.MachineID,
			sightingOf(row).inWords(), nil)
		return err
	})
	return event, err
}

func (s *Service) undoSeeSign(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, signs.LockSighting,
		func(ctx context.Context, _ *sqlx.Tx, now signs.Sighting) error {
			return action.Second(s.VoidSighting(ctx, actor, now.ID, now.Version))
		})
}

func (s *Service) undoVoidSighting(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, signs.LockSighting,
		func(ctx context.Context, tx *sqlx.Tx, now signs.Sighting) error {
			if err := signs.VoidSighting(ctx, tx, now.ID, false); err != nil {
				return err
			}
			return action.Record(ctx, tx, actor, eventTakeBackVoidOfSighting, now.ID, &now.MachineID, nil,
				sightingOf(now).inWords())
		})
}

// SignLists lists the signs of models and known assemblies that hold all words; of each those lines that do, where its
// name does not.
func (s *Service) SignLists(ctx context.Context, actor action.Actor, words string) ([]SignList, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	asked := strings.Fields(strings.ToLower(words))
	rows, err := signs.AllListed(ctx, s.kernel.Reader(ctx), asked, mostSightings)
	return action.Views(rows, func(r signs.Listed) SignList {
		list := SignList{Of: strings.TrimSpace(r.Maker + " " + r.Name), ModelID: r.ModelID, KnownID: r.KnownID}
		list.Table, _ = sign.Parse(r.Signs)
		list.Table.Signs = list.Table.Holding(list.Of, asked)
		return list
	}), err
}

// Verdicts are the lines of the reckoning that follow from what a machine showed last.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error) {
	told, err := s.Signs(ctx, actor, machineID)
	if err != nil {
		return nil, err
	}
	shown := make([]sign.Shown, len(told.Seen))
	for i, one := range told.Seen {
		shown[i] = sign.Shown{Seen: sign.Seen{Kind: one.Kind, Text: one.Shown, State: one.During}, On: one.On,
			Comparison: one.Reading, IsExplained: one.Answer != nil}
	}
	return verdict.Telling(sign.VerdictOf(shown)), nil
}
