package condition

import (
	"fmt"
	"slices"
	"strings"
)

// Grade is how a subsystem, or a machine, stands at a survey: its worst open finding.
type Grade string

// Grades beside the severities.
const (
	Good         Grade = "good"          // looked at, nothing found
	NotInspected Grade = "not inspected" // which is not good
	NotThere     Grade = "absent"        // the machine has none
)

// TechnicalGrades lists what the technical grade of a machine can be, each with its definition, the best
// first. It looks at what works and what is dangerous, never at looks.
func TechnicalGrades() []GradeMeans {
	return []GradeMeans{
		{string(Good), "every subsystem was looked at, and nothing is wrong but looks"},
		{string(Watch), "works as far as known; something may get worse and is looked at again"},
		{string(Repair), "something does not do what it should"},
		{string(Hazard), "something may hurt people, or eats what is next to it"},
		{string(NotInspected), "no more than a part was looked at: nothing is said of the rest"},
	}
}

// CosmeticGrades lists what the cosmetic grade can be, each with its definition, the best first. It looks at
// how the outside shows, whatever works.
func CosmeticGrades() []GradeMeans {
	return []GradeMeans{
		{"as new", "no wear at arm's length, colours even, nothing missing"},
		{"good", "light wear or slight yellowing; complete outside"},
		{"worn", "clear yellowing, scratches or small cracks; small pieces may be missing"},
		{"poor", "broken, rusted, badly yellowed, or larger pieces missing"},
	}
}

// GradeMeans is a grade and its definition.
type GradeMeans struct {
	Grade string `json:"grade"`
	Means string `json:"means"`
}

// Square is a subsystem at one survey.
type Square struct {
	SurveyID int64 `json:"surveyId"`
	Grade    Grade `json:"grade" enum:"good,cosmetic,watch,repair,hazard,not inspected,absent"`
	Findings int   `json:"findings" doc:"Open findings then"`
}

// Row is a subsystem over the surveys.
type Row struct {
	Subsystem string   `json:"subsystem"`
	Name      string   `json:"name"`
	Squares   []Square `json:"squares" doc:"One for each survey, in their order"`
}

// Strip is the condition over the years.
type Strip struct {
	Rows      []Row    `json:"rows"`
	Technical []Square `json:"technical" doc:"The machine as a whole at each survey"`
}

// StripOf draws the subsystems over surveys in the order of their days. Rows are the subsystems of the guide,
// and those that any survey or finding names.
func StripOf(guide []Item, surveys []Survey, findings []Finding) Strip {
	strip := Strip{Rows: []Row{}, Technical: []Square{}}
	keys := []string{}
	for _, s := range readSubsystems() {
		held := slices.ContainsFunc(guide, func(i Item) bool { return i.Subsystem == s.Key })
		found := slices.ContainsFunc(findings, func(f Finding) bool { return f.Subsystem == s.Key })
		looked := slices.ContainsFunc(surveys, func(v Survey) bool { return v.look(s.Key) != NotLooked })
		if held || found || looked {
			keys = append(keys, s.Key)
		}
	}
	for _, key := range keys {
		row := Row{Subsystem: key, Name: NameOf(key), Squares: make([]Square, len(surveys))}
		for i, survey := range surveys {
			row.Squares[i] = squareOf(key, survey, findings)
		}
		strip.Rows = append(strip.Rows, row)
	}
	for i, survey := range surveys {
		whole := Square{SurveyID: survey.ID, Grade: Good}
		missing := false
		for _, row := range strip.Rows {
			s := row.Squares[i]
			whole.Findings += s.Findings
			missing = missing || s.Grade == NotInspected && row.Subsystem != Other
			if s.Grade != NotInspected && s.Grade != NotThere && s.Grade != Grade(Cosmetic) &&
				gradeRank(s.Grade) > gradeRank(whole.Grade) {
				whole.Grade = s.Grade
			}
		}
		if whole.Grade == Good && missing {
			whole.Grade = NotInspected
		}
		strip.Technical = append(strip.Technical, whole)
	}
	return strip
}

