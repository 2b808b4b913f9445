package people

import (
	"context"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/names"
	"frugalheron/store/people"
	"frugalheron/store/pg"
)

// partiesOffered is how many people and organisations a list shows at once.
const partiesOffered = 100

func checkParty(p *PartyInput) error {
	err := input.CheckAll(input.OneLine("name", &p.Name), input.OneLine("role", &p.Role),
		input.Lines("spellings", &p.Spellings), input.OneLine("place", &p.Place), input.Lines("note", &p.Note))
	switch {
	case err != nil:
		return err
	case p.Name == "":
		return action.Reject("name", "give a name")
	case p.Private && p.Kind != "person":
		return action.Reject("private", "only a person can be private; an organisation is known to everybody")
	case p.Private && p.Role == "":
		return action.Reject("role", "say what everybody may know in place of the name, as a former pilot")
	case !p.Private:
		return nil
	case !names.CanBeFound(p.Name):
		return action.Reject("name",
			"a private name has at least three letters, so that it can be kept out of public views")
	}
	for _, spelling := range input.FilledLines(p.Spellings) {
		if !names.CanBeFound(spelling) {
			return action.Reject("spellings",
				fmt.Sprintf(
					"%q is too short; a spelling has at least three letters, as shorter ones stand in too many words",
					spelling))
		}
	}
	if matcher := names.New([]names.Person{personOf(people.Party{PartyFields: people.PartyFields(*p)})}); len(
		matcher.Find(p.Role)) > 0 {
		return action.Reject("role", "holds the name itself; everybody is shown the role")
	}
	return nil
}

// personOf is a party as names are looked for.
func personOf(p people.Party) names.Person {
	return names.Person{ID: p.ID, Name: p.Name, Role: p.Role, Spellings: input.FilledLines(p.Spellings)}
}

// AddParty adds a person or an organisation.
func (s *Service) AddParty(ctx context.Context, actor action.Actor, fields PartyInput) (Party, error) {
	if err := checkParty(&fields); err != nil {
		return Party{}, err
	}
	var added people.Party
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		id, err := people.InsertParty(ctx, tx, people.PartyFields(fields))
		if err != nil {
			return nameTaken(err, fields.Name)
		}
		if added, err = people.PartyByID(ctx, tx, id); err != nil {
			return err
		}
		if err := action.Record(ctx, tx, actor, eventAddParty, id, nil, nil, fields); err != nil || !fields.Private {
			return err
		}
		if err := s.publishAgain(ctx, tx, personOf(added)); err != nil {
			return err
		}
		return s.noteOldMentions(ctx, tx, personOf(added))
	})
	return partyOf(added), err
}

var parties = action.Records[people.Party, Party]{
	What: "the party", Lock: people.LockParty, Read: people.PartyByID,
	Version: func(p people.Party) int { return p.Version },
	Told:    func(p people.Party) any { return PartyInput(p.PartyFields) },
	View:    partyOf,
}

// ChangeParty rewrites what is said of a party, starting from a version.
func (s *Service) ChangeParty(ctx context.Context, actor action.Actor, id int64, version int,
	fields PartyInput) (Party, error) {
	if err := checkParty(&fields); err != nil {
		return Party{}, err
	}
	change := action.Change{Actor: actor, Roles: action.MayKeepTheRecord, Event: eventChangeParty, ID: id,
		Version: version}
	return parties.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, before people.Party) error {
		if err := people.UpdateParty(ctx, tx, id, people.PartyFields(fields)); err != nil {
			return nameTaken(err, fields.Name)
		}
		if !before.Private && !fields.Private {
			return nil
		}
		now := personOf(people.Party{ID: id, PartyFields: people.PartyFields(fields)})
		if err := s.publishAgain(ctx, tx, personOf(before), now); err != nil || !fields.Private {
			return err
		}
		return s.noteOldMentions(ctx, tx, now)
	})
}

func nameTaken(err error, name string) error {
	if pg.Violates(err, "party_name_key") {
		return action.Reject("name", name+" is in the list already")
	}
	return err
}

// Parties lists people and organisations by words of their names. Only staff may ask.
func (s *Service) Parties(ctx context.Context, actor action.Actor, words string) ([]Party, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	found, err := people.ListParties(ctx, s.kernel.Reader(ctx), strings.Fields(words), partiesOffered)
	return action.Views(found, partyOf), err
}
