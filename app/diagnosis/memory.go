package diagnosis

import (
	"context"
	"slices"

	"github.com/jmoiron/sqlx"

	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/app/input"
	"frugalheron/core/memfault"
	"frugalheron/store/diagnosis"
)

// MemoryLayoutInput is how the memory of a machine is laid out.
type MemoryLayoutInput struct {
	Layout    string `json:"layout" says:"text" maxLength:"8000" doc:"A bank a line: its name, its addresses in hexadecimal, its chips from bit 0 up, as in low 0-FFFF U40-U47"`
	Syndromes string `json:"syndromes" maxLength:"4000" required:"false" doc:"Of error correction: a syndrome in hexadecimal and the bit that it means, a line each"`
	Note      string `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// MemoryLayout is that with its version; 0 while nobody wrote one.
type MemoryLayout struct {
	MachineID int64 `json:"machineId"`
	MemoryLayoutInput
	Version int `json:"version"`
}

// OfferedMemoryLayout is that of another machine of the same model.
type OfferedMemoryLayout struct {
	Accession string `json:"accession"`
	MemoryLayoutInput
}

// MachineMemory is where a machine's memory sits, and where its tests failed.
type MachineMemory struct {
	Layout  MemoryLayout          `json:"layout"`
	Offered []OfferedMemoryLayout `json:"offered" doc:"Layouts of other machines of the model, while this one has none"`
	Tests   []MemoryTest          `json:"tests" doc:"What consoles and screens said of memory that failed, the newest first"`
	Again   []memfault.Again      `json:"again" doc:"What came back over time"`
}

// MemoryTest is what a memory test led to.
type MemoryTest struct {
	CaptureID int64              `json:"captureId"`
	On        string             `json:"on"`
	Failed    int                `json:"failed" doc:"Places that failed"`
	Suspects  []MemorySuspect    `json:"suspects" doc:"Those that explain most first"`
	Problems  []memfault.Useless `json:"problems" doc:"Lines that lead nowhere, and why"`
}

// MemorySuspect is what would explain failures, with where it sits.
type MemorySuspect struct {
	memfault.Suspect
	Places []ChipPlace `json:"places" doc:"Where the sheets have a chip of that designator; empty for a line, or where no sheet has it"`
}

// ChipPlace is where a chip stands.
type ChipPlace struct {
	AssemblyID int64          `json:"assemblyId"`
	Title      string         `json:"title" says:"text"`
	Line       int            `json:"line" doc:"Of its sheet"`
	Marking    string         `json:"marking" says:"text"`
	Callout    *files.Callout `json:"callout" doc:"Its number on a picture of the board, or null"`
}

// Bounds of what is told.
const (
	mostSuspects = 12
	mostProblems = 12
	mostOffers   = 5
)

var layouts = action.Records[diagnosis.Layout, MemoryLayout]{What: "the layout of its memory",
	Lock: diagnosis.LockLayout,
	Read: diagnosis.LayoutOf, Version: func(r diagnosis.Layout) int { return r.Version },
	Told: func(r diagnosis.Layout) any { return tellLayout(r).MemoryLayoutInput }, View: tellLayout,
	Machine: func(r diagnosis.Layout) *int64 { return &r.MachineID }}

func tellLayout(row diagnosis.Layout) MemoryLayout {
	kept, _ := action.ReadKept[MemoryLayoutInput](row.Body) // written by this package alone
	return MemoryLayout{row.MachineID, kept, row.Version}
}

// ChangeLayout writes how the memory of a machine is laid out, from the version that somebody saw.
func (s *Service) ChangeLayout(ctx context.Context, actor action.Actor, machineID int64, version int,
	in MemoryLayoutInput) (MemoryLayout, error) {
	err := input.CheckAll(input.Lines("layout", &in.Layout), input.Lines("syndromes", &in.Syndromes),
		input.Lines("note", &in.Note))
	if err != nil {
		return MemoryLayout{}, err
	}
	if _, err := memfault.ParseLayout(in.Layout); err != nil {
		return MemoryLayout{}, input.Refused(err)
	}
	if _, err := memfault.ParseSyndromes(in.Syndromes); err != nil {
		return MemoryLayout{}, input.Refused(err)
	}
	return layouts.Change(ctx, s.kernel, action.Change{Actor: actor, Roles: action.MayWriteSheets,
		Event: eventChangeLayout, ID: machineID, Version: version}, func(tx *sqlx.Tx, _ diagnosis.Layout) error {
		return diagnosis.PutLayout(ctx, tx, diagnosis.Layout{MachineID: machineID, Body: action.ToKeep(in)})
	})
}

// Memory tells how the memory of a machine is laid out, and to which chips its tests lead.
func (s *Service) Memory(ctx context.Context, actor action.Actor, machineID int64) (MachineMemory, error) {
	told := MachineMemory{Offered: []OfferedMemoryLayout{}, Tests: []MemoryTest{}, Again: []memfault.Again{}}
	said, err := s.console.Console(ctx, actor, machineID)
	if err != nil {
		return told, err
	}
	h := s.kernel.Reader(ctx)
	row, err := diagnosis.LayoutOf(ctx, h, machineID)
	if err != nil {
		return told, err
	}
	told.Layout = tellLayout(row)
	if told.Layout.Layout == "" {
		rows, err := diagnosis.LayoutsOfModel(ctx, h, machineID, mostOffers)
		if err != nil {
			return told, err
		}
		for _, one := range rows {
			kept, _ := action.ReadKept[MemoryLayoutInput](one.Body)
			told.Offered = append(told.Offered, OfferedMemoryLayout{one.Accession, kept})
		}
	}
	banks, err := memfault.ParseLayout(told.Layout.Layout)
	if err != nil {
		return told, err // what is kept was checked
	}
	syndromes, err := memfault.ParseSyndromes(told.Layout.Syndromes)
	if err != nil {
		return told, err
	}
	tests := []memfault.Test{}
	for _, c := range said.Captures {
		if len(c.Reading.Failures) == 0 {
			continue
		}
		one := MemoryTest{CaptureID: c.ID, On: c.On, Failed: len(c.Reading.Failures), Suspects: []MemorySuspect{},
			Problems: []memfault.Useless{}}
		if len(banks) > 0 {
			out, err := memfault.OfConsole(banks, syndromes, c.Reading.Failures)
			if err != nil {
				return told, err
			}
			tests = append(tests, memfault.Test{On: c.On, Output: out})
			for _, suspect := range out.Suspects[:min(len(out.Suspects), mostSuspects)] {
				one.Suspects = append(one.Suspects, MemorySuspect{suspect, []ChipPlace{}})
			}
			one.Problems = out.Problems[:min(len(out.Problems), mostProblems)]
		}
		told.Tests = append(told.Tests, one)
	}
	told.Again = memfault.Recurring(banks, tests)
	return told, s.placeChips(ctx, actor, machineID, told.Tests)
}

// placeChips finds the chips that are suspected on the sheets and on pictures of their boards.
func (s *Service) placeChips(ctx context.Context, actor action.Actor, machineID int64, tests []MemoryTest) error {
	designators := []string{}
	for _, t := range tests {
		for _, suspect := range t.Suspects {
			if suspect.Designator != "" && !slices.Contains(designators, suspect.Designator) {
				designators = append(designators, suspect.Designator)
			}
		}
	}
	if len(designators) == 0 {
		return nil
	}
	h := s.kernel.Reader(ctx)
	found, err := diagnosis.PlacesOf(ctx, h, machineID, designators)
	if err != nil {
		return err
	}
	boards := map[int64]bool{}
	for _, p := range found {
		boards[p.AssemblyID] = true
	}
	callouts, err := files.CalloutsOf(ctx, h, machineID, actor.Hides(), boards)
	if err != nil {
		return err
	}
	for _, t := range tests {
		for i := range t.Suspects {
			for _, p := range found {
				if p.Designator != t.Suspects[i].Designator {
					continue
				}
				place := ChipPlace{AssemblyID: p.AssemblyID, Title: p.Title, Line: p.Line, Marking: p.Marking}
				if c, known := callouts[files.Part{AssemblyID: p.AssemblyID, Designator: p.Designator}]; known {
					place.Callout = &c
				}
				t.Suspects[i].Places = append(t.Suspects[i].Places, place)
			}
		}
	}
	return nil
}
