// Package console is about what machines say on their consoles and screens: it is heard through a port or typed off, kept,
// read, and taken as statements with the line as their source.
package console

import (
	"context"
	"fmt"
	"slices"
	"sync"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/evidence"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	coreconsole "frugalheron/core/console"
	"frugalheron/core/facts"
	"frugalheron/core/verdict"
	"frugalheron/store/console"
	"frugalheron/store/history"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// Service does what is done about consoles.
type Service struct {
	kernel    *action.Kernel
	inventory *inventory.Service
	evidence  *evidence.Service
	address   string // of the port; empty for none
	bench     string // of the practice machine, which can play a console; empty for none
	mu        sync.Mutex
	now       *listening // nil while nobody listens
}

// New returns it.
func New(kernel *action.Kernel, inventory *inventory.Service, evidence *evidence.Service) *Service {
	s := &Service{kernel: kernel, inventory: inventory, evidence: evidence}
	kernel.CanBeUndone(eventTypedOff, action.MayWriteSheets, s.undoKept)
	kernel.CanBeUndone(eventVoid, action.MayWriteSheets, s.undoVoid)
	return s
}

// HearThrough has consoles heard through the port at an address, as 127.0.0.1:7073 or telnet://127.0.0.1:7073; bench is
// where a stand-in is told what to play, empty for a real port.
func (s *Service) HearThrough(address, bench string) { s.address, s.bench = address, bench }

// mostCaptures bounds what is read at once.
const mostCaptures = 20

// Console tells what the console of a machine said.
func (s *Service) Console(ctx context.Context, actor action.Actor, machineID int64) (Console, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return Console{}, err
	}
	told := Console{Captures: []Capture{}, Port: s.port()}
	h := s.kernel.Reader(ctx)
	rows, err := console.CapturesOf(ctx, h, machineID, mostCaptures+1)
	if err != nil {
		return told, err
	}
	if len(rows) > mostCaptures {
		rows, told.More = rows[:mostCaptures], true
	}
	for _, row := range rows {
		one, err := s.tell(ctx, h, row)
		if err != nil {
			return told, err
		}
		one.shorten()
		told.Captures = append(told.Captures, one)
	}
	return told, nil
}

// mostLines bounds how many lines of a capture a list tells.
const mostLines = 60

func (c *Capture) shorten() {
	if left := len(c.Reading.Lines) - mostLines; left > 0 {
		c.Reading.Lines, c.LinesLeft = c.Reading.Lines[:mostLines], left
	}
}

// Capture tells one with all its lines.
func (s *Service) Capture(ctx context.Context, actor action.Actor, id int64) (Capture, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Capture{}, err
	}
	h := s.kernel.Reader(ctx)
	row, err := console.CaptureByID(ctx, h, id)
	if err != nil {
		return Capture{}, err
	}
	return s.tell(ctx, h, row)
}

// tell reads a capture, and what was taken from it. One that has no end, and that nobody can listen to any more, broke off
// with the application; of a newer one another process may know.
func (s *Service) tell(ctx context.Context, h pg.Handle, row console.Capture) (Capture, error) {
	told := captureOf(row)
	if row.EndedAt == nil && s.listeningTo() != row.ID {
		told.Ended = "somebody listens still, or the application was stopped meanwhile"
		if time.Since(row.At) > mostTime+mostQuiet {
			told.Until, told.Ended = &row.At, "the application was stopped meanwhile"
		}
	}
	rows, err := console.StatedIn(ctx, h, row.ID)
	for _, one := range rows {
		told.Stated = append(told.Stated, StatedLine{one.Line, one.StatementID, one.Attribute, one.Subject})
	}
	return told, err
}

// ReadText tells what a text amounts to, without keeping it.
func (s *Service) ReadText(ctx context.Context, actor action.Actor, machineID int64,
	in TextInput) (coreconsole.TextReading, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return coreconsole.TextReading{}, err
	}
	if err := in.check(actor); err != nil {
		return coreconsole.TextReading{}, err
	}
	return coreconsole.ReadTyped(in.Text, dayOf(in.On)), nil
}

func (in *TextInput) check(actor action.Actor) error {
	if in.On == "" {
		in.On = actor.Today()
	}
	err := input.CheckAll(input.PastDay("on", in.On, actor.Today()), input.Lines("text", &in.Text),
		input.OneLine("during", &in.During), input.Lines("note", &in.Note))
	if err == nil && in.Text == "" {
		return action.Reject("text", "paste or type off what stood there; of silence a sign is kept")
	}
	return err
}

