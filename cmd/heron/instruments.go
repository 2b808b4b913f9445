package main

import (
	"context"
	"fmt"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/app"
	"frugalheron/core/device/builtin"
	"frugalheron/demo"
	"frugalheron/instruments/meter"
	"frugalheron/instruments/practice"
	"frugalheron/instruments/romreader"
)

// benchPorts are where the stand-ins listen, 0 for any port.
type benchPorts struct {
	reader, meter, console, practice int
	isTelnet                         bool // the console speaks telnet
}

// usualPorts are those unless others are wanted.
var usualPorts = benchPorts{reader: 7071, meter: 7072, console: 7073, practice: 7074}

// bench is all stand-ins, with the chips and the measuring points of the sample world and a machine to practise on.
type bench struct {
	reader  *romreader.StandIn
	meter   *meter.StandIn
	machine *practice.StandIn
}

func startBench(at benchPorts) (b bench, err error) {
	if b.reader, err = startReader(at.reader); err != nil {
		return b, err
	}
	if b.machine, err = practice.NewStandIn(at.practice, at.console, at.isTelnet); err != nil {
		b.Close()
		return b, err
	}
	if b.meter, err = meter.NewStandInOf(at.meter, b.machine.With(demo.MeterPoints())); err != nil {
		b.Close()
	}
	return b, err
}

func (b bench) addresses() app.Instruments {
	return app.Instruments{Reader: b.reader.Address(), Meter: b.meter.Address(), Console: b.machine.Console.Address(),
		Practice: b.machine.Address()}
}

// Close stops those that were started.
func (b bench) Close() {
	if b.reader != nil {
		b.reader.Close() //nolint:errcheck // it is the end anyway
	}
	if b.meter != nil {
		b.meter.Close() //nolint:errcheck // it is the end anyway
	}
	if b.machine != nil {
		b.machine.Close() //nolint:errcheck // it is the end anyway
	}
}

func instrumentsCommand() *cobra.Command {
	at := usualPorts
	var chip, fault, point, meterFault, profile string
	cmd := &cobra.Command{
		Use:   "instruments",
		Short: "Stand-ins for the instruments of a bench, on loopback",
		Long: "Starts stand-ins on loopback that hold the chips and the measuring points of the sample world: a reader\n" +
			"of chips, which speaks the protocol of docs/rom-reader.md; a meter, which speaks SCPI as docs/meter.md tells;\n" +
			"a serial console, raw or by telnet (docs/console.md); and a machine to practise on behind meter and console\n" +
			"(docs/practice.md). Let the application use them with --reader, --meter, --console and --practice.",
		Args: cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			ctx, stop := untilStopped(cmd.Context())
			defer stop()
			b, err := startBench(at)
			if err != nil {
				return err
			}
			defer b.Close()
			if err := b.prepare(ctx, chip, fault, point, meterFault, profile); err != nil {
				return err
			}
			told := b.addresses()
			fmt.Fprintf(cmd.OutOrStdout(), "The stand-in for a reader of chips listens on %s\n", told.Reader)
			fmt.Fprintf(cmd.OutOrStdout(), "The stand-in for a meter listens on %s\n", told.Meter)
			fmt.Fprintf(cmd.OutOrStdout(), "The stand-in for a console listens on %s\n", told.Console)
			fmt.Fprintf(cmd.OutOrStdout(), "The practice machine listens on %s\n", told.Practice)
			<-ctx.Done()
			return nil
		}),
	}
	flags := cmd.Flags()
	flags.IntVar(&at.reader, "reader-port", at.reader, "port of the reader, 0 for any")
	flags.StringVar(&chip, "chip", "", `chip in its socket, as "EH-0142 U9"`)
	flags.StringVar(&fault, "fault", romreader.Faults()[0],
		fmt.Sprintf("what the reader gets wrong: %v", romreader.Faults()))
	flags.IntVar(&at.meter, "meter-port", at.meter, "port of the meter, 0 for any")
	flags.StringVar(&point, "point", "", `where the meter's leads are, as "EH-0142 +5"`)
	flags.StringVar(&meterFault, "meter-fault", meter.Faults()[0],
		fmt.Sprintf("what the meter gets wrong: %v", meter.Faults()))
	flags.IntVar(&at.console, "console-port", at.console, "port of the console, 0 for any")
	flags.BoolVar(&at.isTelnet, "telnet", false, "let the console speak telnet")
	flags.StringVar(&profile, "console", practice.Profiles()[0],
		fmt.Sprintf("what the console is: %s", strings.Join(practice.Profiles(), ", ")))
	flags.IntVar(&at.practice, "practice-port", at.practice, "port of the practice machine, 0 for any")
	return cmd
}

// prepare tells the stand-ins what they hold and what they get wrong.
func (b bench) prepare(ctx context.Context, chip, fault, point, meterFault, profile string) error {
	reader, err := romreader.Dial(ctx, b.reader.Address())
	if err != nil {
		return err
	}
	defer reader.Close()
	if chip != "" {
		if err := reader.Insert(ctx, chip); err != nil {
			return usageError{err}
		}
	}
	if err := reader.Spoil(ctx, fault); err != nil {
		return usageError{err}
	}
	leads, err := meter.Dial(ctx, b.meter.Address())
	if err != nil {
		return err
	}
	defer leads.Close()
	if err := leads.Touch(ctx, point, meterFault); err != nil {
		return usageError{err}
	}
	machine, err := practice.Dial(ctx, b.machine.Address())
	if err != nil {
		return err
	}
	defer machine.Close()
	if err := machine.Play(ctx, profile); err != nil {
		return usageError{err}
	}
	return nil
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
