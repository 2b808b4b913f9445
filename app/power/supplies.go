package power

import (
	"context"
	"fmt"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/gate"
	"frugalheron/store/history"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/power"
)

// RailAmperes is how much a rail can give.
type RailAmperes struct {
	Rail    string  `json:"rail" maxLength:"20" example:"+5"`
	Amperes float64 `json:"amperes" minimum:"0" maximum:"1000"`
}

// SupplyInput is what people write of what feeds a machine.
type SupplyInput struct {
	Name            string          `json:"name" says:"text" maxLength:"200" example:"built-in supply"`
	Kind            gate.SupplyKind `json:"kind" enum:"mains,adapter,bench,battery"`
	PlateVolts      string          `json:"plateVolts" maxLength:"60" required:"false" example:"220-240" doc:"As it stands on the plate: 230, 220-240, 115/230; empty while nobody read it"`
	PlateHz         string          `json:"plateHz" maxLength:"60" required:"false" example:"50/60"`
	PlatePolarity   string          `json:"platePolarity" enum:",centre+,centre-,none" required:"false" doc:"That it asks for; empty while nobody read it"`
	Selector        *float64        `json:"selector,omitempty" minimum:"0" maximum:"1000" doc:"The voltage at which its selector stands; left out where it has none, or nobody looked"`
	SourceVolts     *float64        `json:"sourceVolts,omitempty" minimum:"0" maximum:"1000" doc:"Of an adapter or a bench supply: what was measured, or is set"`
	SourcePolarity  string          `json:"sourcePolarity" enum:",centre+,centre-,none" required:"false"`
	InspectedOn     string          `json:"inspectedOn" maxLength:"10" required:"false" doc:"YYYY-MM-DD"`
	InspectedBy     string          `json:"inspectedBy" says:"text" maxLength:"200" required:"false"`
	MovedOn         string          `json:"movedOn" maxLength:"10" required:"false" doc:"When it was last carried by vehicle, dropped or tipped"`
	RanOn           string          `json:"ranOn" maxLength:"10" required:"false" doc:"When it was last seen running"`
	Needs           []string        `json:"needs" maxItems:"12" required:"false" doc:"Rails that the machine needs, as +5"`
	Rating          []RailAmperes   `json:"rating" maxItems:"12" required:"false" doc:"What each rail can give"`
	StartsWithMains bool            `json:"startsWithMains" required:"false" doc:"The machine starts as soon as mains arrives"`
	Note            string          `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// Supply is what feeds a machine.
type Supply struct {
	ID        int64 `json:"id"`
	MachineID int64 `json:"machineId"`
	SupplyInput
	Version int `json:"version"`
}

func tellSupply(row power.Supply) Supply {
	in, _ := action.ReadKept[SupplyInput](row.Body) // written by this package alone
	in.Needs, in.Rating = append([]string{}, in.Needs...), append([]RailAmperes{}, in.Rating...)
	return Supply{ID: row.ID, MachineID: row.MachineID, SupplyInput: in, Version: row.Version}
}

var supplies = action.Records[power.Supply, Supply]{
	What: "the supply", Lock: power.LockSupply, Read: power.SupplyByID,
	Version: func(r power.Supply) int { return r.Version },
	Told:    func(r power.Supply) any { return tellSupply(r).SupplyInput }, View: tellSupply,
	Machine: func(r power.Supply) *int64 { return &r.MachineID },
}

// check refuses what cannot be kept, and brings the rest into one form.
func (in *SupplyInput) check(actor action.Actor) error {
	err := input.CheckAll(input.OneLine("name", &in.Name), input.OneLine("plateVolts", &in.PlateVolts),
		input.OneLine("plateHz", &in.PlateHz), input.OneLine("inspectedBy", &in.InspectedBy), input.Lines("note",
			&in.Note))
	if err != nil {
		return err
	}
	if in.Name == "" {
		return action.Reject("name", "say which supply it is, as built-in supply")
	}
	for field, day := range map[string]string{"inspectedOn": in.InspectedOn, "movedOn": in.MovedOn, "ranOn": in.RanOn} {
		if day == "" {
			continue
		}
		if err := input.PastDay(field, day, actor.Today()); err != nil {
			return err
		}
	}
	needs := []string{}
	for _, rail := range in.Needs {
		if rail = strings.Join(strings.Fields(rail), ""); rail != "" {
			needs = append(needs, rail)
		}
		if len(rail) > 20 {
			return action.Reject("needs", fmt.Sprintf("%q is no name of a rail; write +5, -12 or the like", rail))
		}
	}
	in.Needs = needs
	for i := range in.Rating {
		in.Rating[i].Rail = strings.Join(strings.Fields(in.Rating[i].Rail), "")
		if in.Rating[i].Rail == "" {
			return action.Reject("rating", "say of which rail it is, as +5 10")
		}
	}
	return nil
}

// AddSupply says what feeds a machine.
func (s *Service) AddSupply(ctx context.Context, actor action.Actor, machineID int64, in SupplyInput) (Supply, error) {
	if err := in.check(actor); err != nil {
		return Supply{}, err
	}
	var added Supply
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		id, err := power.InsertSupply(ctx, tx, machineID, action.ToKeep(in))
		if err != nil {
			return err
		}
		added = Supply{ID: id, MachineID: machineID, SupplyInput: in, Version: 1}
		return action.Record(ctx, tx, actor, eventAddSupply, id, &machineID, nil, in)
	})
	return added, err
}

// ChangeSupply rewrites what is said of one, starting from a version.
func (s *Service) ChangeSupply(ctx context.Context, actor action.Actor, id int64, version int,
	in SupplyInput) (Supply, error) {
	if err := in.check(actor); err != nil {
		return Supply{}, err
	}
	return supplies.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets,
		Event: eventChangeSupply, ID: id, Version: version}, func(tx *sqlx.Tx, before power.Supply) error {
		if before.Voided {
			return action.ErrNotFound
		}
		return power.UpdateSupply(ctx, tx, id, action.ToKeep(in), false)
	})
}

var voidedSupplies = action.Voiding[power.Supply]{Roles: action.MayWriteSheets, Event: eventVoidSupply,
	Back: eventTakeBackVoidOfSupply, IsVoided: func(r power.Supply) bool { return r.Voided },
	Set: func(ctx context.Context, tx *sqlx.Tx, r power.Supply, voided bool) error {
		return power.UpdateSupply(ctx, tx, r.ID, r.Body, voided)
	}}

// VoidSupply strikes one out that does not feed the machine any more, or never did.
func (s *Service) VoidSupply(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	return supplies.Void(ctx, s.kernel, actor, voidedSupplies, id, version)
}

func (s *Service) undoVoidSupply(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return supplies.Unvoid(ctx, s.kernel, actor, voidedSupplies, e)
}

func suppliesOf(ctx context.Context, h pg.Handle, machineID int64) ([]Supply, error) {
	rows, err := power.SuppliesOf(ctx, h, machineID)
	return action.Views(rows, tellSupply), err
}

// Ratings tells what each rail of a machine may give, by the one supply that says so. Where several do, nobody knows how they
// share it, and it is left out.
func (s *Service) Ratings(ctx context.Context, machineID int64) (map[string]float64, error) {
	rows, err := power.SuppliesOf(ctx, s.kernel.Reader(ctx), machineID)
	ratings, said := map[string]float64{}, map[string]int{}
	for _, row := range rows {
		for _, one := range tellSupply(row).Rating {
			ratings[one.Rail] = one.Amperes
			said[one.Rail]++
		}
	}
	for rail, n := range said {
		if n > 1 {
			delete(ratings, rail)
		}
	}
	return ratings, err
}
