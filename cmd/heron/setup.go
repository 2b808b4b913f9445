package main

import (
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/device/builtin"
	"frugalheron/core/memfault"
	"frugalheron/core/memory"
	"frugalheron/core/population"
	"frugalheron/core/slotplan"
	"frugalheron/core/trials"
)

func slotsCommand() *cobra.Command {
	return engine[slotplan.Input, slotplan.Output]{use: "slots",
		short:   "Whether cards go together in a backplane, and the least that has to move",
		example: "heron slots --json < backplane.json", what: "backplane with cards", judge: slotplan.Plan,
		say: func(out io.Writer, o slotplan.Output) {
			for _, p := range o.Problems {
				fmt.Fprintf(out, "%-10s %s\n", p.Kind, p.Detail)
			}
			for _, card := range slices.Sorted(maps.Keys(o.Assignment)) {
				place := o.Assignment[card]
				fmt.Fprintf(out, "%-10s slot %s", card, place.Slot)
				for _, resource := range slices.Sorted(maps.Keys(place.Settings)) {
					fmt.Fprintf(out, ", %s %v", resource, place.Settings[resource])
				}
				fmt.Fprintln(out)
			}
			if len(o.Assignment) > 0 {
				fmt.Fprintf(out, "%d moves, %d settings, fillers: %s\n", o.Moves, o.Changes, strings.Join(o.Fillers, ", "))
			}
		}}.command()
}

func populationCommand() *cobra.Command {
	judge := func(in population.Input) (population.Output, error) { return population.Judge(builtin.Library(), in) }
	return engine[population.Input, population.Output]{use: "population",
		short:   "Whether memory modules may stand in their sockets so, and what could stand instead",
		example: "heron population --json < sockets.json", what: "sockets with modules", judge: judge,
		say: func(out io.Writer, o population.Output) {
			fmt.Fprintf(out, "%s fitted\n", memory.Format(o.Bytes))
			for _, b := range o.Broken {
				fmt.Fprintf(out, "%-12s %s: %s\n", b.Rule, strings.Join(b.Sockets, ", "), b.Why)
			}
			for _, p := range o.Plans {
				fmt.Fprintf(out, "%-12s %s, %d sockets changed\n", "plan", memory.Format(p.Bytes), p.Changes)
				for _, socket := range slices.Sorted(maps.Keys(p.Sockets)) {
					if text := p.Sockets[socket]; text != nil {
						fmt.Fprintf(out, "%-12s %s: %s\n", "", socket, *text)
					}
				}
				for _, buy := range p.Buy {
					fmt.Fprintf(out, "%-12s buy %d x %s\n", "", buy.Count, buy.Size)
				}
			}
			if o.Why != "" {
				fmt.Fprintf(out, "no plan: %s\n", o.Why)
			}
		}}.command()
}

func memfaultCommand() *cobra.Command {
	return engine[memfault.Input, memfault.Output]{use: "memfault",
		short:   "Which chip, line or select the lines of a memory test lead to",
		example: "heron memfault --json < failures.json", what: "memory with failures", judge: memfault.Judge,
		say: func(out io.Writer, o memfault.Output) {
			for _, s := range o.Suspects {
				fmt.Fprintf(out, "%-12s %-12s %3.0f %%  %s\n", s.Designator+s.Group, s.Kind, s.Share*100, s.Why)
			}
			for _, p := range o.Problems {
				fmt.Fprintf(out, "line %d: %s\n", p.Line, p.Why)
			}
			if o.Unplaced > 0 {
				fmt.Fprintf(out, "%d lines have a syndrome that nobody knows\n", o.Unplaced)
			}
		}}.command()
}

func trialsCommand() *cobra.Command {
	return engine[trials.Input, trials.Output]{use: "trials",
		short:   "Which change made the difference, and which trial would tell most",
		example: "heron trials --json < trials.json", what: "trials with their factors", judge: trials.Judge,
		say: func(out io.Writer, o trials.Output) {
			for _, e := range o.Explanations {
				fmt.Fprintf(out, "%3.0f %%  %s makes it %s\n", e.Probability*100, strings.Join(e.Factors, " + "), e.Makes)
			}
			for _, class := range o.Confounded {
				fmt.Fprintf(out, "always on together: %s\n", strings.Join(class, ", "))
			}
			if o.Next != nil {
				fmt.Fprintf(out, "next: %s; %s\n", strings.Join(o.Next.On, ", "), o.Next.Why)
			}
			for _, note := range o.Notes {
				fmt.Fprintln(out, note)
			}
		}}.command()
}
