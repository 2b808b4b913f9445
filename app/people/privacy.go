package people

import (
	"context"
	"fmt"
	"reflect"
	"sync/atomic"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/names"
	"frugalheron/core/sheet"
	"frugalheron/store/people"
	"frugalheron/store/pg"
)

// Privacy keeps the names of private persons out of what leaves for others than staff: in typed texts each name, in
// every spelling, gives way to what everybody may know of that person. Keys, numbers and markings are no texts.
type Privacy struct {
	n        int64
	persons  []names.Person
	matcher  *names.Matcher
	notMeant map[notMeant]bool
}

// notMeant says that a person is not meant by words of a text.
type notMeant struct {
	person    int64
	sum, said string
}

// textFields know where typed texts stand in values.
var textFields names.Fields

// privacyCache keeps the last Privacy made. It is asked for by the count of changes in the database, so that a process
// never works with names that another has changed.
type privacyCache struct{ last atomic.Pointer[Privacy] }

// PrivacyIn reads who is private, as the handle sees it.
func (s *Service) PrivacyIn(ctx context.Context, h pg.Handle) (*Privacy, error) {
	n, isOwn, err := people.PrivacyState(ctx, h)
	if err != nil {
		return nil, err
	}
	if last := s.private.last.Load(); last != nil && last.n == n && !isOwn {
		return last, nil
	}
	made, err := loadPrivacy(ctx, h, n)
	// What this transaction changed is nobody else's yet.
	if err == nil && !isOwn {
		s.private.last.Store(made)
	}
	return made, err
}

func loadPrivacy(ctx context.Context, h pg.Handle, n int64) (*Privacy, error) {
	parties, err := people.PrivatePersons(ctx, h)
	if err != nil {
		return nil, err
	}
	decided, err := people.DecidedMentions(ctx, h)
	if err != nil {
		return nil, err
	}
	p := &Privacy{n: n, notMeant: map[notMeant]bool{}}
	said := map[int64][]string{}
	for _, d := range decided {
		if d.Meant {
			// However the person is called by now: who is meant by that is known.
			said[d.PartyID] = append(said[d.PartyID], d.Said)
		} else {
			p.notMeant[notMeant{d.PartyID, d.TextSum, d.Said}] = true
		}
	}
	for _, party := range parties {
		p.persons = append(p.persons, names.Person{
			ID: party.ID, Name: party.Name, Role: party.Role,
			Spellings: append(input.FilledLines(party.Spellings), said[party.ID]...),
		})
	}
	p.matcher = names.New(p.persons)
	return p, nil
}

// IsIdle reports whether nobody is private.
func (p *Privacy) IsIdle() bool { return p.matcher.IsEmpty() }

// Text takes the names out of a text.
func (p *Privacy) Text(text string) string {
	sum := ""
	return p.matcher.Redact(text, func(m names.Mention) bool {
		if len(p.notMeant) == 0 {
			return false
		}
		if sum == "" {
			sum = sumOf(text)
		}
		return p.notMeant[notMeant{m.Person, sum, text[m.Start:m.End]}]
	})
}

// Sheet takes the names out of what people say in a sheet in their own words.
func (p *Privacy) Sheet(text string) string {
	if p.IsIdle() || len(p.matcher.Find(text)) == 0 {
		return text
	}
	return sheet.RewriteProse(text, p.Text)
}

// finding takes the names out of the kind of a finding, unless it is a known one.
func (p *Privacy) finding(kind string) string {
	if sheet.IsKnownFinding(kind) {
		return kind
	}
	return p.Text(kind)
}

// PublicOf returns a value without the names in its typed texts. A row of the store, of which nobody knows what its
// texts are, is a mistake of whoever wrote that.
func PublicOf[Value any](p *Privacy, value Value) Value {
	if action.HoldsRow(reflect.TypeOf(value)) {
		panic(fmt.Sprintf("what goes out is a view; a %T holds a row of the store", value))
	}
	if p.IsIdle() {
		return value
	}
	clean, _ := textFields.Rewrite(value, names.Rewriting{"text": p.Text, "sheet": p.Sheet,
		"finding": p.finding}).(Value)
	return clean
}

// Privacy reads what is kept from others than staff.
func (s *Service) Privacy(ctx context.Context) (*Privacy, error) {
	return s.PrivacyIn(ctx, s.kernel.Reader(ctx))
}

// Public returns an answer as others than staff may read it: without the names of private persons.
func (p *Privacy) Public(answer any) any { return PublicOf(p, answer) }

// OnlyPublic reports whether an actor's searches and counts look at public texts: they do for others than staff, where
// any record says less to them.
func (s *Service) OnlyPublic(ctx context.Context, actor action.Actor) (bool, error) {
	if !actor.Hides() {
		return false, nil
	}
	return people.HasPublicTexts(ctx, s.kernel.Reader(ctx))
}
