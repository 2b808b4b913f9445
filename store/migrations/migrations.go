// Package migrations holds the schema of the database, change by change, in the order of their numbers.
package migrations

import "embed"

// Files are the changes, each with the way back.
//
//go:embed *.sql
var Files embed.FS
