package app

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/condition"
	"frugalheron/store"
)

func checkFinding(ctx context.Context, h store.Handle, machineID int64, f *store.FindingFields) error {
	err := checkAll(oneLine("kind", &f.Kind), oneLine("designator", &f.Designator), oneLine("place", &f.Place))
	switch {
	case err != nil:
		return err
	case f.Kind == "":
		return &Invalid{"kind", "say what was found, as leaking or cracked"}
	case f.Region != nil && f.AttachmentID == nil:
		return &Invalid{"region", "lies on no picture; choose the picture first"}
	case f.Region != nil && !inside(*f.Region):
		return &Invalid{"region", "lies outside the picture; draw it again"}
	}
	if _, ok := condition.SubsystemOf(f.Subsystem); !ok {
		return &Invalid{"subsystem", "choose the subsystem it belongs to"}
	}
	if f.AssemblyID != nil {
		if _, err := store.AssemblyByID(ctx, h, *f.AssemblyID); err != nil {
			return missing(err, "assemblyId", "choose a board of the machine")
		}
	}
	if f.AttachmentID != nil {
		return checkPictures(ctx, h, machineID, []int64{*f.AttachmentID})
	}
	return nil
}

// addFinding keeps a finding with its first sighting.
func addFinding(ctx context.Context, tx *sqlx.Tx, actor Actor, machineID int64, f store.FindingFields, first store.SightingRow) error {
	if err := checkFinding(ctx, tx, machineID, &f); err != nil {
		return err
	}
	id, err := store.InsertFinding(ctx, tx, machineID, f)
	if err != nil {
		return err
	}
	first.FindingID = id
	if err := store.PutSighting(ctx, tx, actor.account(), first); err != nil {
		return err
	}
	kept, err := store.FindingByID(ctx, tx, id)
	if err != nil {
		return err
	}
	after := map[string]any{"kind": f.Kind, "where": whereOf(kept), "severity": first.Severity, "on": first.On, "note": first.Note}
	return record(ctx, tx, actor, "find", "finding", id, &machineID, nil, after)
}

// NotedFinding is something found, or seen again, outside of a survey.
type NotedFinding struct {
	Subsystem string `json:"subsystem" maxLength:"40" required:"false" doc:"Of a new finding"`
	SeenFinding
	On string `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
}

// NoteFinding keeps something found outside of a survey, or says that a finding is gone, or how it is now.
func (a *App) NoteFinding(ctx context.Context, actor Actor, machineID int64, noted NotedFinding) (Condition, error) {
	if noted.On == "" {
		noted.On = today()
	}
	if err := pastDay("on", noted.On); err != nil {
		return Condition{}, err
	}
	return a.onCondition(ctx, actor, machineID, func(tx *sqlx.Tx) error {
		return seeFinding(ctx, tx, actor, machineID, noted.Subsystem, noted.SeenFinding, nil, noted.On)
	})
}

// StrikeFinding strikes out a finding that was entered by mistake, and returns the event.
func (a *App) StrikeFinding(ctx context.Context, actor Actor, id int64, version int) (Condition, error) {
	f, err := store.FindingByID(ctx, a.db, id)
	if err != nil {
		return Condition{}, err
	}
	return a.onCondition(ctx, actor, f.MachineID, func(tx *sqlx.Tx) error {
		f, err := store.FindingByID(ctx, tx, id)
		if err != nil {
			return err
		}
		if f.Struck {
			return ErrNotFound
		}
		if f.Version != version {
			return &Stale{What: "the finding", Newer: f}
		}
		if err := store.StrikeFinding(ctx, tx, id, true); err != nil {
			return err
		}
		return record(ctx, tx, actor, "strike finding", "finding", id, &f.MachineID, map[string]any{"kind": f.Kind, "where": whereOf(f)}, nil)
	})
}

func (a *App) undoStrikeFinding(ctx context.Context, actor Actor, e store.ToldEvent) error {
	f, err := store.FindingByID(ctx, a.db, e.SubjectID)
	if err != nil {
		return err
	}
	_, err = a.onCondition(ctx, actor, f.MachineID, func(tx *sqlx.Tx) error {
		if err := newestStill(ctx, tx, e); err != nil {
			return err
		}
		if err := store.StrikeFinding(ctx, tx, f.ID, false); err != nil {
			return err
		}
		return record(ctx, tx, actor, "take back strike of finding", "finding", f.ID, &f.MachineID, nil, map[string]any{"kind": f.Kind, "where": whereOf(f)})
	})
	return err
}
