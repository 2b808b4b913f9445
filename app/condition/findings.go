package condition

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

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

func checkFinding(ctx context.Context, h pg.Handle, machineID int64, f *FindingInput) error {
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
	return inventory.OfMachine(ctx, h, machineID,
		append(inventory.NamedIf("assemblyId", storeinventory.OwnedBoard, f.AssemblyID),
			inventory.NamedIf("attachmentId", storeinventory.OwnedPicture, f.AttachmentID)...)...)
}

// AddFinding keeps a finding with its first observation.
func AddFinding(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64, f FindingInput,
	first storecondition.ObservationRow) error {
	if err := checkFinding(ctx, tx, machineID, &f); err != nil {
		return err
	}
	id, err := storecondition.InsertFinding(ctx, tx, machineID, f.row())
	if err != nil {
		return err
	}
	first.FindingID = id
	if err := storecondition.PutObservation(ctx, tx, actor.Account(), first); err != nil {
		return err
	}
	kept, err := storecondition.FindingByID(ctx, tx, id)
	if err != nil {
		return err
	}
	after := map[string]any{"kind": f.Kind, "where": whereOf(kept), "severity": first.Severity, "on": first.On,
		"note": first.Note}
	return action.Record(ctx, tx, actor, eventFind, id, &machineID, nil, after)
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
		return seeFinding(ctx, tx, actor, machineID, noted.Subsystem, noted.ObservedFinding, nil, noted.On)
	})
}

// VoidFinding strikes out a finding that was entered by mistake, and returns the event.
func (s *Service) VoidFinding(ctx context.Context, actor action.Actor, id int64,
	version int) (event int64, err error) {
	f, err := storecondition.FindingByID(ctx, s.kernel.Reader(ctx), id)
	if err != nil {
		return 0, err
	}
	_, err = s.onCondition(ctx, actor, f.MachineID, func(tx *sqlx.Tx) error {
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
		event, err = action.RecordEvent(ctx, tx, actor, eventVoidFinding, id, &f.MachineID,
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
	_, err = s.onCondition(ctx, actor, f.MachineID, func(tx *sqlx.Tx) error {
		if err := action.NewestStill(ctx, tx, e); err != nil {
			return err
		}
		if err := storecondition.VoidFinding(ctx, tx, f.ID, false); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTakeBackVoidOfFinding, f.ID, &f.MachineID, nil,
			map[string]any{"kind": f.Kind, "where": whereOf(f)})
	})
	return err
}

// ObservedFinding is a finding as it was seen: a new one with its fields, or one that was there before by its id.
type ObservedFinding struct {
	FindingID int64              `json:"findingId" minimum:"0" required:"false" doc:"0 for a new one"`
	New       *FindingInput      `json:"new,omitempty"`
	Severity  condition.Severity `json:"severity" enum:"cosmetic,watch,repair,hazard"`
	Trend     string             `json:"trend" enum:",worse,same,better" required:"false" doc:"Where the severity does not tell"`
	Gone      bool               `json:"gone" required:"false" doc:"It is not there any more"`
	Note      string             `json:"note" says:"text" maxLength:"1000" required:"false"`
}

func seeFinding(ctx context.Context, tx *sqlx.Tx, actor action.Actor, machineID int64, subsystem string,
	seen ObservedFinding, surveyID *int64, on string) error {
	if err := input.Lines("note", &seen.Note); err != nil {
		return err
	}
	if !seen.Severity.IsKnown() {
		return action.Reject("severity", "say how grave it is")
	}
	observation := storecondition.ObservationRow{FindingID: seen.FindingID, SurveyID: surveyID, On: on,
		Severity: string(seen.Severity), Trend: seen.Trend, Gone: seen.Gone, Note: seen.Note}
	if seen.FindingID == 0 {
		if seen.New == nil {
			return action.Reject("new", "say what was found")
		}
		if seen.Gone {
			return action.Reject("gone", "what is new is there")
		}
		f := *seen.New
		f.Subsystem = subsystem
		return AddFinding(ctx, tx, actor, machineID, f, observation)
	}
	if err := inventory.OfMachine(ctx, tx, machineID,
		inventory.NamedAs("findingId", storeinventory.OwnedFinding, seen.FindingID)); err != nil {
		return err
	}
	f, err := storecondition.FindingByID(ctx, tx, seen.FindingID)
	if err != nil {
		return err
	}
	if surveyID != nil && f.Subsystem != subsystem {
		return action.Reject("findingId", fmt.Sprintf("belongs to %s", condition.NameOf(f.Subsystem)))
	}
	if err := storecondition.PutObservation(ctx, tx, actor.Account(), observation); err != nil {
		return err
	}
	done := eventSeeFinding
	if seen.Gone {
		done = eventFindingGone
	}
	after := map[string]any{"kind": f.Kind, "where": whereOf(f), "severity": seen.Severity, "on": on, "note": seen.Note}
	return action.Record(ctx, tx, actor, done, f.ID, &machineID, nil, after)
}
