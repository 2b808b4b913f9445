package work

import (
	"context"
	"slices"

	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/app/parts"
	"frugalheron/core/part"
	"frugalheron/core/stock"
	"frugalheron/store/work"
)

// JobRef names a job and its machine.
type JobRef struct {
	JobID     int64  `json:"jobId"`
	Job       string `json:"job" says:"text"`
	MachineID int64  `json:"machineId"`
	Accession string `json:"accession"`
}

// PartOffer is a drawer that could serve a need.
type PartOffer struct {
	StockID int64      `json:"stockId"`
	What    string     `json:"what" says:"text"`
	Place   string     `json:"place" says:"text"`
	Free    int        `json:"free" doc:"That no other job has, or comes before for"`
	Count   int        `json:"count" doc:"Of them meant for this need, as long as nothing is set aside; 0 for another choice"`
	Grade   part.Grade `json:"grade" enum:"exact,better,acceptable,no"`
	Why     []string   `json:"why"`
}

// PartComing is what of an order is meant for a need.
type PartComing struct {
	OrderID    int64      `json:"orderId"`
	Supplier   string     `json:"supplier" says:"text"`
	Line       int        `json:"line"`
	What       string     `json:"what" says:"text"`
	DueOn      string     `json:"dueOn" doc:"Empty where nobody said"`
	Count      int        `json:"count"`
	IsSetAside bool       `json:"isSetAside"`
	Grade      part.Grade `json:"grade" enum:"exact,better,acceptable,no"`
	Why        []string   `json:"why"`
}

// PartTaken is a drawer that would serve a need, and goes to another job first.
type PartTaken struct {
	StockID int64  `json:"stockId"`
	What    string `json:"what" says:"text"`
	JobRef
}

// JobNeed is what a job needs, and how that is met.
type JobNeed struct {
	JobRef
	Need     string           `json:"need" says:"text"`
	Count    int              `json:"count"`
	State    stock.State      `json:"state" enum:"set aside,in stock,on order,short"`
	Missing  int              `json:"missing"`
	SetAside []parts.SetAside `json:"setAside"`
	Offers   []PartOffer      `json:"offers" doc:"The best first"`
	Coming   []PartComing     `json:"coming"`
	Taken    []PartTaken      `json:"taken"`
}

// ToOrder is what to order together.
type ToOrder struct {
	What   string   `json:"what" says:"text"`
	Count  int      `json:"count"`
	Refill int      `json:"refill" doc:"Of the count: to fill up drawers that hold fewer than they should"`
	Jobs   []JobRef `json:"jobs"`
}

// Unblocked is a job that goes on when an order is here.
type Unblocked struct {
	JobRef
	With []int64 `json:"with" doc:"Other orders that it waits for as well"`
}

// OrderUnblocks tells which jobs an order lets go on.
type OrderUnblocks struct {
	OrderID int64       `json:"orderId"`
	Jobs    []Unblocked `json:"jobs"`
}

// Needs is what all open jobs need, and how that is met.
type Needs struct {
	Needs    []JobNeed       `json:"needs" doc:"Those first of which something is short, else the oldest job first"`
	ToOrder  []ToOrder       `json:"toOrder"`
	Unblocks []OrderUnblocks `json:"unblocks"`
}

var unsure = map[string]string{"untested": "nobody tested it", "": "nobody said in which state it is"}

// Needs reads it. Parts are given out in the order in which jobs were put down.
func (s *Service) Needs(ctx context.Context, actor action.Actor) (Needs, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return Needs{}, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Needs, error) {
		types, err := s.library.Read(ctx)
		if err != nil {
			return Needs{}, err
		}
		rows, err := work.OpenJobs(ctx, s.kernel.Reader(ctx), mostNeeding)
		if err != nil {
			return Needs{}, err
		}
		stores, err := s.parts.Stores(ctx, actor)
		if err != nil {
			return Needs{}, err
		}
		refs, asked := map[int64]JobRef{}, []stock.Need{}
		for _, row := range rows {
			j := tellJob(row)
			refs[j.ID] = JobRef{j.ID, j.Title, j.MachineID, j.Accession}
			for _, text := range j.Needs {
				count, words := stock.ReadCount(text)
				asked = append(asked, stock.Need{Job: j.ID, Text: text, Count: count, Part: part.Read(types,
					words)})
			}
		}
		read := reader{read: func(text string) part.Part { return part.Read(types, text) },
			known: map[string]part.Part{}}
		lines := action.Views(stores.Stock, read.line)
		coming := []stock.OnOrder{}
		for _, o := range stores.Orders {
			for _, l := range o.Lines {
				if l.ToCome > 0 {
					coming = append(coming, stock.OnOrder{Order: o.ID, Line: l.N, Text: l.What, Count: l.ToCome,
						Due:  o.DueOn,
						Part: read.of(l.What)})
				}
			}
		}
		plan := stock.Make(asked, lines, coming, action.Views(stores.SetAside, held))
		return tellNeeds(plan, refs, stores), nil
	})
}

