package evidence

import (
	"context"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	appinventory "frugalheron/app/inventory"
	"frugalheron/core/evidence"
	"frugalheron/core/exterior"
	"frugalheron/core/memory"
	"frugalheron/core/reckoning"
	"frugalheron/core/verdict"
	storeevidence "frugalheron/store/evidence"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
)

// Stated is a statement about a machine: one that was kept, or one that follows from its sheets or its
// record and changes with them.
type Stated struct {
	Statement
	Follows string        `json:"follows" doc:"What it follows from, in words; empty for one that was kept"`
	Spot    *verdict.Spot `json:"spot" doc:"The line it follows from, or null"`
}

// Known is what is known of an attribute of a machine.
type Known struct {
	evidence.Judged
	Statements []Stated `json:"statements" doc:"Those that were withdrawn, too"`
}

// alwaysAsked are the attributes that every machine has, so that nothing said of them is told as well.
var alwaysAsked = []string{"maker", "model", "serial", "memory", "rom", "mains-voltage", "weight", "outer-size"}

// follow lists the statements that follow from a machine's record, its boards and its outside.
func follow(machine appinventory.Machine, totals reckoning.Totals, exteriorID int64, seen exterior.Sheet) []Stated {
	stated := []Stated{}
	add := func(attribute, value string, kind evidence.Kind, follows string, spot *verdict.Spot) {
		if value == "" {
			return
		}
		s := Statement{MachineID: machine.ID}
		s.Attribute, s.Value, s.Kind, s.Cited = attribute, value, string(kind), follows
		stated = append(stated, Stated{s, follows, spot})
	}
	add("maker", machine.Maker, evidence.Inferred, "the machine's record", nil)
	add("model", machine.Model, evidence.Inferred, "the machine's record", nil)
	add("serial", machine.Serial, evidence.Inferred, "the machine's record", nil)
	count := func(attribute string, bytes int64) {
		if bytes > 0 {
			add(attribute, memory.Format(bytes), evidence.Counted, "the sheets of its boards", nil)
		}
	}
	count("memory", totals.RAMBy.Main+totals.RAMBy.Shared)
	count("picture-memory", totals.RAMBy.Picture)
	count("rom", totals.ROMBytes)
	for _, said := range seen.Statements() {
		add(said.Attribute, said.Value, said.Kind, "the sheet of the outside",
			&verdict.Spot{Assembly: exteriorID, Line: said.Line})
	}
	return stated
}

// weigh judges all that is said of a machine.
func weigh(stated []Stated) []Known {
	said, byAttribute := map[string][]evidence.Statement{}, map[string][]Stated{}
	for _, s := range stated {
		byAttribute[s.Attribute] = append(byAttribute[s.Attribute], s)
		if s.Retracted == "" {
			said[s.Attribute] = append(said[s.Attribute],
				evidence.Statement{ID: s.ID, Kind: evidence.Kind(s.Kind), Value: s.Value})
		} else if said[s.Attribute] == nil {
			said[s.Attribute] = []evidence.Statement{}
		}
	}
	known := []Known{}
	for _, j := range evidence.JudgeAll(said, alwaysAsked...) {
		k := Known{j, byAttribute[j.Attribute.Key]}
		if k.Statements == nil {
			k.Statements = []Stated{}
		}
		known = append(known, k)
	}
	return known
}

// KnownOf judges what is said of a machine whose boards amount to totals and whose outside reads so.
func KnownOf(ctx context.Context, h pg.Handle, machine appinventory.Machine, totals reckoning.Totals,
	exteriorID int64, seen exterior.Sheet) ([]Known, error) {
	kept, err := action.Once(ctx, "statements", machine.ID, func() ([]storeevidence.Statement, error) {
		return storeevidence.StatementsOf(ctx, h, machine.ID)
	})
	if err != nil {
		return nil, err
	}
	stated := follow(machine, totals, exteriorID, seen)
	for _, s := range kept {
		stated = append(stated, Stated{Statement: statementOf(s)})
	}
	return weigh(stated), nil
}

// JudgedOf leaves out what was said, and keeps what it amounts to.
func JudgedOf(known []Known) []evidence.Judged {
	judged := make([]evidence.Judged, len(known))
	for i, k := range known {
		judged[i] = k.Judged
	}
	return judged
}

// StateEvidence notes what a source says of an attribute of a machine.
func (s *Service) StateEvidence(ctx context.Context, actor action.Actor, machineID int64,
	fields StatementInput) (Statement, error) {
	var stated Statement
	err := input.CheckAll(input.OneLine("attribute", &fields.Attribute), input.OneLine("value", &fields.Value))
	switch {
	case err != nil:
		return stated, err
	case fields.Attribute == "":
		return stated, action.Reject("attribute", "say what it is about")
	case fields.Value == "":
		return stated, action.Reject("value", "write what the source says, letter by letter")
	}
	if _, err := evidence.AttributeOf(fields.Attribute).Normal(fields.Value); err != nil {
		return stated, action.Reject("value", err.Error())
	}
	err = s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := inventory.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		if err := CheckCitation(ctx, tx, machineID, nil, &fields.Citation); err != nil {
			return err
		}
		id, err := storeevidence.InsertStatement(ctx, tx, machineID, actor.Account(), fields.row())
		if err != nil {
			return err
		}
		row, err := storeevidence.LockStatement(ctx, tx, id)
		if err != nil {
			return err
		}
		stated = statementOf(row)
		return action.Record(ctx, tx, actor, eventStateEvidence, id, &machineID, nil, fields)
	})
	return stated, err
}
