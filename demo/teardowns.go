package demo

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"frugalheron/app/files"
	appteardown "frugalheron/app/teardown"
	"frugalheron/core/teardown"
	"frugalheron/core/wiring"
)

// toldMachine is what is known of taking a machine apart.
type toldMachine struct {
	Connectors []wiring.Connector
	Logs       []toldLog
}

// toldLog is a log: its steps as lines, and how many of them went back.
type toldLog struct {
	Purpose, From       string // From is the procedure that it starts from
	Steps               []string
	Back                int
	End                 bool
	Procedure, Warnings string // what it becomes
}

// teardowns tells the logs of the sample world, those that are not there yet. Machines go in the order of their
// numbers, so that a procedure is there before a later machine starts from it.
func (t teller) teardowns() error {
	told, err := readWorld[map[string]toldMachine]("teardowns.json")
	if err != nil {
		return err
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		if err := t.takeApart(t.machines[accession], told[accession]); err != nil {
			return fmt.Errorf("%s: %w", accession, err)
		}
	}
	return nil
}

func (t teller) takeApart(machineID int64, told toldMachine) error {
	there, err := t.actions.Teardown.Wiring(t.ctx, t.curator, machineID)
	if err != nil {
		return err
	}
	for _, c := range told.Connectors[min(len(there.Connectors), len(told.Connectors)):] {
		if _, err := t.actions.Teardown.MapConnector(t.ctx, t.curator, machineID, c); err != nil {
			return fmt.Errorf("%s: %w", c.Name, err)
		}
	}
	opened, err := t.actions.Teardown.OpenedUp(t.ctx, t.curator, machineID)
	if err != nil {
		return err
	}
	for _, log := range told.Logs[min(len(opened.Before), len(told.Logs)):] {
		if err := t.log(machineID, opened, log); err != nil {
			return fmt.Errorf("%s: %w", log.Purpose, err)
		}
		if opened, err = t.actions.Teardown.OpenedUp(t.ctx, t.curator, machineID); err != nil {
			return err
		}
	}
	return nil
}

func (t teller) log(machineID int64, opened appteardown.OpenedUp, told toldLog) error {
	now := appteardown.TeardownView{}
	var err error
	if opened.Now != nil {
		now = *opened.Now
	} else {
		start := appteardown.StartedTeardown{Purpose: told.Purpose, Rows: 3, Columns: 6}
		if at := slices.IndexFunc(opened.Procedures, func(p appteardown.Procedure) bool {
			return p.Title == told.From
		}); at >= 0 {
			start.ProcedureID = &opened.Procedures[at].ID
		}
		if now, err = t.actions.Teardown.StartTeardown(t.ctx, t.curator, machineID, start); err != nil {
			return err
		}
	}
	photos, err := t.photos(machineID)
	if err != nil {
		return err
	}
	for i, line := range told.Steps[min(len(now.Steps), len(told.Steps)):] {
		written := appteardown.StepInput{Line: line}
		if i > 0 && len(photos) > 0 {
			written.Pictures, photos = photos[:1], photos[1:]
		}
		if now, err = t.actions.Teardown.AddStep(t.ctx, t.curator, now.ID, written); err != nil {
			return fmt.Errorf("%s: %w", line, err)
		}
	}
	if told.Procedure != "" && !slices.ContainsFunc(opened.Procedures, func(p appteardown.Procedure) bool {
		return strings.EqualFold(p.Title, told.Procedure)
	}) {
		if _, err := t.actions.Teardown.MakeProcedure(t.ctx, t.curator, now.ID, told.Procedure,
			told.Warnings); err != nil {
			return err
		}
	}
	for back := range told.Back {
		step := now.Steps[len(now.Steps)-1-back]
		if step.State != teardown.Off {
			continue
		}
		if now, err = t.actions.Teardown.ReverseStep(t.ctx, t.curator, step.ID, step.Version,
			appteardown.Reversed{Reversal: teardown.Reversal{State: teardown.Back},
				Plugged: step.Connectors}); err != nil {
			return err
		}
	}
	if told.End {
		_, err = t.actions.Teardown.EndTeardown(t.ctx, t.curator, now.ID)
	}
	return err
}

// photos are the pictures of a machine that steps can show.
func (t teller) photos(machineID int64) ([]int64, error) {
	page, err := t.actions.Files.Attachments(t.ctx, t.curator, files.Owner{MachineID: &machineID}, 0, 20)
	ids := []int64{}
	for _, one := range page.Attachments {
		if one.Kind == "picture" {
			ids = append(ids, one.ID)
		}
	}
	return ids, err
}

func hasWord(words, word string) bool { return slices.Contains(strings.Fields(words), word) }
