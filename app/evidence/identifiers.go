package evidence

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/app/input"
	appinventory "frugalheron/app/inventory"
	"frugalheron/core/exterior"
	"frugalheron/core/facts"
	"frugalheron/core/identifier"
	"frugalheron/core/reckoning"
	storeevidence "frugalheron/store/evidence"
	storefiles "frugalheron/store/files"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/sheets"
)

// renewEvidence writes anew what lists tell of the statements about a machine, and its identifiers: from its
// record, its outside, what was said of it and its boards, so that the same one on another is met.
func renewEvidence(ctx context.Context, tx *sqlx.Tx, machineID int64) error {
	// Whoever writes next sums up what this one has written.
	if err := inventory.LockMachineSums(ctx, tx, machineID); err != nil {
		return err
	}
	machine, err := inventory.MachineByID(ctx, tx, machineID)
	if err != nil {
		return err
	}
	seen, exteriorID, err := ExteriorOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	totals, err := KeptTotals(ctx, tx, machineID)
	if err != nil {
		return err
	}
	nobody, err := appinventory.NobodyIn(ctx, tx)
	if err != nil {
		return err
	}
	known, err := KnownOf(ctx, tx, nobody, appinventory.MachineOf(machine), totals, exteriorID, seen)
	if err != nil {
		return err
	}
	judged := FactsOf(known)
	memoryDisputed := slices.ContainsFunc(judged, func(f facts.Fact) bool {
		return f.Attribute == "memory" && f.State == facts.Disputed
	})
	if err := inventory.PutDisputed(ctx, tx, machineID, facts.CountOf(judged, facts.Disputed),
		memoryDisputed); err != nil {
		return err
	}
	rows := identifierRows{}
	for _, k := range known {
		if k.Attribute.Form != facts.Identifier && k.Attribute.Form != facts.Address ||
			k.Attribute.Key == "catalogue-number" {
			continue
		}
		for _, s := range k.Statements {
			if s.Retracted != "" || s.Problem != "" {
				continue
			}
			source := s.Follows
			if source == "" {
				source = facts.Source(s.Kind).Words()
				if s.Cited != "" {
					source += ", " + s.Cited
				}
			}
			rows.add(storeevidence.IdentifierRow{Attribute: k.Attribute.Key, Value: s.Value, Source: source})
		}
	}
	fitted, err := inventory.AssembliesOf(ctx, tx, machineID)
	if err != nil {
		return err
	}
	for _, f := range fitted {
		rows.add(storeevidence.IdentifierRow{Attribute: "serial", Value: f.Serial, Source: f.Title})
	}
	if err := rows.addNumbers(ctx, tx, files.Owner{MachineID: &machineID}); err != nil {
		return err
	}
	return storeevidence.ReplaceIdentifiers(ctx, tx, storeevidence.RecordRef{Kind: "machine", ID: machineID}, rows)
}

// identifierRows collects the identifiers of a record.
type identifierRows []storeevidence.IdentifierRow

// add notes an identifier unless it is too short to tell anything.
func (r *identifierRows) add(row storeevidence.IdentifierRow) {
	if row.Key = identifier.Key(row.Value); identifier.Telling(row.Key) {
		*r = append(*r, row)
	}
}

// addNumbers notes those that stand in the documents and pictures of a machine or lot.
func (r *identifierRows) addNumbers(ctx context.Context, tx *sqlx.Tx, owner files.Owner) error {
	found, err := storefiles.NumbersOf(ctx, tx, owner)
	for _, one := range found {
		for _, number := range input.FilledLines(one.Numbers) {
			r.add(storeevidence.IdentifierRow{Attribute: "number", Value: number,
				Source: one.Kind + " " + cmp.Or(one.Caption, one.FileName), StaffOnly: one.StaffOnly})
		}
	}
	return err
}

// renewLotIdentifiers writes the identifiers of a lot anew: the numbers in its documents.
func renewLotIdentifiers(ctx context.Context, tx *sqlx.Tx, id int64) error {
	rows := identifierRows{}
	if err := rows.addNumbers(ctx, tx, files.Owner{AcquisitionID: &id}); err != nil {
		return err
	}
	return storeevidence.ReplaceIdentifiers(ctx, tx, storeevidence.RecordRef{Kind: "lot", ID: id}, rows)
}

// renewAssemblyIdentifiers writes the identifiers of an assembly anew. The serial of one that is in a machine is met
// there.
func renewAssemblyIdentifiers(ctx context.Context, tx *sqlx.Tx, id int64) error {
	assembly, err := inventory.AssemblyByID(ctx, tx, id)
	if err != nil {
		return err
	}
	rows := identifierRows{}
	if assembly.MachineID == nil && !assembly.IsVoided {
		rows.add(storeevidence.IdentifierRow{Attribute: "serial", Value: assembly.Serial, Source: assembly.Title})
	}
	return storeevidence.ReplaceIdentifiers(ctx, tx, storeevidence.RecordRef{Kind: "assembly", ID: id}, rows)
}

// KeptTotals adds up the kept totals of the boards of a machine.
func KeptTotals(ctx context.Context, h pg.Handle, machineID int64) (reckoning.Totals, error) {
	kept, err := inventory.BoardTotalsOf(ctx, h, machineID)
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

// ExteriorOf reads the outside of a machine, and its id.
func ExteriorOf(ctx context.Context, h pg.Handle, machineID int64) (exterior.Sheet, int64, error) {
	type outside struct {
		exterior.Sheet
		id int64
	}
	seen, err := action.Once(ctx, "outside", machineID, func() (outside, error) {
		assembly, err := inventory.ExteriorOf(ctx, h, machineID)
		if err != nil {
			return outside{}, err
		}
		newest, err := sheets.NewestRevision(ctx, h, assembly.ID)
		if err != nil && !errors.Is(err, action.ErrNotFound) {
			return outside{}, err
		}
		return outside{exterior.Parse(newest.Body), assembly.ID}, nil
	})
	return seen.Sheet, seen.id, err
}
