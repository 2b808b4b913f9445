package parts

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/calendar"
	"frugalheron/store/history"
	"frugalheron/store/parts"
)

// OrderLineInput is so many of one part.
type OrderLineInput struct {
	N          int    `json:"n" minimum:"0" maximum:"1000" required:"false" doc:"Its number, where it stood there before; 0 for a new one"`
	What       string `json:"what" says:"text" maxLength:"300" example:"NiMH 3.6V 60mAh"`
	Count      int    `json:"count" minimum:"1" maximum:"100000"`
	PriceCents *int64 `json:"priceCents,omitempty" minimum:"0" maximum:"1000000000" doc:"Of one; left out where nobody knows"`
}

// OrderInput is what was ordered.
type OrderInput struct {
	Supplier  string           `json:"supplier" says:"text" maxLength:"200"`
	Number    string           `json:"number" maxLength:"100" required:"false" doc:"By which the supplier knows it"`
	OrderedOn string           `json:"orderedOn" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	DueOn     string           `json:"dueOn" maxLength:"10" required:"false" doc:"The day on which it should be here; empty where nobody said"`
	Lines     []OrderLineInput `json:"lines" minItems:"1" maxItems:"200"`
	Note      string           `json:"note" says:"text" maxLength:"2000" required:"false"`
}

// Delivery is what came of a line.
type Delivery struct {
	Line  int    `json:"line"`
	Count int    `json:"count" doc:"That are good"`
	Dead  int    `json:"dead" doc:"That came dead, and go back"`
	On    string `json:"on"`
	By    string `json:"by"`
}

// keptOrder is what is kept of one.
type keptOrder struct {
	OrderInput
	Arrivals []Delivery `json:"arrivals"`
}

// OrderLine is a line of an order, and what came of it.
type OrderLine struct {
	OrderLineInput
	Arrived  int `json:"arrived" doc:"That are here, and good"`
	Dead     int `json:"dead" doc:"That came dead: they go back, and are still to come"`
	ToCome   int `json:"toCome"`
	Promised int `json:"promised" doc:"Of those to come: set aside for jobs"`
}

// Order is what was ordered, and what came of it.
type Order struct {
	ID        int64       `json:"id"`
	Supplier  string      `json:"supplier" says:"text"`
	Number    string      `json:"number"`
	OrderedOn string      `json:"orderedOn"`
	DueOn     string      `json:"dueOn"`
	Lines     []OrderLine `json:"lines"`
	Note      string      `json:"note" says:"text"`
	IsOpen    bool        `json:"isOpen" doc:"Something is to come"`
	LateDays  int         `json:"lateDays" doc:"Since the day on which it should have been here; 0 for one that is not late"`
	Arrivals  []Delivery  `json:"arrivals"`
	SetAside  []SetAside  `json:"setAside" doc:"Of what is to come, for jobs"`
	Version   int         `json:"version"`
}

func tellOrder(row parts.Order, aside []parts.SetAside) Order {
	kept, _ := action.ReadKept[keptOrder](row.Body) // written by this package alone
	o := Order{ID: row.ID, Supplier: kept.Supplier, Number: kept.Number, OrderedOn: kept.OrderedOn, DueOn: kept.DueOn,
		Note: kept.Note, Lines: []OrderLine{}, Arrivals: append([]Delivery{}, kept.Arrivals...), SetAside: []SetAside{},
		Version: row.Version}
	for _, in := range kept.Lines {
		line := OrderLine{OrderLineInput: in}
		for _, a := range kept.Arrivals {
			if a.Line == in.N {
				line.Arrived, line.Dead = line.Arrived+a.Count, line.Dead+a.Dead
			}
		}
		line.ToCome = max(0, in.Count-line.Arrived)
		o.IsOpen = o.IsOpen || line.ToCome > 0
		for _, one := range aside {
			if *one.OrderID == o.ID && one.Line == in.N {
				line.Promised += one.Count
				o.SetAside = append(o.SetAside, tellSetAside(one))
			}
		}
		o.Lines = append(o.Lines, line)
	}
	return o
}

func (o Order) line(n int) (OrderLine, bool) {
	at := slices.IndexFunc(o.Lines, func(l OrderLine) bool { return l.N == n })
	if at < 0 {
		return OrderLine{}, false
	}
	return o.Lines[at], true
}

func (o Order) row(voided bool) parts.Order {
	kept := keptOrder{OrderInput{Supplier: o.Supplier, Number: o.Number, OrderedOn: o.OrderedOn, DueOn: o.DueOn,
		Note: o.Note},
		o.Arrivals}
	for _, l := range o.Lines {
		kept.Lines = append(kept.Lines, l.OrderLineInput)
	}
	return parts.Order{ID: o.ID, Body: action.ToKeep(kept), Voided: voided,
		IsOpen: slices.ContainsFunc(o.Lines, func(l OrderLine) bool { return l.ToCome > 0 })}
}

// told is what the history keeps.
func (o Order) told() map[string]any {
	lines, came := []string{}, []string{}
	for _, l := range o.Lines {
		lines = append(lines, fmt.Sprintf("%d x %s", l.Count, l.What))
		if l.Arrived+l.Dead > 0 {
			came = append(came, fmt.Sprintf("%d of %s, %d dead", l.Arrived, l.What, l.Dead))
		}
	}
	return map[string]any{"supplier": o.Supplier, "number": o.Number, "orderedOn": o.OrderedOn, "dueOn": o.DueOn,
		"lines": strings.Join(lines, "; "), "arrived": strings.Join(came, "; "), "note": o.Note}
}

var orders = action.Records[parts.Order, Order]{What: "the order", Lock: parts.LockOrder, Read: parts.OrderByID,
	Version: func(r parts.Order) int { return r.Version },
	Told:    func(r parts.Order) any { return tellOrder(r, nil).told() },
	View:    func(r parts.Order) Order { return tellOrder(r, nil) },
	Machine: func(parts.Order) *int64 { return nil }}

func (in *OrderInput) check(actor action.Actor) error {
	err := input.CheckAll(input.OneLine("supplier", &in.Supplier), input.OneLine("number", &in.Number),
		input.Lines("note", &in.Note))
	if err != nil {
		return err
	}
	if in.Supplier == "" {
		return action.Reject("supplier", "say of whom it was ordered")
	}
	in.OrderedOn = cmp.Or(in.OrderedOn, actor.Today())
	if err := input.PastDay("orderedOn", in.OrderedOn, actor.Today()); err != nil {
		return err
	}
	if in.DueOn != "" {
		if err := input.Day("dueOn", in.DueOn); err != nil {
			return err
		}
		if in.DueOn < in.OrderedOn {
			return action.Reject("dueOn", "is before the day on which it was ordered")
		}
	}
	for i := range in.Lines {
		if err := input.OneLine("lines", &in.Lines[i].What); err != nil {
			return err
		}
		if in.Lines[i].What == "" {
			return action.Reject("lines", fmt.Sprintf("line %d does not say what it is", i+1))
		}
	}
	return nil
}

// take writes what is ordered into an order that may have come in part: lines of which something is here, or promised, stay.
func (o *Order) take(in OrderInput) error {
	before := o.Lines
	o.Supplier, o.Number, o.OrderedOn, o.DueOn, o.Note, o.Lines = in.Supplier, in.Number, in.OrderedOn, in.DueOn,
		in.Note, nil
	highest := 0
	for _, l := range before {
		highest = max(highest, l.N)
	}
	for _, a := range o.Arrivals {
		highest = max(highest, a.Line)
	}
	seen := map[int]bool{}
	for _, l := range in.Lines {
		line := OrderLine{OrderLineInput: l}
		at := slices.IndexFunc(before, func(b OrderLine) bool { return l.N > 0 && b.N == l.N && !seen[l.N] })
		if at < 0 {
			highest++
			line.N = highest
		} else {
			line.Arrived, line.Dead, line.Promised = before[at].Arrived, before[at].Dead, before[at].Promised
		}
		seen[line.N] = true
		if least := line.Arrived + line.Promised; line.Count < least {
			return action.Reject("lines", fmt.Sprintf("of %s %d came, and %d of those to come are set aside: not fewer than %d", line.What,
				line.Arrived, line.Promised, least))
		}
		line.ToCome = line.Count - line.Arrived
		o.Lines = append(o.Lines, line)
	}
	for _, b := range before {
		if !seen[b.N] && b.Arrived+b.Dead+b.Promised > 0 {
			return action.Reject("lines", fmt.Sprintf("%s stays: some of it came, or is set aside for a job", b.What))
		}
	}
	return nil
}

// Orders lists those first of which something is to come, else the newest first.
func (s *Service) Orders(ctx context.Context, actor action.Actor) ([]Order, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) ([]Order, error) {
		rows, err := parts.ListOrders(ctx, s.kernel.Reader(ctx), mostOrders)
		if err != nil {
			return nil, err
		}
		return s.tellOrders(ctx, rows, actor.Today())
	})
}

// mostOrders bounds the list; older ones are in the diary.
const mostOrders = 300

func (s *Service) tellOrders(ctx context.Context, rows []parts.Order, today string) ([]Order, error) {
	aside, err := parts.SetAsides(ctx, s.kernel.Reader(ctx))
	aside = slices.DeleteFunc(aside, func(a parts.SetAside) bool { return a.OrderID == nil })
	return action.Views(rows, func(r parts.Order) Order {
		o := tellOrder(r, aside)
		due, err := calendar.Parse(o.DueOn)
		if now, ok := calendar.Parse(today); o.IsOpen && err == nil && ok == nil {
			o.LateDays = max(0, now.Days()-due.Days())
		}
		return o
	}), err
}

// AddOrder writes down what was ordered.
func (s *Service) AddOrder(ctx context.Context, actor action.Actor, in OrderInput) (Order, error) {
	if err := in.check(actor); err != nil {
		return Order{}, err
	}
	var added Order
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := added.take(in); err != nil {
			return err
		}
		row := added.row(false)
		id, err := parts.InsertOrder(ctx, tx, row.Body, row.IsOpen)
		if err != nil {
			return err
		}
		if row, err = parts.OrderByID(ctx, tx, id); err != nil {
			return err
		}
		added = tellOrder(row, nil)
		return action.Record(ctx, tx, actor, eventAddOrder, id, nil, nil, added.told())
	})
	return added, err
}

// ChangeOrder rewrites what was ordered, starting from a version.
func (s *Service) ChangeOrder(ctx context.Context, actor action.Actor, id int64, version int,
	in OrderInput) (Order, error) {
	if err := in.check(actor); err != nil {
		return Order{}, err
	}
	return orders.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets,
		Event: eventChangeOrder,
		ID:    id, Version: version}, func(tx *sqlx.Tx, before parts.Order) error {
		if before.Voided {
			return action.ErrNotFound
		}
		aside, err := parts.SetAsideOfOrder(ctx, tx, id)
		if err != nil {
			return err
		}
		o := tellOrder(before, aside)
		if err := o.take(in); err != nil {
			return err
		}
		return parts.UpdateOrder(ctx, tx, o.row(false))
	})
}

var voidedOrders = action.Voiding[parts.Order]{Roles: action.MayWriteSheets, Event: eventVoidOrder,
	Back: eventTakeBackVoidOfOrder, IsVoided: func(r parts.Order) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r parts.Order, voided bool) error {
		if voided {
			aside, err := parts.SetAsideOfOrder(ctx, tx, r.ID)
			if err != nil {
				return err
			}
			if len(aside) > 0 {
				return action.Reject("id", "some of it is set aside for jobs; release that first")
			}
		}
		return parts.UpdateOrder(ctx, tx, tellOrder(r, nil).row(voided))
	}}

// VoidOrder strikes one out that was written down by mistake.
func (s *Service) VoidOrder(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return orders.Void(ctx, s.kernel, actor, voidedOrders, id, version)
}

func (s *Service) undoVoidOrder(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return orders.Unvoid(ctx, s.kernel, actor, voidedOrders, e)
}
