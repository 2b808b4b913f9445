package arrivals

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/evidence"
	"frugalheron/app/input"
	"frugalheron/core/calendar"
	"frugalheron/core/custody"
	"frugalheron/core/edtf"
	"frugalheron/store/arrivals"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// CustodyView is a statement about a machine's past with its place in the chain.
type CustodyView struct {
	Custody
	RoleWords string        `json:"roleWords"`
	Whom      string        `json:"whom" says:"text" doc:"The party, or who was written in its place"`
	Span      *custody.Span `json:"span" doc:"When it was, or null when nobody knows"`
}

// Chain is what is known of a machine's past, in order.
type Chain struct {
	Links     []CustodyView `json:"links" doc:"In the order of their dates"`
	Retracted []CustodyView `json:"retracted"`
	custody.Chain
}

// ChainOf examines what is known of a machine's past; arrived is when it came, nil when unknown.
func ChainOf(ctx context.Context, h pg.Handle, actor action.Actor, machineID int64, arrived *edtf.Date) (Chain, error) {
	kept, err := arrivals.CustodyOf(ctx, h, machineID)
	if err != nil {
		return Chain{}, err
	}
	now, err := calendar.Parse(actor.Today())
	if err != nil {
		return Chain{}, err
	}
	c := Chain{Links: []CustodyView{}, Retracted: []CustodyView{}}
	links, told := []custody.Link{}, map[int64]CustodyView{}
	for _, k := range kept {
		role, _ := custody.RoleOf(k.Role)
		one := CustodyView{Custody: custodyOf(k), RoleWords: role.Words, Whom: k.Party}
		if one.Whom == "" {
			one.Whom = k.Who
		}
		if k.Retracted != "" {
			c.Retracted = append(c.Retracted, one)
			continue
		}
		told[k.ID] = one
		links = append(links, custody.Link{ID: k.ID, Role: role, Who: one.Whom, When: input.DateOf(k.Dates)})
	}
	c.Chain = custody.Examine(links, custody.Bounds{Arrived: arrived, Today: now})
	for _, id := range c.Order {
		one := told[id]
		if span, ok := c.Spans[id]; ok {
			one.Span = &span
		}
		c.Links = append(c.Links, one)
	}
	return c, nil
}

func checkCustody(f *CustodyInput) error {
	err := input.CheckAll(input.OneLine("who", &f.Who), input.OneLine("place", &f.Place),
		input.Lines("usedFor", &f.UsedFor), input.CheckEDTF("dates", &f.Dates))
	if err != nil {
		return err
	}
	if _, known := custody.RoleOf(f.Role); !known {
		return action.Reject("role", "choose what part they played")
	}
	if f.PartyID != nil {
		f.Who = ""
	}
	return nil
}

// TellCustody notes what a source says of a machine's past.
func (s *Service) TellCustody(ctx context.Context, actor action.Actor, machineID int64,
	fields CustodyInput) (Custody, error) {
	if err := checkCustody(&fields); err != nil {
		return Custody{}, err
	}
	var told arrivals.Custody
	err := s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		if err := evidence.CheckCitation(ctx, tx, machineID, nil, &fields.Citation); err != nil {
			return err
		}
		id, err := arrivals.InsertCustody(ctx, tx, machineID, actor.Account(), fields.row())
		if err != nil {
			return err
		}
		if told, err = arrivals.LockCustody(ctx, tx, id); err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventTellCustody, id, &machineID, nil, custodyOf(told))
	})
	return custodyOf(told), err
}

var custodies = action.Records[arrivals.Custody, Custody]{
	What: "the statement", Lock: arrivals.LockCustody, Read: arrivals.LockCustody,
	Version: func(c arrivals.Custody) int { return c.Version },
	Told:    func(c arrivals.Custody) any { return custodyInputOf(c.CustodyFields) },
	Machine: func(c arrivals.Custody) *int64 { return &c.MachineID },
	View:    custodyOf,
}

// ChangeCustody rewrites a statement about a machine's past, starting from a version.
func (s *Service) ChangeCustody(ctx context.Context, actor action.Actor, id int64, version int,
	fields CustodyInput) (Custody, error) {
	if err := checkCustody(&fields); err != nil {
		return Custody{}, err
	}
	change := action.Change{Actor: actor, Roles: action.MayKeepTheRecord, Event: eventChangeCustody, ID: id,
		Version: version}
	return custodies.Change(ctx, s.kernel, change, func(tx *sqlx.Tx, before arrivals.Custody) error {
		if err := evidence.CheckCitation(ctx, tx, before.MachineID, before.PictureID, &fields.Citation); err != nil {
			return err
		}
		return arrivals.UpdateCustody(ctx, tx, id, fields.row())
	})
}

func (s *Service) undoChangeCustody(ctx context.Context, actor action.Actor, e history.EventRow) error {
	before, err := action.StateIn[CustodyInput](e.Before)
	if err != nil {
		return err
	}
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayKeepTheRecord, arrivals.LockCustody,
		func(ctx context.Context, _ *sqlx.Tx, now arrivals.Custody) error {
			return action.Second(s.ChangeCustody(ctx, actor, now.ID, now.Version, before))
		})
}
