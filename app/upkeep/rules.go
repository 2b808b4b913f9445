package upkeep

import (
	"context"
	"fmt"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/input"
	"frugalheron/core/caution"
	"frugalheron/core/quantity"
	"frugalheron/store/history"
	"frugalheron/store/pg"
	"frugalheron/store/upkeep"
)

// ofMachine is what a rule of whole machines is of.
const ofMachine = "machine"

// RuleInput is what is to be done again and again, or what always holds.
type RuleInput struct {
	Task        string            `json:"task" says:"text" maxLength:"200" example:"Measure the clock battery"`
	EveryMonths int               `json:"everyMonths" minimum:"0" maximum:"1200" doc:"0 for what always holds: nothing falls due, it is told at the machine"`
	Of          string            `json:"of" maxLength:"40" doc:"machine, or the key of a class of parts that age"`
	ModelID     *int64            `json:"modelId,omitempty" doc:"Of this model alone; left out for all. For its machines it takes the place of a rule of all with the same words"`
	Looks       bool              `json:"looks" required:"false" doc:"A look is enough: a survey, or to see it at other work, counts, too"`
	Runs        bool              `json:"runs" required:"false" doc:"Of machines: to have had it under power counts, too"`
	Minutes     int               `json:"minutes" minimum:"0" maximum:"1440" required:"false" doc:"That it usually takes at one machine; 0 where nobody knows"`
	Measures    quantity.Quantity `json:"measures" enum:",volts,volts-ac,volts-pp,amperes,ohms,microfarads,esr,hertz,seconds,millimetres,celsius,grams" required:"false" doc:"What is measured there"`
	How         string            `json:"how" says:"text" maxLength:"2000" required:"false" doc:"How it is done, and why"`
}

// Rule is a rule as it is kept.
type Rule struct {
	ID int64 `json:"id"`
	RuleInput
	ClassName string            `json:"className" says:"text" doc:"What its class is called; empty for machines"`
	Model     string            `json:"model" says:"text" doc:"What its model is called; empty for a rule of all"`
	Cautions  []caution.Caution `json:"cautions" doc:"Of its words, each once"`
	Version   int               `json:"version"`
}

func tellRule(row upkeep.Rule) Rule {
	kept, _ := action.ReadKept[RuleInput](row.Body) // written by this package alone
	kept.Of, kept.ModelID = row.Of, row.ModelID
	return Rule{ID: row.ID, RuleInput: kept, Model: row.Model, Version: row.Version,
		Cautions: caution.All(caution.Due(kept.Task + "\n" + kept.How))}
}

func (in RuleInput) row(id int64, voided bool) upkeep.Rule {
	return upkeep.Rule{ID: id, Of: in.Of, ModelID: in.ModelID, Body: action.ToKeep(in), Voided: voided}
}

// when says how often it is due.
func (in RuleInput) when() string {
	switch in.EveryMonths {
	case 0:
		return "always"
	case 1:
		return "every month"
	}
	return fmt.Sprintf("every %d months", in.EveryMonths)
}

func (r Rule) told() map[string]any {
	return map[string]any{"task": r.Task, "when": r.when(), "of": r.Of, "model": r.Model, "looks": r.Looks,
		"runs":    r.Runs,
		"minutes": r.Minutes, "measures": r.Measures, "how": r.How}
}

var rules = action.Records[upkeep.Rule, Rule]{What: "the rule", Lock: upkeep.LockRule, Read: upkeep.RuleByID,
	Version: func(r upkeep.Rule) int { return r.Version },
	Told:    func(r upkeep.Rule) any { return tellRule(r).told() }, View: tellRule,
	Machine: func(upkeep.Rule) *int64 { return nil }}

