package main

import (
	"fmt"
	"io"

	"github.com/spf13/cobra"

	"frugalheron/core/gate"
	"frugalheron/core/upkeep"
)

func gateCommand() *cobra.Command {
	return engine[gate.Input, gate.Output]{use: "gate", short: "What is missing before power may be thought of",
		example: "heron gate --json < machine.json", what: "machine before power", judge: gate.Judge,
		say: func(out io.Writer, o gate.Output) {
			fmt.Fprintf(out, "%-12s %s: %s\n", o.State, o.Next.Kind, o.Next.Why)
			for _, m := range o.Missing {
				fmt.Fprintf(out, "%-12s %s; %s\n", m.Blocks, m.What, m.Do)
			}
			for _, warning := range o.Warnings {
				fmt.Fprintf(out, "%-12s %s\n", "warning", warning)
			}
		}}.command()
}

func dueCommand() *cobra.Command {
	return engine[upkeep.Input, upkeep.Output]{use: "due", short: "What falls due when, and in which rounds",
		example: "heron due --json < rules.json", what: "list of rules, things and deeds", judge: upkeep.Plan,
		say: func(out io.Writer, o upkeep.Output) {
			for _, d := range o.Due {
				fmt.Fprintf(out, "%s %6d days  %s: %s; %s\n", d.On, d.OverdueDays, d.Thing, d.Task, d.Because)
			}
			for _, r := range o.Rounds {
				fmt.Fprintf(out, "round  %s: %d things\n", r.Task, len(r.Things))
			}
		}}.command()
}
