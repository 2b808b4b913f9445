package power

import (
	"context"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/core/gate"
	"frugalheron/core/part"
	"frugalheron/core/sheet"
	"frugalheron/store/condition"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/power"
)

// PartInput is what the gate asks of a cell or a fan, and what no sheet says.
type PartInput struct {
	Place         string `json:"place" says:"text" maxLength:"200" doc:"Its designators, or its words where it has none"`
	NeededToStart bool   `json:"neededToStart" required:"false" doc:"Of a cell: the machine does not start without it"`
	Charged       *bool  `json:"charged,omitempty" doc:"Of a cell: whether the machine charges it; left out while nobody looked"`
	Turns         string `json:"turns" enum:",turns,dead,missing,unknown" required:"false" doc:"Of a fan"`
	Spared        bool   `json:"spared" required:"false" doc:"Of a fan: the machine can do without it"`
}

// PowerPart is a cell or a fan of the machine, with how it is.
type PowerPart struct {
	AssemblyID int64  `json:"assemblyId"`
	Board      string `json:"board" says:"text"`
	Line       int    `json:"line" doc:"On the sheet of the board"`
	Words      string `json:"words" says:"text" doc:"What the sheet says of it"`
	IsFan      bool   `json:"isFan"`
	State      string `json:"state" enum:"fitted,leaking,swollen,out,replaced,turns,dead,missing,unknown"`
	Primary    bool   `json:"primary" doc:"Not to be charged"`
	Unknown    bool   `json:"unknown" doc:"Nobody said which cell it is"`
	PartInput
	Version int `json:"version" doc:"0 while nothing was said of it"`

	isOut, isNew bool // by the sheet
}

func (p PowerPart) name() string {
	return strings.TrimSpace(p.Place + " on " + p.Board)
}

// partsOf finds the cells and fans of a machine by its sheets, with what is said of them, and what is open on them.
func partsOf(ctx context.Context, h pg.Handle, machineID int64, open []openFinding) ([]PowerPart, error) {
	held, err := condition.HeldParts(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	said, err := power.PartsIn(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	empty, err := power.EmptyCells(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	parts := []PowerPart{}
	for _, row := range held {
		p := PowerPart{AssemblyID: row.AssemblyID, Board: row.Board, Line: row.Line, Words: row.Marking,
			IsFan: row.Kind != "battery" && gate.IsFan(row.Kind+" "+row.Marking), isNew: row.New != nil && *row.New != ""}
		if row.Kind != "battery" && !p.IsFan {
			continue
		}
		p.Place = placeOf(row.Places, row.Marking, row.Kind)
		parts = append(parts, p)
	}
	for _, row := range empty {
		parts = append(parts, PowerPart{AssemblyID: row.AssemblyID, Board: row.Board, Line: row.Line,
			Words: row.Marking,
			isOut: true, PartInput: PartInput{Place: placeOf(row.Places, row.Marking, "battery")}})
	}
	for i := range parts {
		parts[i].take(said, open)
	}
	return parts, nil
}

func placeOf(places, marking, kind string) string {
	switch {
	case places != "":
		return places
	case marking != "":
		return marking
	}
	return kind
}

// take takes in what is said of a part, and what is open on it.
func (p *PowerPart) take(said []power.Part, open []openFinding) {
	for _, row := range said {
		if row.AssemblyID != p.AssemblyID || row.Place != p.Place {
			continue
		}
		kept, _ := action.ReadKept[PartInput](row.Body)
		kept.Place = p.Place
		p.PartInput, p.Version = kept, row.Version
	}
	found := []string{}
	for _, f := range open {
		if f.assembly == p.AssemblyID && f.isOn(p.Place) {
			found = append(found, f.kind)
		}
	}
	if p.IsFan {
		p.State = gate.FanState(p.Turns, found)
		return
	}
	isPrimary, known := part.Cell(p.Words)
	p.Primary, p.Unknown = isPrimary, !known
	p.State = gate.CellState(p.isOut, p.isNew, found)
}

// openFinding is one of the machine that is open, as far as cells and fans are concerned.
type openFinding struct {
	assembly   int64
	designator string
	kind       string
}

func (f openFinding) isOn(place string) bool {
	for _, one := range strings.Fields(place) {
		if f.designator != "" && (sheet.Names(f.designator, one) || strings.EqualFold(f.designator, one)) {
			return true
		}
	}
	return false
}

// SayPart says of a cell or a fan what the gate asks and no sheet says. It goes with the board that the part is on.
func (s *Service) SayPart(ctx context.Context, actor action.Actor, assemblyID int64, version int,
	in PartInput) (Power, error) {
	var machineID int64
	err := s.kernel.Do(ctx, actor, action.MayWriteSheets, func(tx *sqlx.Tx) error {
		assembly, err := inventory.LockAssembly(ctx, tx, assemblyID)
		if err != nil {
			return err
		}
		if assembly.MachineID == nil {
			return action.Reject("assemblyId", "the board is in no machine; there is no gate to ask")
		}
		machineID = *assembly.MachineID
		r, err := s.read(ctx, tx, actor, machineID)
		if err != nil {
			return err
		}
		for _, p := range r.parts {
			if p.AssemblyID != assemblyID || p.Place != in.Place {
				continue
			}
			if p.Version != version {
				return &action.Stale{What: "what is said of " + in.Place, Newer: p}
			}
			if err := power.PutPart(ctx, tx, assemblyID, in.Place, action.ToKeep(in)); err != nil {
				return err
			}
			return action.Record(ctx, tx, actor, eventSayPart, assemblyID, &machineID, nil,
				map[string]any{"place": in.Place, "said": in.inWords(p.IsFan)})
		}
		return action.Reject("place", "no cell and no fan of this board is called so on its sheet")
	})
	if err != nil {
		return Power{}, err
	}
	return s.Power(ctx, actor, machineID)
}

func (in PartInput) inWords(isFan bool) string {
	words := []string{}
	if isFan {
		if in.Turns != "" {
			words = append(words, in.Turns)
		}
		if in.Spared {
			words = append(words, "the machine can do without it")
		}
	} else {
		if in.NeededToStart {
			words = append(words, "the machine needs it to start")
		}
		switch {
		case in.Charged == nil:
			words = append(words, "nobody looked whether the machine charges it")
		case *in.Charged:
			words = append(words, "the machine charges it")
		default:
			words = append(words, "the machine does not charge it")
		}
	}
	return strings.Join(words, ", ")
}
