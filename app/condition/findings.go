package condition

import (
	"context"
	"github.com/jmoiron/sqlx"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/evidence"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/core/condition"
	storecondition "frugalheron/store/condition"
	"frugalheron/store/history"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// home is where something is found: on a machine, or on a board that is in none.
type home struct {
	machineID  *int64
	assemblyID *int64
}

func onMachine(id int64) home { return home{machineID: &id} }

// homeOf is the home of a board: the machine that it is in, or itself.
func homeOf(ctx context.Context, h pg.Handle, assemblyID int64) (home, error) {
	assembly, err := storeinventory.AssemblyByID(ctx, h, assemblyID)
	if err != nil {
		return home{}, err
	}
	if assembly.MachineID != nil {
		return home{machineID: assembly.MachineID}, nil
	}
	return home{assemblyID: &assemblyID}, nil
}

// homeOfFinding is where a finding belongs today: what is found on a board goes with it.
func homeOfFinding(ctx context.Context, h pg.Handle, f storecondition.Finding) (home, error) {
	if f.AssemblyID != nil {
		return homeOf(ctx, h, *f.AssemblyID)
	}
	return home{machineID: f.MachineID}, nil
}

// lock keeps others from changing what is found there.
func (at home) lock(ctx context.Context, tx *sqlx.Tx) error {
	if at.machineID != nil {
		_, err := storeinventory.LockMachine(ctx, tx, *at.machineID)
		return err
	}
	_, err := storeinventory.LockAssembly(ctx, tx, *at.assemblyID)
	return err
}

// known is the one list of findings there.
func (at home) known(ctx context.Context, h pg.Handle) (known, error) {
	if at.machineID != nil {
		return knownOf(ctx, h, *at.machineID)
	}
	return knownOfBoard(ctx, h, *at.assemblyID)
}

// has refuses a record that belongs elsewhere.
func (at home) has(ctx context.Context, h pg.Handle, records ...inventory.Named) error {
	if at.machineID != nil {
		return inventory.OfMachine(ctx, h, *at.machineID, records...)
	}
	return inventory.OfBoard(ctx, h, *at.assemblyID, records...)
}

func checkFinding(ctx context.Context, h pg.Handle, at home, f *FindingInput) error {
	err := input.CheckAll(input.OneLine("kind", &f.Kind), input.OneLine("designator", &f.Designator),
		input.OneLine("place", &f.Place))
	switch {
	case err != nil:
		return err
	case f.Kind == "":
		return action.Reject("kind", "say what was found, as leaking or cracked")
	case f.Region != nil && f.AttachmentID == nil:
		return action.Reject("region", "lies on no picture; choose the picture first")
	case f.Region != nil && !evidence.Inside(*f.Region):
		return action.Reject("region", "lies outside the picture; draw it again")
	}
	if _, ok := condition.SubsystemOf(f.Subsystem); !ok {
		return action.Reject("subsystem", "choose the subsystem it belongs to")
	}
	if at.assemblyID != nil && f.AssemblyID == nil {
		f.AssemblyID = at.assemblyID
	}
	return at.has(ctx, h, append(inventory.NamedIf("assemblyId", storeinventory.OwnedBoard, f.AssemblyID),
		inventory.NamedIf("attachmentId", storeinventory.OwnedPicture, f.AttachmentID)...)...)
}

// AddFinding keeps a finding on a machine with its first observation.
func AddFinding(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64, f FindingInput,
	first storecondition.ObservationRow) error {
	return action.Second(addFinding(ctx, tx, actor, onMachine(machineID), f, first))
}

// addFinding keeps a finding with its first observation, and returns the event.
func addFinding(ctx context.Context, tx *sqlx.Tx, actor action.Actor, at home, f FindingInput,
	first storecondition.ObservationRow) (int64, error) {
	if err := checkFinding(ctx, tx, at, &f); err != nil {
		return 0, err
	}
	id, err := storecondition.InsertFinding(ctx, tx, at.machineID, f.row())
	if err != nil {
		return 0, err
	}
	first.FindingID = id
	if err := storecondition.PutObservation(ctx, tx, actor.Account(), first); err != nil {
		return 0, err
	}
	kept, err := storecondition.FindingByID(ctx, tx, id)
	if err != nil {
		return 0, err
	}
	after := map[string]any{"kind": f.Kind, "where": whereOf(kept), "severity": first.Severity, "on": first.On,
		"note": first.Note}
	done := eventFind
	if first.Gone {
		done = eventFindingGone // of what a sheet or a measurement told
	}
	return action.RecordEvent(ctx, tx, actor, done, id, at.machineID, nil, after)
}

// NotedFinding is something found, or seen again, outside of a survey.
type NotedFinding struct {
	Subsystem string `json:"subsystem" maxLength:"40" required:"false" doc:"Of a new finding"`
	ObservedFinding
	On string `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
}

// NoteFinding keeps something found outside of a survey, or says that a finding is gone, or how it is now.
func (s *Service) NoteFinding(ctx context.Context, actor action.Actor, machineID int64,
	noted NotedFinding) (Condition, error) {
	if noted.On == "" {
		noted.On = actor.Today()
	}
	if err := input.PastDay("on", noted.On, actor.Today()); err != nil {
		return Condition{}, err
	}
	return s.onCondition(ctx, actor, machineID, func(tx *sqlx.Tx) error {
		return action.Second(seeFinding(ctx, tx, actor, onMachine(machineID), noted.Subsystem, noted.ObservedFinding,
			nil,
			noted.On))
	})
}

// SayFound keeps what somebody says was found today on a machine, or on a board in it, in whichever subsystem that
// belongs to. It returns the event.
func (s *Service) SayFound(ctx context.Context, actor action.Actor, machineID int64, f FindingInput,
	note string) (event int64, err error) {
	where := strings.TrimSpace(f.Designator + " " + f.Place)
	subsystem := condition.SubsystemOfPlace(where, f.Kind)
	if where == "" {
		subsystem = "boards" // it is said of a board as a whole
	}
	seen := ObservedFinding{New: &f, Severity: condition.SeverityOf(subsystem, f.Kind, where), Note: note}
	at := onMachine(machineID)
	err = s.onFound(ctx, actor, at, func(tx *sqlx.Tx) error {
		event, err = seeFinding(ctx, tx, actor, at, subsystem, seen, nil, actor.Today())
		return err
	})
	return event, err
}

// undoFind takes back that something was found.
func (s *Service) undoFind(ctx context.Context, actor action.Actor, e history.EventRow) error {
	f, err := storecondition.FindingByID(ctx, s.kernel.Reader(ctx), e.SubjectID)
	if err != nil {
		return err
	}
	return action.Second(s.VoidFinding(ctx, actor, f.ID, f.Version))
}

// onFound does work on what is found somewhere.
func (s *Service) onFound(ctx context.Context, actor action.Actor, at home, work func(tx *sqlx.Tx) error) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := at.lock(ctx, tx); err != nil {
			return err
		}
		return work(tx)
	})
}

// VoidFinding strikes out a finding that was entered by mistake, and returns the event.
func (s *Service) VoidFinding(ctx context.Context, actor action.Actor, id int64,
	version int) (event int64, err error) {
	f, err := storecondition.FindingByID(ctx, s.kernel.Reader(ctx), id)
	if err != nil {
		return 0, err
	}
	at, err := homeOfFinding(ctx, s.kernel.Reader(ctx), f)
	if err != nil {
		return 0, err
	}
	err = s.onFound(ctx, actor, at, func(tx *sqlx.Tx) error {
		f, err := storecondition.FindingByID(ctx, tx, id)
		if err != nil {
			return err
		}
		if f.Voided {
			return action.ErrNotFound
		}
		if f.Version != version {
			return &action.Stale{What: "the finding", Newer: findingOf(f)}
		}
		if err := storecondition.VoidFinding(ctx, tx, id, true); err != nil {
			return err
		}
		event, err = action.RecordEvent(ctx, tx, actor, eventVoidFinding, id, at.machineID,
			map[string]any{"kind": f.Kind, "where": whereOf(f)}, nil)
		return err
	})
	return event, err
}

func (s *Service) undoVoidFinding(ctx context.Context, actor action.Actor, e history.EventRow) error {
	f, err := storecondition.FindingByID(ctx, s.kernel.Reader(ctx), e.SubjectID)
	if err != nil {
		return err
	}
	at, err := homeOfFinding(ctx, s.kernel.Reader(ctx), f)
	if err != nil {
		return err
	}
	return s.onFound(ctx, actor, at, func(tx *sqlx.Tx) error {
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		if err := storecondition.VoidFinding(ctx, tx, f.ID, false); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeBackVoidOfFinding, f.ID, at.machineID, nil,
			map[string]any{"kind": f.Kind, "where": whereOf(f)})
	})
}
