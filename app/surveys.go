package app

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"github.com/jmoiron/sqlx"

	"frugalheron/core/condition"
	"frugalheron/core/reckoning"
	"frugalheron/store"
)

// Look is what was said of a subsystem in a survey.
type Look struct {
	Look condition.Look `json:"look" enum:"inspected,not inspected,absent"`
	Note string         `json:"note" maxLength:"1000" required:"false"`
}

// ToldLook is a look with the subsystem it is about.
type ToldLook struct {
	Subsystem string `json:"subsystem"`
	Look
}

// ToldSurvey is an inspection of a machine.
type ToldSurvey struct {
	ID       int64      `json:"id"`
	On       string     `json:"on"`
	By       string     `json:"by"`
	Looks    []ToldLook `json:"looks"`
	Cosmetic string     `json:"cosmetic" doc:"Cosmetic grade; empty while nobody gave one"`
	Note     string     `json:"note"`
	Finished bool       `json:"finished"`
	Version  int        `json:"version"`
}

// ToldFinding is a finding with all its sightings and its story.
type ToldFinding struct {
	store.Finding
	Name      string              `json:"name" doc:"What the subsystem is called"`
	Where     string              `json:"where" doc:"Board, designator and place, in words"`
	Sightings []store.SightingRow `json:"sightings"`
	Story     condition.Story     `json:"story"`
	Callout   *Callout            `json:"callout" doc:"Its number on a picture of the board, or null"`
}

// Callout is a number on a picture of a board.
type Callout struct {
	AttachmentID int64 `json:"attachmentId"`
	N            int   `json:"n"`
}

// Condition is how a machine is, and how that changed.
type Condition struct {
	Stage           reckoning.Stage        `json:"stage"`
	Guide           []condition.Item       `json:"guide" doc:"What to inspect on this machine"`
	Surveys         []ToldSurvey           `json:"surveys" doc:"Those that ended, in the order of their days"`
	Running         *ToldSurvey            `json:"running" doc:"The survey that is being made, or null"`
	Findings        []ToldFinding          `json:"findings"`
	Compared        []condition.Compared   `json:"compared" doc:"The findings over the surveys"`
	Strip           condition.Strip        `json:"strip"`
	Technical       condition.Grade        `json:"technical" enum:"good,watch,repair,hazard,not inspected"`
	TechnicalWhy    string                 `json:"technicalWhy"`
	Cosmetic        string                 `json:"cosmetic" doc:"The cosmetic grade of the last survey that gave one; empty for none"`
	CosmeticOn      string                 `json:"cosmeticOn"`
	NotInspected    []string               `json:"notInspected" doc:"Subsystems that the last survey did not look at"`
	Severities      []condition.GradeMeans `json:"severities" doc:"What each severity means"`
	TechnicalGrades []condition.GradeMeans `json:"technicalGrades"`
	CosmeticGrades  []condition.GradeMeans `json:"cosmeticGrades"`
}

// Condition reads it.
func (a *App) Condition(ctx context.Context, actor Actor, machineID int64) (Condition, error) {
	if _, err := a.Machine(ctx, actor, machineID); err != nil {
		return Condition{}, err
	}
	c, err := conditionOf(ctx, a.db, machineID)
	if err == nil {
		err = a.numberFindings(ctx, actor, machineID, c.Findings)
	}
	return c, err
}

// numberFindings finds the numbers under which findings stand on pictures of their boards.
func (a *App) numberFindings(ctx context.Context, actor Actor, machineID int64, findings []ToldFinding) error {
	pictures, err := store.PlannedPictures(ctx, a.db, machineID, actor.Hides())
	if err != nil {
		return err
	}
	for _, p := range pictures {
		if !slices.ContainsFunc(findings, func(f ToldFinding) bool { return f.AssemblyID != nil && *f.AssemblyID == p.AssemblyID }) {
			continue
		}
		drawn, err := planOf(ctx, a.db, p.AttachmentID)
		if err != nil {
			return err
		}
		for i, f := range findings {
			for _, n := range drawn.Legend.Numbered {
				if f.AssemblyID != nil && *f.AssemblyID == p.AssemblyID && f.Designator != "" && f.Designator == n.Designator {
					findings[i].Callout = &Callout{p.AttachmentID, n.N}
				}
			}
		}
	}
	return nil
}

