package main

import (
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"frugalheron/demo"
)

func generateCommand() *cobra.Command {
	var machines int
	var folder string
	cmd := &cobra.Command{
		Use:   "generate",
		Short: "Add generated machines to the demonstration's data, to try it at size",
		Long: "Adds generated machines with 50 entries each until there are so many, the same ones each time.\n" +
			"An interrupted run goes on where it was. Serve the result with heron demo --data FOLDER.",
		Args: cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			if machines < 1 || machines > 200_000 {
				return usageError{fmt.Errorf("--machines is 1 to 200000, not %d", machines)}
			}
			ctx, stop := untilStopped(cmd.Context())
			defer stop()
			return withDemoDatabase(ctx, cmd, folder, false, func(d demonstration) error {
				start := time.Now()
				if err := demo.Generate(ctx, d.actions, machines, func(progress string) {
					d.say("  %s", progress)
				}); err != nil {
					return err
				}
				d.say("Done in %s. Serve it with: heron demo --data %s", time.Since(start).Round(time.Second), folder)
				return nil
			})
		}),
	}
	cmd.Flags().IntVar(&machines, "machines", 20_000, "how many")
	cmd.Flags().StringVar(&folder, "data", environment("HERON_DATA", "data"),
		"folder that keeps the demonstration's data (HERON_DATA)")
	return cmd
}
