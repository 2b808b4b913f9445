package condition

import (
	"context"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/risk"
	"frugalheron/store/condition"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// OwnClass is an ageing class as the collection ranks by it.
type OwnClass struct {
	risk.Class
	Version int  `json:"version" doc:"0 while it is as it ships"`
	Shipped bool `json:"shipped" doc:"It is as it ships"`
}

// ownClasses are those that the collection changed or added.
func ownClasses(ctx context.Context, h pg.Handle) ([]OwnClass, error) {
	rows, err := condition.OwnClasses(ctx, h)
	if err != nil {
		return nil, err
	}
	own := []OwnClass{}
	for _, row := range rows {
		c, err := action.ReadKept[risk.Class](row.Body)
		if err != nil {
			return nil, err
		}
		own = append(own, OwnClass{Class: c, Version: row.Version})
	}
	return own, nil
}

// MaintenanceClasses lists the classes by which the collection is ranked.
func (s *Service) MaintenanceClasses(ctx context.Context, actor action.Actor) ([]OwnClass, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return nil, err
	}
	own, err := ownClasses(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return nil, err
	}
	all := []OwnClass{}
	for _, c := range risk.Shipped() {
		if at := slices.IndexFunc(own, func(o OwnClass) bool { return o.Key == c.Key }); at >= 0 {
			all = append(all, own[at])
		} else {
			all = append(all, OwnClass{Class: c, Shipped: true})
		}
	}
	for _, c := range own {
		if !risk.IsShipped(c.Key) {
			all = append(all, c)
		}
	}
	return all, nil
}

// ChangeMaintenanceClass says by what the collection ranks a class, starting from a version.
func (s *Service) ChangeMaintenanceClass(ctx context.Context, actor action.Actor, version int,
	c risk.Class) ([]OwnClass, error) {
	if err := input.CheckAll(input.OneLine("name", &c.Name), input.OneLine("happens", &c.Happens),
		input.OneLine("source", &c.Source)); err != nil {
		return nil, err
	}
	if c.Key == "" {
		c.Key = risk.KeyOf(c.Name)
	}
	if err := c.Check(); err != nil {
		return nil, action.Reject("intervals", err.Error())
	}
	before, err := s.MaintenanceClasses(ctx, actor)
	if err != nil {
		return nil, err
	}
	at := slices.IndexFunc(before, func(o OwnClass) bool { return o.Key == c.Key })
	switch {
	case at < 0 && strings.TrimSpace(c.Words) == "":
		return nil, action.Reject("words", "say by which words on a sheet its parts are told, as air filter, dust filter")
	case at < 0:
		before, at = append(before, OwnClass{Class: risk.Class{Key: c.Key, Name: c.Name}}), len(before)
	}
	err = s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		written, err := condition.PutOwnClass(ctx, tx, c.Key, action.ToKeep(c), version)
		if err != nil {
			return err
		}
		if !written {
			return &action.Stale{What: "the ageing class", Newer: before[at]}
		}
		if err := action.Record(ctx, tx, actor, eventChangeMaintenanceClass, int64(at), nil, before[at].Class,
			c); err != nil {
			return err
		}
		// Which parts it takes in is told anew, for all machines, one after the other.
		return s.kernel.RenewLater(ctx, tx, whatAges)
	})
	if err != nil {
		return nil, err
	}
	return s.MaintenanceClasses(ctx, actor)
}

// SetClimate says how a place treats what stands there, and in all places in it of which nothing else is said.
func (s *Service) SetClimate(ctx context.Context, actor action.Actor, place, climate string) error {
	return s.kernel.Do(ctx, actor, action.MayKeepTheRecord, func(tx *sqlx.Tx) error {
		if holds, err := inventory.HoldsPlace(ctx, tx, place); err != nil {
			return err
		} else if !holds {
			return action.Reject("place", "choose a place that is in the list")
		}
		// A building of which only rooms are written down need not be itself.
		if err := inventory.EnsurePlace(ctx, tx, place); err != nil {
			return err
		}
		before, err := condition.SetClimate(ctx, tx, place, climate)
		if err != nil || before == climate {
			return err
		}
		return action.Record(ctx, tx, actor, eventSetClimate, 0, nil, map[string]any{"climate": before},
			map[string]any{"place": place, "climate": climate})
	})
}
