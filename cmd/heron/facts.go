package main

import (
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/facts"
)

func factsCommand() *cobra.Command {
	var asJSON bool
	cmd := &cobra.Command{
		Use:     "facts [FILE|-]",
		Short:   "What is true about attributes of a machine, and when, by all that is said of them",
		Example: `  heron facts --json < statements.json`,
		Args:    cobra.MaximumNArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			var in facts.Input
			if err := readJSON(cmd, args, "statements", &in); err != nil {
				return err
			}
			result, err := facts.Judge(in)
			if err != nil {
				return err
			}
			if asJSON {
				return printJSON(cmd, result)
			}
			printFacts(cmd.OutOrStdout(), result)
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	return cmd
}

func printFacts(out io.Writer, r facts.Result) {
	for _, f := range r.Facts {
		name := strings.TrimSpace(f.Attribute + " " + f.Subject)
		value := "-"
		if f.Now != nil {
			value = f.Now.Value
		}
		fmt.Fprintf(out, "%-20s %-9s %s\n", name, f.State, value)
		for _, then := range f.Then {
			until := ""
			if then.Until != nil {
				until = ", until " + *then.Until
			}
			fmt.Fprintf(out, "%-20s %-9s %s%s\n", "", "then", then.Value, until)
		}
		for _, e := range f.Explanations {
			fmt.Fprintf(out, "%-20s %-9s %s\n", "", "explained", e.Text)
		}
		for _, d := range f.Differ {
			fmt.Fprintf(out, "%-20s %-9s %s\n", "", "differ", d.Why)
		}
		if f.Next != "" {
			fmt.Fprintf(out, "%-20s %-9s %s\n", "", "next", f.Next)
		}
	}
	for _, p := range r.Problems {
		fmt.Fprintf(out, "%-20s %-9s %s\n", p.ID, "problem", p.Why)
	}
}
