package upkeep

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"errors"
	"fmt"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/people"
	"frugalheron/core/upkeep"
	storeupkeep "frugalheron/store/upkeep"
)

// Feed is the address at which a calendar program reads what falls due and what is planned.
type Feed struct {
	MadeAt *time.Time `json:"madeAt" doc:"Null while there is none"`
	Path   string     `json:"path" says:"code" doc:"Where it is read, with the secret: told once, when it is made; only what it hashes to is kept"`
}

// FeedOf says whether an account has one.
func (s *Service) FeedOf(ctx context.Context, actor action.Actor) (Feed, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Feed{}, err
	}
	row, err := storeupkeep.FeedOf(ctx, s.kernel.Reader(ctx), actor.AccountID)
	if errors.Is(err, action.ErrNotFound) {
		return Feed{}, nil
	}
	return Feed{MadeAt: &row.MadeAt}, err
}

// MakeFeed gives the account a new secret address. The one before leads nowhere from then on.
func (s *Service) MakeFeed(ctx context.Context, actor action.Actor) (Feed, error) {
	secret := rand.Text()
	var made Feed
	err := s.kernel.Do(ctx, actor, action.MayLook, func(tx *sqlx.Tx) error {
		if err := storeupkeep.PutFeed(ctx, tx, actor.AccountID, hashOf(secret)); err != nil {
			return err
		}
		row, err := storeupkeep.FeedOf(ctx, tx, actor.AccountID)
		if err != nil {
			return err
		}
		made = Feed{MadeAt: &row.MadeAt, Path: "/api/calendar/" + secret + "/heron.ics"}
		return action.Record(ctx, tx, actor, eventMakeFeed, actor.AccountID, nil, nil,
			map[string]any{"login": actor.Name})
	})
	return made, err
}

// DropFeed takes the address away.
func (s *Service) DropFeed(ctx context.Context, actor action.Actor) error {
	return s.kernel.Do(ctx, actor, action.MayLook, func(tx *sqlx.Tx) error {
		if _, err := storeupkeep.FeedOf(ctx, tx, actor.AccountID); err != nil {
			return err
		}
		if err := storeupkeep.DropFeed(ctx, tx, actor.AccountID); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventDropFeed, actor.AccountID, nil, map[string]any{"login": actor.Name},
			nil)
	})
}

// hashOf is what is kept of a secret: it is long and random, so that a plain hash is enough.
func hashOf(secret string) []byte {
	sum := sha256.Sum256([]byte(secret))
	return sum[:]
}

// ErrFeedEnded is returned for an address that was renewed or taken away, that was never made, or whose account is gone.
var ErrFeedEnded = errors.New("this calendar address has ended; make a new one under your account")

// weeksInFeed is how far ahead a calendar reads.
const weeksInFeed = 53

// ReadFeed writes the calendar of a secret as iCalendar; ErrFeedEnded for one that opens nothing.
// It tells tasks and accession numbers alone, and no names of private persons and no places: an address can be passed on.
func (s *Service) ReadFeed(ctx context.Context, secret string) (action.Content, error) {
	feed, err := storeupkeep.FeedBySecret(ctx, s.kernel.Reader(ctx), hashOf(secret))
	actor := action.Actor{}
	if err == nil {
		actor, err = s.accounts.ActorByID(ctx, feed.AccountID)
	}
	if errors.Is(err, action.ErrNotFound) {
		err = ErrFeedEnded
	}
	if err != nil {
		return action.Content{}, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (action.Content, error) {
		first := upkeep.Monday(actor.Day())
		entries, err := s.entries(ctx, actor, first.String(), first.AddDays(7*weeksInFeed-1).String())
		if err != nil {
			return action.Content{}, err
		}
		p, err := s.people.PrivacyIn(ctx, s.kernel.Reader(ctx))
		if err != nil {
			return action.Content{}, err
		}
		written := calendarOf(people.PublicOf(p, entries), actor.Today(), fmt.Sprintf("%x", hashOf(secret)[:6]),
			time.Now())
		return action.Content{MediaType: "text/calendar; charset=utf-8", FileName: "heron.ics",
			Data: []byte(written)}, nil
	})
}

// calendarOf writes what falls due and what is planned, each as an event of a whole day. What is overdue stands on today.
func calendarOf(entries []DiaryEntry, today, home string, now time.Time) string {
	cal := ics.NewCalendar()
	cal.SetProductId("-//Frugal Heron//Diary//EN")
	cal.SetMethod(ics.MethodPublish)
	cal.SetXWRCalName("Frugal Heron")
	cal.SetRefreshInterval("PT6H", ics.WithValue("DURATION"))
	for i, e := range entries {
		if e.Sort == upkeep.WasDone || e.IsDone {
			continue
		}
		id, day, words := fmt.Sprintf("%s-%d-%s", e.Kind, e.ID, e.On), e.On, e.What
		if e.Sort == upkeep.FallsDue && e.OverdueDays > 0 {
			id, day, words = fmt.Sprintf("%s-%d-overdue", e.Kind, e.ID), today, "Overdue: "+words
		}
		if e.Kind == KindDeadline {
			id += fmt.Sprintf("-%d", i) // a job and an order may have one number
		}
		if e.Kind == KindUpkeep && e.Count > 1 {
			words += fmt.Sprintf(" (%d)", e.Count)
		}
		on, err := time.Parse(time.DateOnly, day)
		if err != nil {
			continue // it was checked when it was written
		}
		event := cal.AddEvent(id + "@" + home + ".frugal-heron")
		event.SetDtStampTime(now)
		event.SetAllDayStartAt(on)
		event.SetAllDayEndAt(on.AddDate(0, 0, 1))
		event.SetSummary(words)
		event.SetTimeTransparency(ics.TransparencyTransparent)
		described := []string{}
		if len(e.Accessions) > 0 {
			described = append(described, strings.Join(e.Accessions, ", "))
		}
		if rest := e.Count - len(e.Accessions); e.Kind == KindUpkeep && rest > 0 {
			described = append(described, fmt.Sprintf("and %d more", rest))
		}
		if e.Minutes > 0 {
			described = append(described, fmt.Sprintf("about %d minutes", e.Minutes))
		}
		if len(described) > 0 {
			event.SetDescription(strings.Join(described, "; "))
		}
	}
	return cal.Serialize(ics.WithNewLineWindows)
}
