// Package wanted is about what is looked for, perhaps for years, and about what is offered before it is bought: the two are
// compared with each other, with what is held, and with what was paid before.
package wanted

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/arrivals"
	"frugalheron/app/files"
	"frugalheron/app/input"
	"frugalheron/app/parts"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/wanted"
)

// Service does what is done about them.
type Service struct {
	kernel   *action.Kernel
	arrivals *arrivals.Service
	parts    *parts.Service
	files    *files.Service
}

// New returns it.
func New(kernel *action.Kernel, arrivals *arrivals.Service, parts *parts.Service,
	files *files.Service) *Service {
	s := &Service{kernel, arrivals, parts, files}
	kernel.CanBeUndone(eventVoidWant, action.MayWriteSheets, s.undoVoidWant)
	kernel.CanBeUndone(eventVoidOffer, action.MayWriteSheets, s.undoVoidOffer)
	return s
}

// Bounds of lists.
const (
	mostWants  = 1000
	mostOffers = 500
	mostAlerts = 20
)

// WantInput is what people write of something that is looked for.
type WantInput struct {
	What      string   `json:"what" says:"text" maxLength:"200" example:"Service handbook of the Meridian 2"`
	Kind      string   `json:"kind" enum:"part,card,machine,keyboard,lead,accessory,media,software,manual,other" default:"other" required:"false"`
	Alerts    []string `json:"alerts" says:"text" maxItems:"20" nullable:"false" required:"false" doc:"Words, or several together, by which it is known in offers"`
	MachineID *int64   `json:"machineId,omitempty" doc:"For which machine; left out for any"`
	MostCents *int64   `json:"mostCents,omitempty" minimum:"0" maximum:"1000000000000" doc:"What one would pay at most; left out where nobody said"`
	Since     string   `json:"since" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	State     string   `json:"state" enum:"open,found,given up" default:"open" required:"false"`
	Note      string   `json:"note" says:"text" maxLength:"2000" required:"false" doc:"Where it was found, or why it is looked for no more"`
}

// Want is something that is looked for.
type Want struct {
	ID int64 `json:"id"`
	WantInput
	Accession string `json:"accession" doc:"Of the machine; empty for none"`
	Version   int    `json:"version"`
}

func tellWant(row wanted.Want) Want {
	kept, _ := action.ReadKept[WantInput](row.Body) // written by this package alone
	kept.MachineID, kept.Alerts = row.MachineID, append([]string{}, kept.Alerts...)
	return Want{row.ID, kept, row.Accession, row.Version}
}

func (w Want) row(voided bool) wanted.Want {
	return wanted.Want{ID: w.ID, MachineID: w.MachineID, Body: action.ToKeep(w.WantInput), IsOpen: w.State == "open",
		Voided: voided}
}

var wants = action.Records[wanted.Want, Want]{What: "what is wanted", Lock: wanted.LockWant, Read: wanted.WantByID,
	Version: func(r wanted.Want) int { return r.Version },
	Told:    func(r wanted.Want) any { return tellWant(r).told() }, View: tellWant,
	Machine: func(r wanted.Want) *int64 { return r.MachineID }}

func (w Want) told() map[string]any {
	return map[string]any{"what": w.What, "kind": w.Kind, "alerts": strings.Join(w.Alerts, "; "),
		"machine":   w.Accession,
		"mostCents": w.MostCents, "since": w.Since, "state": w.State, "note": w.Note}
}

func (in *WantInput) check(ctx context.Context, tx *sqlx.Tx, actor action.Actor) error {
	if in.Since == "" {
		in.Since = actor.Today()
	}
	if in.State == "" {
		in.State = "open"
	}
	err := input.CheckAll(input.OneLine("what", &in.What), input.Lines("note", &in.Note),
		input.PastDay("since", in.Since, actor.Today()))
	if err != nil {
		return err
	}
	if in.What == "" {
		return action.Reject("what", "say what is looked for")
	}
	alerts := []string{}
	for i := range in.Alerts {
		if err := input.OneLine("alerts", &in.Alerts[i]); err != nil {
			return err
		}
		if in.Alerts[i] != "" && !slices.Contains(alerts, in.Alerts[i]) {
			alerts = append(alerts, in.Alerts[i])
		}
	}
	if in.Alerts = alerts; len(alerts) > mostAlerts {
		return action.Reject("alerts", fmt.Sprintf("more than %d find nothing better", mostAlerts))
	}
	if in.MachineID != nil {
		_, err = inventory.MachineByID(ctx, tx, *in.MachineID)
	}
	return err
}

// Wants lists what is looked for, what is open first.
func (s *Service) Wants(ctx context.Context, actor action.Actor) ([]Want, error) {
	if err := actor.Must(action.MayWriteSheets); err != nil {
		return nil, err
	}
	rows, err := wanted.Wants(ctx, s.kernel.Reader(ctx), mostWants)
	return action.Views(rows, tellWant), err
}

// AddWant keeps something that is looked for.
func (s *Service) AddWant(ctx context.Context, actor action.Actor, in WantInput) (Want, error) {
	var added Want
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if err := in.check(ctx, tx, actor); err != nil {
			return err
		}
		id, err := wanted.InsertWant(ctx, tx, Want{WantInput: in}.row(false))
		if err != nil {
			return err
		}
		row, err := wanted.WantByID(ctx, tx, id)
		if err != nil {
			return err
		}
		added = tellWant(row)
		return action.Record(ctx, tx, actor, eventAddWant, id, in.MachineID, nil, added.told())
	})
	return added, err
}

// ChangeWant rewrites one, starting from a version.
func (s *Service) ChangeWant(ctx context.Context, actor action.Actor, id int64, version int, in WantInput) (Want,
	error) {
	return wants.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets, Event: eventChangeWant,
		ID: id, Version: version}, func(tx *sqlx.Tx, before wanted.Want) error {
		if before.Voided {
			return action.ErrNotFound
		}
		if err := in.check(ctx, tx, actor); err != nil {
			return err
		}
		return wanted.UpdateWant(ctx, tx, Want{ID: id, WantInput: in}.row(false))
	})
}

var voidedWants = action.Voiding[wanted.Want]{Roles: action.MayWriteSheets, Event: eventVoidWant,
	Back: eventTakeBackVoidOfWant, IsVoided: func(r wanted.Want) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r wanted.Want, voided bool) error {
		r.Voided = voided
		return wanted.UpdateWant(ctx, tx, r)
	}}

// VoidWant strikes one out that was entered by mistake.
func (s *Service) VoidWant(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return wants.Void(ctx, s.kernel, actor, voidedWants, id, version)
}

func (s *Service) undoVoidWant(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return wants.Unvoid(ctx, s.kernel, actor, voidedWants, e)
}
