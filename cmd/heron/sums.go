package main

import (
	"errors"
	"fmt"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/subnet"
	"frugalheron/core/word"
)

// wordAnswer is what calc word answers.
type wordAnswer struct {
	word.Written
	Fields []word.Field `json:"fields"`
}

func calcWordCommand() *cobra.Command {
	var asJSON bool
	var told string
	cmd := &cobra.Command{
		Use:     "word VALUE",
		Short:   "A value in hexadecimal, octal, split octal and binary, and field by field",
		Example: `  heron calc word 0xA3F8 --fields "15-12 bank, 7 top"`,
		Args:    cobra.ExactArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			value, err := word.Parse(args[0])
			if err != nil {
				return err
			}
			fields, err := word.FieldsOf(value, told)
			if err != nil {
				return fmt.Errorf("--fields: %w", err)
			}
			answer := wordAnswer{word.Write(value), fields}
			if asJSON {
				return printJSON(cmd, answer)
			}
			out := cmd.OutOrStdout()
			fmt.Fprintln(out, inWords(answer.Written))
			for _, f := range fields {
				fmt.Fprintf(out, "%d-%d %s: %s\n", f.From, f.To, f.Name, inWords(f.Written))
			}
			return nil
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().StringVar(&told, "fields", "", "bits and names, the high bit first, as \"15-12 bank, 7 top\"")
	return cmd
}

func inWords(w word.Written) string {
	return fmt.Sprintf("%d, hex %s, octal %s, split octal %s, binary %s", w.Value, w.Hex, w.Octal, w.Split, w.Binary)
}

func calcNetCommand() *cobra.Command {
	var asJSON bool
	var settings subnet.Settings
	cmd := &cobra.Command{
		Use:     "net",
		Short:   "Whether the network settings of a machine go together",
		Example: "  heron calc net --address 192.0.2.17 --mask 255.255.255.0 --broadcast 192.0.2.255 --gateway 192.0.2.1",
		Args:    cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			if settings == (subnet.Settings{}) {
				return usageError{errors.New("give what is known: --address, --mask, --broadcast, --gateway")}
			}
			result, err := subnet.Check(settings)
			if err != nil {
				return err
			}
			if asJSON {
				return printJSON(cmd, result)
			}
			if result.OK && len(result.Why) == 0 {
				result.Why = append(result.Why, "nothing that is known contradicts itself")
			}
			_, err = fmt.Fprintln(cmd.OutOrStdout(), strings.Join(result.Why, "\n"))
			return err
		}),
	}
	cmd.Flags().BoolVar(&asJSON, "json", false, "answer as JSON")
	cmd.Flags().StringVar(&settings.Address, "address", "", "of the machine, as 192.0.2.17")
	cmd.Flags().StringVar(&settings.Mask, "mask", "", "as 255.255.255.0 or /24")
	cmd.Flags().StringVar(&settings.Broadcast, "broadcast", "", "as it is set")
	cmd.Flags().StringVar(&settings.Gateway, "gateway", "", "as it is set")
	return cmd
}
