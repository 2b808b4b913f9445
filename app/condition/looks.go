package condition

import (
	"fmt"
	"strings"

	"frugalheron/core/condition"
	"frugalheron/core/lives"
	"frugalheron/core/risk"
	"frugalheron/core/sheet"
	storecondition "frugalheron/store/condition"
)

// looks say when somebody last looked at what ages: in a survey of its subsystem, by measuring it, by finding something
// about it, or by reading it out. What was about an earlier part at the same place is no look at the one that is there.
type looks struct {
	byClass map[string]risk.Day
	byPart  map[string]risk.Day // by board and designator
	stories map[int64]lives.Story
}

// looksOf gathers them.
func looksOf(k known, reads []storecondition.ReadOut, surveys []storecondition.SurveyRow) (looks, error) {
	l := looks{byClass: map[string]risk.Day{}, byPart: map[string]risk.Day{}, stories: k.told}
	for _, row := range surveys {
		_, survey, err := tellSurvey(row)
		if err != nil {
			return l, err
		}
		for key, look := range survey.Coverage {
			sub, _ := condition.SubsystemOf(key)
			for _, class := range sub.Classes {
				if look == condition.Inspected {
					l.byClass[class] = max(l.byClass[class], dayOf(row.On))
				}
			}
		}
	}
	for _, one := range k.said {
		for _, o := range one.Observations {
			if o.Source != condition.FromPart && o.Source != condition.FromMeasurement && !k.isErasure(o) {
				l.see(one.Assembly, one.Parts, o)
			}
		}
	}
	for _, m := range k.measured {
		if m.AssemblyID != nil {
			designator, _, _ := strings.Cut(m.Point, " ")
			l.see(*m.AssemblyID, designator, condition.Observation{On: m.On, At: m.At})
		}
	}
	for _, r := range reads {
		l.see(r.AssemblyID, r.Designator, condition.Observation{On: r.On, At: r.At})
	}
	return l, nil
}

// isErasure reports whether it is that a mark was taken off a sheet, for which nobody needs to look at the part.
func (known) isErasure(o condition.Observation) bool {
	return o.Gone && (o.Source == condition.FromSheet || o.Source == condition.FromOutside)
}

// mostLooked is how many parts of a run are told apart by when somebody looked at them.
const mostLooked = 64

// see takes in that somebody looked at parts of a board.
func (l looks) see(assembly int64, parts string, o condition.Observation) {
	for _, designator := range sheet.Designators(parts, mostLooked) {
		if _, end := l.stories[assembly].Occupant(designator, o.On, o.At); end != nil {
			continue
		}
		key := partKey(assembly, designator)
		l.byPart[key] = max(l.byPart[key], dayOf(o.On))
	}
	if parts == "" && assembly != 0 {
		key := partKey(assembly, "")
		l.byPart[key] = max(l.byPart[key], dayOf(o.On))
	}
}

func partKey(assembly int64, designator string) string {
	return fmt.Sprintf("%d %s", assembly, strings.ToUpper(designator))
}

// at is when somebody last looked at a part; an empty designator stands for a board of its own.
func (l looks) at(class string, assembly int64, designator string) risk.Day {
	on := risk.NoDay
	if day, ok := l.byClass[class]; ok {
		on = day
	}
	if day, ok := l.byPart[partKey(assembly, designator)]; ok {
		on = max(on, day)
	}
	return on
}

// cameIn is when the part at a place was put where nothing was; NoDay when it was always there.
func (l looks) cameIn(assembly int64, designator string) risk.Day {
	if life, ok := l.stories[assembly].Now(designator); ok && life.Came == lives.Fitted {
		return sinceDay(life.From)
	}
	return risk.NoDay
}
