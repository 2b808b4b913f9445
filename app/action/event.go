package action

import (
	"context"
	"fmt"
	"maps"
	"reflect"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/store/history"
)

// Event is a kind of what can be done. It is made once, with what is known of it: how the history keeps it, what it is
// done to, how it is said. Who may take it back, and how, the kernel is told.
type Event struct {
	key      string // as the history keeps it; never changed, as old rows hold it
	subject  string // kind of record, one of subjects
	also     []string
	Words    Wording
	isStaffs bool
}

// events are all kinds by their keys.
var events = map[string]*Event{}

// NewEvent makes a kind of events. Two of one key, or one of a subject that nobody knows, are mistakes that show at
// start.
func NewEvent(key, subject string, words Wording) *Event {
	if events[key] != nil {
		panic("two events are called " + key)
	}
	e := &Event{key: key, subject: subject, Words: words}
	events[key] = e
	return e
}

// EventOf is the kind of events with a key; nil for one of a version that is not ours.
func EventOf(key string) *Event { return events[key] }

// AlsoOf names other kinds of records that the event is done to.
func (e *Event) AlsoOf(kinds ...string) *Event {
	e.also = kinds
	return e
}

// ForStaff keeps the event from others, whatever it was done to: it speaks of what stands in documents for staff.
func (e *Event) ForStaff() *Event {
	e.isStaffs = true
	return e
}

// Of is the event done to another of its kinds of records.
func (e *Event) Of(subject string) *Event {
	if subject != e.subject && !slices.Contains(e.also, subject) {
		panic(fmt.Sprintf("%s is not done to a record of the kind %s", e.key, subject))
	}
	other := *e
	other.subject = subject
	return &other
}

// Record writes a row of history.
func Record(ctx context.Context, tx *sqlx.Tx, actor Actor, e *Event, id int64, machine *int64,
	before, after any) error {
	_, err := RecordEvent(ctx, tx, actor, e, id, machine, before, after)
	return err
}

// RecordEvent does so and returns the event's id, for actions whose answer offers to take them back.
func RecordEvent(ctx context.Context, tx *sqlx.Tx, actor Actor, e *Event, id int64, machine *int64,
	before, after any) (int64, error) {
	for _, kept := range []any{before, after} {
		if HoldsRow(reflect.TypeOf(kept)) {
			return 0, fmt.Errorf("history keeps what goes out, by its names there; a %T is a row of the store", kept)
		}
	}
	row := history.Event{Action: e.key, SubjectKind: e.subject, SubjectID: id, MachineID: machine,
		AccountID: actor.Account(), Undoes: undoneIn(ctx)}
	written, err := history.InsertEvent(ctx, tx, row, before, after)
	if err != nil {
		return 0, fmt.Errorf("write history: %w", err)
	}
	return written, nil
}

// Events lists all kinds, by their keys.
func Events() map[string]*Event { return maps.Clone(events) }

// Subjects are the kinds of records that the event is done to, the usual one first.
func (e *Event) Subjects() []string { return append([]string{e.subject}, e.also...) }

// IsSubject reports whether it is known of a kind of records who may read of it in the history.
func IsSubject(kind string) bool {
	_, known := subjects[kind]
	return known
}
