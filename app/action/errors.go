package action

import (
	"errors"

	"frugalheron/store/pg"
)

// Errors of actions. Stale and Invalid carry more and are types.
var (
	ErrNotFound  = pg.ErrNotFound
	ErrForbidden = errors.New("your account's role does not allow this")
)

// Invalid is returned for input that cannot be taken. Field is its JSON name.
type Invalid struct {
	Field, Why string
}

// Reject returns what is wrong with a field.
func Reject(field, why string) error { return &Invalid{Field: field, Why: why} }

// Error says which field is wrong and why.
func (e *Invalid) Error() string { return e.Field + ": " + e.Why }

// Stale is returned when somebody changed the record since the caller read it. Newer is the
// record as it is now.
type Stale struct {
	What  string
	Newer any
}

// Error says what was changed meanwhile.
func (e *Stale) Error() string {
	return e.What + " was changed by somebody else since you read it; nothing was overwritten"
}

// Busy is returned when something that only so many may do at once did not get its turn. Nothing was done.
type Busy struct{ What string }

// Error says what was waited for.
func (e *Busy) Error() string {
	return "too much is going on at once (" + e.What + "); try again in a moment"
}
