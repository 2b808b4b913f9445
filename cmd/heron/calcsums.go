package main

import (
	"fmt"
	"io"
	"maps"
	"slices"

	"github.com/spf13/cobra"
	"github.com/spf13/pflag"

	"frugalheron/core/memory"
	"frugalheron/core/quantity"
	"frugalheron/core/sums"
)

// sum is a command that answers one of the small sums from its flags.
type sum[In, Out any] struct {
	use, short, example string
	flags               func(*pflag.FlagSet, *In)
	needs               []string
	of                  func(In) (Out, error)
	say                 func(io.Writer, Out)
}

func (s sum[In, Out]) command() *cobra.Command {
	var asJSON bool
	var in In
	cmd := &cobra.Command{Use: s.use, Short: s.short, Example: "  heron calc " + s.example, Args: cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			out, err := s.of(in)
			if err != nil {
				return err
			}
			if asJSON {
				return printJSON(cmd, out)
			}
			s.say(cmd.OutOrStdout(), out)
			return nil
		})}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	s.flags(cmd.Flags(), &in)
	for _, name := range s.needs {
		_ = cmd.MarkFlagRequired(name) // the flags stand above
	}
	return cmd
}

func calcClockCommand() *cobra.Command {
	return sum[sums.ClockInput, sums.ClockSum]{use: "clock", short: "A clock from its crystal, against what a part may take",
		example: `clock --crystal "14.31818 MHz" --divider 3 --rating "5 MHz"`, needs: []string{"crystal"},
		of: sums.ClockOf,
		flags: func(f *pflag.FlagSet, in *sums.ClockInput) {
			f.StringVar(&in.Crystal, "crystal", "", "frequency of the crystal, as 14.31818 MHz")
			in.Divider, in.Multiplier = new(float64), new(float64)
			f.Float64Var(in.Divider, "divider", 1, "by which it is divided")
			f.Float64Var(in.Multiplier, "multiplier", 1, "by which it is multiplied")
			f.StringVar(&in.Rating, "rating", "", "what the part may take")
		},
		say: func(out io.Writer, c sums.ClockSum) {
			fmt.Fprintln(out, quantity.Hertz.Say(c.Hz), verdictOf(c.OK), c.Note)
		}}.command()
}

func calcDiskCommand() *cobra.Command {
	return sum[sums.DiskInput, sums.DiskSum]{use: "disk", short: "What a disk holds, and what of it the firmware reaches",
		example: `disk --cylinders 1048 --heads 16 --sectors 63 --limit "504 MiB"`, needs: []string{"cylinders", "heads", "sectors"},
		of: sums.DiskOf,
		flags: func(f *pflag.FlagSet, in *sums.DiskInput) {
			f.Int64Var(&in.Cylinders, "cylinders", 0, "cylinders of the disk")
			f.Int64Var(&in.Heads, "heads", 0, "heads of the disk")
			f.Int64Var(&in.Sectors, "sectors", 0, "sectors of 512 bytes in a track")
			f.StringVar(&in.Limit, "limit", "", "a size, as 504 MiB, or a geometry, as 1024/16/63")
		},
		say: func(out io.Writer, d sums.DiskSum) {
			fmt.Fprintf(out, "%d bytes, shown %d (%s, binary)\n", d.Bytes, d.Shown, memory.Format(d.Shown))
		}}.command()
}

func calcResistorCommand() *cobra.Command {
	return sum[sums.ResistorInput, sums.ResistorSum]{use: "resistor",
		short:   "A resistor in series that leaves a level over a load",
		example: `resistor --from "5 V" --to "0.7 V" --load "75 ohm"`, needs: []string{"from", "to", "load"},
		of: sums.ResistorOf,
		flags: func(f *pflag.FlagSet, in *sums.ResistorInput) {
			f.StringVar(&in.From, "from", "", "the level that there is")
			f.StringVar(&in.To, "to", "", "the level that is wanted")
			f.StringVar(&in.Load, "load", "", "resistance of what is driven")
			f.StringVar(&in.Source, "source", "", "resistance of what drives")
		},
		say: func(out io.Writer, r sums.ResistorSum) {
			fmt.Fprintf(out, "%s; E12 %s leaves %s, E24 %s leaves %s\n", quantity.Ohms.Say(r.Ohms), quantity.Ohms.Say(r.E12),
				quantity.Volts.Say(r.Levels.E12), quantity.Ohms.Say(r.E24), quantity.Volts.Say(r.Levels.E24))
		}}.command()
}

func calcMainsCommand() *cobra.Command {
	return sum[sums.MainsInput, sums.MainsSum]{use: "mains",
		short:   "A plate against the mains of a place, and a transformer's size",
		example: `mains --rating "110-120 V 60 Hz" --local "230 V 50 Hz" --load "60 VA"`, needs: []string{"rating",
			"local"},
		of: sums.MainsOf,
		flags: func(f *pflag.FlagSet, in *sums.MainsInput) {
			f.StringVar(&in.Rating, "rating", "", "what the plate says")
			f.StringVar(&in.Local, "local", "", "what there is, as 230 V 50 Hz")
			f.StringVar(&in.Load, "load", "", "what it draws, as 60 VA")
			in.Margin = new(float64)
			f.Float64Var(in.Margin, "margin", 25, "percent that the transformer gives beyond")
		},
		say: func(out io.Writer, m sums.MainsSum) {
			fmt.Fprintln(out, verdictOf(&m.OK))
			for _, why := range m.Why {
				fmt.Fprintln(out, " ", why)
			}
			if m.VA != nil {
				fmt.Fprintf(out, "  a transformer of at least %g VA\n", quantity.Round(*m.VA, 4))
			}
		}}.command()
}

func calcRailsCommand() *cobra.Command {
	return sum[sums.RailsInput, sums.RailsSum]{use: "rails", short: "What is drawn of the rails of a supply, against what they give",
		example: `rails --rating "+5 20, -12 0.5" --draw "+5 3.2, +5 1.1"`, of: sums.RailsOf,
		flags: func(f *pflag.FlagSet, in *sums.RailsInput) {
			f.StringVar(&in.Rating, "rating", "", "amperes by rail")
			f.StringVar(&in.Draw, "draw", "", "amperes by rail; one may stand several times")
		},
		say: func(out io.Writer, r sums.RailsSum) {
			for _, name := range slices.Sorted(maps.Keys(r.Rails)) {
				one := r.Rails[name]
				fmt.Fprintf(out, "%-6s %g A drawn, %s", name, one.Draw, verdictOf(one.OK))
				if one.Headroom != nil {
					fmt.Fprintf(out, ", %g A left", *one.Headroom)
				}
				fmt.Fprintln(out)
			}
		}}.command()
}

// verdictOf puts what may be unknown into a word.
func verdictOf(ok *bool) string {
	switch {
	case ok == nil:
		return "unknown"
	case *ok:
		return "ok"
	}
	return "not ok"
}
