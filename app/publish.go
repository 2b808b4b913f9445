package app

import (
	"context"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/names"
	"frugalheron/store"
)

// publishedAtOnce bounds how many public texts are made in one step.
const publishedAtOnce = 5000

// publish makes the public texts of the records anew that a transaction has changed. The database itself notes which
// these are, so that no deed can forget it.
func (a *App) publish(ctx context.Context, tx *sqlx.Tx) error {
	for {
		due, err := store.TakePublicDue(ctx, tx, publishedAtOnce)
		if err != nil || len(due) == 0 {
			return err
		}
		p, err := a.privacy(ctx, tx)
		if err != nil {
			return err
		}
		for _, kind := range store.PublicKinds {
			if err := publishRecords(ctx, tx, p, kind, due[kind]); err != nil {
				return err
			}
		}
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
func (a *App) publishAgain(ctx context.Context, tx *sqlx.Tx, persons ...names.Person) error {
	p, err := a.privacy(ctx, tx)
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

// PublishOld makes the public texts that an older version of the application has not made.
func (a *App) PublishOld(ctx context.Context) error {
	for {
		before, err := store.CountPublicDue(ctx, a.db)
		if err != nil || before == 0 {
			return err
		}
		if err := store.InTx(ctx, a.db, func(tx *sqlx.Tx) error { return a.publish(ctx, tx) }); err != nil {
			return err
		}
	}
}
