package main

import (
	"fmt"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/device/builtin"
	"frugalheron/core/part"
)

func partsCommand() *cobra.Command {
	return family("parts", "What may stand for which part", partsMatchCommand())
}

func partsMatchCommand() *cobra.Command {
	var asJSON bool
	var need, have string
	cmd := &cobra.Command{
		Use:     "match",
		Short:   "Whether a part may stand where another is asked for",
		Example: `  heron parts match --need "470u/16V radial" --have "470uF 25V radial 105C"`,
		Args:    cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			fit, err := part.Match(builtin.Library(), need, have)
			if err != nil {
				return fmt.Errorf("--%w", err)
			}
			if asJSON {
				return printJSON(cmd, fit)
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "%s\n%s\n", fit.Grade, strings.Join(fit.Why, "\n"))
			return err
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().StringVar(&need, "need", "", "the part that is asked for, in words")
	cmd.Flags().StringVar(&have, "have", "", "the part that is there, in words")
	_ = cmd.MarkFlagRequired("need")
	_ = cmd.MarkFlagRequired("have")
	return cmd
}
