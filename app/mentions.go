package app

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"strings"
	"unicode/utf8"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/names"
	"frugalheron/core/sheet"
	"frugalheron/store"
)

// mostMentions bounds what is noted of one deed, and how many are listed.
const (
	mostMentions  = 50
	listedMention = 200
)

// aroundMention is how many bytes are kept on each side of a name.
const aroundMention = 60

type namesFoundKey struct{}

// OnNamesFound lets somebody know, while a deed is done with the context, that its texts name private persons.
func OnNamesFound(ctx context.Context, tell func(found int)) context.Context {
	return context.WithValue(ctx, namesFoundKey{}, tell)
}

// noteMentions looks for names of private persons in what a transaction has written behind an event, so that somebody
// can say whether they are meant.
func (a *App) noteMentions(ctx context.Context, tx *sqlx.Tx, after int64) error {
	p, err := a.privacy(ctx, tx)
	if err != nil || p.IsIdle() {
		return err
	}
	events, err := store.OwnEvents(ctx, tx, after)
	if err != nil {
		return err
	}
	found := 0
	for _, e := range events {
		if !subjects[e.SubjectKind].namesMatter || found >= mostMentions {
			continue
		}
		texts, err := textsOf(ctx, tx, e)
		if err != nil {
			return err
		}
		for _, text := range texts {
			n, err := noteMentionsIn(ctx, tx, p, e.ID, text)
			if err != nil {
				return err
			}
			found += n
		}
	}
	if tell, ok := ctx.Value(namesFoundKey{}).(func(int)); ok && found > 0 {
		tell(found)
	}
	return nil
}

func noteMentionsIn(ctx context.Context, tx *sqlx.Tx, p *Privacy, event int64, text string) (found int, err error) {
	for _, m := range p.matcher.Find(text) {
		isNew, err := store.NoteMention(ctx, tx, store.FoundMention{
			PartyID: m.Person, EventID: event, Said: text[m.Start:m.End], Around: around(text, m), TextSum: sumOf(text),
		})
		if err != nil {
			return found, err
		}
		if isNew {
			found++
		}
	}
	return found, nil
}

// around cuts out the words on both sides of a mention.
func around(text string, m names.Mention) string {
	from, to := max(0, m.Start-aroundMention), min(len(text), m.End+aroundMention)
	for from > 0 && !utf8.RuneStart(text[from]) {
		from--
	}
	for to < len(text) && !utf8.RuneStart(text[to]) {
		to++
	}
	return strings.Join(strings.Fields(text[from:to]), " ")
}

// sumOf is by what a text is known.
func sumOf(text string) string {
	sum := sha256.Sum256([]byte(text))
	return hex.EncodeToString(sum[:])
}

// textsOf lists the texts that an event has written.
func textsOf(ctx context.Context, tx *sqlx.Tx, e store.Event) ([]string, error) {
	if e.Deed == eventSaveSheet.key {
		saved, err := stateIn[struct{ Revision int }](e.After)
		if err != nil {
			return nil, err
		}
		revision, err := store.RevisionOf(ctx, tx, e.SubjectID, saved.Revision)
		texts := []string{}
		sheet.RewriteProse(revision.Body, func(prose string) string {
			texts = append(texts, prose)
			return prose
		})
		return texts, err
	}
	if e.After == nil {
		return nil, nil
	}
	var written any
	if err := json.Unmarshal(*e.After, &written); err != nil {
		return nil, err
	}
	if fields, ok := written.(map[string]any); ok {
		delete(fields, "party") // that points to a person already
	}
	texts := []string{}
	rewriteTold(written, func(text string) string {
		texts = append(texts, text)
		return text
	})
	return texts, nil
}

// Mentions lists the places in texts of which nobody has said yet whether a private person is meant.
func (a *App) Mentions(ctx context.Context, actor Actor) ([]store.Mention, error) {
	if err := actor.must(MayWriteSheets); err != nil {
		return nil, err
	}
	return store.OpenMentions(ctx, a.db, listedMention)
}

// DecideMention says whether a person is meant in a text. Where not, the text reads the same for everybody.
func (a *App) DecideMention(ctx context.Context, actor Actor, id int64, version int, meant bool) error {
	return a.decideMention(ctx, actor, id, version, &meant, eventDecideMention)
}

func (a *App) decideMention(ctx context.Context, actor Actor, id int64, version int, meant *bool, decided *event) error {
	return a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		before, err := store.LockMention(ctx, tx, id)
		if err != nil {
			return err
		}
		if before.Version != version {
			return &Stale{What: "the mention", Newer: before}
		}
		if err := store.DecideMention(ctx, tx, id, actor.account(), meant); err != nil {
			return err
		}
		told := mentionTold{PartyID: before.PartyID, Party: before.Party, Said: before.Said, Meant: meant}
		if err := record(ctx, tx, actor, decided, id, nil, mentionTold{PartyID: before.PartyID, Meant: before.Meant}, told); err != nil {
			return err
		}
		return a.publishAgain(ctx, tx, names.Person{Name: before.Said})
	})
}

// mentionTold is a decision as the history keeps it.
type mentionTold struct {
	PartyID int64  `json:"partyId"`
	Party   string `json:"party" says:"text"`
	Said    string `json:"said" says:"text"`
	Meant   *bool  `json:"meant"`
}

func (a *App) undoDecideMention(ctx context.Context, actor Actor, e store.ToldEvent) error {
	before, err := stateIn[mentionTold](e.Before)
	if err != nil {
		return err
	}
	return undoingOf(a, ctx, actor, e, MayWriteSheets, store.LockMention, func(ctx context.Context, _ *sqlx.Tx, now store.Mention) error {
		return a.decideMention(ctx, actor, now.ID, now.Version, before.Meant, eventTakeBackDecisionOnMention)
	})
}
