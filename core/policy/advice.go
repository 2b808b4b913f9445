package policy

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"frugalheron/core/sheet"
)

// Finding is what was found, as far as it decides about a job.
type Finding struct {
	Board      int64
	Place      string // designators, as written
	Kind       string
	IsCosmetic bool // it harms nothing
	IsHazard   bool
}

// Advice is the job that follows from a finding by what was chosen.
type Advice struct {
	Question string   `json:"question"`
	Option   string   `json:"option"`
	Leave    bool     `json:"leave" doc:"Nothing is done about it"`
	Template string   `json:"template" doc:"Key of the usual job; empty where nothing is done"`
	Place    string   `json:"place" says:"text" doc:"Designators of all that the job is about"`
	Needs    []string `json:"needs" says:"text"`
	Why      string   `json:"why" says:"text"`
}

var isStuck = regexp.MustCompile(`(?i)\b(stuck|seized|jammed|frozen|rusted (in|fast))\b`)

// mostPlace is how many letters the place of a job takes.
const mostPlace = 200

// Advise says which job follows from a finding by the options that were chosen, by question; nil where none says anything of
// it. A hazard is never left: what may hurt somebody is dealt with by whichever school.
func Advise(chosen map[string]string, f Finding, pieces []Piece) *Advice {
	on := slices.IndexFunc(pieces, func(p Piece) bool {
		return p.Board == f.Board && p.Place != "" &&
			sheet.Names(f.Place, p.Place)
	})
	if on >= 0 {
		for _, question := range []string{battery, capacitors, disk} {
			if o, known := option(question, chosen); known && pieces[on].isOfSchool(question, o.Key) {
				return o.advise(question, pieces[on], pieces)
			}
		}
	}
	leave := func(question string) *Advice {
		o, _ := option(question, chosen)
		return &Advice{Question: question, Option: o.Key, Leave: true, Needs: []string{}, Why: o.Title}
	}
	switch {
	case f.IsHazard:
		return nil
	case chosen[stuck] == "left" && isStuck.MatchString(f.Kind):
		return leave(stuck)
	case chosen[aim] == "conserve" && f.IsCosmetic:
		return leave(aim)
	}
	return nil
}

func option(question string, chosen map[string]string) (Option, bool) {
	q, _ := QuestionOf(question)
	return q.Of(chosen[question])
}

// isOfSchool reports whether an option of a question says what is done to a piece on which something was found.
func (p Piece) isOfSchool(question, option string) bool {
	p.IsBad = true
	return p.isDueBy(question, option)
}

// advise is the job on a piece, with those beside it that are done in one go.
func (o Option) advise(question string, found Piece, pieces []Piece) *Advice {
	a := &Advice{Question: question, Option: o.Key, Template: o.Template, Place: found.Place, Needs: o.needsFor(found),
		Why: o.Title}
	if found.burns() {
		a.Template = "safety-capacitor"
	}
	if question != capacitors || o.Key != "all" {
		return a
	}
	places, needs := []string{}, Cost{}
	for _, p := range pieces {
		if p.Board != found.Board || p.Place == "" || p.burns() != found.burns() {
			continue
		}
		if p.isDueBy(question, o.Key) || p == found {
			places = append(places, p.Place)
			for _, need := range o.needsFor(p) {
				needs.need(need)
			}
		}
	}
	a.Needs = []string{}
	for _, need := range needs.Needs {
		words := need.What
		if need.Count > 1 {
			words = fmt.Sprintf("%d x %s", need.Count, need.What)
		}
		a.Needs = append(a.Needs, words)
	}
	a.Why = fmt.Sprintf("%s: %d on this board", o.Title, len(places))
	if a.Place = strings.Join(places, ","); len(a.Place) > mostPlace {
		a.Place = fmt.Sprintf("all %d of the board", len(places))
	}
	return a
}
