package people

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/inventory"
	"frugalheron/store/people"
	"frugalheron/store/pg"
)

func checkPersonalData(actor action.Actor, p *PersonalDataInput) error {
	err := input.CheckAll(input.OneLine("medium", &p.Medium), input.OneLine("sort", &p.Sort),
		input.Lines("reason", &p.Reason), input.OneLine("decidedBy", &p.DecidedBy))
	if p.Decision == "" {
		p.Decision = "open"
	}
	switch {
	case err != nil:
		return err
	case p.Medium == "":
		return action.Reject("medium", "say where it is, as hard disk, second partition")
	case p.Sort == "":
		return action.Reject("sort", "say what kind of data it is, as letters; not what it says")
	case p.Decision == "open" && p.DoneOn != nil:
		return action.Reject("doneOn", "nothing can be done before it is decided what")
	case p.Decision != "open" && p.DecidedBy == "":
		return action.Reject("decidedBy", "say who decided")
	case p.Decision != "open" && p.DecidedOn == nil:
		on := actor.Today()
		p.DecidedOn = &on
	}
	for field, day := range map[string]*string{"decidedOn": p.DecidedOn, "doneOn": p.DoneOn} {
		if day == nil {
			continue
		}
		if err := input.PastDay(field, *day, actor.Today()); err != nil {
			return err
		}
	}
	if p.DoneOn != nil && p.DecidedOn != nil && *p.DoneOn < *p.DecidedOn {
		return action.Reject("doneOn", "lies before the day of the decision")
	}
	return nil
}

// OpenData is personal data about which something is still to be decided or done.
type OpenData struct {
	PersonalData
	Accession string `json:"accession"`
}

// OpenPersonalData lists what is still to be decided or carried out in the whole collection.
func (s *Service) OpenPersonalData(ctx context.Context, actor action.Actor) ([]OpenData, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	found, err := PersonalDataOf(ctx, s.kernel.Reader(ctx), 0)
	open := make([]OpenData, len(found))
	for i, data := range found {
		machine, err := inventory.MachineByID(ctx, s.kernel.Reader(ctx), data.MachineID)
		if err != nil {
			return nil, err
		}
		open[i] = OpenData{data, machine.Accession}
	}
	return open, err
}

// PersonalDataOf lists what is written down about such data of a machine, or for 0 what is still to be decided or
// carried out in all.
func PersonalDataOf(ctx context.Context, h pg.Handle, machineID int64) ([]PersonalData, error) {
	rows, err := people.PersonalDataOf(ctx, h, machineID)
	return action.Views(rows, personalDataOf), err
}

// NotePersonalData notes that data of former owners is on a medium of a machine.
func (s *Service) NotePersonalData(ctx context.Context, actor action.Actor, machineID int64,
	fields PersonalDataInput) (PersonalData, error) {
	if err := checkPersonalData(actor, &fields); err != nil {
		return PersonalData{}, err
	}
	var noted people.PersonalData
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		id, err := people.InsertPersonalData(ctx, tx, machineID, people.PersonalDataFields(fields), actor.Today())
		if err != nil {
			return err
		}
		if noted, err = people.LockPersonalData(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventNotePersonalData, id, &machineID, nil, fields)
	})
	return personalDataOf(noted), err
}

var personalData = action.Records[people.PersonalData, PersonalData]{
	What: "the note", Lock: people.LockPersonalData, Read: people.LockPersonalData,
	Version: func(p people.PersonalData) int { return p.Version },
	Told:    func(p people.PersonalData) any { return PersonalDataInput(p.PersonalDataFields) },
	View:    personalDataOf,
	Machine: func(p people.PersonalData) *int64 { return &p.MachineID },
}

// ChangePersonalData writes what was decided about such data, and that it was done.
func (s *Service) ChangePersonalData(ctx context.Context, actor action.Actor, id int64, version int,
	fields PersonalDataInput) (PersonalData, error) {
	if err := checkPersonalData(actor, &fields); err != nil {
		return PersonalData{}, err
	}
	change := action.Change{Actor: actor, Roles: action.MayKeepTheRecord, Event: eventDecidePersonalData, ID: id,
		Version: version}
	return personalData.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, _ people.PersonalData) error {
		return people.UpdatePersonalData(ctx, tx, id, people.PersonalDataFields(fields))
	})
}
