package demo

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"frugalheron/app/work"
	"frugalheron/core/job"
)

// toldJob is work on a machine, with words of a finding in place of its key.
type toldJob struct {
	Finds  string
	State  job.State
	Finish *work.FinishInput
	work.JobInput
	Minutes   int
	Left, Why string
}

// jobs tells what is done to machines, and what it waits for.
func (t teller) jobs() error {
	told, err := readWorld[map[string][]toldJob]("jobs.json")
	if err != nil {
		return err
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		machineID := t.machines[accession]
		now, err := t.actions.Work.Treatment(t.ctx, t.curator, machineID)
		if err != nil {
			return err
		}
		for _, one := range told[accession][min(len(now.Jobs), len(told[accession])):] {
			if err := t.job(machineID, now, one); err != nil {
				return fmt.Errorf("%s: %s: %w", accession, one.Finds+one.Title, err)
			}
		}
	}
	return nil
}

func (t teller) job(machineID int64, now work.Treatment, told toldJob) error {
	in := told.JobInput
	for _, wanting := range now.Wanting {
		if told.Finds != "" && strings.Contains(wanting.Where, told.Finds) {
			in.FindingKeys, in.AssemblyID, in.Place = []string{wanting.Key}, wanting.AssemblyID, wanting.Place
			break
		}
	}
	if told.Finds != "" && len(in.FindingKeys) == 0 {
		return fmt.Errorf("nothing is found at %q", told.Finds)
	}
	added, err := t.actions.Work.AddJob(t.ctx, t.curator, machineID, in)
	if err != nil {
		return err
	}
	if told.Finish != nil {
		_, err = t.actions.Work.FinishJob(t.ctx, t.curator, added.ID, added.Version, *told.Finish)
		return err
	}
	if told.State == "" {
		return nil
	}
	_, err = t.actions.Work.WorkOnJob(t.ctx, t.curator, added.ID, added.Version, work.WorkInput{State: told.State,
		Minutes: told.Minutes, Left: told.Left, Why: told.Why})
	return err
}
