package demo

import (
	"fmt"
	"maps"
	"slices"

	appcondition "frugalheron/app/condition"
	"frugalheron/app/evidence"
	"frugalheron/app/inventory"
	appsigns "frugalheron/app/signs"
	"frugalheron/core/condition"
)

// toldSurvey is an inspection of a machine: all that the guide asks for was looked at, but for what is in Not.
type toldSurvey struct {
	On, By, Cosmetic, Note string
	Not                    []string
	Findings               []struct {
		Subsystem, Kind, Designator, Place, Note, Trend string
		Severity                                        condition.Severity
		Gone                                            bool
	}
}

// surveys tells the surveys of the sample world, those that are not there yet.
func (t teller) surveys() error {
	told, err := readWorld[map[string][]toldSurvey]("condition.json")
	if err != nil {
		return err
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		id := t.machines[accession]
		now, err := t.actions.Condition.Condition(t.ctx, t.curator, id)
		if err != nil {
			return fmt.Errorf("%s: %w", accession, err)
		}
		for _, survey := range told[accession][min(len(now.Surveys), len(told[accession])):] {
			if err := t.survey(id, now, survey); err != nil {
				return fmt.Errorf("%s, survey of %s: %w", accession, survey.On, err)
			}
		}
	}
	return nil
}

func (t teller) survey(machineID int64, now appcondition.Condition, told toldSurvey) error {
	if now.Running == nil {
		var err error
		if now, err = t.actions.Condition.StartSurvey(t.ctx, t.curator, machineID, told.On, told.By); err != nil {
			return err
		}
	}
	fitted, err := t.actions.Sheets.Contents(t.ctx, t.curator, machineID)
	if err != nil {
		return err
	}
	for _, item := range now.Guide {
		if slices.Contains(told.Not, item.Subsystem) {
			continue
		}
		judged := appcondition.JudgedItem{Inspection: appcondition.Inspection{Coverage: condition.Inspected}}
		for _, f := range told.Findings {
			if f.Subsystem != item.Subsystem {
				continue
			}
			seen := appcondition.ObservedFinding{Severity: f.Severity, Trend: f.Trend, Gone: f.Gone, Note: f.Note}
			for _, before := range now.Findings {
				if before.Subsystem == f.Subsystem && before.Kind == f.Kind && before.Designator == f.Designator &&
					before.Place == f.Place {
					seen.FindingID = before.ID
				}
			}
			if seen.FindingID == 0 {
				seen.New = &appcondition.FindingInput{Kind: f.Kind, Designator: f.Designator, Place: f.Place}
				for _, part := range item.Parts {
					if f.Designator != "" && part.Line > 0 && hasWord(part.Place, f.Designator) {
						seen.New.AssemblyID = &part.AssemblyID
					}
				}
				if seen.New.AssemblyID == nil && f.Designator != "" {
					seen.New.AssemblyID = &fitted[0].ID
				}
				t.mark(machineID, seen.New)
			}
			judged.Observed = append(judged.Observed, seen)
		}
		judged.Observed = append(judged.Observed, asBefore(now, item.Subsystem, told.On, judged.Observed)...)
		if now, err = t.actions.Condition.JudgeItem(t.ctx, t.curator, now.Running.ID, now.Running.Version,
			item.Subsystem,
			judged); err != nil {
			return fmt.Errorf("%s: %w", item.Subsystem, err)
		}
	}
	_, err = t.actions.Condition.EndSurvey(t.ctx, t.curator, now.Running.ID, now.Running.Version, told.Cosmetic,
		told.Note)
	return err
}

