package condition

import (
	"cmp"
	"fmt"
	"hash/fnv"
	"slices"
	"strings"
	"time"

	"frugalheron/core/exterior"
	"frugalheron/core/lives"
	"frugalheron/core/sheet"
)

// Said is a finding as one source knows it.
type Said struct {
	ID           int64 // of what surveys and notes said; 0 for other sources
	Subsystem    string
	Kind         string
	Assembly     int64  // 0 for none
	Board        string // what that is called
	Parts        string // designators as written; empty for none
	Place        string // where, in words beside these
	Line         int    // of the sheet on which it is marked today; 0 for none
	Standing     bool   // it stands on a sheet today
	Tells        string // what sort of part it is on
	Observations []Observation
}

// OneList makes one finding of what several sources say of the same kind on the same part of the same board, and ends
// findings with their parts. Stories are those of the boards' sheets, by assembly.
func OneList(said []Said, stories map[int64]lives.Story) []Finding {
	groups := []*group{}
	byPlace := map[string][]*group{} // by board and kind, so that few are compared
	for _, one := range said {
		if len(one.Observations) == 0 {
			continue
		}
		nth, end := occupantOf(one, stories)
		near := fmt.Sprintf("%d %s %d", one.Assembly, sheet.KindOf(one.Kind).Same, nth)
		i := slices.IndexFunc(byPlace[near], func(g *group) bool { return g.isAbout(one) })
		if i < 0 {
			g := &group{nth: nth}
			groups, byPlace[near] = append(groups, g), append(byPlace[near], g)
			i = len(byPlace[near]) - 1
		}
		byPlace[near][i].add(one, end)
	}
	findings := make([]Finding, len(groups))
	for i, g := range groups {
		findings[i] = g.finding()
	}
	return findings
}

// occupantOf says which of the parts at its place something is about, and how that one ended.
func occupantOf(one Said, stories map[int64]lives.Story) (nth int, end *lives.End) {
	story, known := stories[one.Assembly]
	if !known || one.Parts == "" || sheet.First(one.Parts) != one.Parts {
		return 0, nil // several parts do not end together
	}
	first := one.Observations[0]
	if first.Source == FromSheet {
		// A sheet speaks of the part that it names then, whatever it says later of when that came.
		return story.OccupantWritten(one.Parts, first.At)
	}
	return story.Occupant(one.Parts, first.On, first.At)
}

// group is what is said of one finding.
type group struct {
	said []Said
	nth  int
	end  *lives.End
}

func (g *group) add(one Said, end *lives.End) {
	g.said = append(g.said, one)
	if end != nil {
		g.end = end
	}
}

// isAbout reports whether something else of the same kind on the same board is the same finding: on the same part, or
// where no part is named, at the same place.
func (g *group) isAbout(one Said) bool {
	return slices.ContainsFunc(g.said, func(s Said) bool {
		if s.Parts == "" || one.Parts == "" {
			return s.Parts == one.Parts && s.Place != "" && strings.EqualFold(s.Place, one.Place)
		}
		return sheet.Names(s.Parts, sheet.First(one.Parts)) || sheet.Names(one.Parts, sheet.First(s.Parts))
	})
}

// finding puts together what all say.
func (g *group) finding() Finding {
	f := Finding{}
	tells := ""
	for _, s := range g.said {
		// What somebody said goes before what follows from elsewhere; of parts the most are named.
		f.ID, f.Subsystem, f.Kind = cmp.Or(f.ID, s.ID), cmp.Or(f.Subsystem, s.Subsystem), cmp.Or(f.Kind, s.Kind)
		f.Assembly, f.Line, tells = cmp.Or(f.Assembly, s.Assembly), cmp.Or(f.Line, s.Line), cmp.Or(tells, s.Tells)
		if f.Parts == "" || sheet.Names(s.Parts, sheet.First(f.Parts)) && len(s.Parts) >= len(f.Parts) {
			f.Parts = s.Parts
		}
		f.Observations, f.Standing = append(f.Observations, s.Observations...), f.Standing || s.Standing
	}
	f.Key = keyOf(f, g.said[0].Place, g.nth)
	f.Place = g.place(f.Parts)
	slices.SortStableFunc(f.Observations, func(a, b Observation) int {
		return cmp.Or(strings.Compare(a.On, b.On), a.At.Compare(b.At))
	})
	f.Observations = withoutErasures(f.Observations)
	usual := SeverityOf(f.Subsystem, f.Kind, tells+" "+f.Place)
	for i := range f.Observations {
		if o := &f.Observations[i]; o.Severity == "" {
			o.Severity = usual
		} else if !o.Gone {
			usual = o.Severity
		}
	}
	last := f.Observations[len(f.Observations)-1]
	if g.end != nil && (!last.Gone || last.Source == FromPart && last.Note != g.end.Text()) {
		if last.Source == FromPart {
			f.Observations = f.Observations[:len(f.Observations)-1] // when it went is known better
			last = f.Observations[len(f.Observations)-1]
		}
		f.Observations = append(f.Observations,
			Observation{On: max(g.end.On, last.On), Gone: true, Severity: last.Severity,
				Note: g.end.Text(), Source: FromPart})
	}
	return f
}

