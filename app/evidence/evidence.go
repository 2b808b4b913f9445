package evidence

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"time"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/input"
	appinventory "frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/exterior"
	"frugalheron/core/facts"
	"frugalheron/core/memory"
	"frugalheron/core/reckoning"
	"frugalheron/core/verdict"
	storeevidence "frugalheron/store/evidence"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	storesheets "frugalheron/store/sheets"
)

// Stated is a statement about a machine: one that was kept, or one that follows from its sheets or its
// record and changes with them.
type Stated struct {
	Statement
	Ref     string        `json:"ref" doc:"What the fact calls it"`
	Follows string        `json:"follows" doc:"What it follows from, in words; empty for one that was kept"`
	Problem string        `json:"problem" says:"text" doc:"Why it cannot be weighed, or empty"`
	Spot    *verdict.Spot `json:"spot" doc:"The line it follows from, or null"`

	on string // when it was so, EDTF; empty where nobody knows
}

// Known is what is known of an attribute of a machine, or of a part of it.
type Known struct {
	Attribute  facts.Attribute `json:"attribute"`
	Fact       facts.Fact      `json:"fact"`
	Statements []Stated        `json:"statements" doc:"Those that were withdrawn, too"`
}

// IsRead reports whether it is settled by what somebody read on the thing, or found: what the record says by itself is
// to be looked at still.
func (k Known) IsRead() bool {
	return k.Fact.State == facts.Settled && slices.ContainsFunc(k.Statements, func(s Stated) bool {
		return slices.Contains(k.Fact.Now.IDs, s.Ref) && facts.Source(s.Kind).Rank() >= facts.Label.Rank()
	})
}

// alwaysAsked are the attributes that every machine has, so that nothing said of them is told as well.
var alwaysAsked = []string{"maker", "model", "serial", "memory", "rom", "mains-voltage", "weight", "outer-size"}

// follow lists the statements that follow from a machine's record, its boards and its outside. What stands on a sheet
// has been so since it was saved, and is so today.
func follow(actor action.Actor, machine appinventory.Machine, totals reckoning.Totals, exteriorID int64,
	seen exterior.Sheet, saved storesheets.Saved) []Stated {
	stated := []Stated{}
	add := func(attribute, value string, kind facts.Source, follows, on string, spot *verdict.Spot) {
		if value == "" {
			return
		}
		s := Statement{MachineID: machine.ID}
		s.Attribute, s.Value, s.Kind, s.Cited = attribute, value, string(kind), follows
		stated = append(stated, Stated{Statement: s, Ref: fmt.Sprintf("follows-%d", len(stated)), Follows: follows,
			Spot: spot, on: on})
	}
	since := func(at *time.Time) string {
		if at == nil || actor.DayOf(*at) >= actor.Today() {
			return actor.Today()
		}
		return actor.DayOf(*at) + "/" + actor.Today()
	}
	add("maker", machine.Maker, facts.Inferred, "the machine's record", "", nil)
	add("model", machine.Model, facts.Inferred, "the machine's record", "", nil)
	add("serial", machine.Serial, facts.Inferred, "the machine's record", "", nil)
	count := func(attribute string, bytes int64) {
		if bytes > 0 {
			add(attribute, memory.Format(bytes), facts.Counted, "the sheets of its boards", since(saved.Boards), nil)
		}
	}
	count("memory", totals.RAMBy.Main+totals.RAMBy.Shared)
	count("picture-memory", totals.RAMBy.Picture)
	count("rom", totals.ROMBytes)
	for _, said := range seen.Statements() {
		add(said.Attribute, said.Value, said.Kind, "the sheet of the outside", since(saved.Exterior),
			&verdict.Spot{Assembly: exteriorID, Line: said.Line})
	}
	return stated
}

// blocksOf are the amounts of memory that firmware, programs and papers count in one way or another.
func blocksOf(totals reckoning.Totals) []facts.Block {
	memory, picture := "memory", "picture-memory"
	blocks := []facts.Block{}
	for _, b := range []facts.Block{
		{ID: "main memory", Attribute: memory, Bytes: totals.RAMBy.Main, What: "data"},
		{ID: "memory shared with the picture", Attribute: memory, Bytes: totals.RAMBy.Shared, What: "shared",
			AlsoReadAs: &picture},
		{ID: "picture memory", Attribute: picture, Bytes: totals.RAMBy.Picture, What: "picture", AlsoReadAs: &memory},
		{ID: "cache", Attribute: "cache", Bytes: totals.RAMBy.Cache, What: "cache", AlsoReadAs: &memory},
		{ID: "memory of cards", Attribute: "card-memory", Bytes: totals.RAMBy.Card, What: "card", AlsoReadAs: &memory},
	} {
		if b.Bytes > 0 {
			blocks = append(blocks, b)
		}
	}
	return blocks
}

// onOf is when a kept statement was so. Where nobody said it, what somebody found was so on the day that it was noted;
// what people and papers say was so by then.
func onOf(actor action.Actor, s Statement) string {
	switch {
	case s.StatedOn != "":
		return s.StatedOn
	case facts.Source(s.Kind).IsFound():
		return actor.DayOf(s.At)
	}
	return "../" + actor.DayOf(s.At)
}

// formOf is the form of a kept statement where it is another than that of its attribute: what was kept before the
// attribute had one is compared as words. An address that is none stays one, as it is lost.
func formOf(s Statement) facts.Form {
	attribute := facts.AttributeOf(s.Attribute)
	if _, err := attribute.Normal(s.Value); s.Form == "" && err != nil && attribute.Form != facts.Address {
		return facts.Text
	}
	return facts.Form(s.Form)
}

