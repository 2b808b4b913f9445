// Package storetest gives tests a real PostgreSQL: one throwaway server for the tests of a
// package, and a fresh migrated database for each test.
package storetest

import (
	"context"
	"fmt"
	"os"
	"sync/atomic"
	"testing"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/store/cluster"
	"frugalheron/store/pg"
)

const template = "template_heron"

var (
	server  *cluster.Cluster
	control *sqlx.DB
	counter atomic.Int64
)

// Main runs the tests of a package with a server; call it from TestMain. A missing PostgreSQL
// fails the tests: they must not pass by doing nothing.
func Main(m *testing.M) {
	os.Exit(run(m))
}

func run(m *testing.M) int {
	ctx := context.Background()
	folder, err := os.MkdirTemp("", "heron-test-")
	if err != nil {
		return failed(err)
	}
	defer os.RemoveAll(folder)
	if server, err = cluster.Start(ctx, folder, cluster.Options{Throwaway: true}); err != nil {
		return failed(err)
	}
	defer server.Stop() //nolint:errcheck // the folder goes anyway
	if control, err = pg.Open(ctx, server.URL("postgres")); err != nil {
		return failed(err)
	}
	defer control.Close()
	if _, err = control.Exec(`CREATE DATABASE ` + template); err != nil {
		return failed(err)
	}
	db, err := pg.Open(ctx, server.URL(template))
	if err != nil {
		return failed(err)
	}
	err = pg.Migrate(ctx, db)
	db.Close()
	if err != nil {
		return failed(err)
	}
	return m.Run()
}

func failed(err error) int {
	fmt.Fprintln(os.Stderr, "tests need a PostgreSQL server:", err)
	return 1
}

// URL makes a fresh migrated database for a test and returns its address.
func URL(t testing.TB) string {
	t.Helper()
	name := fmt.Sprintf("test_%d", counter.Add(1))
	if _, err := control.Exec(`CREATE DATABASE ` + name + ` TEMPLATE ` + template); err != nil {
		t.Fatal(err)
	}
	return server.URL(name)
}

// Empty makes a fresh database without schema and returns its address.
func Empty(t testing.TB) string {
	t.Helper()
	name := fmt.Sprintf("empty_%d", counter.Add(1))
	if _, err := control.Exec(`CREATE DATABASE ` + name); err != nil {
		t.Fatal(err)
	}
	return server.URL(name)
}

// New makes a fresh migrated database for a test and connects to it.
func New(t testing.TB) *sqlx.DB {
	t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), 30*time.Second)
	defer cancel()
	db, err := pg.Open(ctx, URL(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { db.Close() })
	return db
}