func (in *RuleInput) check(ctx context.Context, h pg.Handle) error {
	if err := input.CheckAll(input.OneLine("task", &in.Task), input.Lines("how", &in.How)); err != nil {
		return err
	}
	switch {
	case in.Task == "":
		return action.Reject("task", "say what is to be done: Measure the clock battery")
	case in.Runs && in.Of != ofMachine:
		return action.Reject("runs", "is about whole machines: a part is not known to have run")
	}
	if in.Of == ofMachine {
		return nil
	}
	_, known, err := condition.IsClass(ctx, h, in.Of)
	if err == nil && !known {
		err = action.Reject("of", "choose machine, or a class of parts that age")
	}
	return err
}

// Rules lists them.
func (s *Service) Rules(ctx context.Context, actor action.Actor) ([]Rule, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	return rulesIn(ctx, s.kernel.Reader(ctx))
}

func rulesIn(ctx context.Context, h pg.Handle) ([]Rule, error) {
	rows, err := upkeep.Rules(ctx, h)
	if err != nil {
		return nil, err
	}
	told := action.Views(rows, tellRule)
	for i := range told {
		if told[i].Of != ofMachine {
			if told[i].ClassName, _, err = condition.IsClass(ctx, h, told[i].Of); err != nil {
				return nil, err
			}
		}
	}
	return told, nil
}

// Subject is what a rule can be of.
type Subject struct {
	Key  string `json:"key"`
	Name string `json:"name" says:"text"`
}

// Subjects lists what a rule can be of: machines, and classes of parts that age.
func (s *Service) Subjects(ctx context.Context, actor action.Actor) ([]Subject, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	classes, err := condition.Classes(ctx, s.kernel.Reader(ctx))
	found := []Subject{{ofMachine, "Machines as a whole"}}
	for _, c := range classes {
		found = append(found, Subject{c.Key, c.Name})
	}
	return found, err
}

// AddRule writes one.
func (s *Service) AddRule(ctx context.Context, actor action.Actor, in RuleInput) (Rule, error) {
	var added Rule
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := in.check(ctx, tx); err != nil {
			return err
		}
		id, err := upkeep.InsertRule(ctx, tx, in.row(0, false))
		if err != nil {
			return refusedRule(err)
		}
		row, err := upkeep.RuleByID(ctx, tx, id)
		if err != nil {
			return err
		}
		added = tellRule(row)
		return action.Record(ctx, tx, actor, eventAddRule, id, nil, nil, added.told())
	})
	return added, err
}

// ChangeRule rewrites one, starting from a version. What was done by it stays done; when it is due next follows anew.
func (s *Service) ChangeRule(ctx context.Context, actor action.Actor, id int64, version int,
	in RuleInput) (Rule, error) {
	return rules.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChangeRule,
		ID: id, Version: version}, func(tx *sqlx.Tx, before upkeep.Rule) error {
		if before.Voided {
			return action.ErrNotFound
		}
		if err := in.check(ctx, tx); err != nil {
			return err
		}
		if in.Of != before.Of {
			return action.Reject("of", "what was done by a rule was done to that; write another rule")
		}
		return refusedRule(upkeep.UpdateRule(ctx, tx, in.row(id, false)))
	})
}

// refusedRule says why a rule cannot be as it is written.
func refusedRule(err error) error {
	switch {
	case pg.Violates(err, "upkeep_rule_model_fkey"):
		return action.Reject("modelId", "there is no such model")
	case pg.Violates(err, "upkeep_rule_words_key"):
		return action.Reject("task", "there is a rule of that with these words already; change that one, or use other words")
	}
	return err
}

var voidedRule = action.Voiding[upkeep.Rule]{Roles: action.MayWriteSheets, Event: eventVoidRule,
	Back: eventTakeBackVoidOfRule, IsVoided: func(r upkeep.Rule) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r upkeep.Rule, voided bool) error {
		return refusedRule(upkeep.UpdateRule(ctx, tx, tellRule(r).row(r.ID, voided)))
	}}

// VoidRule strikes one out: nothing falls due by it any more. What was done by it stays.
func (s *Service) VoidRule(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return rules.Void(ctx, s.kernel, actor, voidedRule, id, version)
}

func (s *Service) undoVoidRule(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return rules.Unvoid(ctx, s.kernel, actor, voidedRule, e)
}