// weigh judges all that is said of a machine.
func weigh(today string, stated []Stated, blocks []facts.Block, limits []facts.Limit) ([]Known, error) {
	in := facts.Input{Now: today, Blocks: blocks, Limits: limits}
	for i := range stated {
		s := stated[i]
		if s.Retracted != "" {
			continue
		}
		one := facts.Statement{ID: s.Ref, Attribute: s.Attribute, Subject: s.Subject, Value: s.Value,
			Source: facts.Source(s.Kind), On: &stated[i].on}
		if s.Nature != "" {
			nature := facts.Nature(s.Nature)
			one.Nature = &nature
		}
		if form := formOf(s.Statement); form != "" {
			one.Form = &form
		}
		in.Statements = append(in.Statements, one)
	}
	result, err := facts.Judge(in)
	if err != nil {
		return nil, err
	}
	all := facts.InOrder(facts.Asked(result.Facts, alwaysAsked...))
	known := []Known{}
	for _, f := range all {
		k := Known{facts.AttributeOf(f.Attribute), f, []Stated{}}
		for _, s := range stated {
			if s.Attribute != f.Attribute || s.Subject != f.Subject {
				continue
			}
			for _, p := range result.Problems {
				if p.ID == s.Ref {
					s.Problem = p.Why
				}
			}
			k.Statements = append(k.Statements, s)
		}
		known = append(known, k)
	}
	return append(known, onlyRetracted(stated, all)...), nil
}

// onlyRetracted are attributes of which nothing counts any more that was said.
func onlyRetracted(stated []Stated, told []facts.Fact) []Known {
	known := []Known{}
	for _, s := range stated {
		same := func(attribute, subject string) bool { return attribute == s.Attribute && subject == s.Subject }
		if slices.ContainsFunc(told, func(f facts.Fact) bool { return same(f.Attribute, f.Subject) }) {
			continue
		}
		at := slices.IndexFunc(known, func(k Known) bool { return same(k.Fact.Attribute, k.Fact.Subject) })
		if at < 0 {
			silent := facts.Asked(nil, s.Attribute)[0]
			silent.Subject = s.Subject
			at, known = len(known), append(known, Known{facts.AttributeOf(s.Attribute), silent, []Stated{}})
		}
		known[at].Statements = append(known[at].Statements, s)
	}
	return known
}

// KnownOf judges what is said of a machine whose boards amount to totals and whose outside reads so. The actor says
// which day it is.
func KnownOf(ctx context.Context, h pg.Handle, actor action.Actor, machine appinventory.Machine,
	totals reckoning.Totals, exteriorID int64, seen exterior.Sheet) ([]Known, error) {
	kept, err := action.Once(ctx, "evidence", machine.ID, func() (evidenceKept, error) {
		return readKept(ctx, h, machine.ID)
	})
	if err != nil {
		return nil, err
	}
	stated := append(follow(actor, machine, totals, exteriorID, seen, kept.saved), kept.dated...)
	for _, row := range kept.statements {
		s := statementOf(row)
		stated = append(stated, Stated{Statement: s, Ref: strconv.FormatInt(s.ID, 10), on: onOf(actor, s)})
	}
	// What the model says is nearer than what follows from how programs count.
	return weigh(actor.Today(), stated, append(blocksOf(totals), kept.roms...),
		slices.Concat(kept.limits, facts.CommonLimits()))
}

// evidenceKept is what is kept of a machine and has a say in what is known of it.
type evidenceKept struct {
	statements []storeevidence.Statement
	saved      storesheets.Saved
	dated      []Stated
	roms       []facts.Block
	limits     []facts.Limit // of its model
}

func readKept(ctx context.Context, h pg.Handle, machineID int64) (kept evidenceKept, err error) {
	if kept.statements, err = storeevidence.StatementsOf(ctx, h, machineID); err != nil {
		return kept, err
	}
	if kept.saved, err = storesheets.SavedIn(ctx, h, machineID); err != nil {
		return kept, err
	}
	if kept.dated, err = followParts(ctx, h, machineID); err != nil {
		return kept, err
	}
	if kept.roms, err = romBlocks(ctx, h, machineID); err != nil {
		return kept, err
	}
	figures, err := library.FiguresOf(ctx, h, machineID)
	kept.limits = figures.Limits
	return kept, err
}

// FactsOf leaves out what was said, and keeps what it amounts to.
func FactsOf(known []Known) []facts.Fact {
	amounts := make([]facts.Fact, len(known))
	for i, k := range known {
		amounts[i] = k.Fact
	}
	return amounts
}

// StateEvidence notes what a source says of an attribute of a machine.
func (s *Service) StateEvidence(ctx context.Context, actor action.Actor, machineID int64,
	fields StatementInput) (Statement, error) {
	var stated Statement
	err := input.CheckAll(input.OneLine("attribute", &fields.Attribute), input.OneLine("value", &fields.Value),
		input.OneLine("subject", &fields.Subject))
	switch {
	case err != nil:
		return stated, err
	case fields.Attribute == "":
		return stated, action.Reject("attribute", "say what it is about")
	case fields.Value == "":
		return stated, action.Reject("value", "write what the source says, letter by letter")
	}
	attribute := facts.AttributeOf(fields.Attribute)
	if fields.Form != "" {
		attribute.Form = facts.Form(fields.Form)
	}
	if _, err := attribute.Normal(fields.Value); err != nil && !errors.Is(err, facts.ErrLost) {
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
