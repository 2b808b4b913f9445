package main

import (
	"errors"
	"fmt"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/device/builtin"
	"frugalheron/core/memory"
	"frugalheron/core/reckoning"
	"frugalheron/core/verdict"
)

func calcCommand() *cobra.Command {
	return family("calc", "Small sums: memory, clocks, disks, rails, mains, levels, fit, words, network settings", calcRAMCommand(),
		calcVideoCommand(), calcFitCommand(), calcWordCommand(), calcNetCommand(), calcClockCommand(),
		calcDiskCommand(),
		calcResistorCommand(), calcMainsCommand(), calcRailsCommand())
}

// ramAnswer is what calc ram answers.
type ramAnswer struct {
	RAMBytes   int64             `json:"ramBytes"`
	RAMBy      reckoning.RAMBy   `json:"ramBy"`
	ParityBits int64             `json:"parityBits"`
	ROMBytes   int64             `json:"romBytes"`
	Reported   *int64            `json:"reportedBytes"`   // null when nothing was given to compare with
	Difference *int64            `json:"differenceBytes"` // fitted less reported
	Entries    []reckoning.Entry `json:"entries"`
	Notes      []reckoning.Note  `json:"notes"`
	Verdicts   []verdict.Verdict `json:"-"`
}

func calcRAMCommand() *cobra.Command {
	var asJSON bool
	var reported string
	cmd := &cobra.Command{
		Use:     `ram "9x 41256-15" "U40-U47 4164-15 for:picture" ...`,
		Short:   "Add up memory, each argument a line as on a board sheet",
		Example: `  heron calc ram "18x 41256-15" --reported 512K`,
		Args:    cobra.MinimumNArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			answer, err := addUpRAM(args, reported)
			if err != nil {
				return err
			}
			if asJSON {
				return printJSON(cmd, answer)
			}
			for _, v := range answer.Verdicts {
				fmt.Fprintf(cmd.OutOrStdout(), "%s %s\n", v.Label, v.Value)
				for _, reason := range v.Why {
					fmt.Fprintf(cmd.OutOrStdout(), "  %s\n", reason.Text)
				}
			}
			if answer.Difference != nil {
				fmt.Fprintf(cmd.OutOrStdout(), "Reported %s, fitted %s: %s\n",
					memory.Format(*answer.Reported), memory.Format(answer.RAMBytes), difference(*answer.Difference))
			}
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().StringVar(&reported, "reported", "",
		"what firmware or a document says is fitted, as 640K, to compare with")
	return cmd
}

func addUpRAM(lines []string, reported string) (ramAnswer, error) {
	for i, line := range lines {
		if strings.ContainsAny(line, "\r\n") {
			return ramAnswer{},
				usageError{fmt.Errorf("argument %d holds a line end; give each line as an argument of its own", i+1)}
		}
	}
	result, err := reckoning.Of(builtin.Library(), []byte(strings.Join(lines, "\n")), reckoning.Options{})
	if err != nil {
		return ramAnswer{}, err
	}
	if len(result.Problems) > 0 {
		p := result.Problems[0]
		return ramAnswer{}, fmt.Errorf("argument %d, column %d: %s", p.Line, p.Column, p.Message)
	}
	t := result.Totals
	answer := ramAnswer{RAMBytes: t.RAMBytes, RAMBy: t.RAMBy, ParityBits: t.ParityBits, ROMBytes: t.ROMBytes,
		Entries: []reckoning.Entry{}, Notes: result.Notes}
	for _, a := range result.Assemblies {
		answer.Entries = append(answer.Entries, a.Entries...)
		if len(a.Texts) > 0 {
			return ramAnswer{},
				fmt.Errorf("argument %d: start with designators or a count, as in \"8x 4164-15\"", a.Texts[0].Line)
		}
	}
	answer.Verdicts = reckoning.Verdicts([]reckoning.Board{{Title: "all", Result: result}})
	if reported != "" {
		bytes, err := memory.ParseSize(reported)
		if err != nil {
			return ramAnswer{}, usageError{fmt.Errorf("--reported: %w", err)}
		}
		less := t.RAMBytes - bytes
		answer.Reported, answer.Difference = &bytes, &less
	}
	return answer, nil
}

func difference(bytes int64) string {
	switch {
	case bytes > 0:
		return memory.Format(bytes) + " more fitted than reported"
	case bytes < 0:
		return memory.Format(-bytes) + " less fitted than reported"
	}
	return "they agree"
}

func calcVideoCommand() *cobra.Command {
	var asJSON bool
	var screen memory.Screen
	var fitted string
	cmd := &cobra.Command{
		Use:     "video",
		Short:   "Picture memory of a screen against what is fitted",
		Example: "  heron calc video --width 640 --height 400 --bits 4 --fitted 128K\n  heron calc video --columns 80 --rows 25 --cell 2 --fitted 4K",
		Args:    cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			var bytes int64
			if fitted != "" {
				var err error
				if bytes, err = memory.ParseSize(fitted); err != nil {
					return usageError{fmt.Errorf("--fitted: %w", err)}
				}
			}
			demand, err := memory.Video(screen, bytes)
			if errors.Is(err, memory.ErrScreen) {
				return usageError{err}
			}
			if err != nil {
				return err
			}
			if asJSON {
				return printJSON(cmd, demand)
			}
			fmt.Fprintf(cmd.OutOrStdout(), "Needed %s, %s: %s\n", memory.Format(demand.NeededBytes), demand.Verdict,
				demand.Why)
			if demand.FontBytes > 0 {
				fmt.Fprintf(cmd.OutOrStdout(), "Character generator: %s of ROM\n", memory.Format(demand.FontBytes))
			}
			return nil
		}),
	}
	flags := cmd.Flags()
	flags.BoolVar(&asJSON, "json", false, "answer as JSON")
	flags.IntVar(&screen.Width, "width", 0, "points across")
	flags.IntVar(&screen.Height, "height", 0, "points down")
	flags.IntVar(&screen.BitsPerPixel, "bits", 0, "bits per pixel, over all planes")
	flags.IntVar(&screen.Columns, "columns", 0, "characters across")
	flags.IntVar(&screen.Rows, "rows", 0, "lines of text")
	flags.IntVar(&screen.CellBytes, "cell", 0, "bytes per character with its attributes")
	flags.IntVar(&screen.Glyphs, "glyphs", 0, "characters in the character generator")
	flags.IntVar(&screen.GlyphBytes, "glyph-bytes", 0, "bytes per character in the character generator")
	flags.StringVar(&fitted, "fitted", "", "picture memory fitted, as 128K; K and M are binary")
	return cmd
}