func conditionOf(ctx context.Context, h store.Handle, machineID int64) (Condition, error) {
	c := Condition{
		Surveys: []ToldSurvey{}, Findings: []ToldFinding{}, Severities: condition.Severities,
		TechnicalGrades: condition.TechnicalGrades, CosmeticGrades: condition.CosmeticGrades,
	}
	parts, _, err := heldParts(ctx, h, machineID)
	if err != nil {
		return c, err
	}
	c.Guide = condition.Guide(parts)
	rows, err := store.SurveysOf(ctx, h, machineID)
	if err != nil {
		return c, err
	}
	surveys := []condition.Survey{}
	for _, row := range rows {
		told, survey, err := tellSurvey(row)
		if err != nil {
			return c, err
		}
		if !row.Finished {
			c.Running = &told
			continue
		}
		c.Surveys = append(c.Surveys, told)
		surveys = append(surveys, survey)
		if row.Cosmetic != "" {
			c.Cosmetic, c.CosmeticOn = row.Cosmetic, row.On
		}
	}
	findings, err := c.readFindings(ctx, h, machineID)
	if err != nil {
		return c, err
	}
	c.Compared, c.Strip = condition.CompareSurveys(surveys, findings), condition.StripOf(c.Guide, surveys, findings)
	c.Technical, c.TechnicalWhy = condition.Technical(c.Guide, surveys, findings)
	c.NotInspected = condition.Missing(c.Guide, surveys)
	failed, err := failedMeasurements(ctx, h, machineID)
	c.Stage = condition.StageOf(condition.StageInput{Surveys: surveys, Findings: findings, Running: c.Running != nil, Failed: len(failed)}, c.Guide)
	return c, err
}

// readFindings reads the findings of a machine with their sightings, and returns them as the core knows them.
func (c *Condition) readFindings(ctx context.Context, h store.Handle, machineID int64) ([]condition.Finding, error) {
	found, err := store.FindingsOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	sightings, err := store.SightingsOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	by := map[int64][]store.SightingRow{}
	for _, s := range sightings {
		by[s.FindingID] = append(by[s.FindingID], s)
	}
	findings := []condition.Finding{}
	for _, f := range found {
		told := ToldFinding{Finding: f, Name: condition.NameOf(f.Subsystem), Where: whereOf(f), Sightings: append([]store.SightingRow{}, by[f.ID]...)}
		one := condition.Finding{ID: f.ID, Subsystem: f.Subsystem, Kind: f.Kind, Place: told.Where}
		for _, s := range told.Sightings {
			seen := condition.Sighting{On: s.On, Severity: condition.Severity(s.Severity), Trend: s.Trend, Gone: s.Gone, Note: s.Note}
			if s.SurveyID != nil {
				seen.SurveyID = *s.SurveyID
			}
			one.Sightings = append(one.Sightings, seen)
		}
		told.Story = one.Tell()
		c.Findings, findings = append(c.Findings, told), append(findings, one)
	}
	return findings, nil
}

func whereOf(f store.Finding) string {
	words := []string{}
	for _, word := range []string{f.Assembly, f.Designator, f.Place} {
		if word != "" {
			words = append(words, word)
		}
	}
	return strings.Join(words, ", ")
}

func tellSurvey(row store.SurveyRow) (ToldSurvey, condition.Survey, error) {
	looks, err := readKept[map[string]Look](row.Looks)
	told := ToldSurvey{ID: row.ID, On: row.On, By: row.By, Looks: []ToldLook{}, Cosmetic: row.Cosmetic, Note: row.Note, Finished: row.Finished, Version: row.Version}
	survey := condition.Survey{ID: row.ID, On: row.On, Looks: map[string]condition.Look{}}
	for _, s := range condition.Subsystems() {
		if l, ok := looks[s.Key]; ok {
			told.Looks = append(told.Looks, ToldLook{s.Key, l})
			survey.Looks[s.Key] = l.Look
		}
	}
	return told, survey, err
}

