package inventory

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// MachineMove says where a machine goes, and when.
type MachineMove struct {
	To       string `json:"to" enum:"place,loan,transit"`
	Place    string `json:"place" maxLength:"200" required:"false" doc:"To this place: building, room, shelf, box, divided by commas"`
	LentTo   string `json:"lentTo" says:"text" maxLength:"200" required:"false" doc:"Lent to this person or house"`
	BoundFor string `json:"boundFor" says:"text" maxLength:"200" required:"false" doc:"On its way to this place or house"`
	Due      string `json:"due" maxLength:"10" required:"false" doc:"Day by which a loan is to be back, YYYY-MM-DD, or empty"`
	On       string `json:"on" maxLength:"10" required:"false" doc:"Day of the move, YYYY-MM-DD; empty for today"`
	Note     string `json:"note" says:"text" maxLength:"1000" required:"false"`
}

func (m MachineMove) location(actor action.Actor, machineID int64) (inventory.Location, error) {
	s := inventory.Location{MachineID: machineID, Since: m.On, Note: m.Note}
	if s.Since == "" {
		s.Since = actor.Today()
	}
	err := input.CheckAll(input.OneLine("place", &m.Place), input.OneLine("lentTo", &m.LentTo),
		input.OneLine("boundFor", &m.BoundFor), input.Lines("note", &s.Note),
		input.PastDay("on", s.Since, actor.Today()))
	switch {
	case err != nil:
	case m.To == "place" && m.Place == "":
		err = action.Reject("place", "name the place, as Rope walk, bay 2")
	case m.To == "place":
		s.Place = m.Place
	case m.To == "loan":
		s.LentTo = m.LentTo
		s.Due, err = loan(m.LentTo, m.Due, s.Since)
	case m.To == "transit" && m.BoundFor == "":
		err = action.Reject("boundFor", "say where it is going")
	case m.To == "transit":
		s.BoundFor = m.BoundFor
	default:
		err = action.Reject("to", "is none of place, loan, transit")
	}
	return s, err
}

// MovedMachine is a machine where it is now, and the event that can be taken back.
type MovedMachine struct {
	Machine Machine `json:"machine"`
	Event   int64   `json:"event" doc:"The event of the history, by which the action can be undone"`
	Where   string  `json:"where" says:"text" doc:"Where it is now, in words"`
}

// locationTold is what the history keeps of where a machine was.
type locationTold struct {
	Location int64  `json:"location"`
	Place    string `json:"place"`
	Where    string `json:"where" says:"text"`
	Since    string `json:"since"`
}

func tellLocation(s inventory.Location) locationTold {
	return locationTold{s.ID, s.Place, locationOf(s).Where(), s.Since}
}

// MoveMachine takes a machine to a place, lends it, or sends it on its way.
func (s *Service) MoveMachine(ctx context.Context, actor action.Actor, id int64, version int,
	move MachineMove) (MovedMachine, error) {
	to, err := move.location(actor, id)
	if err != nil {
		return MovedMachine{}, err
	}
	var moved MovedMachine
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := machines.Locked(ctx, tx, id, version); err != nil {
			return err
		}
		from, err := presentLocation(ctx, tx, id)
		if err != nil {
			return err
		}
		if locationOf(to).Where() == locationOf(from).Where() {
			return action.Reject("to", "it is there already: "+locationOf(from).Where())
		}
		if err := moveOn(ctx, tx, to); err != nil {
			return err
		}
		if err := inventory.SetPlace(ctx, tx, id, to.Place); err != nil {
			return err
		}
		there, err := inventory.MachineByID(ctx, tx, id)
		if err != nil {
			return err
		}
		moved.Machine = MachineOf(there)
		now, err := presentLocation(ctx, tx, id)
		if err != nil {
			return err
		}
		moved.Where = locationOf(now).Where()
		moved.Event, err = action.RecordEvent(ctx, tx, actor, eventMoveMachine, id, &id, tellLocation(from),
			tellLocation(now))
		return err
	})
	return moved, err
}

// LocationsOf lists where a machine is and was, the newest first.
func LocationsOf(ctx context.Context, h pg.Handle, machineID int64) ([]Location, error) {
	rows, err := inventory.LocationsOf(ctx, h, machineID)
	return action.Views(rows, locationOf), err
}

// presentLocation reads where a machine is today; the zero Location for nowhere that is written down.
func presentLocation(ctx context.Context, h pg.Handle, machineID int64) (inventory.Location, error) {
	locations, err := inventory.LocationsOf(ctx, h, machineID)
	if err != nil || len(locations) == 0 || locations[0].Until != nil {
		return inventory.Location{}, err
	}
	return locations[0], nil
}

// moveOn ends where a machine is and begins where it goes.
func moveOn(ctx context.Context, tx *sqlx.Tx, to inventory.Location) error {
	from, err := presentLocation(ctx, tx, to.MachineID)
	if err != nil {
		return err
	}
	if from.ID != 0 {
		if to.Since < from.Since {
			return action.Reject("on",
				fmt.Sprintf("it is in %s since %s; a move cannot lie before that", locationOf(from).Where(), from.Since))
		}
		if err := inventory.CloseLocation(ctx, tx, from.ID, &to.Since); err != nil {
			return err
		}
	}
	return putMachine(ctx, tx, to)
}

// putMachine begins a stay, unless it is nowhere.
func putMachine(ctx context.Context, tx *sqlx.Tx, s inventory.Location) error {
	if s.Place == "" && s.LentTo == "" && s.BoundFor == "" {
		return nil
	}
	_, err := inventory.InsertLocation(ctx, tx, s)
	return err
}

func (s *Service) undoMoveMachine(ctx context.Context, actor action.Actor, e history.EventRow) error {
	was, err := action.StateIn[locationTold](e.Before)
	if err != nil {
		return err
	}
	became, err := action.StateIn[locationTold](e.After)
	if err != nil {
		return err
	}
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, e.SubjectID); err != nil {
			return err
		}
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		if err := inventory.DeleteLocation(ctx, tx, became.Location); err != nil {
			return err
		}
		if was.Location != 0 {
			if err := inventory.CloseLocation(ctx, tx, was.Location, nil); err != nil {
				return err
			}
		}
		if err := inventory.SetPlace(ctx, tx, e.SubjectID, was.Place); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeBackMachineMove, e.SubjectID, &e.SubjectID, became, was)
	})
}

// CountPlaces lists all places with what is there today.
func (s *Service) CountPlaces(ctx context.Context, actor action.Actor) ([]PlaceCount, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	rows, err := inventory.CountPlaces(ctx, s.kernel.Reader(ctx))
	return action.Views(rows, placeCountOf), err
}
