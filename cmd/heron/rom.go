package main

import (
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/device/builtin"
	"frugalheron/core/rom"
)

func romCommand() *cobra.Command {
	return family("rom", "Read, compare and convert the content of read-only memories", romInspectCommand(),
		romCompareCommand(), romConvertCommand(), romSplitCommand(), romMergeCommand())
}

// readImage reads an image in any of the formats; an error names the file.
func readImage(cmd *cobra.Command, name string) (rom.Image, error) {
	in := cmd.InOrStdin()
	if name != "-" {
		file, err := os.Open(name)
		if err != nil {
			return rom.Image{}, err
		}
		defer file.Close()
		in = file
	}
	// One byte more than records of the largest image have is enough to refuse the rest.
	data, err := io.ReadAll(io.LimitReader(in, 16*rom.MaxBytes+1))
	if err != nil {
		return rom.Image{}, fmt.Errorf("%s: %w", name, err)
	}
	image, err := rom.Decode(data)
	if err != nil {
		return image, fmt.Errorf("%s: %w", name, err)
	}
	return image, nil
}

func romInspectCommand() *cobra.Command {
	var asJSON bool
	var number string
	cmd := &cobra.Command{
		Use:   "inspect FILE|-",
		Short: "What is in an image: sums, copies, blanks, texts, years, lines without contact",
		Args:  cobra.ExactArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			device, err := deviceOf(number)
			if err != nil {
				return err
			}
			image, err := readImage(cmd, args[0])
			if err != nil {
				return err
			}
			inspection := rom.Inspect(image.Data, device)
			if asJSON {
				return printJSON(cmd, inspection)
			}
			printInspection(cmd.OutOrStdout(), image, inspection)
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().StringVar(&number, "device", "", "number of the memory that it was read from, as 27128")
	return cmd
}

// deviceOf looks a memory up; nil for no number.
func deviceOf(number string) (*rom.Device, error) {
	if number == "" {
		return nil, nil
	}
	t, ok := builtin.Library().Lookup(number)
	if !ok || !t.Class.IsMemory() || t.ImageBytes() == 0 {
		return nil, usageError{fmt.Errorf("%s is no memory in the library; name one as 27128", number)}
	}
	return &rom.Device{Number: t.Number, Bytes: t.ImageBytes()}, nil
}

func printInspection(out io.Writer, image rom.Image, i rom.Inspection) {
	fmt.Fprintf(out, "%-8s %d", "bytes", i.Bytes)
	if image.Format != rom.Binary {
		fmt.Fprintf(out, ", %s from address %X", image.Format, image.Base)
	}
	fmt.Fprintf(out, "\n%-8s %s\n%-8s %s\n%-8s %s\n%-8s %s\n", "CRC-32", i.CRC32, "SHA-1", i.SHA1, "SHA-256", i.SHA256,
		"sum", i.Sum16)
	if i.Device != nil {
		fmt.Fprintf(out, "%-8s %s, %d bytes: %s\n", "device", i.Device.Number, i.Device.Bytes, i.Device.LengthMatch)
	}
	fmt.Fprintf(out, "%-8s %d bytes in %d stretches\n", "blank", i.BlankBytes, len(i.BlankRuns))
	if len(i.Years) > 0 {
		fmt.Fprintf(out, "%-8s %s\n", "years", strings.Trim(fmt.Sprint(i.Years), "[]"))
	}
	for _, w := range i.Warnings {
		fmt.Fprintf(out, "%-8s %s\n", "warning", w)
	}
	for _, t := range i.Texts {
		fmt.Fprintf(out, "%08X %s\n", t.Offset, t.Text)
	}
}

func romCompareCommand() *cobra.Command {
	var asJSON bool
	cmd := &cobra.Command{
		Use:   "compare A B",
		Short: "How two images stand to each other; A is the earlier",
		Args:  cobra.ExactArgs(2),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			a, err := readImage(cmd, args[0])
			if err != nil {
				return err
			}
			b, err := readImage(cmd, args[1])
			if err != nil {
				return err
			}
			comparison := rom.Compare(a.Data, b.Data)
			if asJSON {
				return printJSON(cmd, comparison)
			}
			out := cmd.OutOrStdout()
			fmt.Fprintf(out, "%s\n%s\n", comparison.Verdict, comparison.Note)
			if comparison.FirstOffset != nil {
				fmt.Fprintf(out, "%d bytes differ, the first at %X; %d bits from 0 to 1, %d from 1 to 0\n",
					comparison.DifferingBytes, *comparison.FirstOffset, comparison.Bits0to1, comparison.Bits1to0)
			}
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	return cmd
}

func romConvertCommand() *cobra.Command {
	var to, out string
	cmd := &cobra.Command{
		Use:   "convert FILE --to bin|ihex|srec --out PATH",
		Short: "Write an image in another format",
		Args:  cobra.ExactArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			switch rom.Format(to) {
			case rom.Binary, rom.HexRecords, rom.SRecords:
			default:
				return usageError{fmt.Errorf("--to %q is no format; use bin, ihex or srec", to)}
			}
			image, err := readImage(cmd, args[0])
			if err != nil {
				return err
			}
			written, err := rom.Encode(rom.Format(to), image.Base, image.Data)
			if err != nil {
				return err
			}
			if image.Gaps > 0 {
				fmt.Fprintf(cmd.ErrOrStderr(), "%d bytes that no record gives are FF\n", image.Gaps)
			}
			return os.WriteFile(out, written, 0o644) //nolint:gosec // a file for others to read, too
		}),
	}
	cmd.Flags().StringVar(&to, "to", "", "bin, ihex or srec")
	cmd.Flags().StringVar(&out, "out", "", "file to write")
	cmd.MarkFlagRequired("to")  //nolint:errcheck // the flag is there
	cmd.MarkFlagRequired("out") //nolint:errcheck // the flag is there
	return cmd
}

