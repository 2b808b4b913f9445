package dating

import (
	"fmt"
	"slices"

	"frugalheron/core/calendar"
)

// Originality says from when an assembly is, measured by the machine that it is in.
type Originality string

// From when an assembly is.
const (
	Factory Originality = "factory" // built with the machine
	Period  Originality = "period"  // added while the model was in use
	Later   Originality = "later"   // added long after
	Modern  Originality = "modern"  // made in our time
	Unknown Originality = "unknown"
)

// Years after the build until which an addition is of the period, and from which it is modern. Rules of
// thumb: such machines were in use for about six years.
const (
	periodYears = 6
	modernYears = 20
)

// Judgement is how original an assembly is, and why.
type Judgement struct {
	Originality Originality `json:"originality" enum:"factory,period,later,modern,unknown"`
	Why         string      `json:"why" says:"text"`
}

// JudgeAssembly judges an assembly by the dates of its own parts, against the estimate for the machine. The
// parts are those of the assembly alone; without dates, or without an estimate, nothing can be said.
func JudgeAssembly(parts []Evidence, built *Span, rules Rules) Judgement {
	if built == nil {
		return Judgement{Unknown, "it is not known when the machine was built"}
	}
	dated := ofKind(parts, DateCode)
	if len(dated) == 0 {
		return Judgement{Unknown, "none of its parts is dated"}
	}
	for i := range dated {
		dated[i].Decided = "" // it is told beside what was decided
	}
	// One chip that was replaced does not make a board a later one.
	own, err := Date(dated, rules)
	if err != nil || own.NotBefore == nil {
		return Judgement{Unknown, "its dates cannot be used"}
	}
	judged := judgeBy(*own.NotBefore, built, rules)
	for _, o := range own.Outliers {
		at := slices.IndexFunc(dated, func(e Evidence) bool { return e.ID == o.ID })
		if o.Verdict != "possibly-later" || at < 0 {
			continue
		}
		if other := judgeBy(dated[at].From, built, rules); other.Originality != judged.Originality {
			return Judgement{Unknown, fmt.Sprintf("too few of its parts are dated: by %s it is %s, by the others %s",
				o.ID, other.Originality, judged.Originality)}
		}
	}
	return judged
}

// judgeBy judges an assembly by its newest part.
func judgeBy(newest calendar.Date, built *Span, rules Rules) Judgement {
	past := weeks(built.To, newest)
	told := fmt.Sprintf("its parts are from %s, ", weekOf(newest))
	switch {
	case past <= 0 && weeks(newest, built.From) > rules.OldStock:
		return Judgement{
			Unknown, told + fmt.Sprintf("%d weeks before the machine was built: it may come from an older one",
				weeks(newest, built.From)),
		}
	case past <= 0:
		return Judgement{Factory, told + "not later than the machine"}
	case newest.Year >= built.To.Year+modernYears:
		return Judgement{Modern, told + fmt.Sprintf("%d years after the machine", newest.Year-built.To.Year)}
	case newest.Year > built.To.Year+periodYears:
		return Judgement{Later, told + fmt.Sprintf("%d years after the machine", newest.Year-built.To.Year)}
	}
	return Judgement{Period,
		told + fmt.Sprintf("%d weeks after the machine was built: added while such machines were in use", past)}
}

func weekOf(d calendar.Date) string {
	year, week := d.ISOWeek()
	return fmt.Sprintf("%d-W%02d", year, week)
}
