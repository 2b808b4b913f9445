package parts

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/inventory"
	"frugalheron/store/parts"
)

// ArrivalInput is what came of a line of an order.
type ArrivalInput struct {
	Line  int    `json:"line" minimum:"1" maximum:"1000"`
	Count int    `json:"count" minimum:"0" maximum:"100000" doc:"That are good"`
	Dead  int    `json:"dead" minimum:"0" maximum:"100000" required:"false" doc:"That came dead, and go back: they are still to come"`
	On    string `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	Place string `json:"place" says:"text" maxLength:"200" required:"false" doc:"Where they lie now"`
}

// BookArrival puts what came into the stores, for the jobs that it is set aside for.
func (s *Service) BookArrival(ctx context.Context, actor action.Actor, id int64, version int,
	in ArrivalInput) (Order, error) {
	if err := input.OneLine("place", &in.Place); err != nil {
		return Order{}, err
	}
	in.On = cmp.Or(in.On, actor.Today())
	if err := input.PastDay("on", in.On, actor.Today()); err != nil {
		return Order{}, err
	}
	if in.Count+in.Dead == 0 {
		return Order{}, action.Reject("count", "say how many came")
	}
	return orders.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets,
		Event: eventBookArrival,
		ID:    id, Version: version}, func(tx *sqlx.Tx, before parts.Order) error {
		if before.Voided {
			return action.ErrNotFound
		}
		aside, err := parts.SetAsideOfOrder(ctx, tx, id)
		if err != nil {
			return err
		}
		o := tellOrder(before, aside)
		line, ok := o.line(in.Line)
		switch {
		case !ok:
			return action.Reject("line", "the order has no such line")
		case in.On < o.OrderedOn:
			return action.Reject("on", "is before the day on which it was ordered, "+o.OrderedOn)
		case in.Count+in.Dead > line.ToCome:
			return action.Reject("count", fmt.Sprintf(
				"only %d of %s are to come; put what came beside them into the stores by itself", line.ToCome, line.What))
		}
		o.Arrivals = append(o.Arrivals, Delivery{Line: in.Line, Count: in.Count, Dead: in.Dead, On: in.On,
			By: actor.Name})
		at := slices.IndexFunc(o.Lines, func(l OrderLine) bool { return l.N == in.Line })
		o.Lines[at].ToCome -= in.Count
		if err := parts.UpdateOrder(ctx, tx, o.row(false)); err != nil {
			return err
		}
		if in.Count == 0 {
			return nil
		}
		drawer, err := insert(ctx, tx, actor, eventAddStock, Stock{StockInput: StockInput{What: line.What,
			Kind:      "component",
			Condition: "new", Count: in.Count, Place: in.Place, Source: o.Supplier, PriceCents: line.PriceCents}})
		if err != nil {
			return err
		}
		return s.serve(ctx, tx, actor, aside, in.Line, drawer)
	})
}

// serve gives what came to the jobs that it was set aside for, in the order in which that was done.
func (s *Service) serve(ctx context.Context, tx *sqlx.Tx, actor action.Actor, aside []parts.SetAside, line int,
	drawer Stock) error {
	left := drawer.Count
	served := []parts.SetAside{}
	for _, one := range aside {
		count := min(left, one.Count)
		if one.Line != line || count == 0 {
			continue
		}
		left -= count
		if err := parts.UpdateSetAside(ctx, tx, one.ID, one.Count-count); err != nil {
			return err
		}
		if _, err := parts.InsertSetAside(ctx, tx, parts.SetAside{JobID: one.JobID, Need: one.Need, StockID: &drawer.ID,
			Count: count}); err != nil {
			return err
		}
		served = append(served, one)
	}
	slices.SortFunc(served, func(a, b parts.SetAside) int {
		return cmp.Or(cmp.Compare(a.MachineID, b.MachineID), cmp.Compare(a.JobID, b.JobID))
	})
	for _, one := range served {
		if _, err := inventory.LockMachine(ctx, tx, one.MachineID); err != nil {
			return err
		}
		if err := s.changed(ctx, tx, actor, one.JobID); err != nil {
			return err
		}
	}
	return nil
}

// Stores is all that needs are met with.
type Stores struct {
	Stock    []Stock
	Orders   []Order
	SetAside []SetAside
}

// Stores reads all that lies in the stores, is to come, and is set aside.
func (s *Service) Stores(ctx context.Context, actor action.Actor) (Stores, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return Stores{}, err
	}
	h := s.kernel.Reader(ctx)
	stock, err := parts.ListStock(ctx, h, nil, 0, mostStock)
	if err != nil {
		return Stores{}, err
	}
	rows, err := parts.OpenOrders(ctx, h)
	if err != nil {
		return Stores{}, err
	}
	aside, err := parts.SetAsides(ctx, h)
	if err != nil {
		return Stores{}, err
	}
	open, err := s.tellOrders(ctx, rows, actor.Today())
	return Stores{action.Views(stock, tellStock), open, action.Views(aside, tellSetAside)}, err
}

// mostStock is how many drawers are looked through: more than a collection has by far.
const mostStock = 50_000