func romSplitCommand() *cobra.Command {
	var lanes int
	var out string
	cmd := &cobra.Command{
		Use:   "split FILE --lanes N --out DIR",
		Short: "Deal an image out to the memories of a wide bus",
		Args:  cobra.ExactArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			image, err := readImage(cmd, args[0])
			if err != nil {
				return err
			}
			dealt, err := rom.Split(image.Data, lanes)
			if err != nil {
				return err
			}
			if err := os.MkdirAll(out, 0o755); err != nil { //nolint:gosec // a folder for others to read, too
				return err
			}
			name := strings.TrimSuffix(filepath.Base(args[0]), filepath.Ext(args[0]))
			for i, lane := range dealt {
				path := filepath.Join(out, fmt.Sprintf("%s.lane%d.bin", name, i))
				if err := os.WriteFile(path, lane, 0o644); err != nil { //nolint:gosec // see above
					return err
				}
				fmt.Fprintln(cmd.OutOrStdout(), path)
			}
			return nil
		}),
	}
	cmd.Flags().IntVar(&lanes, "lanes", 2, "how many memories lie side by side")
	cmd.Flags().StringVar(&out, "out", "", "folder to write to")
	cmd.MarkFlagRequired("out") //nolint:errcheck // the flag is there
	return cmd
}

func romMergeCommand() *cobra.Command {
	var out string
	cmd := &cobra.Command{
		Use:   "merge FILE... --out PATH",
		Short: "Put the memories of a wide bus together, lane 0 first",
		Args:  cobra.RangeArgs(2, 8),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			lanes := make([][]byte, len(args))
			for i, name := range args {
				image, err := readImage(cmd, name)
				if err != nil {
					return err
				}
				lanes[i] = image.Data
			}
			merged, err := rom.Merge(lanes)
			if err != nil {
				return err
			}
			return os.WriteFile(out, merged, 0o644) //nolint:gosec // a file for others to read, too
		}),
	}
	cmd.Flags().StringVar(&out, "out", "", "file to write")
	cmd.MarkFlagRequired("out") //nolint:errcheck // the flag is there
	return cmd
}
