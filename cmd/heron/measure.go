package main

import (
	"fmt"
	"regexp"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/measure"
	"frugalheron/core/quantity"
)

func measureCommand() *cobra.Command {
	var asJSON bool
	var marking string
	cmd := &cobra.Command{
		Use:   "measure TEXT...",
		Short: "What a measurement as it is typed means, and whether it is as it should be",
		Example: `  heron measure "+5 4.93"
  heron measure "BT1 2.1 V" --marking "NiCd 3.6V 60mAh"
  heron measure "C12 41 uF = 47 uF +/- 20 %" --json`,
		// Negative figures look like flags: heron measure -12 -12.9.
		DisableFlagParsing: true,
	}
	judge := run(func(cmd *cobra.Command, args []string) error {
		said, err := measure.Parse(strings.Join(args, " "))
		if err != nil {
			return err
		}
		if e, ok := measure.FromMarking(marking, said.Quantity); ok && said.Expected == nil {
			said.Expected = &e
		}
		judged := measure.Judge(said.Quantity, said.Readings, said.Expected)
		if said.Opening != nil {
			judged, _ = measure.JudgeFit(said.Readings, *said.Opening, said.Expected)
		}
		if asJSON {
			return printJSON(cmd, struct {
				Point    string            `json:"point"`
				Quantity quantity.Quantity `json:"quantity"`
				Unit     string            `json:"unit"`
				Readings []float64         `json:"readings"`
				Opening  *float64          `json:"opening"`
				Expected *measure.Expected `json:"expected"`
				Said     string            `json:"said"` // inWords, by its older name
				measure.Judged
			}{said.Point, said.Quantity, said.Quantity.Unit(), said.Readings, said.Opening, said.Expected,
				judged.InWords, judged})
		}
		fmt.Fprintf(cmd.OutOrStdout(), "%s %s: %s\n", said.Point, judged.InWords, judged.Verdict)
		for _, why := range judged.Why {
			fmt.Fprintf(cmd.OutOrStdout(), "  %s\n", why)
		}
		return nil
	})
	cmd.RunE = func(cmd *cobra.Command, args []string) error {
		words, err := withoutFlags(cmd, args)
		switch help, _ := cmd.Flags().GetBool("help"); {
		case help:
			return cmd.Help()
		case err != nil:
			return err
		case len(words) == 0:
			return fmt.Errorf("measure needs what was measured, as BT1 2.1 V")
		}
		return judge(cmd, words)
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().StringVar(&marking, "marking", "", "what is printed on the part, to know what it should have")
	return cmd
}

// withoutFlags reads the flags of a command and returns its other words, among which negative figures are.
func withoutFlags(cmd *cobra.Command, args []string) (words []string, err error) {
	const shield = "\x00"
	shielded := make([]string, len(args))
	for i, arg := range args {
		if negativeFigure.MatchString(arg) {
			arg = shield + arg
		}
		shielded[i] = arg
	}
	cmd.InitDefaultHelpFlag()
	if err := cmd.Flags().Parse(shielded); err != nil {
		return nil, err
	}
	for _, word := range cmd.Flags().Args() {
		words = append(words, strings.TrimPrefix(word, shield))
	}
	return words, nil
}

var negativeFigure = regexp.MustCompile(`^-\d`)
