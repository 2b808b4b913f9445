package app

import (
	"context"
	"fmt"
	"maps"
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
	Words    wording
	isStaffs bool
}

// events are all kinds by their keys.
var events = map[string]*event{}

// NewEvent makes a kind of events. Two of one key, or one of a subject that nobody knows, are mistakes that show at start.
func NewEvent(key, subject string, words wording) *event {
	if events[key] != nil {
		panic("two events are called " + key)
	}
	e := &event{key: key, subject: subject, Words: words}
	events[key] = e
	return e
}

// eventOf is the kind of events with a key; nil for one of a version that is not ours.
func eventOf(key string) *event { return events[key] }

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

// Of is the event done to another of its kinds of records.
func (e *event) Of(subject string) *event {
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

// Events lists all kinds, by their keys.
func Events() map[string]*event { return maps.Clone(events) }

// Subjects are the kinds of records that the event is done to, the usual one first.
func (e *event) Subjects() []string { return append([]string{e.subject}, e.also...) }

// IsSubject reports whether it is known of a kind of records who may read of it in the history.
func IsSubject(kind string) bool {
	_, known := subjects[kind]
	return known
}
