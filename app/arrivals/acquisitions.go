package arrivals

import (
	"context"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	"frugalheron/core/lot"
	"frugalheron/store/arrivals"
	"frugalheron/store/history"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/people"
	"frugalheron/store/pg"
)

// LotThing is a thing of a lot with its share of the cost.
type LotThing struct {
	LotItem
	ShareCents  *int64 `json:"shareCents" doc:"Its share of the cost; null while the cost cannot be spread"`
	Share       string `json:"share" doc:"The same as an amount, or empty"`
	Disposition string `json:"disposition" says:"text" doc:"What became of it, in words"`
}

// Lot is an arrival with its things, what each cost, and whether it was worth it.
type Lot struct {
	Acquisition
	Things         []LotThing `json:"things"`
	CostCents      int64      `json:"costCents" doc:"Price and extra costs together"`
	Cost           string     `json:"cost" doc:"The same as an amount"`
	EstimatesCents int64      `json:"estimatesCents" doc:"All estimates together"`
	SpreadProblem  string     `json:"spreadProblem" doc:"Why the cost cannot be spread, or empty"`
	Worth          lot.Worth  `json:"worth"`
}

// Lot reads an arrival.
func (s *Service) Lot(ctx context.Context, actor action.Actor, id int64) (Lot, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return Lot{}, err
	}
	return ReadLot(ctx, s.kernel.Reader(ctx), id)
}

// ReadLot reads a lot with its things, and what each cost; ErrNotFound for none.
func ReadLot(ctx context.Context, h pg.Handle, id int64) (Lot, error) {
	acquired, err := arrivals.AcquisitionByID(ctx, h, id)
	if err != nil {
		return Lot{}, err
	}
	items, err := arrivals.LotItemsOf(ctx, h, id)
	if err != nil {
		return Lot{}, err
	}
	return spreadLot(acquired, items), nil
}

func spreadLot(acquired arrivals.Acquisition, items []arrivals.LotItem) Lot {
	l := Lot{Acquisition: acquisitionOf(acquired), Things: make([]LotThing, len(items))}
	if acquired.PriceCents != nil {
		l.CostCents = *acquired.PriceCents
	}
	for _, extra := range acquired.Costs {
		l.CostCents += extra.Cents
	}
	l.Cost = lot.Format(l.CostCents)
	things := make([]lot.Item, len(items))
	for i, item := range items {
		if item.EstimateCents != nil {
			l.EstimatesCents += *item.EstimateCents
		}
		things[i] = lot.Item{ID: item.ID, Title: item.Title, Estimate: item.EstimateCents, ByHand: item.HandCents,
			Value: item.ValueCents}
		if things[i].Value == nil {
			things[i].Value = item.PassedForCents
		}
		l.Things[i] = LotThing{LotItem: lotItemOf(item), Disposition: dispositionOf(item)}
	}
	l.Worth = lot.WorthOf(l.CostCents, things)
	if acquired.PriceCents == nil && len(acquired.Costs) == 0 {
		return l // it cost nothing that is known
	}
	shares, err := lot.Spread(l.CostCents, lot.SpreadRule(acquired.Spread), things)
	if err != nil {
		l.SpreadProblem = err.Error()
		return l
	}
	for i := range shares {
		l.Things[i].ShareCents, l.Things[i].Share = &shares[i], lot.Format(shares[i])
	}
	return l
}

func dispositionOf(item arrivals.LotItem) string {
	switch {
	case item.MachineID != nil:
		return "is " + item.Accession
	case item.AssemblyID != nil:
		return "in store"
	case item.PassedOn != "":
		disposition := "passed on"
		if item.Party != "" {
			disposition += " to " + item.Party
		}
		disposition += ", " + item.PassedOn
		if item.PassedForCents != nil {
			disposition += ", for " + lot.Format(*item.PassedForCents)
		}
		return disposition
	}
	return "not placed yet"
}

// LotPage is a page of arrivals.
type LotPage struct {
	Lots []Lot `json:"lots" doc:"The newest first, without their things"`
	Next int   `json:"next" doc:"Give this as skip to get the next page; 0 on the last"`
}

// Lots lists arrivals by words that occur in what is said of them or of their things.
func (s *Service) Lots(ctx context.Context, actor action.Actor, words string, skip, limit int) (LotPage, error) {
	page := LotPage{Lots: []Lot{}}
	if err := actor.Must(action.MayLook); err != nil {
		return page, err
	}
	found, err := arrivals.ListAcquisitions(ctx, s.kernel.Reader(ctx), strings.Fields(words), actor.Hides(), skip,
		limit+1)
	if len(found) > limit {
		found = found[:limit]
		page.Next = skip + limit
	}
	for _, acquired := range found {
		page.Lots = append(page.Lots, spreadLot(acquired, nil))
	}
	return page, err
}

