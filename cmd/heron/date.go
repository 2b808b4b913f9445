package main

import (
	"fmt"
	"io"

	"github.com/spf13/cobra"

	"frugalheron/core/dating"
)

func dateCommand() *cobra.Command {
	var asJSON bool
	cmd := &cobra.Command{
		Use:     "date [FILE|-]",
		Short:   "When a machine was built, from the dates of its parts, plates and papers",
		Example: `  heron date --json < evidence.json`,
		Args:    cobra.MaximumNArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			var in struct {
				Evidence []dating.Evidence `json:"evidence"`
			}
			if err := readJSON(cmd, args, "evidence", &in); err != nil {
				return err
			}
			result, err := dating.Date(in.Evidence, dating.DefaultRules())
			if err != nil {
				return err
			}
			if asJSON {
				return printJSON(cmd, result)
			}
			printDating(cmd.OutOrStdout(), result)
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	return cmd
}

func printDating(out io.Writer, r dating.Result) {
	if r.Estimate != nil {
		for i, e := range r.Estimates {
			fmt.Fprintf(out, "%-11s %s to %s\n", []string{"built", "or"}[min(i, 1)], e.From, e.To)
		}
	} else {
		fmt.Fprintf(out, "%-11s not known\n", "built")
	}
	if r.NotBefore != nil {
		fmt.Fprintf(out, "%-11s %s\n", "not before", r.NotBefore)
	}
	if r.NotAfter != nil {
		fmt.Fprintf(out, "%-11s %s\n", "not after", r.NotAfter)
	}
	for _, o := range r.Outliers {
		fmt.Fprintf(out, "%-11s %s: %s\n", o.Verdict, o.ID, o.Why)
	}
	for _, c := range r.Conflicts {
		fmt.Fprintf(out, "%-11s %s\n", "conflict", c.Why)
	}
	for _, b := range r.Basis {
		fmt.Fprintf(out, "%-11s %s\n", "basis", b)
	}
}
