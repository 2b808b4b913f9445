package people

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"strings"
	"unicode/utf8"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/core/names"
	"frugalheron/core/sheet"
	"frugalheron/store/history"
	"frugalheron/store/people"
	"frugalheron/store/sheets"
)

// mostMentions bounds what is noted of one action, mostOldMentions what of all that was written before somebody became
// private; listedMention how many are listed at a time.
const (
	mostMentions    = 50
	mostOldMentions = 1000
	listedMention   = 200
)

// oldTextsAtOnce is how many texts are read at a time when old ones are looked through.
const oldTextsAtOnce = 500

// aroundMention is how many bytes are kept on each side of a name.
const aroundMention = 60

type namesFoundKey struct{}

// OnNamesFound lets somebody know, while an action is done with the context, that its texts name private persons.
func OnNamesFound(ctx context.Context, tell func(found int)) context.Context {
	return context.WithValue(ctx, namesFoundKey{}, tell)
}

// noteMentions looks for names of private persons in what a transaction has written behind an event, so that somebody
// can say whether they are meant.
func (s *Service) noteMentions(ctx context.Context, tx *sqlx.Tx, after int64) error {
	p, err := s.PrivacyIn(ctx, tx)
	if err != nil || p.IsIdle() {
		return err
	}
	events, err := history.OwnEvents(ctx, tx, after)
	if err != nil {
		return err
	}
	found := 0
	for _, e := range events {
		if !action.NamesMatter(e.SubjectKind) || found >= mostMentions {
			continue
		}
		n, err := noteMentionsOf(ctx, tx, p, e)
		if err != nil {
			return err
		}
		found += n
	}
	tellNamesFound(ctx, found)
	return nil
}

func tellNamesFound(ctx context.Context, found int) {
	if tell, ok := ctx.Value(namesFoundKey{}).(func(int)); ok && found > 0 {
		tell(found)
	}
}

// noteOldMentions looks for a person in what stands there already: somebody who becomes private, or whose name is
// written another way, is asked about in texts from before, too. What was written anew
// since is left out.
func (s *Service) noteOldMentions(ctx context.Context, tx *sqlx.Tx, person names.Person) error {
	p, err := s.PrivacyIn(ctx, tx)
	if err != nil {
		return err
	}
	asked := history.EventsSaying{Kinds: action.KindsWithNames(), SheetAction: history.ActionSaveSheet,
		Hints: names.Hints([]names.Person{person}), Limit: oldTextsAtOnce}
	for found := 0; ; {
		events, err := history.ListEventsSaying(ctx, tx, asked)
		if err != nil {
			return err
		}
		for _, e := range events {
			n, err := noteMentionsOf(ctx, tx, p, e)
			if err != nil {
				return err
			}
			found += n
		}
		if len(events) < asked.Limit || found >= mostOldMentions {
			tellNamesFound(ctx, found)
			return nil
		}
		asked.Before = events[len(events)-1].ID
	}
}

func noteMentionsOf(ctx context.Context, tx *sqlx.Tx, p *Privacy, e history.Event) (found int, err error) {
	texts, err := textsOf(ctx, tx, e)
	if err != nil {
		return 0, err
	}
	for _, text := range texts {
		n, err := noteMentionsIn(ctx, tx, p, e.ID, text)
		if err != nil {
			return found, err
		}
		found += n
	}
	return found, nil
}

func noteMentionsIn(ctx context.Context, tx *sqlx.Tx, p *Privacy, event int64, text string) (found int, err error) {
	for _, m := range p.matcher.Find(text) {
		isNew, err := people.NoteMention(ctx, tx, people.FoundMention{
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

// around cuts out the whole words on both sides of a mention, with dots where the text goes on.
func around(text string, m names.Mention) string {
	before, after := text[:m.Start], text[m.End:]
	if len(before) > aroundMention {
		before = "… " + before[wordEdge(before, len(before)-aroundMention):]
	}
	if len(after) > aroundMention {
		if edge := wordEdge(after, aroundMention); edge < len(after) {
			after = after[:edge] + " …"
		}
	}
	return strings.Join(strings.Fields(before+text[m.Start:m.End]+after), " ")
}

// wordEdge is the first end of a word at or behind a place in a text; where a word has no end near, that of a letter.
func wordEdge(text string, at int) int {
	for i := at; i < at+aroundMention; i++ {
		if i == len(text) || strings.IndexByte(" \t\n", text[i]) >= 0 {
			return i
		}
	}
	for at < len(text) && !utf8.RuneStart(text[at]) {
		at++
	}
	return at
}

// sumOf is by what a text is known.
func sumOf(text string) string {
	sum := sha256.Sum256([]byte(text))
	return hex.EncodeToString(sum[:])
}

// textsOf lists the texts that an event has written.
func textsOf(ctx context.Context, tx *sqlx.Tx, e history.Event) ([]string, error) {
	if e.Action == history.ActionSaveSheet {
		saved, err := action.StateIn[struct{ Revision int }](e.After)
		if err != nil {
			return nil, err
		}
		revision, err := sheets.RevisionOf(ctx, tx, e.SubjectID, saved.Revision)
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
	action.RewriteTold(written, func(text string) string {
		texts = append(texts, text)
		return text
	})
	return texts, nil
}

// Mentions lists the places in texts of which nobody has said yet whether a private person is meant.
func (s *Service) Mentions(ctx context.Context, actor action.Actor) ([]Mention, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	open, err := people.OpenMentions(ctx, s.kernel.Reader(ctx), listedMention)
	return action.Views(open, mentionOf), err
}

// DecideMention says whether a person is meant in a text. Where not, the text reads the same for everybody.
func (s *Service) DecideMention(ctx context.Context, actor action.Actor, id int64, version int, meant bool) error {
	return s.decideMention(ctx, actor, id, version, &meant, eventDecideMention)
}

var mentions = action.Records[people.Mention, Mention]{
	What: "the mention", Lock: people.LockMention,
	Version: func(m people.Mention) int { return m.Version },
	View:    mentionOf,
}

func (s *Service) decideMention(ctx context.Context, actor action.Actor, id int64, version int, meant *bool,
	decided *action.Event) error {
	return s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		before, err := mentions.Locked(ctx, tx, id, version)
		if err != nil {
			return err
		}
		if err := people.DecideMention(ctx, tx, id, actor.Account(), meant); err != nil {
			return err
		}
		told := mentionTold{PartyID: before.PartyID, Party: before.Party, Spelling: before.Spelling, Meant: meant}
		if err := action.Record(ctx, tx, actor, decided, id, nil,
			mentionTold{PartyID: before.PartyID, Meant: before.Meant}, told); err != nil {
			return err
		}
		return s.publishAgain(ctx, tx, names.Person{Name: before.Spelling})
	})
}

// mentionTold is a decision as the history keeps it.
type mentionTold struct {
	PartyID  int64  `json:"partyId"`
	Party    string `json:"party" says:"text"`
	Spelling string `json:"said" says:"text"`
	Meant    *bool  `json:"meant"`
}

func (s *Service) undoDecideMention(ctx context.Context, actor action.Actor, e history.EventRow) error {
	before, err := action.StateIn[mentionTold](e.Before)
	if err != nil {
		return err
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, people.LockMention,
		func(ctx context.Context, _ *sqlx.Tx, now people.Mention) error {
			return s.decideMention(ctx, actor, now.ID, now.Version, before.Meant, eventTakeBackDecisionOnMention)
		})
}
