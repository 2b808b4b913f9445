package main

import (
	"cmp"
	"fmt"
	"io"
	"time"

	"github.com/spf13/cobra"

	"frugalheron/core/calendar"
	"frugalheron/core/device/builtin"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
)

func sheetCommand() *cobra.Command {
	var asJSON, format bool
	var on string
	var era eraFlag
	cmd := &cobra.Command{
		Use:   "sheet FILE|-",
		Short: "Reckon a board sheet: memory, ROM, dates, unknowns, problems",
		Args:  cobra.ExactArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			now, err := calendar.Parse(cmp.Or(on, time.Now().Format(time.DateOnly)))
			if err != nil {
				return fmt.Errorf("--on: %w", err)
			}
			text, err := readInput(cmd, args[0])
			if err != nil {
				return err
			}
			if format {
				parsed, err := sheet.Parse(text, sheet.Whole)
				if err != nil {
					return fmt.Errorf("%s: %w", args[0], err)
				}
				_, err = fmt.Fprint(cmd.OutOrStdout(), sheet.Format(parsed))
				return err
			}
			result, err := reckoning.Of(builtin.Library(), text, reckoning.Options{Era: era.Era, Today: now})
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			if asJSON {
				return printJSON(cmd, result)
			}
			printSheet(cmd.OutOrStdout(), result)
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().BoolVar(&format, "format", false,
		"write the sheet with aligned columns instead; order, comments and unread lines stay")
	cmd.Flags().StringVar(&on, "on", "", "day to read for, YYYY-MM-DD; today when it is left out")
	cmd.Flags().Var(&era, "era",
		"years in which the parts are expected, as 1984-1988; settles date codes with an open decade")
	return cmd
}

func printSheet(out io.Writer, result reckoning.Result) {
	titles := ""
	for i, a := range result.Assemblies {
		if i > 0 {
			titles += ", "
		}
		titles += a.Title
	}
	if titles != "" {
		fmt.Fprintln(out, titles)
	}
	for _, v := range reckoning.Verdicts([]reckoning.Board{{Title: "this sheet", Result: result}}) {
		fmt.Fprintf(out, "%-14s %s\n", v.Label, v.Value)
		if v.Caution != "" {
			fmt.Fprintf(out, "%15sCaution: %s\n", "", v.Caution)
		}
		for _, reason := range v.Why {
			if reason.Spot != nil {
				fmt.Fprintf(out, "%15sline %d: %s\n", "", reason.Spot.Line, reason.Text)
			} else {
				fmt.Fprintf(out, "%15s%s\n", "", reason.Text)
			}
		}
	}
}
