package quickentry

import (
	"cmp"
	"context"
	"errors"
	"fmt"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/evidence"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/app/sheets"
	"frugalheron/core/statement"
	storeinventory "frugalheron/store/inventory"
	storesheets "frugalheron/store/sheets"
)

// Entered is what was kept of a statement.
type Entered struct {
	Event    int64            `json:"event" doc:"The event of the history, by which the action can be undone; 0 for a statement, which is withdrawn with a reason"`
	Revision *sheets.Revision `json:"revision" doc:"The sheet as it is now, or null where none was changed"`
}

// Enter keeps a statement about a machine: a note, what happened to the machine or a board as a whole, or a line put on
// revision base of an assembly's sheet. When somebody saved another since, the answer is *Stale with that revision.
func (s *Service) Enter(ctx context.Context, actor action.Actor, machineID, assemblyID int64, base int,
	text string) (Entered, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return Entered{}, err
	}
	machine, rest, err := s.about(ctx, machineID, text)
	if err != nil {
		return Entered{}, err
	}
	if machine.ID == 0 {
		return Entered{}, action.Reject("text", statesNothing)
	}
	fitted, err := sheets.Contents(ctx, s.kernel.Reader(ctx), machine.ID)
	if err != nil {
		return Entered{}, err
	}
	said, ok := statement.Read(rest, titlesOf(fitted)...)
	switch {
	case !ok:
		return Entered{}, action.Reject("text", statesNothing)
	case said.Note != "":
		return s.enterNote(ctx, actor, machine, said.Note)
	case assemblyID == 0 && said.Happened != nil:
		return s.enterHappened(ctx, actor, machine, fitted, said)
	}
	return s.enterLine(ctx, actor, machine, assemblyID, base, said)
}

const statesNothing = "states nothing; write a line of a sheet, as U14 27128-25 8533, what happened, as BT1 removed, " +
	"or note and what is to be noted"

func (s *Service) enterNote(ctx context.Context, actor action.Actor, machine inventory.Machine,
	text string) (Entered, error) {
	var kept Entered
	if err := input.Lines("text", &text); err != nil {
		return kept, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		// Who takes back what was done before waits, or finds the note.
		if _, err := storeinventory.LockMachine(ctx, tx, machine.ID); err != nil {
			return err
		}
		var err error
		kept.Event, err = action.RecordEvent(ctx, tx, actor, eventNote, machine.ID, &machine.ID, nil,
			map[string]string{"note": text})
		return err
	})
	return kept, err
}

func (s *Service) enterLine(ctx context.Context, actor action.Actor, machine inventory.Machine, assemblyID int64,
	base int, said statement.Statement) (Entered, error) {
	var kept Entered
	if said.Entry == nil {
		return kept, action.Reject("assemblyId", "is not about the parts of a board; leave it out")
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := s.library.Hold(ctx, tx); err != nil {
			return err
		}
		assembly, err := storeinventory.LockAssembly(ctx, tx, assemblyID)
		if err != nil {
			return err
		}
		if assembly.MachineID == nil || *assembly.MachineID != machine.ID {
			return action.Reject("assemblyId", "is not fitted in "+machine.Accession)
		}
		newest, err := storesheets.NewestRevision(ctx, tx, assemblyID)
		if err != nil && !errors.Is(err, action.ErrNotFound) {
			return err
		}
		if newest.N != base {
			return &action.Stale{What: "the sheet", Newer: sheets.RevisionOf(newest)}
		}
		placed, err := statement.Place(newest.Body, said, actor.Today())
		if err != nil {
			return err
		}
		library, err := s.library.Held(ctx, tx)
		if err != nil {
			return err
		}
		alone, err := sheets.ReckonBody(library, cmp.Or(placed.Text, said.Line),
			sheets.OptionsFor(assembly.Purpose, assembly.Fit, inventory.EraOf(machine.EraFrom, machine.EraTo),
				actor.Day()))
		if err != nil {
			return err
		}
		if why := cmp.Or(placed.Blocked, statement.WhyNot(said, placed, alone)); why != "" {
			return action.Reject("text", why)
		}
		if err := sheets.Readable(placed.Body); err != nil {
			return err
		}
		revision, event, err := sheets.AddRevision(ctx, tx, actor, assembly, newest.N+1, placed.Body)
		if err != nil {
			return err
		}
		kept = Entered{event, &revision}
		return nil
	})
	return kept, err
}

// enterHappened keeps what happened to a machine, or to one of its boards, as a whole.
func (s *Service) enterHappened(ctx context.Context, actor action.Actor, machine inventory.Machine,
	fitted []sheets.FittedAssembly, said statement.Statement) (kept Entered, err error) {
	h := said.Happened
	var board *sheets.FittedAssembly
	for i := range fitted {
		if said.Board == "" || fitted[i].Title != said.Board {
			continue
		}
		if board != nil {
			return kept, action.Reject("text", fmt.Sprintf(
				"several boards are called %s; give one of them another title, or say it of a part on its sheet", said.Board))
		}
		board = &fitted[i]
	}
	subject := said.Board
	if said.Entry != nil {
		subject = said.Entry.Written
	}
	subject = h.About(subject)
	switch h.Deed {
	case statement.Found:
		if said.Entry != nil {
			return kept, action.Reject("assemblyId", "say on which board it is")
		}
		f := condition.FindingInput{Kind: h.Found[0].Kind, Place: h.Words}
		if board != nil {
			f.AssemblyID = &board.ID
		}
		kept.Event, err = s.condition.SayFound(ctx, actor, machine.ID, f, h.Found[0].Note)
	case statement.Worked:
		value := "no"
		if h.Worked {
			value = "yes"
		}
		if h.Note != "" {
			value += ", " + h.Note
		}
		_, err = s.evidence.StateEvidence(ctx, actor, machine.ID, evidence.StatementInput{Attribute: "worked",
			Subject: subject, Value: value, Citation: evidence.Citation{Kind: string(h.Witness()),
				StatedOn: cmp.Or(h.When(actor.Today()), actor.Today())}})
	case statement.Stated:
		_, err = s.evidence.StateEvidence(ctx, actor, machine.ID, evidence.StatementInput{
			Attribute: h.Attribute, Subject: subject, Value: h.Value,
			Citation: evidence.Citation{Kind: string(h.Source), Cited: h.Note, StatedOn: actor.Today()}})
	case statement.Moved:
		return s.enterMove(ctx, actor, machine, board, inventory.Move{To: "place", Place: h.Words})
	case statement.Lent:
		if said.Entry != nil {
			return kept, action.Reject("assemblyId", "say on which board it is")
		}
		return s.enterMove(ctx, actor, machine, board, inventory.Move{To: "loan", LentTo: h.Words, On: h.New,
			Due: h.Due})
	default:
		return kept, action.Reject("text", "say note, and what was done")
	}
	return kept, err
}

// enterMove takes a machine, or one of its boards, to a place, or lends it.
func (s *Service) enterMove(ctx context.Context, actor action.Actor, machine inventory.Machine,
	board *sheets.FittedAssembly, to inventory.Move) (Entered, error) {
	if board != nil {
		moved, err := s.inventory.MoveAssembly(ctx, actor, board.ID, board.Version, to)
		return Entered{Event: moved.Event}, err
	}
	moved, err := s.inventory.MoveMachine(ctx, actor, machine.ID, machine.Version,
		inventory.MachineMove{To: to.To, Place: to.Place, LentTo: to.LentTo, On: to.On, Due: to.Due})
	return Entered{Event: moved.Event}, err
}
