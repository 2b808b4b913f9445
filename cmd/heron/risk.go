package main

import (
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"frugalheron/core/risk"
)

// riskInput is what parts are ranked from; days are YYYY-MM-DD, empty when nobody knows.
type riskInput struct {
	Machines []struct {
		ID       int64        `json:"id"`
		Acquired string       `json:"acquired"`
		Built    string       `json:"built"`
		Climate  risk.Climate `json:"climate"`
	} `json:"machines"`
	Parts []struct {
		Machine int64  `json:"machine"`
		Words   string `json:"words"` // as battery NiCd 3.6V
		Place   string `json:"place"`
		Count   int    `json:"count"`
		Made    string `json:"made"`
		Looked  string `json:"looked"`
	} `json:"parts"`
	Classes []risk.Class `json:"classes"`
}

// rankedPart is a row of the answer.
type rankedPart struct {
	Machine      int64   `json:"machine"`
	Place        string  `json:"place"`
	Class        string  `json:"class"`
	Rank         float64 `json:"rank"`
	OverdueRatio float64 `json:"missed"`
	Why          string  `json:"why"`
}

func riskCommand() *cobra.Command {
	var asJSON bool
	var on string
	cmd := &cobra.Command{
		Use:     "risk [FILE|-]",
		Short:   "Which parts that age to look at first, and why",
		Example: `  heron risk --json < parts.json`,
		Args:    cobra.MaximumNArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			var in riskInput
			if err := readJSON(cmd, args, "list of parts", &in); err != nil {
				return err
			}
			ranked, err := in.rank(on)
			if err != nil {
				return err
			}
			if asJSON {
				return printJSON(cmd, map[string]any{"ranked": ranked})
			}
			for _, r := range ranked {
				fmt.Fprintf(cmd.OutOrStdout(), "%8.2f  %d %s: %s\n", r.Rank, r.Machine, r.Place, r.Why)
			}
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().StringVar(&on, "on", "", "day to rank for, YYYY-MM-DD; today when it is left out")
	return cmd
}

func (in riskInput) rank(on string) ([]rankedPart, error) {
	if on == "" {
		on = time.Now().Format(time.DateOnly)
	}
	now, err := riskDay("--on", on)
	if err != nil {
		return nil, err
	}
	for _, c := range in.Classes {
		if err := c.Check(); err != nil {
			return nil, fmt.Errorf("classes: %w", err)
		}
	}
	table, machines, parts := risk.TableOf(in.Classes), map[int64]risk.Machine{}, []risk.Part{}
	for i, m := range in.Machines {
		at := fmt.Sprintf("machines[%d]", i)
		one := risk.Machine{Climate: m.Climate}
		if one.Acquired, err = riskDay(at+".acquired", m.Acquired); err != nil {
			return nil, err
		}
		if one.Built, err = riskDay(at+".built", m.Built); err != nil {
			return nil, err
		}
		machines[m.ID] = one
	}
	for i, p := range in.Parts {
		at := fmt.Sprintf("parts[%d]", i)
		one := risk.Part{Machine: p.Machine, Class: risk.ClassOf(p.Words), Count: max(1, p.Count), Place: p.Place,
			Line: i}
		if one.Born, err = riskDay(at+".made", p.Made); err != nil {
			return nil, err
		}
		if one.Looked, err = riskDay(at+".looked", p.Looked); err != nil {
			return nil, err
		}
		parts = append(parts, one)
	}
	ranked := []rankedPart{}
	order := risk.Rank(table, machines, parts, now)
	for _, r := range order.From(0, order.Len()) {
		ranked = append(ranked, rankedPart{r.Machine, r.Place, r.Class, r.Rank, r.OverdueRatio, order.Sentence(r)})
	}
	return ranked, nil
}

func riskDay(at, text string) (risk.Day, error) {
	day, ok := risk.ParseDay(text)
	if !ok {
		return day, fmt.Errorf("%s: %q is no day; write YYYY-MM-DD", at, text)
	}
	return day, nil
}
