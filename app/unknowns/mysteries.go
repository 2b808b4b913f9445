package unknowns

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/mystery"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/unknowns"
)

// MysteryFields are what people write about what an unknown board could be.
type MysteryFields struct {
	Hypotheses []mystery.Hypothesis `json:"hypotheses" maxItems:"20" doc:"Ids are chosen by who writes, and stay"`
	Evidence   []MysteryEvidence    `json:"evidence" maxItems:"100"`
	Decision   *MysteryDecision     `json:"decision,omitempty" doc:"Closes it; left out while it is open"`
}

// MysteryEvidence is a piece of evidence with its weights.
type MysteryEvidence struct {
	ID      int64           `json:"id"`
	Text    string          `json:"text" says:"text" maxLength:"400"`
	Seen    mystery.Seen    `json:"seen" enum:"found,absent,open"`
	HowTo   string          `json:"howTo" says:"text" maxLength:"400" required:"false" doc:"How one looks for it"`
	Weights []MysteryWeight `json:"weights" maxItems:"20" doc:"Explanations it says nothing of may be left out"`
}

// MysteryWeight is how strongly evidence speaks for or against an explanation.
type MysteryWeight struct {
	HypothesisID int64 `json:"hypothesisId"`
	Weight       int   `json:"weight" minimum:"-3" maximum:"3" doc:"-3 strongly against, 3 strongly for"`
}

// MysteryDecision says what it is, and how sure that is.
type MysteryDecision struct {
	HypothesisID int64  `json:"hypothesisId"`
	Sure         string `json:"sure" enum:"certain,likely,a guess"`
	Reason       string `json:"reason" says:"text" maxLength:"1000"`
}

// MysteryView is what was thought about an assembly, weighed.
type MysteryView struct {
	AssemblyID int64  `json:"assemblyId"`
	Assembly   string `json:"assembly" says:"text"`
	MysteryFields
	Weighing mystery.Weighing `json:"weighing"`
	Version  int              `json:"version" doc:"0 while nobody has written yet"`
}

// Mysteries lists the assemblies of a machine that somebody puzzles over; with 0 those of the collection.
func (s *Service) Mysteries(ctx context.Context, actor action.Actor, machineID int64) ([]MysteryView, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	ids, err := unknowns.AssembliesWithMystery(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return nil, err
	}
	told := make([]MysteryView, len(ids))
	for i, id := range ids {
		if told[i], err = s.Mystery(ctx, actor, id); err != nil {
			return nil, err
		}
	}
	return told, nil
}

// Mystery reads what was thought about an assembly.
func (s *Service) Mystery(ctx context.Context, actor action.Actor, assemblyID int64) (MysteryView, error) {
	assembly, err := s.inventory.Assembly(ctx, actor, assemblyID)
	if err != nil {
		return MysteryView{}, err
	}
	return mysteryOf(ctx, s.kernel.Reader(ctx), assembly)
}

func mysteryOf(ctx context.Context, h pg.Handle, assembly inventory.Assembly) (MysteryView, error) {
	told := MysteryView{AssemblyID: assembly.ID, Assembly: assembly.Title,
		MysteryFields: MysteryFields{Hypotheses: []mystery.Hypothesis{}, Evidence: []MysteryEvidence{}}}
	kept, err := unknowns.Mystery(ctx, h, assembly.ID)
	if err == nil {
		told.Version = kept.Version
		err = json.Unmarshal([]byte(kept.Body), &told.MysteryFields)
	} else if errors.Is(err, action.ErrNotFound) {
		err = nil
	}
	told.Hypotheses = append([]mystery.Hypothesis{}, told.Hypotheses...)
	told.Evidence = append([]MysteryEvidence{}, told.Evidence...)
	for i := range told.Evidence {
		told.Evidence[i].Weights = append([]MysteryWeight{}, told.Evidence[i].Weights...)
	}
	told.Weighing = told.weigh()
	return told, err
}

func (f MysteryFields) weigh() mystery.Weighing {
	evidence := make([]mystery.Evidence, len(f.Evidence))
	for i, e := range f.Evidence {
		evidence[i] = mystery.Evidence{ID: e.ID, Text: e.Text, Seen: e.Seen, HowTo: e.HowTo, Weights: map[int64]int{}}
		for _, w := range e.Weights {
			evidence[i].Weights[w.HypothesisID] = w.Weight
		}
	}
	return mystery.Weigh(f.Hypotheses, evidence)
}

// WeighMystery rewrites what is thought about an assembly, starting from a version; 0 for the first time.
func (s *Service) WeighMystery(ctx context.Context, actor action.Actor, assemblyID int64, version int,
	fields MysteryFields) (MysteryView, error) {
	var told MysteryView
	if err := checkMystery(&fields); err != nil {
		return told, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		assembly, err := inventory.LockAssembly(ctx, tx, assemblyID)
		if err != nil {
			return err
		}
		before, err := mysteryOf(ctx, tx, assembly)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &action.Stale{What: "what is thought about the board", Newer: before}
		}
		if err := unknowns.PutMystery(ctx, tx, assemblyID, fields); err != nil {
			return err
		}
		if told, err = mysteryOf(ctx, tx, assembly); err != nil {
			return err
		}
		done, after := eventWeighMystery, map[string]any{"why": told.Weighing.Why, "written": fields}
		if d := fields.Decision; d != nil && (before.Decision == nil || *d != *before.Decision) {
			done = eventDecideMystery
			at := slices.IndexFunc(fields.Hypotheses, func(h mystery.Hypothesis) bool { return h.ID == d.HypothesisID })
			after = map[string]any{"is": fields.Hypotheses[at].Text, "sure": d.Sure, "reason": d.Reason,
				"written": fields}
		}
		return action.Record(ctx, tx, actor, done, assemblyID, assembly.MachineID,
			map[string]any{"written": before.MysteryFields}, after)
	})
	return told, err
}

func checkMystery(f *MysteryFields) error {
	hypotheses := map[int64]bool{}
	for i := range f.Hypotheses {
		h := &f.Hypotheses[i]
		if err := input.OneLine("hypotheses", &h.Text); err != nil {
			return err
		}
		if h.Text == "" || hypotheses[h.ID] {
			return action.Reject("hypotheses", fmt.Sprintf("explanation %d needs words and a number of its own", i+1))
		}
		hypotheses[h.ID] = true
	}
	for i := range f.Evidence {
		e := &f.Evidence[i]
		if err := input.CheckAll(input.OneLine("evidence", &e.Text), input.OneLine("evidence", &e.HowTo)); err != nil {
			return err
		}
		if e.Text == "" {
			return action.Reject("evidence", fmt.Sprintf("evidence %d needs words: say what one sees", i+1))
		}
		// What was weighed for an explanation that is gone goes with it.
		e.Weights = slices.DeleteFunc(e.Weights, func(w MysteryWeight) bool {
			return !hypotheses[w.HypothesisID] || w.Weight == 0
		})
	}
	if f.Decision == nil {
		return nil
	}
	if err := input.OneLine("reason", &f.Decision.Reason); err != nil {
		return err
	}
	switch {
	case !hypotheses[f.Decision.HypothesisID]:
		return action.Reject("decision", "choose one of the explanations")
	case f.Decision.Reason == "":
		return action.Reject("reason", "say what decided it")
	}
	return nil
}
