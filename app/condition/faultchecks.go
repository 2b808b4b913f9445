package condition

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/condition"
	core "frugalheron/core/known"
	"frugalheron/core/sheet"
	storeinventory "frugalheron/store/inventory"
	storelibrary "frugalheron/store/library"
)

// FaultCheckInput is what somebody found out about a fault that assemblies of a kind are known to have.
type FaultCheckInput struct {
	KnownID int64  `json:"knownId" doc:"The record that names the fault"`
	Fault   string `json:"fault" maxLength:"400" doc:"As the record names it"`
	HasIt   bool   `json:"hasIt"`
	Note    string `json:"note" says:"text" maxLength:"1000" required:"false"`
	On      string `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
}

// CheckFault keeps whether an assembly has a fault that those of its kind are known to have. One that has it gets the
// finding; one that has it no more ends it.
func (s *Service) CheckFault(ctx context.Context, actor action.Actor, assemblyID int64, in FaultCheckInput) error {
	if in.On == "" {
		in.On = actor.Today()
	}
	err := input.CheckAll(input.PastDay("on", in.On, actor.Today()), input.OneLine("fault", &in.Fault),
		input.Lines("note", &in.Note))
	if err != nil {
		return err
	}
	at, err := homeOf(ctx, s.kernel.Reader(ctx), assemblyID)
	if err != nil {
		return err
	}
	return s.onFound(ctx, actor, at, func(tx *sqlx.Tx) error {
		board, err := storeinventory.LockAssembly(ctx, tx, assemblyID)
		if err != nil {
			return err
		}
		of, err := storelibrary.KnownByID(ctx, tx, in.KnownID)
		if err != nil {
			return input.Missing(err, "knownId", "choose a record of the library")
		}
		read, _ := core.ParseDetails(of.Details)
		if !slices.ContainsFunc(read.Faults, func(f core.Fault) bool { return f.What == in.Fault }) {
			return action.Reject("fault", fmt.Sprintf("%s names no such fault; read it again", of.Name))
		}
		fields := storelibrary.FaultCheckFields{KnownID: in.KnownID, AssemblyID: assemblyID, Fault: in.Fault,
			HasIt: in.HasIt, Note: in.Note, On: in.On}
		if _, err := storelibrary.InsertFaultCheck(ctx, tx, actor.Account(), fields); err != nil {
			return err
		}
		if err := findOrEnd(ctx, tx, actor, at, assemblyID, in); err != nil {
			return err
		}
		after := map[string]any{"known": of.Name, "fault": in.Fault, "hasIt": in.HasIt, "on": in.On, "note": in.Note}
		return action.Record(ctx, tx, actor, eventCheckFault, assemblyID, board.MachineID, nil, after)
	})
}

// findOrEnd makes the list of findings say what a check found out.
func findOrEnd(ctx context.Context, tx *sqlx.Tx, actor action.Actor, at home, assemblyID int64,
	in FaultCheckInput) error {
	f := FindingInput{AssemblyID: &assemblyID}
	f.Designator, f.Kind = faultOn(in.Fault)
	f.Subsystem = "boards"
	if f.Designator != "" {
		f.Subsystem = condition.SubsystemOfPlace(f.Designator, f.Kind)
	}
	seen := ObservedFinding{New: &f, Severity: condition.SeverityOf(f.Subsystem, f.Kind, in.Fault), Note: in.Note}
	if in.HasIt {
		return action.Second(seeFinding(ctx, tx, actor, at, f.Subsystem, seen, nil, in.On))
	}
	list, err := at.known(ctx, tx)
	if err != nil {
		return err
	}
	there := list.with(f, in.On)
	isOpen := slices.ContainsFunc(list.findings, func(known condition.Finding) bool {
		return known.ID == there.ID && known.Tell().Open
	})
	if there.ID == 0 || !isOpen {
		return nil
	}
	seen.New, seen.FindingID, seen.Gone = nil, there.ID, true
	return action.Second(seeFinding(ctx, tx, actor, at, there.Subsystem, seen, nil, in.On))
}

// faultOn divides the words of a fault into the part that has it, where they begin with a designator, and what it has.
func faultOn(fault string) (designator, kind string) {
	kind = fault
	if first, rest, _ := strings.Cut(fault, " "); sheet.IsDesignator(first) && rest != "" {
		designator, kind = first, rest
	}
	if m := sheet.ReadMark(kind); sheet.IsKnownFinding(m.Kind) {
		return designator, m.Kind
	}
	return designator, string([]rune(kind)[:min(len([]rune(kind)), mostKind)])
}

// mostKind bounds the words of a finding.
const mostKind = 100
