package main

import (
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/caution"
)

// stepCaution is what to take care of at a step.
type stepCaution struct {
	Key  caution.Key `json:"key"`
	Text string      `json:"text"`
}

// cautionedStep is a line of the text.
type cautionedStep struct {
	Line     int           `json:"line"`
	Cautions []stepCaution `json:"cautions"`
}

// mostSteps bounds a text, in bytes.
const mostSteps = 1 << 20

func cautionCommand() *cobra.Command {
	var asJSON bool
	var holds []string
	cmd := &cobra.Command{
		Use:     "caution TEXT|-",
		Short:   "What to take care of at steps of the work, one a line",
		Example: `  heron caution "Take the battery out"`,
		Args:    cobra.MinimumNArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			text := strings.Join(args, " ")
			if text == "-" {
				read, err := io.ReadAll(io.LimitReader(cmd.InOrStdin(), mostSteps+1))
				if err != nil {
					return err
				}
				if text = string(read); len(read) > mostSteps {
					return errors.New("the text is longer than 1 MiB; give it in parts")
				}
			}
			held := []caution.Holding{}
			for _, word := range holds {
				if !slices.Contains(caution.Holdings(), caution.Holding(word)) {
					return usageError{fmt.Errorf("--holds %s: it is one of %v", word, caution.Holdings())}
				}
				held = append(held, caution.Holding(word))
			}
			steps := cautioned(text, held)
			if asJSON {
				return printJSON(cmd, map[string]any{"steps": steps})
			}
			for _, step := range steps {
				for _, c := range step.Cautions {
					fmt.Fprintf(cmd.OutOrStdout(), "line %d, %s: %s\n", step.Line, c.Key, c.Text)
				}
			}
			return nil
		}),
	}
	cmd.Flags().StringSliceVar(&holds, "holds", nil, "what the machine is known to hold: "+
		strings.Trim(fmt.Sprint(caution.Holdings()), "[]"))
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	return cmd
}

// cautioned tells of each line that says something what is due there, on a machine that holds some things.
func cautioned(text string, held []caution.Holding) []cautionedStep {
	steps := []cautionedStep{}
	for i, line := range strings.Split(text, "\n") {
		if strings.TrimSpace(line) == "" {
			continue
		}
		step := cautionedStep{Line: i + 1, Cautions: []stepCaution{}}
		for _, c := range caution.All(caution.DueIn(line, held)) {
			step.Cautions = append(step.Cautions, stepCaution{c.Key, c.Text})
		}
		steps = append(steps, step)
	}
	return steps
}
