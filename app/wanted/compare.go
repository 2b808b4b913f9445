package wanted

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/app/parts"
	corewanted "frugalheron/core/wanted"
	"frugalheron/store/pg"
	"frugalheron/store/wanted"
)

// Weighed is what an offer amounts to beside what is wanted, held, and was paid before.
type Weighed struct {
	Hits   []OfferHit       `json:"hits" doc:"What is looked for and may be in it"`
	Held   []corewanted.Met `json:"held" doc:"Machines and boards of which it names the kind, and how many there are"`
	Stores []OfferStock     `json:"stores" doc:"Drawers that hold what it names"`
	Prices []OfferPrice     `json:"prices" doc:"Of what is like it, the newest first"`
	Over   string           `json:"over" says:"text" doc:"Why the asking price is too high, by what was said; empty where it is not, or nobody said"`
}

// OfferHit is something that is looked for, and may be in an offer.
type OfferHit struct {
	corewanted.Hit
	What      string `json:"what" says:"text"`
	Accession string `json:"accession" doc:"For which machine; empty for none"`
	MachineID *int64 `json:"machineId" doc:"null for none"`
	MostCents *int64 `json:"mostCents" doc:"What one would pay at most; null where nobody said"`
}

// OfferStock is a drawer that holds what an offer names.
type OfferStock struct {
	ID    int64  `json:"id"`
	What  string `json:"what" says:"text"`
	Count int    `json:"count"`
}

// OfferPrice is what was asked or paid once.
type OfferPrice struct {
	What     string `json:"what" says:"text"`
	On       string `json:"on"`
	Cents    int64  `json:"cents"`
	Currency string `json:"currency" doc:"Empty for that of the collection"`
	Kind     string `json:"kind" enum:"asked,lot,share,ordered" doc:"Asked in an offer, paid for a lot that held it alone, thought to be its share of a lot, or ordered, each"`
	ID       int64  `json:"id" doc:"Of the offer, the lot or the order"`
}

func nothing() Weighed {
	return Weighed{Hits: []OfferHit{}, Held: []corewanted.Met{}, Stores: []OfferStock{}, Prices: []OfferPrice{}}
}

// beside is what offers are compared with.
type beside struct {
	wants  []Want
	looked []corewanted.Want
	held   []corewanted.Named
	stock  []parts.Stock
	orders []parts.Order
	lots   []wanted.Bought
	offers []Offer
}

func (s *Service) beside(ctx context.Context, actor action.Actor, h pg.Handle, rows []wanted.Offer) (beside, error) {
	b := beside{offers: action.Views(rows, tellOffer)}
	found, err := wanted.Wants(ctx, h, mostWants)
	if err != nil {
		return b, err
	}
	for _, row := range found {
		if row.IsOpen {
			w := tellWant(row)
			b.wants = append(b.wants, w)
			b.looked = append(b.looked, corewanted.Want{ID: w.ID, What: w.What, Alerts: w.Alerts})
		}
	}
	held, err := wanted.Holdings(ctx, h)
	if err != nil {
		return b, err
	}
	for _, one := range held {
		b.held = append(b.held, corewanted.Named(one))
	}
	stores, err := s.parts.Stores(ctx, actor)
	if err != nil {
		return b, err
	}
	b.stock = stores.Stock
	if b.orders, err = s.parts.Orders(ctx, actor); err != nil {
		return b, err
	}
	b.lots, err = wanted.PricesOfLots(ctx, h)
	return b, err
}

// mostTold bounds each list of a comparison.
const mostTold = 20

// compare tells what an offer amounts to; id is its own, 0 for one that is not kept.
func (b beside) compare(id int64, in OfferInput) Weighed {
	c := nothing()
	words := corewanted.TextOf(in.words())
	most := int64(-1)
	for _, hit := range words.Find(b.looked) {
		for _, w := range b.wants {
			if w.ID != hit.WantID {
				continue
			}
			c.Hits = append(c.Hits, OfferHit{hit, w.What, w.Accession, w.MachineID, w.MostCents})
			if w.MostCents != nil {
				most = max(most, *w.MostCents)
			}
		}
	}
	c.Held = words.Held(b.held)
	c.Held = c.Held[:min(len(c.Held), mostTold)]
	for _, one := range b.stock {
		if len(c.Stores) < mostTold && one.Count > 0 && words.IsLike(one.What) {
			c.Stores = append(c.Stores, OfferStock{one.ID, one.What, one.Count})
		}
	}
	c.Prices = b.prices(id, words)
	switch asking := in.AskingCents; {
	case asking == nil:
	case in.LimitCents != nil && *asking > *in.LimitCents:
		c.Over = "more is asked than the limit"
	case in.LimitCents == nil && most >= 0 && *asking > most:
		c.Over = "more is asked than one would pay for any one thing of it that is looked for"
	}
	return c
}

func (b beside) prices(id int64, words corewanted.Text) []OfferPrice {
	prices := []OfferPrice{}
	add := func(p OfferPrice) {
		if len(prices) < mostTold && words.IsLike(p.What) {
			prices = append(prices, p)
		}
	}
	for _, o := range b.offers {
		if o.ID != id && o.AskingCents != nil {
			add(OfferPrice{o.Title, o.SeenOn, *o.AskingCents, "", "asked", o.ID})
		}
	}
	for _, lot := range b.lots {
		kind := "share"
		if lot.Whole {
			kind = "lot"
		}
		add(OfferPrice{lot.Title, lot.On, lot.Cents, lot.Money, kind, lot.LotID})
	}
	for _, o := range b.orders {
		for _, line := range o.Lines {
			if line.PriceCents != nil {
				add(OfferPrice{line.What, o.OrderedOn, *line.PriceCents, "", "ordered", o.ID})
			}
		}
	}
	return prices
}
