package condition

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/condition"
	"frugalheron/core/risk"
	storecondition "frugalheron/store/condition"
	"frugalheron/store/pg"
)

// Ageing is what ages in machines, and on boards that are in none: these stand for machines with a number below zero.
type Ageing struct {
	Table    risk.Table
	Machines map[int64]risk.Machine
	Parts    []risk.Part
}

// AgeingIn reads what ages in a machine, or for 0 in the collection.
func AgeingIn(ctx context.Context, h pg.Handle, machineID int64) (Ageing, error) {
	table, _, err := tableIn(ctx, h)
	if err != nil {
		return Ageing{}, err
	}
	rows, err := storecondition.Ageing(ctx, h, machineID)
	if err != nil {
		return Ageing{}, err
	}
	count := len(rows)
	for _, row := range rows {
		count += strings.Count(row.Parts, "\n")
	}
	a := Ageing{table, make(map[int64]risk.Machine, len(rows)), make([]risk.Part, 0, count)}
	for _, row := range rows {
		m := risk.Machine{Acquired: risk.NoDay, Built: risk.NoDay, Climate: risk.Climate(row.Climate)}
		if row.Acquired != nil {
			m.Acquired = dayOf(*row.Acquired)
		}
		if row.EraFrom != nil {
			m.Built = dayOf(fmt.Sprintf("%04d-01-01", *row.EraFrom))
		}
		a.Machines[row.MachineID] = m
		a.Parts = unpackParts(a.Parts, row.MachineID, row.Parts)
	}
	if machineID != 0 {
		return a, nil
	}
	boards, err := storecondition.BoardAgeing(ctx, h)
	for _, b := range boards {
		id := asIfMachine(b.AssemblyID)
		m := risk.Machine{Acquired: risk.NoDay, Built: risk.NoDay, Climate: risk.Climate(b.Climate)}
		if b.Acquired != nil {
			m.Acquired = dayOf(*b.Acquired)
		}
		a.Machines[id] = m
		a.Parts = unpackParts(a.Parts, id, b.Parts)
	}
	return a, err
}

// ClassPart is a part of an ageing class, as somebody finds it who is sent to it.
type ClassPart struct {
	AssemblyID int64  `json:"assemblyId"`
	Board      string `json:"board" says:"text"`
	Place      string `json:"place" says:"text" doc:"Designators, or what it is called"`
}

// PartsOfClass lists those of a machine, or of a board that is in none.
func PartsOfClass(ctx context.Context, h pg.Handle, machineID, assemblyID int64, class string) ([]ClassPart, error) {
	read := func() (known, error) { return knownOf(ctx, h, machineID) }
	if machineID == 0 {
		read = func() (known, error) { return knownOfBoard(ctx, h, assemblyID) }
	}
	all, err := read()
	if err != nil {
		return nil, err
	}
	table, _, err := tableIn(ctx, h)
	if err != nil {
		return nil, err
	}
	found := []ClassPart{}
	for _, p := range all.parts() {
		if told := table.ClassOf(p.Tells); told != "" && risk.Covers(class, told) {
			found = append(found, ClassPart{p.AssemblyID, p.Board, cmp.Or(p.Place, p.Words)})
		}
	}
	for _, b := range all.boards {
		if machineID == 0 && len(found) == 0 {
			found = append(found, ClassPart{assemblyID, b.title, b.title}) // it is one itself, as a drive
		}
	}
	return found, nil
}

// IsClass reports whether the collection knows an ageing class, or a family of them, by its key, and what it is called.
func IsClass(ctx context.Context, h pg.Handle, key string) (name string, known bool, err error) {
	table, _, err := tableIn(ctx, h)
	name, known = table.NameOf(key)
	return name, known, err
}

// Classes lists what a task of upkeep can be of: families first, then the classes.
func Classes(ctx context.Context, h pg.Handle) ([]risk.Class, error) {
	table, _, err := tableIn(ctx, h)
	return append(risk.Families(), table.List()...), err
}

// SubsystemOfClass is the subsystem in which a survey looks at an ageing class, or at the first of a family; empty for none.
func SubsystemOfClass(key string) string {
	for _, s := range condition.Subsystems() {
		if slices.ContainsFunc(s.Classes, func(class string) bool { return risk.Covers(key, class) }) {
			return s.Key
		}
	}
	return ""
}
