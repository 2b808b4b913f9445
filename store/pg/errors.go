package pg

import (
	"database/sql"
	"database/sql/driver"
	"errors"
	"io"
	"net"
	"strings"

	"github.com/jackc/pgx/v5/pgconn"
)

// Classes and codes of PostgreSQL's errors, as in appendix A of its manual.
const (
	classConnection = "08"
	classData       = "22"
	classResources  = "53" // too many connections, disk full
	classOperator   = "57P"
	codeDiskFull    = "53100"
	codeTimedOut    = "57014" // statement_timeout, or cancelled
	codeSerialise   = "40001"
	codeDeadlock    = "40P01"
	codeLockTimeout = "55P03"
)

// IsOutOfRange reports whether an error means that a column cannot hold a value.
func IsOutOfRange(err error) bool { return strings.HasPrefix(codeOf(err), classData) }

// IsFull reports whether an error means that the database's disk is full.
func IsFull(err error) bool { return codeOf(err) == codeDiskFull }

// codeOf is PostgreSQL's code of an error; empty for none of its.
func codeOf(err error) string {
	var pg *pgconn.PgError
	if errors.As(err, &pg) {
		return pg.Code
	}
	return ""
}

// IsAway reports whether an error means that the database did not answer, or not in time.
func IsAway(err error) bool {
	if code := codeOf(err); code != "" {
		return strings.HasPrefix(code, classConnection) || strings.HasPrefix(code, classResources) ||
			strings.HasPrefix(code, classOperator) || code == codeTimedOut || code == codeLockTimeout
	}
	var refused *pgconn.ConnectError
	var network *net.OpError // not net.Error: every number of the operating system is one, that of a full disk, too
	return errors.As(err, &refused) || errors.As(err, &network) || errors.Is(err, driver.ErrBadConn) ||
		errors.Is(err, io.ErrUnexpectedEOF) || errors.Is(err, sql.ErrConnDone) || pgconn.SafeToRetry(err)
}

// mayRunAgain reports whether a transaction failed only because of others beside it.
func mayRunAgain(err error) bool {
	code := codeOf(err)
	return code == codeSerialise || code == codeDeadlock
}

// Violates reports whether an error is the breach of the named constraint.
func Violates(err error, constraint string) bool {
	var pg *pgconn.PgError
	return errors.As(err, &pg) && pg.ConstraintName == constraint
}
