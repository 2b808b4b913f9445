package main

import (
	"fmt"
	"io"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/device/builtin"
	"frugalheron/core/marking"
	"frugalheron/core/reckoning"
)

func markingCommand() *cobra.Command {
	var asJSON bool
	var era eraFlag
	cmd := &cobra.Command{
		Use:   `marking "TEXT"`,
		Short: "Read what is printed on a chip: type, speed, date code",
		Args:  cobra.MinimumNArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			reading := marking.Read(builtin.Library(), strings.Join(args, " "), marking.Context{Era: era.Era})
			if asJSON {
				return printJSON(cmd, reading)
			}
			printReading(cmd.OutOrStdout(), reading)
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().Var(&era, "era", "years in which the part is expected, as 1984-1988")
	return cmd
}

func printReading(out io.Writer, r marking.Reading) {
	if r.Type != nil {
		fmt.Fprintf(out, "%-8s %s, usually %s\n", "type", reckoning.Describe(r.Type), r.Type.Package)
		if r.Type.Family != "" {
			fmt.Fprintf(out, "%-8s %s\n", "family", r.Type.Family)
		}
	} else {
		fmt.Fprintf(out, "%-8s not known\n", "type")
	}
	if r.SpeedNs > 0 {
		fmt.Fprintf(out, "%-8s %d ns\n", "speed", r.SpeedNs)
	}
	if r.Grade != "" {
		fmt.Fprintf(out, "%-8s %s\n", "grade", r.Grade)
	}
	if r.Date != nil {
		fmt.Fprintf(out, "%-8s %s (%s to %s)\n", "date", r.Date.Text, r.Date.From, r.Date.To)
	} else if len(r.Candidates) > 0 {
		fmt.Fprintf(out, "%-8s open; it could be:\n", "date")
	}
	for _, c := range r.Candidates {
		fmt.Fprintf(out, "%9s%s  %s\n", "", c.Text, c.Why)
	}
	if len(r.Unread) > 0 {
		fmt.Fprintf(out, "%-8s %s\n", "unread", strings.Join(r.Unread, " "))
	}
}
