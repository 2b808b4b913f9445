// Package pg keeps the collection in PostgreSQL. It knows SQL and none of the rules of the
// job: every function takes the handle it runs on, so that callers decide what is one
// transaction.
package pg

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"math/rand/v2"
	"strconv"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/lock"

	"frugalheron/store/migrations"
)

// ErrNotFound is returned when the one row that was asked for does not exist.
var ErrNotFound = errors.New("not found")

// Handle is what store functions run on: a database or a transaction.
type Handle interface {
	sqlx.ExtContext
	GetContext(ctx context.Context, dest any, query string, args ...any) error
	SelectContext(ctx context.Context, dest any, query string, args ...any) error
}

var (
	_ Handle = (*sqlx.DB)(nil)
	_ Handle = (*sqlx.Tx)(nil)
)

// Connections of one process. The sum over all processes must stay below what PostgreSQL allows
// (100 unless configured).
const maxConnections = 20

// statementLasts is how long one statement may take. Migrations take as long as they need.
const statementLasts = 30 * time.Second

func milliseconds(d time.Duration) string { return strconv.FormatInt(d.Milliseconds(), 10) }

// Open connects to a database by URL and makes sure that it answers.
func Open(ctx context.Context, url string) (*sqlx.DB, error) {
	config, err := pgx.ParseConfig(url)
	if err != nil {
		return nil, fmt.Errorf("address of PostgreSQL: %w", err)
	}
	config.RuntimeParams["statement_timeout"] = milliseconds(statementLasts)
	config.RuntimeParams["idle_in_transaction_session_timeout"] = milliseconds(statementLasts)
	// Neither the zone of the server nor that of this process decides what day it is.
	config.RuntimeParams["timezone"] = "UTC"
	// Each search is planned for its own words: a plan for any words reads whole indexes for short ones.
	config.RuntimeParams["plan_cache_mode"] = "force_custom_plan"
	db := sqlx.NewDb(stdlib.OpenDB(*config), "pgx")
	if err := db.PingContext(ctx); err != nil {
		db.Close()
		return nil, fmt.Errorf("connect to PostgreSQL: %w", err)
	}
	db.SetMaxOpenConns(maxConnections)
	db.SetMaxIdleConns(maxConnections)
	return db, nil
}

// EnsureDatabase makes an empty database on the server that db is connected to, unless it is there.
func EnsureDatabase(ctx context.Context, db *sqlx.DB, name string) error {
	var exists bool
	err := db.GetContext(ctx, &exists, `SELECT EXISTS (SELECT 1 FROM pg_database WHERE datname = $1)`, name)
	if err != nil || exists {
		return err
	}
	_, err = db.ExecContext(ctx, `CREATE DATABASE `+pgx.Identifier{name}.Sanitize())
	return err
}

// NewMigrator prepares the migrations of the schema for a database. A lock in the database keeps
// two processes from migrating at once.
func NewMigrator(db *sql.DB) (*goose.Provider, error) {
	locker, err := lock.NewPostgresSessionLocker()
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectPostgres, db, migrations.Files, goose.WithSessionLocker(locker))
}

// Migrate brings the schema up to date.
func Migrate(ctx context.Context, db *sqlx.DB) error {
	patient, err := withoutTimeLimit(ctx, db)
	if err != nil {
		return err
	}
	defer patient.Close()
	migrator, err := NewMigrator(patient)
	if err != nil {
		return err
	}
	if _, err := migrator.Up(ctx); err != nil {
		return fmt.Errorf("migrate the database: %w", err)
	}
	return nil
}

// withoutTimeLimit connects to the same database for statements that may take long.
func withoutTimeLimit(ctx context.Context, db *sqlx.DB) (*sql.DB, error) {
	connection, err := db.Conn(ctx)
	if err != nil {
		return nil, err
	}
	defer connection.Close()
	var patient *sql.DB
	err = connection.Raw(func(driver any) error {
		config := driver.(*stdlib.Conn).Conn().Config().Copy()
		config.RuntimeParams["statement_timeout"] = "0"
		config.RuntimeParams["idle_in_transaction_session_timeout"] = "0"
		patient = stdlib.OpenDB(*config)
		return nil
	})
	return patient, err
}

// attempts is how often a transaction is tried that others beside it made fail.
const attempts = 6

// InTx runs work in one transaction: committed when work returns nil, else rolled back. One that failed only
// because of others beside it (a deadlock, or serialisation) is run again, so work must start anew each time.
func InTx(ctx context.Context, db *sqlx.DB, work func(tx *sqlx.Tx) error) error {
	for attempt := 1; ; attempt++ {
		err := inTx(ctx, db, work)
		if err == nil || !mayRunAgain(err) || attempt == attempts {
			return err
		}
		// Two that met once should not meet again at once.
		pause := time.Duration(attempt) * time.Duration(5+rand.IntN(20)) * time.Millisecond
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(pause):
		}
	}
}

// InSnapshot runs reads in one transaction that sees the state of one moment, and writes nothing.
func InSnapshot(ctx context.Context, db *sqlx.DB, read func(tx *sqlx.Tx) error) error {
	tx, err := db.BeginTxx(ctx, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	if err != nil {
		return err
	}
	defer tx.Rollback() //nolint:errcheck // nothing was written
	return read(tx)
}

// SnapshotMark tells the state of the database that a transaction sees from all others, before and after: transactions that
// are told the same see the same. A server that was started anew tells other ones.
func SnapshotMark(ctx context.Context, tx *sqlx.Tx) (string, error) {
	var mark string
	err := tx.GetContext(ctx, &mark,
		`SELECT CAST(pg_current_snapshot() AS text) || ' ' || CAST(pg_postmaster_start_time() AS text)`)
	return mark, err
}

// planOnce lets statements of a transaction be planned once, whatever their arguments: an action asks many small questions by
// number, which take less time than it takes to plan them. Reads outside of actions are planned for their arguments: lists
// have filters that are often empty.
func planOnce(ctx context.Context, tx *sqlx.Tx) error {
	_, err := tx.ExecContext(ctx, `SELECT set_config('plan_cache_mode', 'force_generic_plan', true)`)
	return err
}

func inTx(ctx context.Context, db *sqlx.DB, work func(tx *sqlx.Tx) error) error {
	tx, err := db.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback() //nolint:errcheck // after a commit there is nothing to roll back
	if err := planOnce(ctx, tx); err != nil {
		return err
	}
	if err := work(tx); err != nil {
		return err
	}
	return tx.Commit()
}

// Get reads one row and turns its absence into ErrNotFound, saying what was looked for.
func Get(ctx context.Context, h Handle, dest any, what string, query string, args ...any) error {
	err := h.GetContext(ctx, dest, query, args...)
	if errors.Is(err, sql.ErrNoRows) {
		return fmt.Errorf("%s: %w", what, ErrNotFound)
	}
	return err
}

// Analyze measures all tables for the planner of queries.
func Analyze(ctx context.Context, h Handle) error {
	_, err := h.ExecContext(ctx, `ANALYZE`)
	return err
}