func gradeRank(g Grade) int { return rank(Severity(g)) } // -1 for good

func squareOf(key string, survey Survey, findings []Finding) Square {
	square := Square{SurveyID: survey.ID, Grade: Good}
	for _, f := range findings {
		last := f.lastUntil(survey.On)
		if f.Subsystem != key || last < 0 || f.Observations[last].Gone {
			continue
		}
		square.Findings++
		if g := Grade(f.Observations[last].Severity); gradeRank(g) > gradeRank(square.Grade) {
			square.Grade = g
		}
	}
	switch survey.look(key) {
	case Absent:
		square.Grade = NotThere
	case NotLooked:
		// A finding that is open stays what it is, but nothing found is not good.
		if square.Findings == 0 {
			square.Grade = NotInspected
		}
	}
	return square
}

// Compared is a finding over the surveys.
type Compared struct {
	FindingID int64      `json:"findingId" doc:"0 while it is known from sheets or measurements alone"`
	Key       string     `json:"key" doc:"Tells the finding from all others of the machine"`
	Subsystem string     `json:"subsystem"`
	Kind      string     `json:"kind"`
	Place     string     `json:"place" says:"text"`
	States    []State    `json:"states" doc:"One for each survey: new, worse, same, better, gone, back, no look; empty before it was first seen"`
	Severity  []Severity `json:"severities" doc:"One for each survey; empty where it was not seen"`
	Story     Story      `json:"story"`
}

// CompareSurveys lays the findings beside each other over the surveys, the gravest open ones first.
func CompareSurveys(surveys []Survey, findings []Finding) []Compared {
	rows := make([]Compared, len(findings))
	for i, f := range findings {
		row := Compared{FindingID: f.ID, Key: f.Key, Subsystem: f.Subsystem, Kind: f.Kind, Place: f.Place,
			States: make([]State, len(surveys)), Severity: make([]Severity, len(surveys)), Story: f.Tell()}
		for j, s := range surveys {
			row.States[j] = f.At(s)
			if at := f.seen(s); at >= 0 && !f.Observations[at].Gone {
				row.Severity[j] = f.Observations[at].Severity
			}
		}
		rows[i] = row
	}
	slices.SortStableFunc(rows, func(a, b Compared) int {
		if a.Story.Open != b.Story.Open {
			if a.Story.Open {
				return -1
			}
			return 1
		}
		return rank(b.Story.Severity) - rank(a.Story.Severity)
	})
	return rows
}

// Technical judges a machine today, by its open findings and the last survey.
func Technical(guide []Item, surveys []Survey, findings []Finding) (Grade, string) {
	worst, open := Grade(""), []string{}
	for _, f := range findings {
		s := f.Tell()
		if !s.Open || s.Severity == Cosmetic {
			continue
		}
		if worst == "" || gradeRank(Grade(s.Severity)) > gradeRank(worst) {
			worst, open = Grade(s.Severity), []string{}
		}
		if Grade(s.Severity) == worst {
			open = append(open, strings.TrimSpace(f.Place+" "+f.Kind))
		}
	}
	missing := Missing(guide, surveys)
	switch {
	case worst != "":
		return worst, strings.Join(open, ", ")
	case len(surveys) == 0:
		return NotInspected, "no survey was made yet"
	case len(missing) > 0:
		return NotInspected, fmt.Sprintf("not inspected: %s", strings.Join(missing, ", "))
	}
	return Good, "nothing is open since the survey of " + surveys[len(surveys)-1].On
}

// Missing names the subsystems of the guide that the last survey did not look at; all of them without one.
func Missing(guide []Item, surveys []Survey) []string {
	missing := []string{}
	for _, item := range guide {
		isLeftOut := len(surveys) == 0 || surveys[len(surveys)-1].look(item.Subsystem) == NotLooked
		if isLeftOut && item.Subsystem != Other {
			missing = append(missing, item.Name)
		}
	}
	return missing
}
