package demo

import (
	"fmt"
	"maps"
	"slices"

	"frugalheron/app/quickentry"
)

// happened says what happened to parts of the sample world, in the words in which somebody at the bench says it. A machine
// of which a board tells of parts that came and went is left alone.
func (t teller) happened() error {
	told, err := readWorld[map[string][]string]("happened.json")
	if err != nil {
		return err
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		id := t.machines[accession]
		boards, err := t.actions.Sheets.Contents(t.ctx, t.curator, id)
		if err != nil {
			return err
		}
		isTold := false
		for _, b := range boards {
			changed, err := t.actions.Sheets.ChangedPositions(t.ctx, t.curator, b.ID)
			if err != nil {
				return err
			}
			isTold = isTold || len(changed) > 0
		}
		for _, words := range told[accession] {
			if isTold {
				break
			}
			if err := t.say(id, words); err != nil {
				return fmt.Errorf("%s, %s: %w", accession, words, err)
			}
		}
	}
	return nil
}

// say keeps what somebody says of a part, on the sheet on which it stands.
func (t teller) say(machineID int64, words string) error {
	understood, err := t.actions.QuickEntry.Understand(t.ctx, t.curator, machineID, words)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(understood.Destinations, func(d quickentry.Destination) bool {
		return d.Blocked == "" && d.Replaces != ""
	})
	if i < 0 {
		return fmt.Errorf("no board has that part")
	}
	at := understood.Destinations[i]
	_, err = t.actions.QuickEntry.Enter(t.ctx, t.curator, machineID, at.AssemblyID, at.Base, words)
	return err
}