// KeepText keeps what stood on a screen.
func (s *Service) KeepText(ctx context.Context, actor action.Actor, machineID int64, in TextInput) (CaptureKept,
	error) {
	var kept CaptureKept
	if err := in.check(actor); err != nil {
		return kept, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := storeinventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		id, err := console.InsertCapture(ctx, tx, actor.Account(), console.Capture{MachineID: machineID, How: "typed",
			Raw: []byte(in.Text), During: in.During, Note: in.Note, On: in.On})
		if err != nil {
			return err
		}
		row, err := console.CaptureByID(ctx, tx, id)
		if err != nil {
			return err
		}
		kept.Capture = captureOf(row)
		kept.Event, err = action.RecordEvent(ctx, tx, actor, eventTypedOff, id, &machineID, nil, inWords(row))
		return err
	})
	return kept, err
}

// Take makes a claim of a line a statement of the machine: what is read there, with the line as its source.
func (s *Service) Take(ctx context.Context, actor action.Actor, id int64, in TakeInput) (evidence.Statement, error) {
	var stated evidence.Statement
	err := s.kernel.Whole(ctx, actor, action.MayWriteSheets, func(ctx context.Context, tx *sqlx.Tx) error {
		row, err := console.LockCapture(ctx, tx, id)
		if err != nil {
			return err
		}
		if row.Voided {
			return action.ErrNotFound
		}
		read := readOf(row)
		at := slices.IndexFunc(read.Claims, func(c coreconsole.Claim) bool {
			return c.Line == in.Line && c.Attribute == in.Attribute
		})
		if at < 0 {
			return action.Reject("line", fmt.Sprintf("line %d says nothing of %s", in.Line,
				facts.AttributeOf(in.Attribute).Label))
		}
		claim := read.Claims[at]
		before, err := console.StatedIn(ctx, tx, id)
		if err != nil {
			return err
		}
		if slices.ContainsFunc(before, func(b console.Stated) bool {
			return b.Line == claim.Line && b.Attribute == claim.Attribute
		}) {
			return action.Reject("line", "it was taken from this line already")
		}
		text := []rune(fmt.Sprintf("console, %q", read.Lines[claim.Line-1].Text))
		stated, err = s.evidence.StateEvidence(ctx, actor, row.MachineID, evidence.StatementInput{
			Attribute: claim.Attribute, Subject: claim.Subject, Value: claim.Value,
			Citation: evidence.Citation{Kind: string(claim.Source), Cited: string(text[:min(len(text), mostCited)]),
				Page: fmt.Sprintf("line %d", claim.Line), StatedOn: row.On,
				Link: fmt.Sprintf("/machines/%d/power-up?capture=%d", row.MachineID, id)}})
		if err != nil {
			return err
		}
		return console.InsertStated(ctx, tx, console.Stated{CaptureID: id, Line: claim.Line, StatementID: stated.ID})
	})
	return stated, err
}

// mostCited bounds the words of a source, in characters.
const mostCited = 400

var voided = action.Voiding[console.Capture]{Roles: action.MayWriteSheets, Event: eventVoid, Back: eventTakeBackVoid,
	IsVoided: func(r console.Capture) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r console.Capture, isVoided bool) error {
		if !isVoided {
			return console.VoidCapture(ctx, tx, r.ID, false)
		}
		stated, err := console.StatedIn(ctx, tx, r.ID)
		if err != nil {
			return err
		}
		if n := len(stated); n > 0 {
			return action.Reject("capture", fmt.Sprintf("%s taken from it still count: withdraw them in Look over first",
				verdict.Counted(n, "statement", "statements")))
		}
		return console.VoidCapture(ctx, tx, r.ID, true)
	}}

// Void strikes out what was kept by mistake. It is refused while statements count that were taken from it.
func (s *Service) Void(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	if s.listeningTo() == id {
		return 0, action.Reject("capture", "somebody listens still; stop listening first")
	}
	return captures.Void(ctx, s.kernel, actor, voided, id, version)
}

func (s *Service) undoKept(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, console.LockCapture,
		func(ctx context.Context, _ *sqlx.Tx, now console.Capture) error {
			return action.Second(s.Void(ctx, actor, now.ID, now.Version))
		})
}

func (s *Service) undoVoid(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return captures.Unvoid(ctx, s.kernel, actor, voided, e)
}

// Verdicts are the lines of the reckoning that follow from what the console of a machine said last.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	rows, err := console.CapturesOf(ctx, s.kernel.Reader(ctx), machineID, 1)
	if err != nil || len(rows) == 0 {
		return nil, err
	}
	return verdict.Telling(coreconsole.VerdictOf(readOf(rows[0]), rows[0].On)), nil
}
