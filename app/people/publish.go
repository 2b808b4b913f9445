package people

import (
	"context"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/core/names"
	"frugalheron/store"
)

// renewPublic makes the public texts of records anew.
func (s *Service) renewPublic(kind store.PublicKind) action.Renewal {
	return func(ctx context.Context, tx *sqlx.Tx, ids []int64) error {
		p, err := s.PrivacyIn(ctx, tx)
		if err != nil {
			return err
		}
		return publishRecords(ctx, tx, p, kind, ids)
	}
}

func publishRecords(ctx context.Context, tx *sqlx.Tx, p *Privacy, kind store.PublicKind, ids []int64) error {
	if len(ids) == 0 {
		return nil
	}
	sources, err := store.PublicSourcesOf(ctx, tx, kind, ids)
	if err != nil {
		return err
	}
	open := []int64{}
	for _, source := range sources {
		parts := strings.Split(source.Prose, store.ProseSeparator)
		for i := range parts {
			parts[i] = p.Text(parts[i])
		}
		clean := strings.Join(parts, store.ProseSeparator)
		if clean == source.Prose {
			open = append(open, source.ID)
			continue
		}
		body := clean
		if kind.IsSearched() {
			body = strings.ToLower(source.Plain + " " + strings.ReplaceAll(clean, store.ProseSeparator, " "))
		}
		if err := store.PutPublicText(ctx, tx, kind, source.ID, body); err != nil {
			return err
		}
	}
	return store.DeletePublicTexts(ctx, tx, kind, open)
}

// publishAgain makes the public texts anew of all records in which one of the persons may stand.
func (s *Service) publishAgain(ctx context.Context, tx *sqlx.Tx, persons ...names.Person) error {
	p, err := s.PrivacyIn(ctx, tx)
	if err != nil {
		return err
	}
	hints := names.Hints(persons)
	for _, kind := range store.PublicKinds {
		ids, err := store.RecordsSaying(ctx, tx, kind, hints)
		if err != nil {
			return err
		}
		if err := publishRecords(ctx, tx, p, kind, ids); err != nil {
			return err
		}
	}
	return nil
}