// StartSurvey begins an inspection. A machine is inspected once at a time.
func (a *App) StartSurvey(ctx context.Context, actor Actor, machineID int64, on, by string) (Condition, error) {
	if on == "" {
		on = today()
	}
	if err := checkAll(pastDay("on", on), oneLine("by", &by)); err != nil {
		return Condition{}, err
	}
	return a.onCondition(ctx, actor, machineID, func(tx *sqlx.Tx) error {
		id, err := store.InsertSurvey(ctx, tx, actor.account(), machineID, on, by)
		if store.Violates(err, "survey_running_key") {
			return &Invalid{"on", "a survey of this machine is being made already; go on with that one"}
		}
		if err != nil {
			return err
		}
		return record(ctx, tx, actor, "start survey", "survey", id, &machineID, nil, map[string]any{"on": on})
	})
}

// onCondition does work on what is found on a machine, writes anew what ages in it, and reads its condition
// back.
func (a *App) onCondition(ctx context.Context, actor Actor, machineID int64, work func(tx *sqlx.Tx) error) (Condition, error) {
	var after Condition
	err := a.deed(ctx, actor, MayWriteSheets, func(tx *sqlx.Tx) error {
		if _, err := store.LockMachine(ctx, tx, machineID); err != nil {
			return err
		}
		if err := work(tx); err != nil {
			return err
		}
		if err := sumAgeing(ctx, tx, machineID); err != nil {
			return err
		}
		var err error
		after, err = conditionOf(ctx, tx, machineID)
		return err
	})
	return after, err
}

// onSurvey does work on a survey, starting from a version.
func (a *App) onSurvey(ctx context.Context, actor Actor, id int64, version int, work func(tx *sqlx.Tx, row store.SurveyRow, looks map[string]Look) error) (Condition, error) {
	row, err := store.SurveyByID(ctx, a.db, id)
	if err != nil {
		return Condition{}, err
	}
	return a.onCondition(ctx, actor, row.MachineID, func(tx *sqlx.Tx) error {
		row, err := store.SurveyByID(ctx, tx, id)
		if err != nil {
			return err
		}
		if row.Version != version {
			told, _, err := tellSurvey(row)
			if err != nil {
				return err
			}
			return &Stale{What: "the survey", Newer: told}
		}
		looks, err := readKept[map[string]Look](row.Looks)
		if err != nil {
			return err
		}
		return work(tx, row, looks)
	})
}

// JudgedItem is what somebody says of a subsystem: that they looked, and what they saw.
type JudgedItem struct {
	Look
	Seen []SeenFinding `json:"seen" maxItems:"60" required:"false"`
}

// SeenFinding is a finding as it was seen: a new one with its fields, or one that was there before by its id.
type SeenFinding struct {
	FindingID int64                `json:"findingId" minimum:"0" required:"false" doc:"0 for a new one"`
	New       *store.FindingFields `json:"new,omitempty"`
	Severity  condition.Severity   `json:"severity" enum:"cosmetic,watch,repair,hazard"`
	Trend     string               `json:"trend" enum:",worse,same,better" required:"false" doc:"Where the severity does not tell"`
	Gone      bool                 `json:"gone" required:"false" doc:"It is not there any more"`
	Note      string               `json:"note" maxLength:"1000" required:"false"`
}

