package people

import (
	"context"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/core/names"
	"frugalheron/store/people"
)

// renewPublic makes the public texts of records anew.
func (s *Service) renewPublic(kind people.PublicKind) action.Renewal {
	return func(ctx context.Context, tx *sqlx.Tx, ids []int64) error {
		p, err := s.PrivacyIn(ctx, tx)
		if err != nil {
			return err
		}
		return publishRecords(ctx, tx, p, kind, ids)
	}
}

func publishRecords(ctx context.Context, tx *sqlx.Tx, p *Privacy, kind people.PublicKind, ids []int64) error {
	if len(ids) == 0 {
		return nil
	}
	sources, err := people.PublicSourcesOf(ctx, tx, kind, ids)
	if err != nil {
		return err
	}
	open := []int64{}
	for _, source := range sources {
		parts := strings.Split(source.Prose, people.ProseSeparator)
		for i := range parts {
			parts[i] = p.Text(parts[i])
		}
		clean := strings.Join(parts, people.ProseSeparator)
		if clean == source.Prose {
			open = append(open, source.ID)
			continue
		}
		body := clean
		if kind.IsSearched() {
			body = strings.ToLower(source.Plain + " " + strings.ReplaceAll(clean, people.ProseSeparator, " "))
		}
		if err := people.PutPublicText(ctx, tx, kind, source.ID, body); err != nil {
			return err
		}
	}
	return people.DeletePublicTexts(ctx, tx, kind, open)
}

// publishAgain makes the public texts anew of all records in which one of the persons may stand.
func (s *Service) publishAgain(ctx context.Context, tx *sqlx.Tx, persons ...names.Person) error {
	p, err := s.PrivacyIn(ctx, tx)
	if err != nil {
		return err
	}
	hints := names.Hints(persons)
	for _, kind := range people.PublicKinds {
		ids, err := people.RecordsSaying(ctx, tx, kind, hints)
		if err != nil {
			return err
		}
		if err := publishRecords(ctx, tx, p, kind, ids); err != nil {
			return err
		}
	}
	return nil
}
