package main

import (
	"fmt"
	"io"
	"time"

	"github.com/spf13/cobra"

	"frugalheron/core/calendar"
	"frugalheron/core/console"
)

func consoleCommand() *cobra.Command {
	var asJSON bool
	on := time.Now().Format(time.DateOnly)
	cmd := &cobra.Command{
		Use:     "console FILE|-",
		Short:   "What the text of a console or a screen says of its machine",
		Example: "  heron console boot.log --on 2026-04-14",
		Args:    cobra.ExactArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			day, err := calendar.Parse(on)
			if err != nil {
				return usageError{fmt.Errorf("--on %s: %w", on, err)}
			}
			in, err := openInput(cmd, args[0])
			if err != nil {
				return err
			}
			defer in.Close()
			raw, err := io.ReadAll(io.LimitReader(in, console.MostBytes+1))
			if err != nil {
				return err
			}
			if len(raw) > console.MostBytes {
				return fmt.Errorf("the text is longer than %d KiB; give it in parts", console.MostBytes>>10)
			}
			said := console.Read(raw, day)
			if asJSON {
				return printJSON(cmd, said)
			}
			out := cmd.OutOrStdout()
			fmt.Fprintf(out, "%s: %s\n", said.Outcome, said.Why)
			for _, c := range said.Claims {
				fmt.Fprintf(out, "line %d, %s %s: %s\n", c.Line, c.Attribute, spaced(c.Subject)+c.Value, c.Why+doubted(c.Doubt))
			}
			for _, f := range said.Failures {
				fmt.Fprintf(out, "line %d, memory failed %s\n", f.Line, f.InWords())
			}
			for _, t := range said.Troubles {
				fmt.Fprintf(out, "line %d complains: %s\n", t.Line, t.Text)
			}
			return nil
		}),
	}
	cmd.Flags().StringVar(&on, "on", on, "day on which it was heard, YYYY-MM-DD")
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	return cmd
}

func spaced(subject string) string {
	if subject == "" {
		return ""
	}
	return "of " + subject + " "
}

func doubted(doubt string) string {
	if doubt == "" {
		return ""
	}
	return "; perhaps: " + doubt
}
