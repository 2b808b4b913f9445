package main

import "github.com/spf13/cobra"

func serveCommand() *cobra.Command    { return &cobra.Command{Use: "serve"} }
func demoCommand() *cobra.Command     { return &cobra.Command{Use: "demo"} }
func databaseCommand() *cobra.Command { return &cobra.Command{Use: "db"} }
func userCommand() *cobra.Command     { return &cobra.Command{Use: "user"} }
func openAPICommand() *cobra.Command  { return &cobra.Command{Use: "openapi"} }