func checkAcquisition(ctx context.Context, h pg.Handle, actor action.Actor,
	f *AcquisitionInput) (day *string, err error) {
	err = input.CheckAll(input.OneLine("title", &f.Title), input.CheckEDTF("arrived", &f.Arrived),
		input.Lines("condition", &f.Condition), input.Lines("powered", &f.Powered),
		input.Lines("cameWith", &f.CameWith), input.Lines("note", &f.Note))
	f.Currency = strings.ToUpper(strings.TrimSpace(f.Currency))
	if f.Spread == "" {
		f.Spread = string(lot.ByEstimate)
	}
	switch {
	case err != nil:
		return nil, err
	case f.Title == "":
		return nil, action.Reject("title", "name the arrival, as Clear-out of the seed loft")
	case f.Currency != "" && !inventory.CurrencyForm.MatchString(f.Currency):
		return nil, action.Reject("currency", "write its three letters, as EUR")
	}
	if f.Currency == "" {
		collection, err := storeinventory.ReadCollection(ctx, h)
		if err != nil {
			return nil, err
		}
		f.Currency = collection.Currency
	}
	for i := range f.Costs {
		if err := input.OneLine("costs", &f.Costs[i].What); err != nil {
			return nil, err
		}
		if f.Costs[i].What == "" {
			return nil, action.Reject("costs", fmt.Sprintf("say what %s was for", lot.Format(f.Costs[i].Cents)))
		}
	}
	if f.PartyID != nil {
		if _, err := people.PartyByID(ctx, h, *f.PartyID); err != nil {
			return nil, input.Missing(err, "partyId", "choose somebody who is in the list of people and organisations")
		}
	}
	if arrived := input.DateOf(f.Arrived); arrived != nil {
		first := arrived.Earliest().String()
		if first > actor.Today() {
			return nil, action.Reject("arrived", "lies in the future; enter it once the things are here")
		}
		day = &first
	}
	return day, nil
}

// Receive enters an arrival with its things.
func (s *Service) Receive(ctx context.Context, actor action.Actor, fields AcquisitionInput,
	things []LotItemInput) (Lot, error) {
	var received Lot
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		day, err := checkAcquisition(ctx, tx, actor, &fields)
		if err != nil {
			return err
		}
		id, err := arrivals.InsertAcquisition(ctx, tx, fields.row(), day)
		if err != nil {
			return err
		}
		for i := range things {
			if err := checkLotItem(ctx, tx, &things[i]); err != nil {
				return fmt.Errorf("item %d: %w", i+1, err)
			}
			if _, err := arrivals.InsertLotItem(ctx, tx, id, arrivals.LotItemFields(things[i])); err != nil {
				return err
			}
		}
		if received, err = ReadLot(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventReceiveLot, id, nil, nil, fields)
	})
	return received, err
}

// ChangeAcquisition rewrites what is said of an arrival, starting from a version.
func (s *Service) ChangeAcquisition(ctx context.Context, actor action.Actor, id int64, version int,
	fields AcquisitionInput) (Lot, error) {
	var changed Lot
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		before, err := lockLot(ctx, tx, id, version)
		if err != nil {
			return err
		}
		day, err := checkAcquisition(ctx, tx, actor, &fields)
		if err != nil {
			return err
		}
		if err := arrivals.UpdateAcquisition(ctx, tx, id, fields.row(), day); err != nil {
			return err
		}
		if changed, err = ReadLot(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventChangeLot, id, nil, acquisitionInputOf(before.AcquisitionFields),
			changed.AcquisitionInput)
	})
	return changed, err
}

// lockLot locks an arrival that nobody changed since version; its things are locked with it.
func lockLot(ctx context.Context, tx *sqlx.Tx, id int64, version int) (arrivals.Acquisition, error) {
	return lots.Locked(ctx, tx, id, version)
}

var lots = action.Records[arrivals.Acquisition, Acquisition]{
	What: "the lot", Lock: arrivals.LockAcquisition,
	Version: func(a arrivals.Acquisition) int { return a.Version },
	View:    acquisitionOf,
}

func (s *Service) undoChangeLot(ctx context.Context, actor action.Actor, e history.EventRow) error {
	before, err := action.StateIn[AcquisitionInput](e.Before)
	if err != nil {
		return err
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayKeepTheRecord, arrivals.LockAcquisition,
		func(ctx context.Context, _ *sqlx.Tx, now arrivals.Acquisition) error {
			return action.Second(s.ChangeAcquisition(ctx, actor, now.ID, now.Version, before))
		})
}
