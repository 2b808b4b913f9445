package app

import (
	"context"
	"fmt"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/store"
)

// event is a kind of what can be done. It is made once, with what is known of it: how the history keeps it, what it is
// done to, how it is said. Who may take it back, and how, the kernel is told.
type event struct {
	key      string // as the history keeps it; never changed, as old rows hold it
	subject  string // kind of record, one of subjects
	also     []string
	words    wording
	isStaffs bool
}

// wording says what was done to a subject, from which state to which.
type wording func(subject string, before, after fields) string

// events are all kinds by their keys.
var events = map[string]*event{}

// newEvent makes a kind of events. Two of one key, or one of a subject that nobody knows, are mistakes that show at start.
func newEvent(key, subject string, words wording) *event {
	if events[key] != nil {
		panic("two events are called " + key)
	}
	e := &event{key: key, subject: subject, words: words}
	events[key] = e
	return e
}

// alsoOf names other kinds of records that the event is done to.
func (e *event) alsoOf(kinds ...string) *event {
	e.also = kinds
	return e
}

// forStaff keeps the event from others, whatever it was done to: it speaks of what stands in documents for staff.
func (e *event) forStaff() *event {
	e.isStaffs = true
	return e
}

// of is the event done to another of its kinds of records.
func (e *event) of(subject string) *event {
	if subject != e.subject && !slices.Contains(e.also, subject) {
		panic(fmt.Sprintf("%s is not done to a record of the kind %s", e.key, subject))
	}
	other := *e
	other.subject = subject
	return &other
}

// record writes a row of history.
func record(ctx context.Context, tx *sqlx.Tx, actor Actor, e *event, id int64, machine *int64, before, after any) error {
	_, err := recordEvent(ctx, tx, actor, e, id, machine, before, after)
	return err
}

// recordEvent does so and returns the event's id, for deeds whose answer offers to take them back.
func recordEvent(ctx context.Context, tx *sqlx.Tx, actor Actor, e *event, id int64, machine *int64, before, after any) (int64, error) {
	row := store.Event{Deed: e.key, SubjectKind: e.subject, SubjectID: id, MachineID: machine, AccountID: actor.account()}
	written, err := store.InsertEvent(ctx, tx, row, before, after)
	if err != nil {
		return 0, fmt.Errorf("write history: %w", err)
	}
	return written, nil
}
