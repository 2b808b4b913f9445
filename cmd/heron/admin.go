package main

import (
	"bufio"
	"encoding/json"
	"fmt"
	"os"
	"strings"

	"github.com/spf13/cobra"
	"golang.org/x/term"

	"frugalheron/app/action"
	"frugalheron/web"
)

func databaseCommand() *cobra.Command {
	var url string
	migrate := &cobra.Command{
		Use:   "migrate",
		Short: "Bring the schema of a database up to date",
		Args:  cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			db, _, err := openApp(cmd.Context(), url, "")
			if err != nil {
				return err
			}
			fmt.Fprintln(cmd.OutOrStdout(), "The schema is up to date.")
			return db.Close()
		}),
	}
	databaseFlag(migrate, &url)
	cmd := &cobra.Command{Use: "db", Short: "Look after the database"}
	cmd.AddCommand(migrate)
	return cmd
}

func userCommand() *cobra.Command {
	var url, name, role string
	add := &cobra.Command{
		Use:   "add LOGIN",
		Short: "Add an account; the password is asked for, or read from standard input",
		Args:  cobra.ExactArgs(1),
		RunE: run(func(cmd *cobra.Command, args []string) error {
			db, actions, err := openApp(cmd.Context(), url, "")
			if err != nil {
				return err
			}
			defer db.Close()
			password, err := askPassword(cmd)
			if err != nil {
				return err
			}
			if _, err := actions.Accounts.AddAccount(cmd.Context(), args[0], name, action.Role(role),
				password); err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "%s can sign in as %s.\n", args[0], role)
			return nil
		}),
	}
	databaseFlag(add, &url)
	add.Flags().StringVar(&name, "name", "", "name shown beside what the account does; the login unless given")
	add.Flags().StringVar(&role, "role", string(action.Viewer), "curator, technician or viewer")
	cmd := &cobra.Command{Use: "user", Short: "Look after accounts"}
	cmd.AddCommand(add)
	return cmd
}

func askPassword(cmd *cobra.Command) (string, error) {
	terminal := int(os.Stdin.Fd())
	if !term.IsTerminal(terminal) {
		line, err := bufio.NewReader(cmd.InOrStdin()).ReadString('\n')
		if line == "" && err != nil {
			return "", fmt.Errorf("no password on standard input: %w", err)
		}
		return strings.TrimRight(line, "\r\n"), nil
	}
	fmt.Fprint(cmd.ErrOrStderr(), "Password: ")
	first, err := term.ReadPassword(terminal)
	if err != nil {
		return "", err
	}
	fmt.Fprint(cmd.ErrOrStderr(), "\nOnce more: ")
	second, err := term.ReadPassword(terminal)
	fmt.Fprintln(cmd.ErrOrStderr())
	if err != nil {
		return "", err
	}
	if string(first) != string(second) {
		return "", fmt.Errorf("the two passwords differ; nothing was added")
	}
	return string(first), nil
}

func openAPICommand() *cobra.Command {
	return &cobra.Command{
		Use:   "openapi",
		Short: "Print the OpenAPI document of the API",
		Args:  cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			document, err := json.MarshalIndent(web.Describe(), "", "  ")
			if err != nil {
				return err
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "%s\n", document)
			return err
		}),
	}
}
