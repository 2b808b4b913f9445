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
	"frugalheron/app/sheets"
	"frugalheron/core/census"
	"frugalheron/core/identification"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	storesheets "frugalheron/store/sheets"
	"frugalheron/store/unknowns"
)

// IdentificationInput is what people write about what an unknown board could be.
type IdentificationInput struct {
	Hypotheses []identification.Hypothesis `json:"hypotheses" maxItems:"20" doc:"Ids are chosen by who writes, and stay"`
	Evidence   []IdentificationEvidence    `json:"evidence" maxItems:"100"`
	Dropped    []string                    `json:"dropped" maxItems:"40" required:"false" doc:"Keys of proposals that somebody does not want"`
	Decision   *IdentificationDecision     `json:"decision,omitempty" doc:"Closes it; left out while it is open"`
}

// IdentificationEvidence is a piece of evidence with its weights.
type IdentificationEvidence struct {
	ID       int64                   `json:"id"`
	Text     string                  `json:"text" says:"text" maxLength:"400"`
	Presence identification.Presence `json:"presence" enum:"found,absent,open"`
	HowTo    string                  `json:"howTo" says:"text" maxLength:"400" required:"false" doc:"How one looks for it"`
	Weights  []IdentificationWeight  `json:"weights" maxItems:"20" doc:"Explanations it says nothing of may be left out"`
	Follows  string                  `json:"follows" maxLength:"40" required:"false" doc:"Key of the proposal that somebody accepted with it; empty for what people saw"`
}

// IdentificationWeight is how strongly evidence speaks for or against an explanation.
type IdentificationWeight struct {
	HypothesisID int64 `json:"hypothesisId"`
	Weight       int   `json:"weight" minimum:"-3" maximum:"3" doc:"-3 strongly against, 3 strongly for"`
}

// IdentificationDecision says what it is, and how sure that is.
type IdentificationDecision struct {
	HypothesisID int64  `json:"hypothesisId"`
	Sure         string `json:"sure" enum:"certain,likely,a guess"`
	Reason       string `json:"reason" says:"text" maxLength:"1000"`
}

// IdentificationView is what was thought about an assembly, weighed.
type IdentificationView struct {
	AssemblyID int64  `json:"assemblyId"`
	Assembly   string `json:"assembly" says:"text"`
	IdentificationInput
	Weighing  identification.Weighing `json:"weighing"`
	Census    census.Census           `json:"census" doc:"What its chips are for"`
	Proposals []census.Proposal       `json:"proposals" doc:"Evidence that follows from its chips, and that nobody has accepted or dropped"`
	Alike     []census.Alike          `json:"alike" doc:"Beside the collection's boards that do the same"`
	Version   int                     `json:"version" doc:"0 while nobody has written yet"`
}

// Identifications lists the assemblies of a machine that somebody puzzles over; with 0 those of the collection.
func (s *Service) Identifications(ctx context.Context, actor action.Actor,
	machineID int64) ([]IdentificationView, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	ids, err := unknowns.AssembliesWithIdentification(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return nil, err
	}
	told := make([]IdentificationView, len(ids))
	for i, id := range ids {
		if told[i], err = s.Identification(ctx, actor, id); err != nil {
			return nil, err
		}
	}
	return told, nil
}

// Identification reads what was thought about an assembly.
func (s *Service) Identification(ctx context.Context, actor action.Actor,
	assemblyID int64) (IdentificationView, error) {
	assembly, err := s.inventory.Assembly(ctx, actor, assemblyID)
	if err != nil {
		return IdentificationView{}, err
	}
	return s.identificationOf(ctx, s.kernel.Reader(ctx), assemblyID, assembly.Title)
}

func (s *Service) identificationOf(ctx context.Context, h pg.Handle, assemblyID int64,
	title string) (IdentificationView, error) {
	told := IdentificationView{AssemblyID: assemblyID, Assembly: title,
		IdentificationInput: IdentificationInput{Hypotheses: []identification.Hypothesis{},
			Evidence: []IdentificationEvidence{}}}
	kept, err := unknowns.Identification(ctx, h, assemblyID)
	if err == nil {
		told.Version = kept.Version
		err = json.Unmarshal([]byte(kept.Body), &told.IdentificationInput)
	} else if errors.Is(err, action.ErrNotFound) {
		err = nil
	}
	told.Hypotheses = append([]identification.Hypothesis{}, told.Hypotheses...)
	told.Evidence = append([]IdentificationEvidence{}, told.Evidence...)
	told.Dropped = append([]string{}, told.Dropped...)
	for i := range told.Evidence {
		told.Evidence[i].Weights = append([]IdentificationWeight{}, told.Evidence[i].Weights...)
	}
	if err != nil {
		return told, err
	}
	told.Weighing = told.weigh()
	var own census.Board
	if told.Census, own, err = s.censusOf(ctx, h, assemblyID); err != nil {
		return told, err
	}
	if told.Alike, err = alikeOf(ctx, h, assemblyID, told.Census, own); err != nil {
		return told, err
	}
	names, err := s.namesOf(ctx, h, assemblyID)
	told.Proposals = append(census.ProposeNamed(names, told.Hypotheses, told.settled()),
		told.Census.Propose(told.Hypotheses, told.settled())...)
	return told, err
}

// mostAlike bounds the boards with which one is compared.
const mostAlike = 1000