// JudgeItem keeps what was said of a subsystem in a survey.
func (a *App) JudgeItem(ctx context.Context, actor Actor, surveyID int64, version int, subsystem string, judged JudgedItem) (Condition, error) {
	sub, ok := condition.SubsystemOf(subsystem)
	if !ok {
		return Condition{}, ErrNotFound
	}
	if err := lines("note", &judged.Note); err != nil {
		return Condition{}, err
	}
	if judged.Look.Look != condition.Inspected && len(judged.Seen) > 0 {
		return Condition{}, &Invalid{"look", "something was seen there, so it was inspected"}
	}
	return a.onSurvey(ctx, actor, surveyID, version, func(tx *sqlx.Tx, row store.SurveyRow, looks map[string]Look) error {
		if row.Finished {
			return &Invalid{"id", "the survey has ended; make another one"}
		}
		looks[subsystem] = judged.Look
		if judged.Look.Look == condition.NotLooked && judged.Note == "" {
			delete(looks, subsystem)
		}
		if err := store.UpdateSurvey(ctx, tx, surveyID, toKeep(looks), row.Cosmetic, row.Note, false); err != nil {
			return err
		}
		for _, seen := range judged.Seen {
			if err := seeFinding(ctx, tx, actor, row.MachineID, subsystem, seen, &surveyID, row.On); err != nil {
				return err
			}
		}
		after := map[string]any{"subsystem": sub.Name, "look": judged.Look.Look, "findings": len(judged.Seen), "on": row.On, "note": judged.Note}
		return record(ctx, tx, actor, "inspect", "survey", surveyID, &row.MachineID, nil, after)
	})
}

// EndSurvey ends an inspection; what was not inspected stays so.
func (a *App) EndSurvey(ctx context.Context, actor Actor, surveyID int64, version int, cosmetic, note string) (Condition, error) {
	if err := lines("note", &note); err != nil {
		return Condition{}, err
	}
	if cosmetic != "" && !slices.ContainsFunc(condition.CosmeticGrades, func(g condition.GradeMeans) bool { return g.Grade == cosmetic }) {
		return Condition{}, &Invalid{"cosmetic", "choose one of the cosmetic grades"}
	}
	return a.onSurvey(ctx, actor, surveyID, version, func(tx *sqlx.Tx, row store.SurveyRow, looks map[string]Look) error {
		inspected := 0
		for _, l := range looks {
			if l.Look == condition.Inspected {
				inspected++
			}
		}
		if inspected == 0 {
			return &Invalid{"id", "nothing was inspected yet; look at one subsystem at least"}
		}
		if err := store.UpdateSurvey(ctx, tx, surveyID, row.Looks, cosmetic, note, true); err != nil {
			return err
		}
		after := map[string]any{"on": row.On, "inspected": inspected, "cosmetic": cosmetic, "note": note}
		return record(ctx, tx, actor, "end survey", "survey", surveyID, &row.MachineID, nil, after)
	})
}

func seeFinding(ctx context.Context, tx *sqlx.Tx, actor Actor, machineID int64, subsystem string, seen SeenFinding, surveyID *int64, on string) error {
	if err := lines("note", &seen.Note); err != nil {
		return err
	}
	if !seen.Severity.IsKnown() {
		return &Invalid{"severity", "say how grave it is"}
	}
	sighting := store.SightingRow{FindingID: seen.FindingID, SurveyID: surveyID, On: on, Severity: string(seen.Severity), Trend: seen.Trend, Gone: seen.Gone, Note: seen.Note}
	if seen.FindingID == 0 {
		if seen.New == nil {
			return &Invalid{"new", "say what was found"}
		}
		if seen.Gone {
			return &Invalid{"gone", "what is new is there"}
		}
		f := *seen.New
		f.Subsystem = subsystem
		return addFinding(ctx, tx, actor, machineID, f, sighting)
	}
	f, err := store.FindingByID(ctx, tx, seen.FindingID)
	if err == nil && (f.MachineID != machineID || f.Struck) {
		err = ErrNotFound
	}
	if err != nil {
		return missing(err, "findingId", "is no finding of this machine")
	}
	if surveyID != nil && f.Subsystem != subsystem {
		return &Invalid{"findingId", fmt.Sprintf("belongs to %s", condition.NameOf(f.Subsystem))}
	}
	if err := store.PutSighting(ctx, tx, actor.account(), sighting); err != nil {
		return err
	}
	deed := "see finding"
	if seen.Gone {
		deed = "finding gone"
	}
	after := map[string]any{"kind": f.Kind, "where": whereOf(f), "severity": seen.Severity, "on": on, "note": seen.Note}
	return record(ctx, tx, actor, deed, "finding", f.ID, &machineID, nil, after)
}
