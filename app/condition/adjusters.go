package condition

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/caution"
	"frugalheron/store/condition"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// AdjusterInput is what people write about a trimmer or a control.
type AdjusterInput struct {
	Name     string `json:"name" maxLength:"100" doc:"As VR3, or width"`
	Place    string `json:"place" says:"text" maxLength:"200" required:"false" doc:"Where it is"`
	Does     string `json:"does" says:"text" maxLength:"300" doc:"What turning it does"`
	Position string `json:"position" says:"text" maxLength:"200" required:"false" doc:"Where it stands now, as found: two o'clock, 1.2 turns in"`
}

// Turn is one turn of an adjuster.
type Turn struct {
	On     string `json:"on" doc:"YYYY-MM-DD"`
	By     string `json:"by"`
	Before string `json:"before" says:"text"`
	After  string `json:"after" says:"text"`
	Why    string `json:"why" says:"text"`
}

// Adjuster is a trimmer or control with all its turns.
type Adjuster struct {
	ID int64 `json:"id"`
	AdjusterInput
	Turns    []Turn            `json:"turns" doc:"In the order they were made"`
	Cautions []caution.Caution `json:"cautions"`
	Version  int               `json:"version"`
}

// keptAdjuster is what is kept of one.
type keptAdjuster struct {
	AdjusterInput
	Turns []Turn `json:"turns"`
}

// Adjusters lists those of a machine.
func (s *Service) Adjusters(ctx context.Context, actor action.Actor, machineID int64) ([]Adjuster, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return nil, err
	}
	return adjustersOf(ctx, s.kernel.Reader(ctx), machineID)
}

func adjustersOf(ctx context.Context, h pg.Handle, machineID int64) ([]Adjuster, error) {
	rows, err := condition.AdjustersOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	held, err := HoldingsIn(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	told, said := make([]Adjuster, len(rows)), caution.Shown{}
	for i, row := range rows {
		kept, err := action.ReadKept[keptAdjuster](row.Body)
		if err != nil {
			return nil, err
		}
		told[i] = Adjuster{ID: row.ID, AdjusterInput: kept.AdjusterInput, Turns: append([]Turn{}, kept.Turns...),
			Version:  row.Version,
			Cautions: caution.All(said.Now(caution.DueIn(kept.Name+" "+kept.Place+" "+kept.Does, held)))}
	}
	return told, nil
}

// AddAdjuster notes a trimmer or control, and where it stands.
func (s *Service) AddAdjuster(ctx context.Context, actor action.Actor, machineID int64,
	f AdjusterInput) ([]Adjuster, error) {
	if err := input.CheckAll(input.OneLine("name", &f.Name), input.OneLine("place", &f.Place),
		input.OneLine("does", &f.Does), input.OneLine("position", &f.Position)); err != nil {
		return nil, err
	}
	switch {
	case f.Name == "":
		return nil, action.Reject("name", "say which one it is, as VR3")
	case f.Does == "":
		return nil, action.Reject("does", "say what turning it does")
	case f.Position == "":
		return nil, action.Reject("position", "say where it stands, before anybody turns it")
	}
	var after []Adjuster
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		id, err := condition.InsertAdjuster(ctx, tx, machineID, action.ToKeep(keptAdjuster{f, []Turn{}}))
		if err != nil {
			return err
		}
		if err := action.Record(ctx, tx, actor, eventNoteAdjuster, id, &machineID, nil, f); err != nil {
			return err
		}
		after, err = adjustersOf(ctx, tx, machineID)
		return err
	})
	return after, err
}

// TurnAdjuster notes that one was turned: from where it stood to where it stands now.
func (s *Service) TurnAdjuster(ctx context.Context, actor action.Actor, id int64, version int,
	position, why string) ([]Adjuster, error) {
	if err := input.CheckAll(input.OneLine("position", &position), input.OneLine("why", &why)); err != nil {
		return nil, err
	}
	switch {
	case position == "":
		return nil, action.Reject("position", "say where it stands now")
	case why == "":
		return nil, action.Reject("why", "say what it was turned for")
	}
	var after []Adjuster
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := condition.LockAdjuster(ctx, tx, id)
		if err != nil {
			return err
		}
		kept, err := action.ReadKept[keptAdjuster](row.Body)
		if err != nil {
			return err
		}
		if row.Version != version {
			return &action.Stale{What: "the adjuster",
				Newer: Adjuster{ID: id, AdjusterInput: kept.AdjusterInput, Turns: append([]Turn{}, kept.Turns...),
					Cautions: []caution.Caution{}, Version: row.Version}}
		}
		turn := Turn{On: actor.Today(), By: actor.Name, Before: kept.Position, After: position, Why: why}
		kept.Turns, kept.Position = append(kept.Turns, turn), position
		if err := condition.UpdateAdjuster(ctx, tx, id, action.ToKeep(kept)); err != nil {
			return err
		}
		if err := action.Record(ctx, tx, actor, eventTurnAdjuster, id, &row.MachineID,
			map[string]any{"position": turn.Before},
			map[string]any{"name": kept.Name, "position": position, "why": why}); err != nil {
			return err
		}
		after, err = adjustersOf(ctx, tx, row.MachineID)
		return err
	})
	return after, err
}
