package library

import (
	"context"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/maker"
	"frugalheron/store/library"
	"frugalheron/store/pg"
)

// MakerView is a maker with how it stands to others, in words.
type MakerView struct {
	Maker
	Told []maker.Tie `json:"told"`
}

// mostMakers bounds a list of makers.
const mostMakers = 500

// Makers lists makers by words of name, place or ties.
func (s *Service) Makers(ctx context.Context, actor action.Actor, words string) ([]MakerView, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	found, err := library.ListMakers(ctx, s.kernel.Reader(ctx), strings.Fields(words), mostMakers)
	return action.Views(found, tellMaker), err
}

func tellMaker(m library.Maker) MakerView {
	ties, err := maker.Parse(m.Ties)
	if err != nil {
		ties = []maker.Tie{} // checked when it was kept
	}
	return MakerView{makerOf(m), ties}
}

// AddMaker adds a maker.
func (s *Service) AddMaker(ctx context.Context, actor action.Actor, fields MakerInput) (MakerView, error) {
	var added library.Maker
	if err := checkMaker(&fields); err != nil {
		return MakerView{}, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		id, err := library.InsertMaker(ctx, tx, library.MakerFields(fields))
		if err != nil {
			return makerTaken(err, fields)
		}
		if added, err = library.MakerByID(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventAddMaker, id, nil, nil, fields)
	})
	return tellMaker(added), err
}

var makers = action.Records[library.Maker, MakerView]{
	What: "the maker", Lock: library.LockMaker, Read: library.MakerByID,
	Version: func(m library.Maker) int { return m.Version },
	Told:    func(m library.Maker) any { return MakerInput(m.MakerFields) },
	View:    tellMaker,
}

// ChangeMaker rewrites what is said of a maker, starting from a version.
func (s *Service) ChangeMaker(ctx context.Context, actor action.Actor, id int64, version int,
	fields MakerInput) (MakerView, error) {
	if err := checkMaker(&fields); err != nil {
		return MakerView{}, err
	}
	change := action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChangeMaker, ID: id,
		Version: version}
	return makers.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, _ library.Maker) error {
		return makerTaken(library.UpdateMaker(ctx, tx, id, library.MakerFields(fields)), fields)
	})
}

func makerTaken(err error, fields MakerInput) error {
	if pg.Violates(err, "maker_name_key") {
		return action.Reject("name", fields.Name+" is in the list already")
	}
	return err
}

func checkMaker(f *MakerInput) error {
	err := input.CheckAll(input.OneLine("name", &f.Name), input.CheckEDTF("founded", &f.Founded),
		input.CheckEDTF("ended", &f.Ended), input.OneLine("place", &f.Place),
		input.Lines("ties", &f.Ties), input.Lines("note", &f.Note), input.OneLine("source", &f.Source))
	if err != nil {
		return err
	}
	if f.Name == "" {
		return action.Reject("name", "say what it is called")
	}
	if _, err := maker.Parse(f.Ties); err != nil {
		return action.Reject("ties", err.Error())
	}
	return nil
}
