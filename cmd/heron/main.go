// Command heron is the whole of Frugal Heron in one binary: the server, the demonstration with
// its sample world, and the engines on the command line.
package main

import (
	"errors"
	"fmt"
	"os"

	"github.com/spf13/cobra"
)

// Exit statuses: 0 done, 1 the input could not be read or the work not be done, 2 wrong usage.
const (
	exitFailed = 1
	exitUsage  = 2
)

// failure marks errors that are not about usage: cobra's own errors all are.
type failure struct{ error }

func (f failure) Unwrap() error { return f.error }

// run wraps a command's work, so that what it returns is told apart from wrong usage.
func run(work func(cmd *cobra.Command, args []string) error) func(*cobra.Command, []string) error {
	return func(cmd *cobra.Command, args []string) error {
		err := work(cmd, args)
		if err == nil || errors.As(err, &usageError{}) {
			return err
		}
		return failure{err}
	}
}

// usageError is for arguments that only the command itself can judge.
type usageError struct{ error }

func main() {
	err := rootCommand().Execute()
	if err != nil {
		fmt.Fprintln(os.Stderr, "heron:", err)
	}
	os.Exit(exitStatus(err))
}

func rootCommand() *cobra.Command {
	root := &cobra.Command{
		Use:           "heron",
		Short:         "Frugal Heron catalogues vintage computers: boards, chips, memory, dates",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.CompletionOptions.HiddenDefaultCmd = true
	root.AddCommand(sheetCommand(), markingCommand(), calcCommand(), romCommand(), dateCommand(), factsCommand(),
		cautionCommand(), consoleCommand(),
		measureCommand(), riskCommand(), gateCommand(), slotsCommand(), populationCommand(), memfaultCommand(),
		trialsCommand(), dueCommand(), partsCommand())
	root.AddCommand(serveCommand(), demoCommand(), instrumentsCommand(), databaseCommand(), userCommand(),
		openAPICommand())
	return root
}

func exitStatus(err error) int {
	switch {
	case err == nil:
		return 0
	case errors.As(err, &failure{}):
		return exitFailed
	}
	return exitUsage
}
