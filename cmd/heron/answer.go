package main

import (
	"encoding/json"
	"fmt"
	"io"
	"os"
	"strconv"
	"strings"

	"github.com/spf13/cobra"

	"frugalheron/core/datecode"
	"frugalheron/core/sheet"
)

// printJSON writes an answer in its fixed form.
func printJSON(cmd *cobra.Command, answer any) error {
	encoder := json.NewEncoder(cmd.OutOrStdout())
	encoder.SetEscapeHTML(false)
	encoder.SetIndent("", "  ")
	return encoder.Encode(answer)
}

// openInput opens a file, or standard input for "-".
func openInput(cmd *cobra.Command, name string) (io.ReadCloser, error) {
	if name == "-" {
		return io.NopCloser(cmd.InOrStdin()), nil
	}
	return os.Open(name)
}

// readInput reads a file, or standard input for "-". It stops one byte past the size limit of a
// sheet: that is enough to refuse the rest.
func readInput(cmd *cobra.Command, name string) ([]byte, error) {
	in, err := openInput(cmd, name)
	if err != nil {
		return nil, err
	}
	defer in.Close()
	return io.ReadAll(io.LimitReader(in, sheet.MaxBytes+1))
}

// mostJSON bounds an input in JSON: the parts of a large collection fit.
const mostJSON = 256 << 20

// readJSON reads the input that the arguments name, standard input without one.
func readJSON(cmd *cobra.Command, args []string, what string, into any) error {
	name := "-"
	if len(args) > 0 {
		name = args[0]
	}
	in, err := openInput(cmd, name)
	if err != nil {
		return err
	}
	defer in.Close()
	if err := json.NewDecoder(io.LimitReader(in, mostJSON)).Decode(into); err != nil {
		return fmt.Errorf("the input is no %s in JSON: %w", what, err)
	}
	return nil
}

// eraFlag reads --era 1984-1988.
type eraFlag struct{ datecode.Era }

func (f *eraFlag) String() string {
	if f.Era == (datecode.Era{}) {
		return ""
	}
	return fmt.Sprintf("%d-%d", f.From, f.To)
}

func (f *eraFlag) Type() string { return "YEAR-YEAR" }

func (f *eraFlag) Set(text string) error {
	from, to, found := strings.Cut(text, "-")
	if !found {
		to = from
	}
	first, errFirst := strconv.Atoi(from)
	last, errLast := strconv.Atoi(to)
	if errFirst != nil || errLast != nil || first < 1900 || last > 2100 || last < first {
		return fmt.Errorf("write two years, as 1984-1988")
	}
	f.Era = datecode.Era{From: first, To: last}
	return nil
}

// family is a command that does nothing by itself: without one of its own commands it is a wrong usage.
func family(use, short string, own ...*cobra.Command) *cobra.Command {
	names := []string{}
	for _, cmd := range own {
		names = append(names, cmd.Name())
	}
	cmd := &cobra.Command{Use: use, Short: short, Args: cobra.NoArgs,
		RunE: func(*cobra.Command, []string) error {
			return fmt.Errorf("%s needs one of: %s", use, strings.Join(names, ", "))
		}}
	cmd.AddCommand(own...)
	return cmd
}
