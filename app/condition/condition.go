package condition

import (
	"context"
	"slices"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/core/condition"
	"frugalheron/core/reckoning"
	storecondition "frugalheron/store/condition"
	storefiles "frugalheron/store/files"
	"frugalheron/store/pg"
)

// FindingView is a finding with all its observations and its story.
type FindingView struct {
	Finding
	Name         string          `json:"name" doc:"What the subsystem is called"`
	Where        string          `json:"where" says:"text" doc:"Board, designator and place, in words"`
	Observations []Observation   `json:"observations"`
	Story        condition.Story `json:"story"`
	Callout      *Callout        `json:"callout" doc:"Its number on a picture of the board, or null"`
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
	Surveys         []SurveyView           `json:"surveys" doc:"Those that ended, in the order of their days"`
	Running         *SurveyView            `json:"running" doc:"The survey that is being made, or null"`
	Findings        []FindingView          `json:"findings"`
	Compared        []condition.Compared   `json:"compared" doc:"The findings over the surveys"`
	Strip           condition.Strip        `json:"strip"`
	Technical       condition.Grade        `json:"technical" enum:"good,watch,repair,hazard,not inspected"`
	TechnicalWhy    string                 `json:"technicalWhy" says:"text"`
	Cosmetic        string                 `json:"cosmetic" doc:"The cosmetic grade of the last survey that gave one; empty for none"`
	CosmeticOn      string                 `json:"cosmeticOn"`
	NotInspected    []string               `json:"notInspected" doc:"Subsystems that the last survey did not look at"`
	Severities      []condition.GradeMeans `json:"severities" doc:"What each severity means"`
	TechnicalGrades []condition.GradeMeans `json:"technicalGrades"`
	CosmeticGrades  []condition.GradeMeans `json:"cosmeticGrades"`
}

// Condition reads it.
func (s *Service) Condition(ctx context.Context, actor action.Actor, machineID int64) (Condition, error) {
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return Condition{}, err
	}
	c, err := conditionOf(ctx, s.kernel.Reader(ctx), machineID)
	if err == nil {
		err = s.numberFindings(ctx, actor, machineID, c.Findings)
	}
	return c, err
}

// numberFindings finds the numbers under which findings stand on pictures of their boards.
func (s *Service) numberFindings(ctx context.Context, actor action.Actor, machineID int64,
	findings []FindingView) error {
	pictures, err := storefiles.AnnotatedPictures(ctx, s.kernel.Reader(ctx), machineID, actor.Hides())
	if err != nil {
		return err
	}
	for _, p := range pictures {
		if !slices.ContainsFunc(findings, func(f FindingView) bool {
			return f.AssemblyID != nil && *f.AssemblyID == p.AssemblyID
		}) {
			continue
		}
		drawn, err := files.AnnotationOf(ctx, s.kernel.Reader(ctx), p.AttachmentID)
		if err != nil {
			return err
		}
		for i, f := range findings {
			for _, n := range drawn.Legend.Numbered {
				if f.AssemblyID != nil && *f.AssemblyID == p.AssemblyID && f.Designator != "" &&
					f.Designator == n.Designator {
					findings[i].Callout = &Callout{p.AttachmentID, n.N}
				}
			}
		}
	}
	return nil
}

func conditionOf(ctx context.Context, h pg.Handle, machineID int64) (Condition, error) {
	c := Condition{
		Surveys: []SurveyView{}, Findings: []FindingView{}, Severities: condition.Severities(),
		TechnicalGrades: condition.TechnicalGrades(), CosmeticGrades: condition.CosmeticGrades(),
	}
	parts, _, err := heldParts(ctx, h, machineID)
	if err != nil {
		return c, err
	}
	c.Guide = condition.Guide(parts)
	rows, err := storecondition.SurveysOf(ctx, h, machineID)
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
	c.Stage = condition.StageOf(condition.StageInput{Surveys: surveys, Findings: findings, Running: c.Running != nil,
		Failed: len(failed)}, c.Guide)
	return c, err
}

// readFindings reads the findings of a machine with their observations, and returns them as the core knows them.
func (c *Condition) readFindings(ctx context.Context, h pg.Handle, machineID int64) ([]condition.Finding, error) {
	found, err := storecondition.FindingsOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	observations, err := storecondition.ObservationsOf(ctx, h, machineID)
	if err != nil {
		return nil, err
	}
	by := map[int64][]storecondition.ObservationRow{}
	for _, s := range observations {
		by[s.FindingID] = append(by[s.FindingID], s)
	}
	findings := []condition.Finding{}
	for _, f := range found {
		told := FindingView{Finding: findingOf(f), Name: condition.NameOf(f.Subsystem), Where: whereOf(f),
			Observations: action.Views(by[f.ID], observationOf)}
		one := condition.Finding{ID: f.ID, Subsystem: f.Subsystem, Kind: f.Kind, Place: told.Where}
		for _, s := range told.Observations {
			seen := condition.Observation{On: s.On, Severity: condition.Severity(s.Severity), Trend: s.Trend,
				Gone: s.Gone,
				Note: s.Note}
			if s.SurveyID != nil {
				seen.SurveyID = *s.SurveyID
			}
			one.Observations = append(one.Observations, seen)
		}
		told.Story = one.Tell()
		c.Findings, findings = append(c.Findings, told), append(findings, one)
	}
	return findings, nil
}

func whereOf(f storecondition.Finding) string {
	words := []string{}
	for _, word := range []string{f.Assembly, f.Designator, f.Place} {
		if word != "" {
			words = append(words, word)
		}
	}
	return strings.Join(words, ", ")
}
