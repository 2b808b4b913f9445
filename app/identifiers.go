package app

import (
	"context"
	"encoding/json"
	"errors"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/device/builtin"
	"frugalheron/core/evidence"
	"frugalheron/core/outside"
	"frugalheron/core/reckoning"
	"frugalheron/store"
)

// sumKnown writes anew what lists tell of the statements about a machine, and its identifiers: from its
// record, its outside, what was said of it and its boards, so that the same one on another is met.
func sumKnown(ctx context.Context, tx *sqlx.Tx, machineID int64) error {
	// Whoever writes next sums up what this one has written.
	if err := store.LockMachineSums(ctx, tx, machineID); err != nil {
		return err
	}
	machine, err := store.MachineByID(ctx, tx, machineID)
	if err != nil {
		return err
	}
	seen, outsideID, err := outsideOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	totals, err := keptTotals(ctx, tx, machineID)
	if err != nil {
		return err
	}
	known, err := knownOf(ctx, tx, machine, totals, outsideID, seen)
	if err != nil {
		return err
	}
	judged := judgedOf(known)
	memoryDisputed := slices.ContainsFunc(judged, func(j evidence.Judged) bool {
		return j.Attribute.Key == "memory" && j.Judgement.State == evidence.Disputed
	})
	if err := store.PutDisputed(ctx, tx, machineID, evidence.CountOf(judged, evidence.Disputed), memoryDisputed); err != nil {
		return err
	}
	rows := []store.IdentifierRow{}
	add := func(attribute, value, source string) {
		// Short ones are met everywhere and tell nothing.
		if key := evidence.IdentifierKey(value); len(key) >= shortestTelling {
			rows = append(rows, store.IdentifierRow{Key: key, Attribute: attribute, Value: value, Source: source})
		}
	}
	for _, k := range known {
		if k.Attribute.Form != evidence.Identifier || k.Attribute.Key == "catalogue-number" {
			continue
		}
		for _, s := range k.Statements {
			if s.Withdrawn != "" {
				continue
			}
			source := s.Follows
			if source == "" {
				source = evidence.Kind(s.Kind).Words()
				if s.Cited != "" {
					source += ", " + s.Cited
				}
			}
			add(k.Attribute.Key, s.Value, source)
		}
	}
	fitted, err := store.AssembliesOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	for _, f := range fitted {
		add("serial", f.Serial, f.Title)
	}
	return store.ReplaceIdentifiers(ctx, tx, machineID, rows)
}

// keptTotals adds up the kept totals of the boards of a machine.
func keptTotals(ctx context.Context, h store.Handle, machineID int64) (reckoning.Totals, error) {
	kept, err := store.BoardTotalsOf(ctx, h, machineID)
	if err != nil {
		return reckoning.Totals{}, err
	}
	boards := make([]reckoning.Board, len(kept))
	for i, text := range kept {
		if err := json.Unmarshal([]byte(text), &boards[i].Result.Totals); err != nil {
			return reckoning.Totals{}, err
		}
	}
	return reckoning.Combine(boards), nil
}

// shortestTelling is the least number of letters and figures of an identifier by which two records are
// compared. A rule of thumb.
const shortestTelling = 4

// outsideOf reads the outside of a machine, and its id.
func outsideOf(ctx context.Context, h store.Handle, machineID int64) (outside.Sheet, int64, error) {
	assembly, err := store.OutsideOf(ctx, h, machineID)
	if err != nil {
		return outside.Sheet{}, 0, err
	}
	newest, err := store.NewestRevision(ctx, h, assembly.ID)
	if err != nil && !errors.Is(err, ErrNotFound) {
		return outside.Sheet{}, 0, err
	}
	return outside.Parse(newest.Body), assembly.ID, nil
}

// lookedOver takes in what a new revision of an outside says.
func lookedOver(ctx context.Context, tx *sqlx.Tx, assembly store.Assembly, newest store.Revision) error {
	seen := outside.Parse(newest.Body)
	return store.PutTotals(ctx, tx, assembly.ID, newest.N, builtin.Version, len(seen.Entries), len(seen.Problems), reckoning.Totals{})
}

// DecideMeeting says what an identifier that two machines share means: that they belong together, or
// that it is by chance or by mistake.
func (a *App) DecideMeeting(ctx context.Context, actor Actor, machineID int64, key string, other int64, decision, reason string) error {
	if err := oneLine("reason", &reason); err != nil {
		return err
	}
	if reason == "" {
		return &Invalid{"reason", "say why, so that whoever finds it next need not ask again"}
	}
	return a.deed(ctx, actor, MayKeepTheRecord, func(tx *sqlx.Tx) error {
		if _, err := store.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		meetings, err := store.MeetingsOf(ctx, tx, machineID)
		if err != nil {
			return err
		}
		for _, m := range meetings {
			if m.Key != key || m.OtherID != other {
				continue
			}
			if err := store.DecideMeeting(ctx, tx, key, machineID, other, actor.account(), decision, reason); err != nil {
				return err
			}
			told := map[string]string{"value": m.Value, "other": m.Accession, "decision": decision, "reason": reason}
			return record(ctx, tx, actor, "decide meeting", "machine", machineID, &machineID, nil, told)
		}
		return &Invalid{"key", "the two do not share this identifier any more"}
	})
}
