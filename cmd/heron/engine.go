package main

import (
	"io"

	"github.com/spf13/cobra"
)

// engine is a command that reads one JSON document and answers what a rule of the job makes of it.
type engine[In, Out any] struct {
	use, short, example string
	what                string // that the document holds, for errors
	judge               func(In) (Out, error)
	say                 func(io.Writer, Out)
}

func (e engine[In, Out]) command() *cobra.Command {
	var asJSON bool
	cmd := &cobra.Command{
		Use:     e.use + " [FILE|-]",
		Short:   e.short,
		Example: "  " + e.example,
		Args:    cobra.MaximumNArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			var in In
			if err := readJSON(cmd, args, e.what, &in); err != nil {
				return err
			}
			out, err := e.judge(in)
			if err != nil {
				return err
			}
			if asJSON {
				return printJSON(cmd, out)
			}
			e.say(cmd.OutOrStdout(), out)
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	return cmd
}
