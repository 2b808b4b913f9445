package condition

import (
	"context"
	"fmt"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/core/condition"
	storecondition "frugalheron/store/condition"
	storeinventory "frugalheron/store/inventory"
)

// ObservedFinding is a finding as it was seen: a new one with its fields, or one that was there before by its id or key.
type ObservedFinding struct {
	FindingID int64              `json:"findingId" minimum:"0" required:"false" doc:"0 for a new one, or one that a key names"`
	Key       string             `json:"key" maxLength:"40" required:"false" doc:"Of one that is known from sheets or measurements alone"`
	New       *FindingInput      `json:"new,omitempty"`
	Severity  condition.Severity `json:"severity" enum:"cosmetic,watch,repair,hazard"`
	Trend     string             `json:"trend" enum:",worse,same,better" required:"false" doc:"Where the severity does not tell"`
	Gone      bool               `json:"gone" required:"false" doc:"It is not there any more"`
	Note      string             `json:"note" says:"text" maxLength:"1000" required:"false"`
}

func (seen ObservedFinding) row(surveyID *int64, on string) storecondition.ObservationRow {
	return storecondition.ObservationRow{FindingID: seen.FindingID, SurveyID: surveyID, On: on,
		Severity: string(seen.Severity), Trend: seen.Trend, Gone: seen.Gone, Note: seen.Note}
}

// seeFinding keeps how a finding is, of a new one that it is there, and returns the event.
func seeFinding(ctx context.Context, tx *sqlx.Tx, actor action.Actor, at home, subsystem string, seen ObservedFinding,
	surveyID *int64, on string) (int64, error) {
	if err := input.Lines("note", &seen.Note); err != nil {
		return 0, err
	}
	if !seen.Severity.IsKnown() {
		return 0, action.Reject("severity", "say how grave it is")
	}
	if seen.FindingID != 0 {
		return seeAgain(ctx, tx, actor, at, subsystem, seen, surveyID, on)
	}
	switch {
	case seen.Key == "" && seen.New == nil:
		return 0, action.Reject("new", "say what was found")
	case seen.Key == "" && seen.Gone:
		return 0, action.Reject("gone", "what is new is there")
	}
	list, err := at.known(ctx, tx)
	if err != nil {
		return 0, err
	}
	f := FindingInput{}
	var there condition.Finding
	if seen.Key != "" {
		i := slices.IndexFunc(list.findings, func(f condition.Finding) bool { return f.Key == seen.Key })
		if i < 0 {
			return 0, action.Reject("key", "there is no such finding any more; read the condition again")
		}
		there = list.findings[i]
		if surveyID != nil && there.Subsystem != subsystem {
			return 0, action.Reject("key", fmt.Sprintf("belongs to %s", condition.NameOf(there.Subsystem)))
		}
		f = list.inputOf(there)
	} else {
		f = *seen.New
		f.Subsystem = subsystem
		if err := checkFinding(ctx, tx, at, &f); err != nil {
			return 0, err
		}
		there = list.with(f, on)
	}
	// What is there already is seen again, whoever says it with which words.
	if there.ID != 0 {
		seen.FindingID = there.ID
		return seeAgain(ctx, tx, actor, at, there.Subsystem, seen, surveyID, on)
	}
	return addFinding(ctx, tx, actor, at, f, seen.row(surveyID, on))
}

// candidate is the id of an observation that is laid beside those that are kept, to see where it belongs.
const candidate = -1

// with finds the finding that one would be which somebody enters now: one that is there, or a new one with id 0.
func (k known) with(f FindingInput, on string) condition.Finding {
	one := k.saidOf(f.row())
	one.Observations = []condition.Observation{{ID: candidate, On: on, At: time.Now(), Severity: condition.Watch,
		Source: condition.FromNote}}
	for _, found := range condition.OneList(append(slices.Clone(k.said), one), k.told) {
		if slices.ContainsFunc(found.Observations, func(o condition.Observation) bool { return o.ID == candidate }) {
			return found
		}
	}
	return condition.Finding{}
}

// inputOf is a finding that was known from sheets or measurements alone, as somebody would have entered it.
func (k known) inputOf(found condition.Finding) FindingInput {
	f := FindingInput{Subsystem: found.Subsystem, Kind: found.Kind, Designator: found.Parts}
	if len(f.Designator) > mostDesignator {
		f.Designator = ""
	}
	if found.Assembly != 0 {
		f.AssemblyID = &found.Assembly
	}
	for _, one := range k.said {
		if f.Place == "" && one.Assembly == found.Assembly && one.Kind == found.Kind && one.Parts == found.Parts {
			f.Place = one.Place
		}
	}
	return f
}

// mostDesignator is the length up to which a finding names its parts.
const mostDesignator = 40

// seeAgain says how a finding is that somebody entered before.
func seeAgain(ctx context.Context, tx *sqlx.Tx, actor action.Actor, at home, subsystem string, seen ObservedFinding,
	surveyID *int64, on string) (int64, error) {
	if err := at.has(ctx, tx, inventory.NamedAs("findingId", storeinventory.OwnedFinding, seen.FindingID)); err != nil {
		return 0, err
	}
	f, err := storecondition.FindingByID(ctx, tx, seen.FindingID)
	if err != nil {
		return 0, err
	}
	if surveyID != nil && f.Subsystem != subsystem {
		return 0, action.Reject("findingId", fmt.Sprintf("belongs to %s", condition.NameOf(f.Subsystem)))
	}
	if err := storecondition.PutObservation(ctx, tx, actor.Account(), seen.row(surveyID, on)); err != nil {
		return 0, err
	}
	done := eventSeeFinding
	if seen.Gone {
		done = eventFindingGone
	}
	after := map[string]any{"kind": f.Kind, "where": whereOf(f), "severity": seen.Severity, "on": on, "note": seen.Note}
	return action.RecordEvent(ctx, tx, actor, done, f.ID, at.machineID, nil, after)
}