// asBefore says of what is open in a subsystem, and was not spoken of, that it is as it was.
func asBefore(now appcondition.Condition, subsystem, on string,
	seen []appcondition.ObservedFinding) []appcondition.ObservedFinding {
	same := []appcondition.ObservedFinding{}
	for _, f := range now.Findings {
		isSaid := slices.ContainsFunc(seen, func(o appcondition.ObservedFinding) bool {
			return o.FindingID != 0 && o.FindingID == f.ID
		})
		if f.Subsystem == subsystem && f.Story.Open && f.Story.LastOn < on && !isSaid {
			same = append(same, appcondition.ObservedFinding{FindingID: f.ID, Key: f.Key, Severity: f.Story.Severity,
				Trend: "same"})
		}
	}
	return same
}

// mark marks the part that a finding is about on the picture of its board.
func (t teller) mark(machineID int64, f *appcondition.FindingInput) {
	board := t.drawn[machineID]
	at, ok := board.places[f.Designator]
	if !ok || f.AssemblyID == nil || *f.AssemblyID != board.assembly {
		return
	}
	const w, h = 0.09, 0.1
	f.AttachmentID, f.Region = &board.picture,
		&evidence.Region{X: max(0, min(1-w, at.X-w/2)), Y: max(0, min(1-h, at.Y-h/2)), W: w, H: h}
}

// climates are how the places of the museum treat what stands there.
func (t teller) climates() error {
	places, err := t.actions.Inventory.CountPlaces(t.ctx, t.curator)
	if err != nil {
		return err
	}
	for place, climate := range map[string]string{"Boiler house store": "damp", "Seed loft": "hot",
		"Workshop bench": "room", "Entrance hall": "room"} {
		if slices.ContainsFunc(places, func(p inventory.PlaceCount) bool {
			return p.Name == place && p.Climate == ""
		}) {
			if err := t.actions.Condition.SetClimate(t.ctx, t.curator, place, climate); err != nil {
				return err
			}
		}
	}
	return nil
}

// measurements tells what was measured, each line with its instrument and day.
func (t teller) measurements() error {
	told, err := readWorld[map[string][][3]string]("measurements.json")
	if err != nil {
		return err
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		id := t.machines[accession]
		there, err := t.actions.Condition.Measurements(t.ctx, t.curator, id)
		if err != nil {
			return err
		}
		for _, one := range told[accession][min(len(there), len(told[accession])):] {
			if _, err := t.actions.Condition.Measure(t.ctx, t.curator, id,
				appcondition.MeasurementInput{Line: one[0], Instrument: one[1], On: one[2]}); err != nil {
				return fmt.Errorf("%s: %s: %w", accession, one[0], err)
			}
		}
	}
	if told := t.machines["EH-0155"]; told != 0 {
		return t.adjuster(told)
	}
	return nil
}

// signs tells what was seen and heard.
func (t teller) signs() error {
	told, err := readWorld[map[string][]appsigns.SightingInput]("signs.json")
	if err != nil {
		return err
	}
	for _, accession := range slices.Sorted(maps.Keys(told)) {
		id := t.machines[accession]
		there, err := t.actions.Signs.Signs(t.ctx, t.curator, id)
		if err != nil {
			return err
		}
		for _, one := range told[accession][min(len(there.Seen), len(told[accession])):] {
			if _, err := t.actions.Signs.SeeSign(t.ctx, t.curator, id, one); err != nil {
				return fmt.Errorf("%s: %s: %w", accession, one.Shown, err)
			}
		}
	}
	return nil
}

// adjuster tells of a control of the tube monitor that was turned once.
func (t teller) adjuster(machineID int64) error {
	there, err := t.actions.Condition.Adjusters(t.ctx, t.curator, machineID)
	if err != nil || len(there) > 0 {
		return err
	}
	noted, err := t.actions.Condition.AddAdjuster(t.ctx, t.curator, machineID,
		appcondition.AdjusterInput{Name: "VR2", Place: "Monitor, left edge beside the tube neck",
			Does: "height of the picture", Position: "ten o'clock"})
	if err != nil {
		return err
	}
	_, err = t.actions.Condition.TurnAdjuster(t.ctx, t.curator, noted[0].ID, noted[0].Version, "half past ten",
		"the lowest line was cut off")
	return err
}