// alikeOf lays an assembly beside the collection's boards that do the same.
func alikeOf(ctx context.Context, h pg.Handle, assemblyID int64, c census.Census, own census.Board) ([]census.Alike,
	error) {
	alike := []census.Alike{}
	for _, key := range c.Can() {
		rows, err := storesheets.BoardsThatCan(ctx, h, key, assemblyID, mostAlike)
		if err != nil {
			return alike, err
		}
		others := action.Views(rows, func(r storesheets.CountedBoard) census.Board { return census.Board(r) })
		alike = append(alike, c.Compare(key, own, others))
	}
	return alike, nil
}

// namesOf lists what the library says that an assembly is.
func (s *Service) namesOf(ctx context.Context, h pg.Handle, assemblyID int64) ([]census.Named, error) {
	recognised, err := s.library.RecognisedIn(ctx, h, []int64{assemblyID})
	names := []census.Named{}
	for _, one := range recognised {
		for _, claim := range one.Claims {
			names = append(names, census.Named{Key: fmt.Sprintf("known-%d", claim.ID), Name: claim.Name, Why: claim.Why,
				Sure: claim.Sure})
		}
	}
	return names, err
}

// censusOf counts what the chips of an assembly are for, and what is on it, by its newest sheet.
func (s *Service) censusOf(ctx context.Context, h pg.Handle, assemblyID int64) (census.Census, census.Board, error) {
	var own census.Board
	assembly, err := inventory.AssemblyByID(ctx, h, assemblyID)
	if err != nil {
		return census.Census{}, own, err
	}
	newest, err := storesheets.NewestRevision(ctx, h, assemblyID)
	if err != nil && !errors.Is(err, action.ErrNotFound) || assembly.IsExterior() {
		return census.Of(nil), own, err
	}
	library, err := s.library.Read(ctx)
	if err != nil {
		return census.Census{}, own, err
	}
	result, err := sheets.ReckonBody(library, newest.Body, reckoning.Options{Purpose: sheet.Purpose(assembly.Purpose)})
	entries := []reckoning.Entry{}
	for _, a := range result.Assemblies {
		entries = append(entries, a.Entries...)
	}
	own = census.Board{Chips: result.Totals.Chips, RAMBytes: result.Totals.RAMBytes, ROMBytes: result.Totals.ROMBytes}
	return census.Of(entries), own, err
}

// settled is what became of what the chips propose.
func (f IdentificationInput) settled() census.Settled {
	settled := census.Settled{}
	for _, e := range f.Evidence {
		settled[e.Follows] = e.Presence
	}
	for _, key := range f.Dropped {
		settled[key] = census.Dropped
	}
	return settled
}

func (f IdentificationInput) weigh() identification.Weighing {
	evidence := make([]identification.Evidence, len(f.Evidence))
	for i, e := range f.Evidence {
		evidence[i] = identification.Evidence{ID: e.ID, Text: e.Text, Presence: e.Presence, HowTo: e.HowTo,
			Weights: map[int64]int{}}
		for _, w := range e.Weights {
			evidence[i].Weights[w.HypothesisID] = w.Weight
		}
	}
	return identification.Weigh(f.Hypotheses, evidence)
}

// WeighIdentification rewrites what is thought about an assembly, starting from a version; 0 for the first time.
func (s *Service) WeighIdentification(ctx context.Context, actor action.Actor, assemblyID int64, version int,
	fields IdentificationInput) (IdentificationView, error) {
	var told IdentificationView
	if err := checkIdentification(&fields); err != nil {
		return told, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		assembly, err := inventory.LockAssembly(ctx, tx, assemblyID)
		if err != nil {
			return err
		}
		before, err := s.identificationOf(ctx, tx, assemblyID, assembly.Title)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &action.Stale{What: "what is thought about the board", Newer: before}
		}
		if err := unknowns.PutIdentification(ctx, tx, assemblyID, fields); err != nil {
			return err
		}
		if told, err = s.identificationOf(ctx, tx, assemblyID, assembly.Title); err != nil {
			return err
		}
		done, after := eventWeighIdentification, map[string]any{"why": told.Weighing.Why, "written": fields}
		if d := fields.Decision; d != nil && (before.Decision == nil || *d != *before.Decision) {
			done = eventDecideIdentification
			at := slices.IndexFunc(fields.Hypotheses, func(h identification.Hypothesis) bool {
				return h.ID == d.HypothesisID
			})
			after = map[string]any{"is": fields.Hypotheses[at].Text, "sure": d.Sure, "reason": d.Reason,
				"written": fields}
		}
		return action.Record(ctx, tx, actor, done, assemblyID, assembly.MachineID,
			map[string]any{"written": before.IdentificationInput}, after)
	})
	return told, err
}

func checkIdentification(f *IdentificationInput) error {
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
		if err := input.CheckAll(input.OneLine("evidence", &e.Text), input.OneLine("evidence", &e.HowTo),
			input.OneLine("evidence", &e.Follows)); err != nil {
			return err
		}
		if e.Text == "" {
			return action.Reject("evidence", fmt.Sprintf("evidence %d needs words: say what one sees", i+1))
		}
		// What was weighed for an explanation that is gone goes with it.
		e.Weights = slices.DeleteFunc(e.Weights, func(w IdentificationWeight) bool {
			return !hypotheses[w.HypothesisID] || w.Weight == 0
		})
	}
	for i := range f.Dropped {
		if err := input.OneLine("dropped", &f.Dropped[i]); err != nil {
			return err
		}
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
