package parts

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/parts"
)

// StockInput is what people write of a drawer: so many of one part in one state.
type StockInput struct {
	What       string `json:"what" says:"text" maxLength:"300" example:"470u/16V radial 105C" doc:"Value, rating, package, size and pitch, as they stand on it"`
	Kind       string `json:"kind" enum:"component,mechanical,tool,consumable,made,other" required:"false"`
	Condition  string `json:"condition" enum:"new,used-good,untested,faulty" required:"false"`
	Count      int    `json:"count" minimum:"0" maximum:"100000"`
	Minimum    int    `json:"minimum" minimum:"0" maximum:"100000" required:"false" doc:"How many should lie there beside what jobs need; 0 for none"`
	DateCode   string `json:"dateCode" maxLength:"40" required:"false"`
	Place      string `json:"place" says:"text" maxLength:"200" required:"false" doc:"Where it lies; empty while nobody said"`
	Source     string `json:"source" says:"text" maxLength:"200" required:"false" doc:"Where it is from"`
	PriceCents *int64 `json:"priceCents,omitempty" minimum:"0" maximum:"1000000000" doc:"Of one, in the currency of the collection; left out where nobody knows"`
	BackBy     string `json:"backBy" maxLength:"10" required:"false" doc:"Of what is lent out of a machine, or by somebody: the day by which it must go back, YYYY-MM-DD"`
	BackTo     string `json:"backTo" says:"text" maxLength:"200" required:"false" doc:"Where it must go back to"`
	Model      string `json:"model" says:"text" maxLength:"200" required:"false" doc:"The model that it is for, where it is for one"`
	Material   string `json:"material" says:"text" maxLength:"200" required:"false" doc:"Of a made part"`
	Why        string `json:"why" says:"text" maxLength:"1000" required:"false" doc:"Of a made part: why it was made, and by which drawing"`
	Note       string `json:"note" says:"text" maxLength:"2000" required:"false"`
}

// Stock is a drawer of the stores.
type Stock struct {
	ID int64 `json:"id"`
	StockInput
	Free     int        `json:"free" doc:"That are not set aside"`
	IsLow    bool       `json:"isLow" doc:"Fewer are free than should lie there"`
	SetAside []SetAside `json:"setAside"`
	From     *PartPast  `json:"from" doc:"Out of which machine it came; null for what was bought or found"`
	LentBy   *int64     `json:"lentBy" doc:"The machine that it was lent out of and goes back to, where backTo is the number of one; null else"`
	Files    int        `json:"files" doc:"Drawings and pictures of it"`
	Version  int        `json:"version"`
}

// PartPast is where a part was before.
type PartPast struct {
	MachineID int64  `json:"machineId"`
	Accession string `json:"accession"`
	Board     string `json:"board" says:"text"`
	Place     string `json:"place" says:"text" doc:"Its designator"`
	JobID     int64  `json:"jobId"`
	Job       string `json:"job" says:"text"`
	On        string `json:"on"`
}

// keptStock is what is kept of one beside its count and place.
type keptStock struct {
	StockInput
	Past *PartPast `json:"past,omitempty"`
}

func tellStock(row parts.Stock) Stock {
	kept, _ := action.ReadKept[keptStock](row.Body) // written by this package alone
	s := Stock{ID: row.ID, StockInput: kept.StockInput, Free: row.Count - row.SetAside, SetAside: []SetAside{},
		From: kept.Past, Files: row.Files, Version: row.Version}
	s.Count, s.Place, s.IsLow = row.Count, row.Place, s.Free < s.Minimum
	if s.LentBy = row.BackMachineID; s.LentBy != nil {
		s.BackTo = row.BackAccession
	}
	if s.From != nil && row.FromMachineID != nil {
		s.From.MachineID, s.From.Accession, s.From.Job = *row.FromMachineID, row.FromAccession, row.FromJob
	}
	return s
}

func (s Stock) row(voided bool) parts.Stock {
	words := strings.ToLower(strings.Join([]string{s.What, s.Kind, s.Condition, s.DateCode, s.Source, s.BackTo, s.Model,
		s.Material, s.Note}, " "))
	if s.From != nil {
		words += strings.ToLower(" " + s.From.Board + " " + s.From.Place)
	}
	row := parts.Stock{ID: s.ID, Count: s.Count, Place: s.Place, Words: words, Voided: voided, BackMachineID: s.LentBy}
	kept := keptStock{s.StockInput, s.From}
	kept.Count, kept.Place = 0, ""
	row.Body = action.ToKeep(kept)
	if s.From != nil {
		row.FromJobID = &s.From.JobID
	}
	return row
}

var stocks = action.Records[parts.Stock, Stock]{What: "the part", Lock: parts.LockStock, Read: parts.StockByID,
	Version: func(r parts.Stock) int { return r.Version },
	Told:    func(r parts.Stock) any { return tellStock(r).StockInput }, View: tellStock,
	Machine: func(parts.Stock) *int64 { return nil }}

func (in *StockInput) check() error {
	err := input.CheckAll(input.OneLine("what", &in.What), input.OneLine("dateCode", &in.DateCode),
		input.OneLine("place", &in.Place), input.OneLine("source", &in.Source), input.OneLine("backTo", &in.BackTo),
		input.OneLine("model", &in.Model), input.OneLine("material", &in.Material), input.Lines("why", &in.Why),
		input.Lines("note", &in.Note))
	if err != nil {
		return err
	}
	if in.What == "" {
		return action.Reject("what", "say what it is, as it stands on it: 470u/16V radial")
	}
	if in.BackBy != "" {
		return input.Day("backBy", in.BackBy)
	}
	return nil
}

