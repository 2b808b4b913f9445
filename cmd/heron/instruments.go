package main

import (
	"fmt"

	"github.com/spf13/cobra"

	"frugalheron/core/device/builtin"
	"frugalheron/demo"
	"frugalheron/instruments/meter"
	"frugalheron/instruments/romreader"
)

// Where the stand-ins listen unless other ports are wanted.
const (
	readerPort = 7071
	meterPort  = 7072
)

func instrumentsCommand() *cobra.Command {
	var atReader, atMeter int
	var chip, fault, point, meterFault string
	cmd := &cobra.Command{
		Use:   "instruments",
		Short: "Stand-ins for the instruments of a bench, on loopback",
		Long: "Starts stand-ins on loopback that hold the chips and the measuring points of the sample world: a reader\n" +
			"of chips, which speaks the protocol of docs/rom-reader.md, and a meter, which speaks SCPI as docs/meter.md\n" +
			"tells. Let the application use them with --reader 127.0.0.1:PORT and --meter 127.0.0.1:PORT.",
		Args: cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			ctx, stop := untilStopped(cmd.Context())
			defer stop()
			reader, err := startReader(atReader)
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
			standIn, err := startMeter(atMeter)
			if err != nil {
				return err
			}
			defer standIn.Close()
			leads, err := meter.Dial(ctx, standIn.Address())
			if err != nil {
				return err
			}
			defer leads.Close()
			if err := leads.Touch(ctx, point, meterFault); err != nil {
				return usageError{err}
			}
			fmt.Fprintf(cmd.OutOrStdout(), "The stand-in for a reader of chips listens on %s\n", reader.Address())
			fmt.Fprintf(cmd.OutOrStdout(), "The stand-in for a meter listens on %s\n", standIn.Address())
			<-ctx.Done()
			return nil
		}),
	}
	cmd.Flags().IntVar(&atReader, "reader-port", readerPort, "port of the reader, 0 for any")
	cmd.Flags().StringVar(&chip, "chip", "", `chip in its socket, as "EH-0142 U9"`)
	cmd.Flags().StringVar(&fault, "fault", romreader.Faults()[0],
		fmt.Sprintf("what the reader gets wrong: %v", romreader.Faults()))
	cmd.Flags().IntVar(&atMeter, "meter-port", meterPort, "port of the meter, 0 for any")
	cmd.Flags().StringVar(&point, "point", "", `where the meter's leads are, as "EH-0142 +5"`)
	cmd.Flags().StringVar(&meterFault, "meter-fault", meter.Faults()[0],
		fmt.Sprintf("what the meter gets wrong: %v", meter.Faults()))
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

// startMeter starts a stand-in whose leads reach the measuring points of the sample world.
func startMeter(port int) (*meter.StandIn, error) {
	return meter.NewStandIn(port, demo.MeterPoints())
}
