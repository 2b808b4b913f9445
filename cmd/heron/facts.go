package main

import (
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/facts"
)

func factsCommand() *cobra.Command {
	return engine[facts.Input, facts.Result]{use: "facts",
		short:   "What is true about attributes of a machine, and when, by all that is said of them",
		example: "heron facts --json < statements.json", what: "statements", judge: facts.Judge, say: printFacts}.command()
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
