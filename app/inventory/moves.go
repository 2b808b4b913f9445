package inventory

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/inventory"
)

// Move says where an assembly goes, and when.
type Move struct {
	To        string `json:"to" enum:"machine,place,loan"`
	MachineID int64  `json:"machineId" required:"false" minimum:"0" doc:"Into this machine"`
	Slot      string `json:"slot" maxLength:"100" required:"false" doc:"Where in the machine it sits"`
	Fit       string `json:"fit" enum:"factory,period,later,modern,unknown" default:"unknown" required:"false" doc:"When it came into the machine"`
	Place     string `json:"place" maxLength:"200" required:"false" doc:"To this place"`
	LentTo    string `json:"lentTo" says:"text" maxLength:"200" required:"false" doc:"Lent to this person or house"`
	Due       string `json:"due" maxLength:"10" required:"false" doc:"Day by which a loan is to be back, YYYY-MM-DD, or empty"`
	On        string `json:"on" maxLength:"10" required:"false" doc:"Day of the move, YYYY-MM-DD; empty for today"`
	Note      string `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// Moved is an assembly where it is now, and the event that can be taken back.
type Moved struct {
	Assembly Assembly `json:"assembly"`
	Event    int64    `json:"event" doc:"The event of the history, by which the action can be undone"`
	Where    string   `json:"where" says:"text" doc:"Where it is now, in words"`
}

// moveTold is what the history keeps of where an assembly was.
type moveTold struct {
	Fitting int64  `json:"fitting"`
	Machine *int64 `json:"machine"`
	Where   string `json:"where" says:"text"`
	Since   string `json:"since"`
}

func tellFitting(f inventory.Fitting) moveTold {
	return moveTold{f.ID, f.MachineID, fittingOf(f).Where(), f.Since}
}

// MoveAssembly takes an assembly from where it is to a machine, a place, or lends it. Its sheet and
// history go with it; its dates are read anew by the era of the machine it is in.
func (s *Service) MoveAssembly(ctx context.Context, actor action.Actor, id int64, version int,
	move Move) (Moved, error) {
	to, err := move.fitting(actor, id)
	if err != nil {
		return Moved{}, err
	}
	var moved Moved
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := s.library.Hold(ctx, tx); err != nil {
			return err
		}
		if to.MachineID != nil {
			if _, err := inventory.LockMachine(ctx, tx, *to.MachineID); err != nil {
				return action.Reject("machineId", "choose the machine it goes into")
			}
		}
		// Machine and place first: who changes a machine's record locks in that order.
		if err := inventory.EnsurePlace(ctx, tx, to.Place); err != nil {
			return err
		}
		assembly, from, err := lockFitted(ctx, tx, id, version)
		if err != nil {
			return err
		}
		if to.Since < from.Since {
			// The first that is told of an assembly is where it was when it was entered: it may have been there long.
			fittings, err := inventory.FittingsOf(ctx, tx, id)
			if err != nil {
				return err
			}
			if len(fittings) > 1 {
				return action.Reject("on", fmt.Sprintf("it is in %s since %s; a move cannot lie before that",
					fittingOf(from).Where(), from.Since))
			}
			if err := inventory.SetFittingSince(ctx, tx, from.ID, to.Since); err != nil {
				return err
			}
		}
		if to, err = replaceFitting(ctx, tx, from, to); err != nil {
			return err
		}
		if fittingOf(to).Where() == fittingOf(from).Where() {
			return action.Reject("to", "it is there already: "+fittingOf(from).Where())
		}
		moved.Where = fittingOf(to).Where()
		there, err := inventory.AssemblyByID(ctx, tx, id)
		if err != nil {
			return err
		}
		moved.Assembly = AssemblyOf(there)
		moved.Event, err = recordMove(ctx, tx, actor, assembly, from, to)
		return err
	})
	return moved, err
}

// lockFitted locks an assembly that nobody changed since version, and tells where it is.
func lockFitted(ctx context.Context, tx *sqlx.Tx, id int64,
	version int) (inventory.Assembly, inventory.Fitting, error) {
	assembly, err := inventory.LockAssembly(ctx, tx, id)
	if err != nil {
		return assembly, inventory.Fitting{}, err
	}
	if err := unchanged(assembly, version); err != nil {
		return assembly, inventory.Fitting{}, err
	}
	fittings, err := inventory.FittingsOf(ctx, tx, id)
	if err != nil {
		return assembly, inventory.Fitting{}, err
	}
	return assembly, fittings[0], nil
}

// replaceFitting ends one fitting and starts the next, and reads it back.
func replaceFitting(ctx context.Context, tx *sqlx.Tx, from, to inventory.Fitting) (inventory.Fitting, error) {
	if err := inventory.CloseFitting(ctx, tx, from.ID, to.Since); err != nil {
		return to, err
	}
	if _, err := inventory.InsertFitting(ctx, tx, to); err != nil {
		return to, err
	}
	if err := inventory.CountAssemblyChange(ctx, tx, from.AssemblyID); err != nil {
		return to, err
	}
	fittings, err := inventory.FittingsOf(ctx, tx, from.AssemblyID)
	if err != nil {
		return to, err
	}
	return fittings[0], nil
}

// recordMove writes the move into the history of the machine it leaves, and of the one it comes to.
func recordMove(ctx context.Context, tx *sqlx.Tx, actor action.Actor, assembly inventory.Assembly,
	from, to inventory.Fitting) (int64, error) {
	if from.MachineID != nil && to.MachineID != nil && *to.MachineID != *from.MachineID {
		received := map[string]string{"title": assembly.Title, "from": fittingOf(from).Where()}
		if err := action.Record(ctx, tx, actor, eventReceiveAssembly, to.ID, to.MachineID, nil, received); err != nil {
			return 0, err
		}
	}
	return action.RecordEvent(ctx, tx, actor, eventMoveAssembly, assembly.ID,
		action.FirstOf(from.MachineID, to.MachineID),
		tellFitting(from), tellFitting(to))
}

// fitting checks a move and writes it as the fitting that it leads to.
func (m Move) fitting(actor action.Actor, assemblyID int64) (inventory.Fitting, error) {
	f := inventory.Fitting{AssemblyID: assemblyID, Fit: "unknown", Since: m.On, Note: m.Note}
	if f.Since == "" {
		f.Since = actor.Today()
	}
	err := input.CheckAll(input.HeadingText("slot", &m.Slot), input.OneLine("place", &m.Place),
		input.OneLine("lentTo", &m.LentTo), input.Lines("note", &f.Note), input.Day("on", f.Since))
	if err == nil && f.Since > actor.Today() {
		err = action.Reject("on", "lies in the future; enter the move once it is done")
	}
	switch {
	case err != nil:
	case m.To == "machine":
		f.MachineID, f.Slot = &m.MachineID, m.Slot
		if m.Fit != "" {
			f.Fit = m.Fit
		}
	case m.To == "place" && m.Place == "":
		err = action.Reject("place", "name the place, as Store, shelf B")
	case m.To == "place":
		f.Place = m.Place
	case m.To == "loan":
		f.LentTo = m.LentTo
		f.Due, err = loan(m.LentTo, m.Due, f.Since)
	default:
		err = action.Reject("to", "is none of machine, place, loan")
	}
	return f, err
}

// loan checks a loan since a day, and returns the day by which it is to be back; nil for none.
func loan(to, due, since string) (*string, error) {
	if to == "" {
		return nil, action.Reject("lentTo", "say who has it")
	}
	if due == "" {
		return nil, nil
	}
	if err := input.Day("due", due); err != nil {
		return nil, err
	}
	if due < since {
		return nil, action.Reject("due", "lies before the day of the loan")
	}
	return &due, nil
}
