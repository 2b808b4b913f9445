package main

import (
	"fmt"

	"github.com/spf13/cobra"

	"frugalheron/core/device/builtin"
	"frugalheron/demo"
	"frugalheron/instruments/romreader"
)

// readerPort is where the stand-in of the reader listens unless another is wanted.
const readerPort = 7071

func instrumentsCommand() *cobra.Command {
	var port int
	var chip, fault string
	cmd := &cobra.Command{
		Use:   "instruments",
		Short: "Stand-ins for the instruments of a bench, on loopback",
		Long: "Starts a stand-in for a reader of chips, which speaks the protocol of docs/rom-reader.md on loopback\n" +
			"and holds the chips of the sample world. Let the application use it with --reader 127.0.0.1:PORT.",
		Args: cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			ctx, stop := untilStopped(cmd.Context())
			defer stop()
			reader, err := startReader(port)
			if err != nil {
				return err
			}
			defer reader.Close()
			client, err := romreader.Dial(ctx, reader.Address())
			if err != nil {
				return err
			}
			defer client.Close()
			if chip != "" {
				if err := client.Insert(ctx, chip); err != nil {
					return usageError{err}
				}
			}
			if err := client.Spoil(ctx, fault); err != nil {
				return usageError{err}
			}
			fmt.Fprintf(cmd.OutOrStdout(), "The stand-in for a reader of chips listens on %s\n", reader.Address())
			<-ctx.Done()
			return nil
		}),
	}
	cmd.Flags().IntVar(&port, "reader-port", readerPort, "port of the reader, 0 for any")
	cmd.Flags().StringVar(&chip, "chip", "", `chip in its socket, as "EH-0142 U9"`)
	cmd.Flags().StringVar(&fault, "fault", romreader.Faults[0], fmt.Sprintf("what it gets wrong: %v", romreader.Faults))
	return cmd
}

// startReader starts a stand-in that holds the chips of the sample world.
func startReader(port int) (*romreader.StandIn, error) {
	chips := map[string]romreader.Chip{}
	for name, image := range demo.Images() {
		chips[name] = romreader.Chip{Device: image.Device, Data: image.Data}
	}
	return romreader.NewStandIn(port, chips, func(number string) int {
		t, ok := builtin.Library().Lookup(number)
		if !ok {
			return 0
		}
		return t.ImageBytes()
	})
}