// keyOf tells a finding from all others of the machine, and stays the same while sources say more of it.
func keyOf(f Finding, place string, nth int) string {
	sum := fnv.New64a()
	where := cmp.Or(strings.ToUpper(sheet.First(f.Parts)), strings.ToLower(place))
	fmt.Fprintf(sum, "%d|%s|%s|%d", f.Assembly, where, sheet.KindOf(f.Kind).Same, nth)
	return fmt.Sprintf("%016x", sum.Sum64())
}

// place says where it is: board, designators, and what else is said of it, each once.
func (g *group) place(parts string) string {
	words := []string{}
	add := func(word string) {
		if word != "" && !slices.Contains(words, word) {
			words = append(words, word)
		}
	}
	for _, s := range g.said {
		add(s.Board)
	}
	add(parts)
	for _, s := range g.said {
		add(s.Place)
	}
	return strings.Join(words, ", ")
}

// withoutErasures leaves out that a mark was taken off a sheet where somebody had said of the finding how it is: that a
// sheet does not name it any more does not say that it is gone.
func withoutErasures(observations []Observation) []Observation {
	said := slices.ContainsFunc(observations, func(o Observation) bool {
		return o.Source != FromPart && o.Source != FromSheet && o.Source != FromOutside && !o.Gone
	})
	if !said {
		return observations
	}
	return slices.DeleteFunc(observations, Observation.isErasure)
}

// isErasure reports whether it is that a mark was taken off a sheet, for which nobody needs to look at the part.
func (o Observation) isErasure() bool {
	return o.Gone && (o.Source == FromSheet || o.Source == FromOutside)
}

// Sheet is one whose marks are told.
type Sheet struct {
	Assembly   int64
	Title      string
	IsExterior bool
}

// OnSheet is what a mark on a sheet, or one that stood there, says. What is found on a thing of the outside belongs where the
// thing does, what is found on a part where such parts are looked at.
func OnSheet(m lives.Mark, on Sheet) Said {
	one := Said{Kind: m.Kind, Assembly: on.Assembly, Parts: m.Parts, Tells: m.Tells, Standing: m.Until == ""}
	source := FromSheet
	if on.IsExterior {
		one.Place, one.Subsystem, source = m.Words, cmp.Or(exterior.SubsystemOf(m.Tells), Other), FromOutside
	} else {
		one.Board, one.Subsystem = on.Title, SubsystemFor(m.Tells, m.Kind)
		if m.Parts == "" {
			one.Place = m.Words
		}
	}
	if one.Standing {
		one.Line = m.Line
	}
	one.Observations = marked(m, source)
	return one
}

// LeftWithBoard ends what was found on a machine with the day on which its board left: it is told of the board from then on.
func (s Said) LeftWithBoard(on string) Said {
	last := len(s.Observations) - 1
	if last < 0 || s.Observations[last].Gone {
		return s
	}
	was := s.Observations[last]
	s.Observations = append(slices.Clone(s.Observations), Observation{On: max(on, was.On), At: was.At, Gone: true,
		Severity: was.Severity, Note: "it went with its board", Source: FromPart})
	return s
}

// marked is what a mark on a sheet says: that it was seen on the day it was written, and that it was gone when it was
// taken off, or with its part.
func marked(m lives.Mark, source Source) []Observation {
	seen := []Observation{{On: m.Since, At: m.At, Note: m.Note, Source: source}}
	switch {
	case m.Until == "":
	case m.WithPart:
		seen = append(seen,
			Observation{On: m.Until, At: m.At, Gone: true, Note: "gone with its part", Source: FromPart})
	default:
		seen = append(seen,
			Observation{On: m.Until, At: time.Time{}, Gone: true, Note: "taken off the sheet", Source: source})
	}
	return seen
}

// Unanswered lists the findings of a subsystem of which a survey says nothing: those that were open before it.
func Unanswered(survey Survey, subsystem string, findings []Finding) []Finding {
	left := []Finding{}
	for _, f := range findings {
		if f.Subsystem != subsystem || f.seen(survey) >= 0 {
			continue
		}
		if story := f.Tell(); story.Open && story.LastOn < survey.On {
			left = append(left, f)
		}
	}
	return left
}