// StockPage is a page of drawers.
type StockPage struct {
	Parts []Stock `json:"parts"`
	Next  int64   `json:"next" doc:"Give this as after to get the next page; 0 on the last"`
}

// ListStock finds drawers by words that all occur in what is written of them or where they are.
func (s *Service) ListStock(ctx context.Context, actor action.Actor, search string, after int64,
	limit int) (StockPage, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return StockPage{}, err
	}
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (StockPage, error) {
		h := s.kernel.Reader(ctx)
		rows, err := parts.ListStock(ctx, h, strings.Fields(search), after, limit+1)
		if err != nil {
			return StockPage{}, err
		}
		page := StockPage{}
		if len(rows) > limit {
			rows = rows[:limit]
			page.Next = rows[limit-1].ID
		}
		page.Parts = action.Views(rows, tellStock)
		aside, err := parts.SetAsideOfStock(ctx, h, action.Views(rows, func(r parts.Stock) int64 { return r.ID }))
		for _, one := range aside {
			for i := range page.Parts {
				if page.Parts[i].ID == *one.StockID {
					page.Parts[i].SetAside = append(page.Parts[i].SetAside, tellSetAside(one))
				}
			}
		}
		return page, err
	})
}

// ForMachine lists what lies in the stores for a machine: parts that came out of it, and those that are for its model.
func (s *Service) ForMachine(ctx context.Context, actor action.Actor, machineID int64) ([]Stock, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	h := s.kernel.Reader(ctx)
	machine, err := inventory.MachineByID(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	names := []string{}
	for _, name := range []string{machine.Model, machine.Name, machine.Maker + " " + machine.Model} {
		if name = strings.ToLower(strings.TrimSpace(name)); name != "" {
			names = append(names, name)
		}
	}
	rows, err := parts.StockForMachine(ctx, h, machineID, names)
	return action.Views(rows, tellStock), err
}

// AddStock puts something into the stores.
func (s *Service) AddStock(ctx context.Context, actor action.Actor, in StockInput) (Stock, error) {
	if err := in.check(); err != nil {
		return Stock{}, err
	}
	var added Stock
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		var err error
		added, err = insert(ctx, tx, actor, eventAddStock, Stock{StockInput: in})
		return err
	})
	return added, err
}

// lender finds the machine whose number is written as the place where something goes back to; nil for any other words.
func lender(ctx context.Context, tx *sqlx.Tx, backTo string) (*int64, error) {
	if backTo == "" {
		return nil, nil
	}
	machine, err := inventory.MachineByAccession(ctx, tx, backTo)
	if errors.Is(err, action.ErrNotFound) {
		return nil, nil
	}
	return &machine.ID, err
}

func insert(ctx context.Context, tx *sqlx.Tx, actor action.Actor, event *action.Event, s Stock) (Stock, error) {
	var err error
	if s.LentBy, err = lender(ctx, tx, s.BackTo); err != nil {
		return Stock{}, err
	}
	id, err := parts.InsertStock(ctx, tx, s.row(false))
	if err != nil {
		return Stock{}, err
	}
	row, err := parts.StockByID(ctx, tx, id)
	if err != nil {
		return Stock{}, err
	}
	var machine *int64
	if s.From != nil {
		machine = &s.From.MachineID
	}
	added := tellStock(row)
	return added, action.Record(ctx, tx, actor, event, id, machine, nil, added.StockInput)
}

// ChangeStock rewrites what is written of a drawer, starting from a version.
func (s *Service) ChangeStock(ctx context.Context, actor action.Actor, id int64, version int,
	in StockInput) (Stock, error) {
	if err := in.check(); err != nil {
		return Stock{}, err
	}
	return stocks.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets,
		Event: eventChangeStock,
		ID:    id, Version: version}, func(tx *sqlx.Tx, before parts.Stock) error {
		if before.Voided {
			return action.ErrNotFound
		}
		if in.Count < before.SetAside {
			return action.Reject("count", fmt.Sprintf("%d of them are set aside for jobs; release what is not there", before.SetAside))
		}
		if in.Condition == "faulty" && before.SetAside > 0 {
			return action.Reject("condition", fmt.Sprintf("%d of them are set aside for jobs, which would get faulty ones; release them first", before.SetAside))
		}
		changed := tellStock(before)
		changed.StockInput = in
		var err error
		if changed.LentBy, err = lender(ctx, tx, in.BackTo); err != nil {
			return err
		}
		return parts.UpdateStock(ctx, tx, changed.row(false))
	})
}

var voidedStock = action.Voiding[parts.Stock]{Roles: action.MayWriteSheets, Event: eventVoidStock,
	Back: eventTakeBackVoidOfStock, IsVoided: func(r parts.Stock) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r parts.Stock, voided bool) error {
		if voided && r.SetAside > 0 {
			return action.Reject("id", fmt.Sprintf("%d of them are set aside for jobs; release them first", r.SetAside))
		}
		return parts.UpdateStock(ctx, tx, tellStock(r).row(voided))
	}}

// VoidStock strikes one out that was entered by mistake.
func (s *Service) VoidStock(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return stocks.Void(ctx, s.kernel, actor, voidedStock, id, version)
}

func (s *Service) undoVoidStock(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return stocks.Unvoid(ctx, s.kernel, actor, voidedStock, e)
}
