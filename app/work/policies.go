package work

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/input"
	corecondition "frugalheron/core/condition"
	"frugalheron/core/part"
	"frugalheron/core/policy"
	"frugalheron/core/sheet"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/work"
)

// ChoiceInput is what somebody decides.
type ChoiceInput struct {
	Option string `json:"option" maxLength:"40" required:"false" doc:"Key of the option; empty for undecided, at a machine for as the collection does"`
	Why    string `json:"why" says:"text" maxLength:"1000" required:"false" doc:"Needed where a machine goes another way than the collection"`
	By     string `json:"by" says:"text" maxLength:"200" required:"false" doc:"Who decided; whoever writes it when it is left out"`
}

// Choice is what was decided, for the collection or for a machine.
type Choice struct {
	Question string `json:"question"`
	ChoiceInput
	On      string `json:"on" doc:"Day on which it was written; empty while nobody decided"`
	Version int    `json:"version" doc:"0 while nobody decided"`
}

// Policy is a question with what was decided of it.
type Policy struct {
	policy.Question
	Collection Choice  `json:"collection" doc:"What the collection does"`
	Own        *Choice `json:"own" doc:"What was decided for the machine; null where it is about none"`
	Chosen     string  `json:"chosen" doc:"Key of the option that counts; empty while nobody decided"`
}

func (s *Service) tellChoice(actor action.Actor, row work.Policy) Choice {
	return Choice{row.Question, ChoiceInput{row.Option, row.Why, row.By}, actor.DayOf(row.At), row.Version}
}

// Policies lists all questions with what was decided for the collection, and for a machine; 0 for none.
func (s *Service) Policies(ctx context.Context, actor action.Actor, machineID int64) ([]Policy, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	h := s.kernel.Reader(ctx)
	if machineID != 0 {
		if _, err := inventory.MachineByID(ctx, h, machineID); err != nil {
			return nil, err
		}
	}
	rows, err := work.PoliciesOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	told := []Policy{}
	for _, q := range policy.Questions() {
		p := Policy{Question: q, Collection: Choice{Question: q.Key}}
		if machineID != 0 {
			p.Own = &Choice{Question: q.Key}
		}
		for _, row := range rows {
			switch {
			case row.Question != q.Key:
			case row.MachineID == nil:
				p.Collection = s.tellChoice(actor, row)
			default:
				own := s.tellChoice(actor, row)
				p.Own = &own
			}
		}
		p.Chosen = p.Collection.Option
		if p.Own != nil && p.Own.Option != "" {
			p.Chosen = p.Own.Option
		}
		told = append(told, p)
	}
	return told, nil
}

// Choose decides a question for a machine, or for 0 for the collection, starting from a version.
func (s *Service) Choose(ctx context.Context, actor action.Actor, machineID int64, question string, version int,
	in ChoiceInput) ([]Policy, error) {
	if err := input.CheckAll(input.Lines("why", &in.Why), input.OneLine("by", &in.By)); err != nil {
		return nil, err
	}
	q, known := policy.QuestionOf(question)
	if !known {
		return nil, action.ErrNotFound
	}
	option, known := q.Of(in.Option)
	switch {
	case in.Option != "" && !known:
		return nil, action.Reject("option", "choose one of the options")
	case machineID != 0 && in.Option != "" && in.Why == "":
		return nil, action.Reject("why", "say why this machine goes its own way: who works on it next wants to know")
	}
	roles, event := action.MayKeepTheRecord, eventChoosePolicy
	if machineID != 0 {
		roles, event = action.MayWriteSheets, eventChooseForMachine
	}
	var told []Policy
	err := s.kernel.Whole(ctx, actor, roles, func(ctx context.Context, tx *sqlx.Tx) error {
		row := work.Policy{Question: question, Option: in.Option, Why: in.Why, By: in.By, Version: version}
		if row.By == "" {
			row.By = actor.Name
		}
		if machineID != 0 {
			if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
				return err
			}
			row.MachineID = &machineID
		}
		kept, taken, err := work.PutPolicy(ctx, tx, row)
		if err != nil {
			return err
		}
		if told, err = s.Policies(ctx, actor, machineID); err != nil {
			return err
		}
		if !taken {
			now := told[slices.IndexFunc(told, func(p Policy) bool { return p.Key == question })]
			newer := now.Collection
			if now.Own != nil {
				newer = *now.Own
			}
			return &action.Stale{What: "the choice", Newer: newer}
		}
		after := map[string]any{"question": q.Title, "option": option.Title, "why": kept.Why, "by": kept.By}
		return action.Record(ctx, tx, actor, event, kept.ID, row.MachineID, nil, after)
	})
	return told, err
}

