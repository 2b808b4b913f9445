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
	"frugalheron/store/pg"
)

// FindingView is a finding with all its observations and its story. Its id is 0 while it is known from sheets or
// measurements alone: then what is said of it names its key.
type FindingView struct {
	Finding
	Key          string          `json:"key" doc:"Tells it from all others; says of which finding something is said"`
	Name         string          `json:"name" doc:"What the subsystem is called"`
	Where        string          `json:"where" says:"text" doc:"Board, designator and place, in words"`
	Observations []Observation   `json:"observations"`
	Sources      []FindingSource `json:"sources" doc:"How it is known, each once"`
	Story        condition.Story `json:"story"`
	Waits        bool            `json:"waits" doc:"It was there before the survey that is being made, which says nothing of it yet"`
	Callout      *files.Callout  `json:"callout" doc:"Its number on a picture of the board, or null"`
}

// FindingSource is one way in which a finding is known.
type FindingSource struct {
	Source     condition.Source `json:"source" enum:"survey,note,sheet,outside,measurement,part"`
	AssemblyID *int64           `json:"assemblyId" doc:"The sheet on which it stands today, or null"`
	Line       int              `json:"line" doc:"Its line there; 0 for none"`
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
	boards := map[int64]bool{}
	for _, f := range findings {
		if f.AssemblyID != nil && f.Designator != "" {
			boards[*f.AssemblyID] = true
		}
	}
	if len(boards) == 0 {
		return nil
	}
	callouts, err := files.CalloutsOf(ctx, s.kernel.Reader(ctx), machineID, actor.Hides(), boards)
	for i, f := range findings {
		if f.AssemblyID == nil {
			continue
		}
		if c, known := callouts[files.Part{AssemblyID: *f.AssemblyID, Designator: f.Designator}]; known {
			findings[i].Callout = &c
		}
	}
	return err
}

func conditionOf(ctx context.Context, h pg.Handle, machineID int64) (Condition, error) {
	c := Condition{
		Surveys: []SurveyView{}, Findings: []FindingView{}, Severities: condition.Severities(),
		TechnicalGrades: condition.TechnicalGrades(), CosmeticGrades: condition.CosmeticGrades(),
	}
	known, err := knownOf(ctx, h, machineID)
	if err != nil {
		return c, err
	}
	c.Guide = condition.Guide(known.parts())
	rows, err := storecondition.SurveysOf(ctx, h, machineID)
	if err != nil {
		return c, err
	}
	surveys, running := []condition.Survey{}, condition.Survey{}
	for _, row := range rows {
		told, survey, err := tellSurvey(row)
		if err != nil {
			return c, err
		}
		if !row.Finished {
			c.Running, running = &told, survey
			continue
		}
		c.Surveys = append(c.Surveys, told)
		surveys = append(surveys, survey)
		if row.Cosmetic != "" {
			c.Cosmetic, c.CosmeticOn = row.Cosmetic, row.On
		}
	}
	findings := known.findings
	c.Findings = known.views()
	if c.Running != nil {
		for i, f := range findings {
			c.Findings[i].Waits = len(condition.Unanswered(running, f.Subsystem, findings[i:i+1])) > 0
		}
	}
	c.Compared, c.Strip = condition.CompareSurveys(surveys, findings), condition.StripOf(c.Guide, surveys, findings)
	c.Technical, c.TechnicalWhy = condition.Technical(c.Guide, surveys, findings)
	c.NotInspected = condition.Missing(c.Guide, surveys)
	c.Stage = condition.StageOf(condition.StageInput{Surveys: surveys, Findings: findings, Running: c.Running != nil},
		c.Guide)
	return c, nil
}

// views is what goes out of the findings.
func (k known) views() []FindingView {
	rows := map[int64]storecondition.Finding{}
	for _, row := range k.found {
		rows[row.ID] = row
	}
	told := make([]FindingView, len(k.findings))
	for i, f := range k.findings {
		v := FindingView{Finding: findingOf(rows[f.ID]), Key: f.Key, Name: condition.NameOf(f.Subsystem),
			Where:        f.Place,
			Observations: action.Views(f.Observations, observationOf), Sources: []FindingSource{}, Story: f.Tell()}
		if f.ID == 0 {
			v.FindingInput = FindingInput{Subsystem: f.Subsystem, Kind: f.Kind, Designator: f.Parts}
			v.Line = f.Line
		}
		if f.Assembly != 0 {
			v.AssemblyID, v.Assembly = &f.Assembly, k.boards[f.Assembly].title
		}
		if f.Line > 0 {
			v.Line = f.Line
		}
		for _, o := range f.Observations {
			if o.Source == condition.FromPart || slices.ContainsFunc(v.Sources, func(s FindingSource) bool {
				return s.Source == o.Source
			}) {
				continue
			}
			source := FindingSource{Source: o.Source}
			if f.Standing && (o.Source == condition.FromSheet || o.Source == condition.FromOutside) {
				source.AssemblyID, source.Line = v.AssemblyID, f.Line
			}
			v.Sources = append(v.Sources, source)
		}
		told[i] = v
	}
	return told
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
