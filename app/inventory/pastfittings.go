package inventory

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/edtf"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
)

// PastFitting says in which machine an assembly was before, as a card that was in there until 2010.
type PastFitting struct {
	MachineID int64  `json:"machineId" minimum:"1"`
	Slot      string `json:"slot" maxLength:"100" required:"false"`
	Fit       string `json:"fit" enum:"factory,period,later,modern,unknown" default:"unknown" required:"false" doc:"When it came into the machine"`
	From      string `json:"from" maxLength:"40" required:"false" doc:"EDTF; empty where nobody knows"`
	Until     string `json:"until" maxLength:"40" doc:"EDTF, as 2010 or 2026-11-20"`
	Note      string `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// toldPastFitting is what the history keeps of one.
type toldPastFitting struct {
	Fitting int64  `json:"fitting"`
	Where   string `json:"where" says:"text"`
	Until   string `json:"until"`
}

// row is the fitting that is meant. Where days are open, it is as long as it can have been.
func (p PastFitting) row(actor action.Actor, assemblyID int64) (inventory.Fitting, error) {
	f := inventory.Fitting{AssemblyID: assemblyID, MachineID: &p.MachineID, Fit: "unknown", Note: p.Note}
	if p.Fit != "" {
		f.Fit = p.Fit
	}
	err := input.CheckAll(input.HeadingText("slot", &p.Slot), input.Lines("note", &f.Note))
	if err != nil {
		return f, err
	}
	f.Slot = p.Slot
	until, err := edtf.Parse(p.Until)
	if err != nil {
		return f, action.Reject("until", err.Error())
	}
	from := until
	if p.From != "" {
		if from, err = edtf.Parse(p.From); err != nil {
			return f, action.Reject("from", err.Error())
		}
	}
	last, today := until.Latest().String(), actor.Today()
	switch {
	case until.Latest().IsZero() || from.Earliest().IsZero():
		return f, action.Reject("until", "say a day, a month or a year")
	case until.Earliest().String() > today:
		return f, action.Reject("until", "lies after today; what is to come is entered once it is done")
	case until.Latest().Before(from.Earliest()):
		return f, action.Reject("until", "lies before it came there")
	}
	last = min(last, today)
	f.Since, f.Until = from.Earliest().String(), &last
	if told := p.From + "/" + p.Until; p.From != f.Since || p.Until != last {
		f.Note = joined(f.Note, "as told: "+told)
	}
	return f, nil
}

func joined(note, more string) string {
	if note == "" {
		return more
	}
	return note + "; " + more
}

// TellPastFitting notes that an assembly was in a machine before. It is where it is today all the same.
func (s *Service) TellPastFitting(ctx context.Context, actor action.Actor, id int64, version int,
	past PastFitting) (Moved, error) {
	row, err := past.row(actor, id)
	if err != nil {
		return Moved{}, err
	}
	var moved Moved
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := s.library.Hold(ctx, tx); err != nil {
			return err
		}
		machine, err := inventory.LockMachine(ctx, tx, past.MachineID)
		if err != nil {
			return action.Reject("machineId", "choose the machine it was in")
		}
		if _, _, err := lockFitted(ctx, tx, id, version); err != nil {
			return err
		}
		fittings, err := inventory.FittingsOf(ctx, tx, id)
		if err != nil {
			return err
		}
		for _, f := range fittings {
			// When the first began nobody said: that is the day on which it was entered.
			if f.Until != nil && f.MachineID != nil && row.Since < *f.Until && f.Since < *row.Until {
				return action.Reject("until",
					fmt.Sprintf("it was in %s from %s until %s", fittingOf(f).Where(), f.Since,
						*f.Until))
			}
		}
		if row.ID, err = inventory.InsertPastFitting(ctx, tx, row); err != nil {
			return err
		}
		if err := inventory.CountAssemblyChange(ctx, tx, id); err != nil {
			return err
		}
		there, err := inventory.AssemblyByID(ctx, tx, id)
		if err != nil {
			return err
		}
		row.Accession = machine.Accession
		moved.Assembly, moved.Where = AssemblyOf(there), fittingOf(row).Where()
		moved.Event, err = action.RecordEvent(ctx, tx, actor, eventTellPastFitting, id, &past.MachineID, nil,
			toldPastFitting{row.ID, moved.Where, past.Until})
		return err
	})
	return moved, err
}

func (s *Service) undoPastFitting(ctx context.Context, actor action.Actor, e history.EventRow) error {
	told, err := action.StateIn[toldPastFitting](e.After)
	if err != nil {
		return err
	}
	return s.undoingFitting(ctx, actor, e, func(tx *sqlx.Tx) error {
		if err := inventory.DeleteFitting(ctx, tx, told.Fitting); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeBackPastFitting, e.SubjectID, e.MachineID, told, nil)
	})
}

// PastBoard is an assembly that was in a machine, and is not any more.
type PastBoard struct {
	AssemblyID int64  `json:"assemblyId"`
	Title      string `json:"title" says:"text"`
	Slot       string `json:"slot"`
	Note       string `json:"note" says:"text"`
	Since      string `json:"since" doc:"YYYY-MM-DD"`
	Until      string `json:"until" doc:"YYYY-MM-DD"`
	Where      string `json:"where" says:"text" doc:"Where it is today"`
}

// PastBoards lists what was in a machine and is not any more, what left last first.
func (s *Service) PastBoards(ctx context.Context, actor action.Actor, machineID int64) ([]PastBoard, error) {
	if _, err := s.Machine(ctx, actor, machineID); err != nil {
		return nil, err
	}
	rows, err := inventory.PastBoardsOf(ctx, s.kernel.Reader(ctx), machineID)
	return action.Views(rows, func(r inventory.PastBoard) PastBoard { return PastBoard(r) }), err
}
