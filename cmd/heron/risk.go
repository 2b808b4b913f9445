package main

import (
	"cmp"
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"frugalheron/core/condition"
	"frugalheron/core/device/builtin"
	"frugalheron/core/risk"
)

// riskInput is what parts are ranked from; days are YYYY-MM-DD, empty when nobody knows.
type riskInput struct {
	Machines []struct {
		ID       int64  `json:"id"`
		Acquired string `json:"acquired"`
		Built    string `json:"built"`
		Climate  string `json:"climate"`
	} `json:"machines"`
	Parts []struct {
		Machine int64  `json:"machine"`
		Words   string `json:"words"` // as battery NiCd 3.6V
		Place   string `json:"place"`
		Count   int    `json:"count"`
		Made    string `json:"made"`
		New     string `json:"new"`
		CameIn  string `json:"cameIn"`
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

// skippedPart is one that cannot be ranked, and why.
type skippedPart struct {
	Place string `json:"place"`
	Why   string `json:"why"`
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
			ranked, skipped, err := in.rank(on)
			if err != nil {
				return err
			}
			if asJSON {
				return printJSON(cmd, map[string]any{"ranked": ranked, "skipped": skipped})
			}
			for _, r := range ranked {
				fmt.Fprintf(cmd.OutOrStdout(), "%8.2f  %d %s: %s\n", r.Rank, r.Machine, r.Place, r.Why)
			}
			for _, s := range skipped {
				fmt.Fprintf(cmd.OutOrStdout(), " skipped  %s: %s\n", s.Place, s.Why)
			}
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().StringVar(&on, "on", "", "day to rank for, YYYY-MM-DD; today when it is left out")
	return cmd
}

func (in riskInput) rank(on string) (ranked []rankedPart, skipped []skippedPart, err error) {
	if on == "" {
		on = time.Now().Format(time.DateOnly)
	}
	now, err := riskDay("--on", on)
	if err != nil {
		return nil, nil, err
	}
	for _, c := range in.Classes {
		if err := c.Check(); err != nil {
			return nil, nil, fmt.Errorf("classes: %w", err)
		}
	}
	machines, odd := map[int64]risk.Machine{}, map[int64]string{}
	for i, m := range in.Machines {
		at := fmt.Sprintf("machines[%d]", i)
		climate, known := risk.ClimateOf(m.Climate)
		if !known {
			odd[m.ID] = fmt.Sprintf("its machine stands in a climate that is not known, %q", m.Climate)
		}
		one := risk.Machine{Climate: climate}
		if err := riskDays(at, days{"acquired", m.Acquired, &one.Acquired},
			days{"built", m.Built, &one.Built}); err != nil {
			return nil, nil, err
		}
		machines[m.ID] = one
	}
	table, parts := risk.TableOf(in.Classes), []risk.Part{}
	ranked, skipped = []rankedPart{}, []skippedPart{}
	for i, p := range in.Parts {
		one := risk.Part{Machine: p.Machine, Class: cmp.Or(table.ClassOf(p.Words),
			table.ClassOf(condition.TellsOf(builtin.Library(), p.Words))), Count: max(1, p.Count), Place: p.Place,
			Line: i}
		if err := riskDays(fmt.Sprintf("parts[%d]", i), days{"made", p.Made, &one.Born},
			days{"new", p.New, &one.Renewed},
			days{"cameIn", p.CameIn, &one.CameIn}, days{"looked", p.Looked, &one.Looked}); err != nil {
			return nil, nil, err
		}
		_, given := machines[p.Machine]
		switch {
		case !given:
			skipped = append(skipped, skippedPart{p.Place, fmt.Sprintf("its machine, %d, is not given", p.Machine)})
		case odd[p.Machine] != "":
			skipped = append(skipped, skippedPart{p.Place, odd[p.Machine]})
		case one.Class == "":
			skipped = append(skipped, skippedPart{p.Place, fmt.Sprintf("%q is of no class that ages", p.Words)})
		default:
			parts = append(parts, one)
		}
	}
	order := risk.Rank(table, machines, parts, now)
	for _, r := range order.From(0, order.Len()) {
		ranked = append(ranked, rankedPart{r.Machine, r.Place, r.Class, r.Rank, r.OverdueRatio, order.Sentence(r)})
	}
	return ranked, skipped, nil
}

// days is a field that holds a day, and where that goes.
type days struct {
	field, text string
	to          *risk.Day
}

func riskDays(at string, fields ...days) error {
	for _, f := range fields {
		day, err := riskDay(at+"."+f.field, f.text)
		if err != nil {
			return err
		}
		*f.to = day
	}
	return nil
}

func riskDay(at, text string) (risk.Day, error) {
	day, ok := risk.ParseDay(text)
	if !ok {
		return day, fmt.Errorf("%s: %q is no day; write YYYY-MM-DD", at, text)
	}
	return day, nil
}
