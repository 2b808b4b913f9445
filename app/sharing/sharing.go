// Package sharing is about peripherals that serve machines without being fitted in them, and what stops while they are
// not there.
package sharing

import (
	"context"
	"fmt"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/input"
	"frugalheron/app/inventory"
	corecondition "frugalheron/core/condition"
	core "frugalheron/core/sharing"
	"frugalheron/core/verdict"
	"frugalheron/store/history"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/sharing"
)

// Service does what is done about peripherals.
type Service struct {
	kernel    *action.Kernel
	inventory *inventory.Service
	condition *condition.Service
}

// New returns it.
func New(kernel *action.Kernel, inventory *inventory.Service, condition *condition.Service) *Service {
	s := &Service{kernel, inventory, condition}
	kernel.CanBeUndone(eventServe, action.MayWriteSheets, s.undoServe)
	kernel.CanBeUndone(eventEndService, action.MayWriteSheets, s.undoEndService)
	return s
}

var (
	eventServe = action.NewEvent("serve", "service", func(_ string, _, a action.Fields) string {
		return fmt.Sprintf("said that %v serves %v as %v", a["peripheral"], a["machine"], a["as"])
	})
	eventEndService = action.NewEvent("end service", "service", func(_ string, b, _ action.Fields) string {
		return fmt.Sprintf("said that %v serves %v as %v no more", b["peripheral"], b["machine"], b["as"])
	})
)

// ServiceInput is that a peripheral serves a machine.
type ServiceInput struct {
	MachineID int64  `json:"machineId" minimum:"1"`
	As        string `json:"as" says:"text" maxLength:"100" doc:"As keyboard, monitor, supply, lead to the disk drive"`
	Without   string `json:"without" says:"text" maxLength:"400" required:"false" doc:"What the machine does not do without one"`
}

// Serving is that a peripheral serves a machine, and how that stands.
type Serving struct {
	ID         int64         `json:"id"`
	AssemblyID int64         `json:"assemblyId"`
	Title      string        `json:"title" says:"text" doc:"Of the peripheral"`
	InID       *int64        `json:"inId" doc:"The machine that the peripheral is in; null for none"`
	MachineID  int64         `json:"machineId" doc:"The machine that it serves"`
	Accession  string        `json:"accession"`
	Machine    string        `json:"machine" says:"text"`
	As         string        `json:"as" says:"text"`
	Without    string        `json:"without" says:"text"`
	Version    int           `json:"version"`
	Standing   core.Standing `json:"standing"`
}

func (s Serving) inWords() map[string]any {
	return map[string]any{"peripheral": s.Title, "machine": s.Accession, "as": s.As, "without": s.Without}
}

func servingOf(r sharing.Service) Serving {
	return Serving{ID: r.ID, AssemblyID: r.AssemblyID, Title: r.Title, InID: r.InID, MachineID: r.MachineID,
		Accession: r.Accession, Machine: r.Machine, As: r.As, Without: r.Without, Version: r.Version,
		Standing: core.Standing{Others: []string{}, Instead: []string{}}}
}

// Serving lists what serves a machine without being fitted in it, or may be.
func (s *Service) Serving(ctx context.Context, actor action.Actor, machineID int64) ([]Serving, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return nil, err
	}
	told, _, err := s.around(ctx, actor, []int64{machineID}, nil)
	return slices.DeleteFunc(told, func(one Serving) bool { return one.MachineID != machineID }), err
}

// ServedBy lists the machines that a peripheral serves.
func (s *Service) ServedBy(ctx context.Context, actor action.Actor, assemblyID int64) ([]Serving, error) {
	if _, err := s.inventory.Assembly(ctx, actor, assemblyID); err != nil {
		return nil, err
	}
	told, _, err := s.around(ctx, actor, nil, []int64{assemblyID})
	return slices.DeleteFunc(told, func(one Serving) bool { return one.AssemblyID != assemblyID }), err
}

// around judges all services that hang together with some machines and some peripherals.
func (s *Service) around(ctx context.Context, actor action.Actor, machineIDs,
	assemblyIDs []int64) ([]Serving, []core.Service, error) {
	rows, err := sharing.Around(ctx, s.kernel.Reader(ctx), machineIDs, assemblyIDs)
	if err != nil {
		return nil, nil, err
	}
	broken := map[int64]string{}
	services, told := make([]core.Service, len(rows)), make([]Serving, len(rows))
	for i, r := range rows {
		if _, isRead := broken[r.AssemblyID]; !isRead && !r.IsGone {
			if broken[r.AssemblyID], err = s.brokenBy(ctx, actor, r.AssemblyID); err != nil {
				return nil, nil, err
			}
		}
		thing := core.Thing{Title: r.Title, Machine: r.In, Place: r.Place, LentTo: r.LentTo, IsGone: r.IsGone,
			Broken: broken[r.AssemblyID]}
		if r.Due != nil {
			thing.Due = *r.Due
		}
		services[i] = core.Service{ThingID: r.AssemblyID, Thing: thing, Machine: r.Accession, As: r.As,
			Without: r.Without}
		told[i] = servingOf(r)
	}
	for i, standing := range core.Judge(services) {
		told[i].Standing = standing
	}
	return told, services, nil
}