// pieces are the parts of a machine that ages, each by itself, with whether something is found on it.
func pieces(ctx context.Context, h pg.Handle, machineID int64, found []condition.FindingView) ([]policy.Piece, error) {
	all, err := condition.AgeingPieces(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	told := make([]policy.Piece, len(all))
	for i, p := range all {
		told[i] = policy.Piece{Board: p.AssemblyID, Class: p.Class, Place: p.Place, Words: p.Words,
			IsBad: slices.ContainsFunc(found, func(f condition.FindingView) bool {
				return f.Story.Open && f.Story.Severity != corecondition.Cosmetic && f.AssemblyID != nil &&
					*f.AssemblyID == p.AssemblyID && (p.Place == "" && f.Designator == "" || sheet.Names(f.Designator,
					p.Place))
			})}
	}
	return told, nil
}

// Advised is the job that follows from a finding by what was chosen.
type Advised struct {
	policy.Advice
	Title       string   `json:"title" doc:"Of the usual job; empty where nothing is done"`
	FindingKeys []string `json:"findingKeys" doc:"All findings that the job mends"`
}

// advise says of the findings that want a job which one follows by what was chosen.
func (s *Service) advise(ctx context.Context, actor action.Actor, machineID int64, t *Treatment,
	found []condition.FindingView) error {
	policies, err := s.Policies(ctx, actor, machineID)
	if err != nil {
		return err
	}
	chosen := map[string]string{}
	for _, p := range policies {
		if p.Chosen != "" {
			chosen[p.Key] = p.Chosen
		}
	}
	if len(chosen) == 0 || len(t.Wanting) == 0 {
		return nil
	}
	parts, err := pieces(ctx, s.kernel.Reader(ctx), machineID, found)
	if err != nil {
		return err
	}
	for i := range t.Wanting {
		w := &t.Wanting[i]
		f := policy.Finding{Place: w.Place, Kind: w.Kind, IsCosmetic: w.Severity == corecondition.Cosmetic,
			IsHazard: w.Severity == corecondition.Hazard}
		if w.AssemblyID != nil {
			f.Board = *w.AssemblyID
		}
		advice := policy.Advise(chosen, f, parts)
		if advice == nil {
			continue
		}
		w.Policy = &Advised{Advice: *advice, FindingKeys: []string{w.Key}}
		for _, usual := range t.Usual {
			if usual.Key == advice.Template {
				w.Policy.Title = usual.Title
			}
		}
	}
	for i := range t.Wanting {
		w := &t.Wanting[i]
		for j, other := range t.Wanting {
			// One job for all that it is about.
			if i != j && w.Policy != nil && other.Policy != nil && !w.Policy.Leave && w.AssemblyID != nil &&
				other.AssemblyID != nil && *w.AssemblyID == *other.AssemblyID &&
				w.Policy.Template == other.Policy.Template &&
				w.Policy.Place == other.Policy.Place {
				w.Policy.FindingKeys = append(w.Policy.FindingKeys, other.Key)
			}
		}
	}
	return nil
}

// PolicyCost is what an option takes at a machine, with what its parts cost as far as the stores and orders tell.
type PolicyCost struct {
	policy.Cost
	Cents    int64 `json:"cents" doc:"Of the parts whose price is known, in the currency of the collection"`
	Unpriced int   `json:"unpriced" doc:"Parts whose price nobody knows"`
}

// PolicyCosts lays the options of a question beside each other: what each takes at a machine.
func (s *Service) PolicyCosts(ctx context.Context, actor action.Actor, machineID int64,
	question string) ([]PolicyCost, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	q, known := policy.QuestionOf(question)
	if !known || !q.HasPieces {
		return nil, action.ErrNotFound
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) ([]PolicyCost, error) {
		how, err := s.condition.Condition(ctx, actor, machineID)
		if err != nil {
			return nil, err
		}
		parts, err := pieces(ctx, s.kernel.Reader(ctx), machineID, how.Findings)
		if err != nil {
			return nil, err
		}
		prices, err := s.prices(ctx, actor)
		if err != nil {
			return nil, err
		}
		told := []PolicyCost{}
		for _, cost := range policy.Costs(question, parts) {
			one := PolicyCost{Cost: cost}
			for _, need := range cost.Needs {
				if cents, known := prices.of(need.What); known {
					one.Cents += cents * int64(need.Count)
				} else {
					one.Unpriced += need.Count
				}
			}
			told = append(told, one)
		}
		return told, nil
	})
}

// prices tell what parts cost, by what lies in the stores and what was ordered.
type prices struct {
	read   func(words string) part.Part
	priced []pricedPart
	known  map[string]*int64
}

type pricedPart struct {
	words string
	part  part.Part
	cents int64
}

func (s *Service) prices(ctx context.Context, actor action.Actor) (*prices, error) {
	types, err := s.library.Read(ctx)
	if err != nil {
		return nil, err
	}
	stores, err := s.parts.Stores(ctx, actor)
	if err != nil {
		return nil, err
	}
	p := &prices{read: func(words string) part.Part { return part.Read(types, words) }, known: map[string]*int64{}}
	for _, one := range stores.Stock {
		if one.PriceCents != nil {
			p.priced = append(p.priced, pricedPart{one.What, p.read(one.What), *one.PriceCents})
		}
	}
	for _, order := range stores.Orders {
		for _, line := range order.Lines {
			if line.PriceCents != nil {
				p.priced = append(p.priced, pricedPart{line.What, p.read(line.What), *line.PriceCents})
			}
		}
	}
	return p, nil
}

// of is the lowest price of what may stand for a need; false where nobody knows one.
func (p *prices) of(need string) (int64, bool) {
	lowest, met := p.known[need]
	if !met {
		asked := p.read(need)
		for _, one := range p.priced {
			fits := strings.EqualFold(one.words, need) || part.MayFit(&asked, &one.part) &&
				part.GradeOf(asked, one.part) != part.No
			if fits && (lowest == nil || one.cents < *lowest) {
				lowest = &one.cents
			}
		}
		p.known[need] = lowest
	}
	if lowest == nil {
		return 0, false
	}
	return *lowest, true
}

var (
	eventChoosePolicy     = action.NewEvent("choose policy", "policy", policyWords)
	eventChooseForMachine = action.NewEvent("choose policy of machine", "policy", policyWords)
)

func policyWords(_ string, _, a action.Fields) string {
	words := fmt.Sprintf("decided of %v: ", strings.ToLower(fmt.Sprint(a["question"])))
	if a["option"] == nil || a["option"] == "" {
		return words + "as the collection does, or undecided" + action.Said("; ", a["why"])
	}
	return words + fmt.Sprint(a["option"]) + action.Said("; ", a["why"]) + action.Said("; decided by ", a["by"])
}