// mostNeeding bounds the jobs whose needs are looked at together.
const mostNeeding = 2000

// reader reads what parts are, equal words once.
type reader struct {
	read  func(text string) part.Part
	known map[string]part.Part
}

func (r reader) of(text string) part.Part {
	p, ok := r.known[text]
	if !ok {
		p = r.read(text)
		r.known[text] = p
	}
	return p
}

func (r reader) line(s parts.Stock) stock.Line {
	return stock.Line{ID: s.ID, Text: s.What, Count: s.Count, Faulty: s.Condition == "faulty",
		Unsure: unsure[s.Condition], Minimum: s.Minimum, Part: r.of(s.What)}
}

func held(a parts.SetAside) stock.Held {
	h := stock.Held{Job: a.JobID, Text: a.Need, Line: a.Line, Count: a.Count}
	if a.StockID != nil {
		h.Stock = *a.StockID
	}
	if a.OrderID != nil {
		h.Order = *a.OrderID
	}
	return h
}

func tellNeeds(plan stock.Plan, refs map[int64]JobRef, stores parts.Stores) Needs {
	places, suppliers := map[int64]string{}, map[int64]string{}
	for _, s := range stores.Stock {
		places[s.ID] = s.Place
	}
	for _, o := range stores.Orders {
		suppliers[o.ID] = o.Supplier
	}
	told := Needs{Needs: []JobNeed{}, ToOrder: []ToOrder{}, Unblocks: []OrderUnblocks{}}
	for _, m := range plan.Needs {
		n := JobNeed{JobRef: refs[m.Job], Need: m.Text, Count: m.Count, State: m.State, Missing: m.Missing,
			SetAside: []parts.SetAside{}, Offers: []PartOffer{}, Coming: []PartComing{}, Taken: []PartTaken{}}
		for _, a := range stores.SetAside {
			if a.JobID == m.Job && a.Need == m.Text {
				n.SetAside = append(n.SetAside, a)
			}
		}
		for _, o := range m.Offers {
			n.Offers = append(n.Offers, PartOffer{o.Stock, o.Text, places[o.Stock], o.Free, o.Count, o.Grade,
				append([]string{}, o.Why...)})
		}
		for _, c := range m.Coming {
			n.Coming = append(n.Coming, PartComing{c.Order, suppliers[c.Order], c.Line, c.Text, c.Due, c.Count,
				c.Held, c.Grade,
				append([]string{}, c.Why...)})
		}
		for _, t := range m.Taken {
			n.Taken = append(n.Taken, PartTaken{t.Stock, t.Text, refs[t.Job]})
		}
		told.Needs = append(told.Needs, n)
	}
	slices.SortStableFunc(told.Needs, func(a, b JobNeed) int { return rank(a.State) - rank(b.State) })
	for _, o := range plan.ToOrder() {
		one := ToOrder{What: o.Text, Count: o.Count, Refill: o.Refill, Jobs: []JobRef{}}
		for _, j := range o.Jobs {
			one.Jobs = append(one.Jobs, refs[j])
		}
		told.ToOrder = append(told.ToOrder, one)
	}
	unblocks := plan.Unblocks()
	for _, o := range stores.Orders {
		if len(unblocks[o.ID]) == 0 {
			continue
		}
		one := OrderUnblocks{OrderID: o.ID, Jobs: []Unblocked{}}
		for _, u := range unblocks[o.ID] {
			one.Jobs = append(one.Jobs, Unblocked{refs[u.Job], append([]int64{}, u.With...)})
		}
		told.Unblocks = append(told.Unblocks, one)
	}
	return told
}

func rank(s stock.State) int {
	return slices.Index([]stock.State{stock.Short, stock.InStock, stock.Ordered, stock.Reserved}, s)
}

// Donors lists where the part that a need names sits today, those in no machine first; none where the library does not know
// it by a number.
func (s *Service) Donors(ctx context.Context, actor action.Actor, need string) ([]library.Occurrence, error) {
	types, err := s.library.Read(ctx)
	if err != nil {
		return nil, err
	}
	_, words := stock.ReadCount(need)
	number := part.Read(types, words).Number
	if number == "" {
		return []library.Occurrence{}, actor.Must(action.MayWriteSheets)
	}
	found, err := s.library.Occurrences(ctx, actor, number, mostDonors)
	slices.SortStableFunc(found, func(a, b library.Occurrence) int {
		switch {
		case a.MachineID == nil && b.MachineID != nil:
			return -1
		case a.MachineID != nil && b.MachineID == nil:
			return 1
		}
		return 0
	})
	return found, err
}

// mostDonors is how many are told.
const mostDonors = 100