// brokenBy is what keeps an assembly from working, by its open findings; empty where nothing is known to.
func (s *Service) brokenBy(ctx context.Context, actor action.Actor, assemblyID int64) (string, error) {
	how, err := s.condition.BoardCondition(ctx, actor, assemblyID)
	if err != nil || how.Technical != corecondition.Grade(corecondition.Repair) &&
		how.Technical != corecondition.Grade(corecondition.Hazard) {
		return "", err
	}
	return how.TechnicalWhy, nil
}

// Serve says that a peripheral serves a machine.
func (s *Service) Serve(ctx context.Context, actor action.Actor, assemblyID int64, in ServiceInput) (Serving, error) {
	err := input.CheckAll(input.OneLine("as", &in.As), input.OneLine("without", &in.Without))
	switch {
	case err != nil:
		return Serving{}, err
	case in.As == "":
		return Serving{}, action.Reject("as", "say as what it serves the machine, as keyboard")
	}
	var id int64
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		thing, err := storeinventory.LockAssembly(ctx, tx, assemblyID)
		switch {
		case err != nil:
			return err
		case thing.IsVoided || thing.IsExterior():
			return action.ErrNotFound
		}
		if _, err := storeinventory.MachineByID(ctx, tx, in.MachineID); err != nil {
			return input.Missing(err, "machineId", "choose a machine of the collection")
		}
		id, err = sharing.Insert(ctx, tx, actor.Account(),
			sharing.Fields{AssemblyID: assemblyID, MachineID: in.MachineID, As: in.As, Without: in.Without})
		if pg.Violates(err, "service_key") {
			return action.Reject("machineId", "it serves that machine as "+in.As+" already")
		}
		if err != nil {
			return err
		}
		row, err := sharing.ByID(ctx, tx, id)
		if err != nil {
			return err
		}
		return action.Record(ctx, tx, actor, eventServe, id, &row.MachineID, nil, servingOf(row).inWords())
	})
	if err != nil {
		return Serving{}, err
	}
	told, _, err := s.around(ctx, actor, nil, []int64{assemblyID})
	if at := slices.IndexFunc(told, func(one Serving) bool { return one.ID == id }); at >= 0 {
		return told[at], err
	}
	return Serving{}, err
}

var services = action.Records[sharing.Service, Serving]{
	What: "what it serves", Lock: sharing.Lock, Read: sharing.ByID,
	Version: func(r sharing.Service) int { return r.Version },
	View:    servingOf,
}

// EndService says that a peripheral serves a machine no more. The event that is returned can be undone.
func (s *Service) EndService(ctx context.Context, actor action.Actor, id int64, version int) (event int64, err error) {
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		row, err := services.Locked(ctx, tx, id, version)
		if err != nil {
			return err
		}
		if row.Ended {
			return action.ErrNotFound
		}
		if err := sharing.End(ctx, tx, id, true); err != nil {
			return err
		}
		event, err = action.RecordEvent(ctx, tx, actor, eventEndService, id, &row.MachineID, servingOf(row).inWords(),
			nil)
		return err
	})
	return event, err
}

func (s *Service) undoServe(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, sharing.Lock,
		func(ctx context.Context, _ *sqlx.Tx, now sharing.Service) error {
			return action.Second(s.EndService(ctx, actor, now.ID, now.Version))
		})
}

func (s *Service) undoEndService(ctx context.Context, actor action.Actor, e history.EventRow) error {
	return action.UndoingOf(s.kernel, ctx, actor, e, action.MayWriteSheets, sharing.Lock,
		func(ctx context.Context, tx *sqlx.Tx, now sharing.Service) error {
			err := sharing.End(ctx, tx, now.ID, false)
			if pg.Violates(err, "service_key") {
				return action.Reject("machineId", "it serves that machine as "+now.As+" again already")
			}
			if err != nil {
				return err
			}
			return action.Record(ctx, tx, actor, eventServe, now.ID, &now.MachineID, nil, servingOf(now).inWords())
		})
}

// Verdicts are the lines of the reckoning that follow from peripherals that are not there.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error) {
	told, all, err := s.around(ctx, actor, []int64{machineID}, nil)
	if err != nil {
		return nil, err
	}
	mine, standings := []core.Service{}, []core.Standing{}
	for i, one := range told {
		if one.MachineID == machineID {
			mine, standings = append(mine, all[i]), append(standings, one.Standing)
		}
	}
	return verdict.Telling(core.VerdictOf(mine, standings)), nil
}
