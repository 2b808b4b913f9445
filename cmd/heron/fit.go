package main

import (
	"fmt"

	"github.com/spf13/cobra"

	"frugalheron/core/fit"
)

func calcFitCommand() *cobra.Command {
	var asJSON bool
	var play float64
	cmd := &cobra.Command{
		Use:     `fit "PART" "HOLE"`,
		Short:   "Whether a measured part goes into a measured hole, in millimetres",
		Example: `  heron calc fit 31.4 "30.9 +/- 0.1" --play 0.2`,
		Args:    cobra.ExactArgs(2),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			sizes := [2]fit.Size{}
			for i, text := range args {
				var err error
				if sizes[i], err = fit.ParseSize(text); err != nil {
					return fmt.Errorf("argument %d: %w", i+1, err)
				}
			}
			if play < 0 {
				return usageError{fmt.Errorf("--play is a gap in millimetres, not below 0")}
			}
			result := fit.Judge(sizes[0], sizes[1], play)
			if asJSON {
				return printJSON(cmd, result)
			}
			fmt.Fprintf(cmd.OutOrStdout(), "%s, gap %g mm (%g to %g)\n", result.Verdict, result.Gap, result.Least,
				result.Most)
			for _, why := range result.Why {
				fmt.Fprintf(cmd.OutOrStdout(), "  %s\n", why)
			}
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().Float64Var(&play, "play", 0, "gap in millimetres that the part needs to slide")
	return cmd
}
