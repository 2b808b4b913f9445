package demo

import (
	"fmt"

	"frugalheron/app/upkeep"
)

// toldPlan is a plan some days from now, of a rule by its words, or of the first open job of a machine.
type toldPlan struct {
	InDays    int
	Rule, Job string
	upkeep.PlanInput
}

// upkeep tells what is done again and again, a round that is half done, and what is planned.
func (t teller) upkeep() error {
	told, err := readWorld[struct {
		Rules []struct {
			Model string
			upkeep.RuleInput
		}
		Rounds []struct {
			Rule    string
			Answers []upkeep.AnswerInput
		}
		Plans []toldPlan
	}]("upkeep.json")
	if err != nil {
		return err
	}
	there, err := t.actions.Upkeep.Rules(t.ctx, t.curator)
	if err != nil || len(there) > 0 {
		return err
	}
	rules := map[string]int64{}
	for _, one := range told.Rules {
		if one.Model != "" {
			found, err := t.actions.Library.Models(t.ctx, t.curator, one.Model)
			if err != nil || len(found) == 0 {
				return fmt.Errorf("%s: no model %s: %w", one.Task, one.Model, err)
			}
			one.ModelID = &found[0].ID
		}
		rule, err := t.actions.Upkeep.AddRule(t.ctx, t.curator, one.RuleInput)
		if err != nil {
			return fmt.Errorf("%s: %w", one.Task, err)
		}
		rules[one.Task] = rule.ID
	}
	for _, one := range told.Rounds {
		round, err := t.actions.Upkeep.BeginRound(t.ctx, t.curator, upkeep.RoundInput{RuleID: rules[one.Rule]})
		if err != nil {
			return fmt.Errorf("round %s: %w", one.Rule, err)
		}
		for i, answer := range one.Answers {
			if _, err := t.actions.Upkeep.Answer(t.ctx, t.curator, round.ID, i+1, 0, answer); err != nil {
				return fmt.Errorf("stop %d of %s: %w", i+1, one.Rule, err)
			}
		}
	}
	for _, one := range told.Plans {
		if err := t.plan(one, rules); err != nil {
			return fmt.Errorf("plan %s%s%s: %w", one.What, one.Rule, one.Job, err)
		}
	}
	return nil
}

func (t teller) plan(told toldPlan, rules map[string]int64) error {
	told.On = t.curator.Day().AddDays(told.InDays).String()
	if id, known := rules[told.Rule]; known {
		told.RuleID = &id
	}
	if told.Job != "" {
		jobs, err := t.actions.Work.OpenJobs(t.ctx, t.curator)
		if err != nil {
			return err
		}
		for _, j := range jobs {
			if j.Accession == told.Job && told.JobID == nil {
				told.JobID, told.MachineID = &j.ID, &j.MachineID
			}
		}
	}
	_, err := t.actions.Upkeep.AddPlan(t.ctx, t.curator, told.PlanInput)
	return err
}
