package wanted

import (
	"context"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/input"
	"frugalheron/store/history"
	"frugalheron/store/wanted"
)

// OfferInput is what somebody offers.
type OfferInput struct {
	Title       string `json:"title" says:"text" maxLength:"200" example:"Box of Meridian cards"`
	Text        string `json:"text" says:"text" maxLength:"20000" required:"false" doc:"As it is offered, word for word"`
	Source      string `json:"source" says:"text" maxLength:"400" required:"false" doc:"Who offers it, and where"`
	AskingCents *int64 `json:"askingCents,omitempty" minimum:"0" maximum:"1000000000000" doc:"In the currency of the collection; left out where nobody said"`
	LimitCents  *int64 `json:"limitCents,omitempty" minimum:"0" maximum:"1000000000000" doc:"What one would pay at most, carriage included"`
	SeenOn      string `json:"seenOn" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	EndsOn      string `json:"endsOn" maxLength:"10" required:"false" doc:"YYYY-MM-DD; empty where nobody said"`
	State       string `json:"state" enum:"open,gone,declined" default:"open" required:"false" doc:"Gone to somebody else, or declined"`
	Note        string `json:"note" says:"text" maxLength:"2000" required:"false"`
}

// Offer is what somebody offers, with what it amounts to.
type Offer struct {
	ID int64 `json:"id"`
	OfferInput
	LotID   *int64  `json:"lotId" doc:"The lot that it became, or null"`
	Weighed Weighed `json:"weighed"`
	Version int     `json:"version"`
}

func tellOffer(row wanted.Offer) Offer {
	kept, _ := action.ReadKept[OfferInput](row.Body) // written by this package alone
	return Offer{ID: row.ID, OfferInput: kept, LotID: row.LotID, Version: row.Version, Weighed: nothing()}
}

func (o Offer) row(voided bool) wanted.Offer {
	return wanted.Offer{ID: o.ID, Body: action.ToKeep(o.OfferInput), LotID: o.LotID,
		IsOpen: o.State == "open" && o.LotID == nil, Voided: voided}
}

// words are all that is compared.
func (in OfferInput) words() string { return in.Title + "\n" + in.Text }

var offers = action.Records[wanted.Offer, Offer]{What: "the offer", Lock: wanted.LockOffer, Read: wanted.OfferByID,
	Version: func(r wanted.Offer) int { return r.Version },
	Told:    func(r wanted.Offer) any { return tellOffer(r).OfferInput }, View: tellOffer,
	Machine: func(wanted.Offer) *int64 { return nil }}

func (in *OfferInput) check(actor action.Actor) error {
	if in.SeenOn == "" {
		in.SeenOn = actor.Today()
	}
	if in.State == "" {
		in.State = "open"
	}
	err := input.CheckAll(input.OneLine("title", &in.Title), input.Lines("text", &in.Text),
		input.OneLine("source", &in.Source), input.Lines("note", &in.Note),
		input.PastDay("seenOn", in.SeenOn, actor.Today()))
	switch {
	case err != nil:
		return err
	case in.Title == "":
		return action.Reject("title", "say in a few words what is offered")
	case in.EndsOn == "":
		return nil
	}
	return input.Day("endsOn", in.EndsOn)
}

// Offers lists what is offered, the open ones first, those with what they amount to.
func (s *Service) Offers(ctx context.Context, actor action.Actor) ([]Offer, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) ([]Offer, error) {
		h := s.kernel.Reader(ctx)
		rows, err := wanted.Offers(ctx, h, mostOffers)
		if err != nil {
			return nil, err
		}
		with, err := s.beside(ctx, actor, h, rows)
		if err != nil {
			return nil, err
		}
		told := action.Views(rows, tellOffer)
		for i := range told {
			if rows[i].IsOpen {
				told[i].Weighed = with.compare(told[i].ID, told[i].OfferInput)
			}
		}
		return told, nil
	})
}

// Ending lists the open offers that have an end, without what they amount to.
func (s *Service) Ending(ctx context.Context, actor action.Actor) ([]Offer, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	rows, err := wanted.Offers(ctx, s.kernel.Reader(ctx), mostOffers)
	ending := []Offer{}
	for _, row := range rows {
		if o := tellOffer(row); row.IsOpen && o.EndsOn != "" {
			ending = append(ending, o)
		}
	}
	return ending, err
}

// ReadOffer tells what an offer amounts to, without keeping it.
func (s *Service) ReadOffer(ctx context.Context, actor action.Actor, in OfferInput) (Weighed, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nothing(), err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Weighed, error) {
		h := s.kernel.Reader(ctx)
		rows, err := wanted.Offers(ctx, h, mostOffers)
		if err != nil {
			return nothing(), err
		}
		with, err := s.beside(ctx, actor, h, rows)
		return with.compare(0, in), err
	})
}

// AddOffer keeps an offer.
func (s *Service) AddOffer(ctx context.Context, actor action.Actor, in OfferInput) (Offer, error) {
	var added Offer
	if err := in.check(actor); err != nil {
		return added, err
	}
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		id, err := wanted.InsertOffer(ctx, tx, Offer{OfferInput: in}.row(false))
		if err != nil {
			return err
		}
		row, err := wanted.OfferByID(ctx, tx, id)
		if err != nil {
			return err
		}
		added = tellOffer(row)
		return action.Record(ctx, tx, actor, eventAddOffer, id, nil, nil, in)
	})
	return added, err
}

// ChangeOffer rewrites one, starting from a version.
func (s *Service) ChangeOffer(ctx context.Context, actor action.Actor, id int64, version int, in OfferInput) (Offer,
	error) {
	if err := in.check(actor); err != nil {
		return Offer{}, err
	}
	return offers.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets,
		Event: eventChangeOffer,
		ID:    id, Version: version}, func(tx *sqlx.Tx, before wanted.Offer) error {
		if before.Voided {
			return action.ErrNotFound
		}
		return wanted.UpdateOffer(ctx, tx, Offer{ID: id, OfferInput: in, LotID: before.LotID}.row(false))
	})
}

// TakenOffer is that an offer was bought, or given.
type TakenOffer struct {
	Method     string  `json:"method" enum:"purchase,auction,gift,exchange" default:"purchase" required:"false"`
	Arrived    string  `json:"arrived" maxLength:"40" required:"false" doc:"EDTF; today when it is left out"`
	PriceCents *int64  `json:"priceCents,omitempty" minimum:"0" maximum:"1000000000000" doc:"Without extra costs; left out where nobody knows"`
	Found      []int64 `json:"found" nullable:"false" required:"false" maxItems:"1000" doc:"What was looked for and is here now; it is looked for no more"`
}

// kindsOfItems are the kinds of things of a lot, by kinds of what is wanted.
var kindsOfItems = map[string]string{"part": "part", "card": "board", "machine": "machine", "keyboard": "peripheral",
	"lead": "part", "accessory": "peripheral", "media": "media", "software": "media", "manual": "document",
	"other": "part"}

// TakeOffer makes a lot of an offer: with what was looked for as its things, which ends their search, or else with one thing
// by its title.
func (s *Service) TakeOffer(ctx context.Context, actor action.Actor, id int64, version int, in TakenOffer) (Offer,
	error) {
	if in.Method == "" {
		in.Method = "purchase"
	}
	if in.Arrived == "" {
		in.Arrived = actor.Today()
	}
	var taken Offer
	err := s.kernel.Whole(ctx, actor, action.MayKeepTheRecord, func(ctx context.Context, tx *sqlx.Tx) error {
		row, err := offers.Locked(ctx, tx, id, version)
		if err != nil {
			return err
		}
		o := tellOffer(row)
		switch {
		case row.Voided:
			return action.ErrNotFound
		case o.LotID != nil:
			return action.Reject("id", "it became a lot already")
		}
		things, err := s.found(ctx, tx, actor, in.Found, o)
		if err != nil {
			return err
		}
		if len(things) == 0 {
			things = append(things, arrivals.LotItemInput{Kind: "part", Title: o.Title})
		}
		lot, err := s.arrivals.Receive(ctx, actor, arrivals.AcquisitionInput{Title: o.Title, Method: in.Method,
			Arrived: in.Arrived, PriceCents: in.PriceCents, Spread: "estimate", Note: noteOf(o)}, things)
		if err != nil {
			return err
		}
		o.LotID = &lot.ID
		if err := s.files.HandOn(ctx, tx, actor, id, lot.ID); err != nil {
			return err
		}
		if err := wanted.UpdateOffer(ctx, tx, o.row(false)); err != nil {
			return err
		}
		if row, err = wanted.OfferByID(ctx, tx, id); err != nil {
			return err
		}
		taken = tellOffer(row)
		return action.Record(ctx, tx, actor, eventTakeOffer, id, nil, nil, map[string]any{"title": o.Title,
			"lot": lot.ID})
	})
	return taken, err
}

// mostNote bounds the note of a lot, in characters.
const mostNote = 4000

func noteOf(o Offer) string {
	note := strings.TrimSpace(strings.Join([]string{o.Source, o.Text, o.Note}, "\n"))
	if runes := []rune(note); len(runes) > mostNote {
		return string(runes[:mostNote-1]) + "…"
	}
	return note
}

// found ends the search for what is here now, and makes things of a lot of it.
func (s *Service) found(ctx context.Context, tx *sqlx.Tx, actor action.Actor, ids []int64,
	o Offer) ([]arrivals.LotItemInput,
	error) {
	things := []arrivals.LotItemInput{}
	for _, id := range ids {
		row, err := wanted.LockWant(ctx, tx, id)
		if err != nil {
			return nil, err
		}
		before := tellWant(row)
		if row.Voided || before.State != "open" {
			return nil, action.Reject("found", fmt.Sprintf("%s is looked for no more", before.What))
		}
		after := before
		after.State = "found"
		after.Note = strings.TrimSpace(after.Note + "\nfound in " + o.Title)
		if err := wanted.UpdateWant(ctx, tx, after.row(false)); err != nil {
			return nil, err
		}
		if err := action.Record(ctx, tx, actor, eventChangeWant, id, before.MachineID, before.told(),
			after.told()); err != nil {
			return nil, err
		}
		things = append(things, arrivals.LotItemInput{Kind: kindsOfItems[before.Kind], Title: before.What})
	}
	return things, nil
}

var voidedOffers = action.Voiding[wanted.Offer]{Roles: action.MayWriteSheets, Event: eventVoidOffer,
	Back: eventTakeBackVoidOfOffer, IsVoided: func(r wanted.Offer) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r wanted.Offer, voided bool) error {
		if voided && r.LotID != nil {
			return action.Reject("id", "it became a lot, which says where that is from; it stays")
		}
		r.Voided = voided
		return wanted.UpdateOffer(ctx, tx, r)
	}}

// VoidOffer strikes one out that was entered by mistake.
func (s *Service) VoidOffer(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return offers.Void(ctx, s.kernel, actor, voidedOffers, id, version)
}

func (s *Service) undoVoidOffer(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return offers.Unvoid(ctx, s.kernel, actor, voidedOffers, e)
}
