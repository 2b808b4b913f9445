package demo

import (
	"fmt"
	"maps"
	"slices"

	"frugalheron/app/diagnosis"
)

type toldDiagnosis struct {
	diagnosis.DiagnosisInput
	Factors []struct {
		diagnosis.FactorInput
		Board string `json:"board"` // title of one that is in no machine; empty for none
	} `json:"factors"`
}

// diagnoses tells symptoms with their trials.
func (t teller) diagnoses() error {
	told, err := readWorld[map[string][]toldDiagnosis]("diagnoses.json")
	if err != nil {
		return err
	}
	loose, err := t.actions.Inventory.ListLoose(t.ctx, t.curator, "", 0, 100)
	if err != nil {
		return err
	}
	boards := map[string]int64{}
	for _, one := range loose.Assemblies {
		boards[one.Title] = one.ID
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		machine := t.machines[accession]
		now, err := t.actions.Diagnosis.Diagnoses(t.ctx, t.curator, machine)
		if err != nil {
			return err
		}
		for _, one := range told[accession][min(len(now.Diagnoses), len(told[accession])):] {
			in := one.DiagnosisInput
			for _, f := range one.Factors {
				if id, ok := boards[f.Board]; ok {
					f.AssemblyID = &id
				} else if f.Board != "" {
					return fmt.Errorf("%s: there is no %s in the stores", accession, f.Board)
				}
				in.Factors = append(in.Factors, f.FactorInput)
			}
			if _, err := t.actions.Diagnosis.Begin(t.ctx, t.curator, machine, in); err != nil {
				return fmt.Errorf("%s, %s: %w", accession, in.Symptom, err)
			}
		}
	}
	if err := t.memory(); err != nil {
		return err
	}
	return t.setups()
}

// memory tells how the memory of the machine is laid out whose console complains.
func (t teller) memory() error {
	now, err := t.actions.Diagnosis.Memory(t.ctx, t.curator, t.machines["EH-0142"])
	if err != nil || now.Layout.Version > 0 {
		return err
	}
	_, err = t.actions.Diagnosis.ChangeLayout(t.ctx, t.curator, t.machines["EH-0142"], 0, diagnosis.MemoryLayoutInput{
		Layout: "low  0-3FFFF     U50-U58\nhigh 40000-7FFFF U59-U67", Note: "from the technical manual, page 4-12"})
	return err
}
