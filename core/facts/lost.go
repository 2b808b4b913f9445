package facts

import (
	"errors"
	"slices"
	"strings"
)

// Lost is an identifier that a thing shows as lost, as an address of zeros: what kept it, why that lost it, and
// what is to
// be restored.
type Lost struct {
	Attribute string        `json:"attribute"`
	Label     string        `json:"label"`
	Shown     string        `json:"shown" says:"text" doc:"As it is shown now"`
	Keeper    string        `json:"keeper" doc:"The part that keeps it, by what is told of the model; empty where nobody said"`
	Because   string        `json:"because" says:"text" doc:"What is wrong with that part; empty where nothing was found"`
	Restore   []Restorative `json:"restore" doc:"What other sources say that it was, the strongest first"`
	Words     string        `json:"words" says:"text"`
}

// Restorative is what a source says that a lost identifier was.
type Restorative struct {
	Value  string `json:"value" says:"text"`
	Source Source `json:"source"`
	Cited  string `json:"cited" says:"text"`
}

// IsLost reports whether a value of the attribute is one that a part shows which has lost it.
func (a Attribute) IsLost(value string) bool {
	_, err := a.parse(value)
	return errors.Is(err, ErrLost)
}

// keeping is the attribute of models by which is told what a part keeps: keeps of U64 = hardware address, settings.
const keeping = "keeps"

// KeeperOf finds the part that keeps an attribute, by what is told of the model; empty for none.
func KeeperOf(told []Fact, a Attribute) string {
	for _, f := range told {
		if f.Attribute != keeping || f.Now == nil {
			continue
		}
		names := strings.FieldsFunc(f.Now.Value, func(r rune) bool { return r == ',' || r == ';' || r == '/' })
		if slices.ContainsFunc(names, func(name string) bool {
			return strings.ReplaceAll(folded(name), " ", "-") == a.Key || folded(name) == folded(a.Label)
		}) {
			return f.Subject
		}
	}
	return ""
}

// TellLost puts together what is known of a lost identifier.
func TellLost(a Attribute, shown, keeper, because string, others []Restorative) Lost {
	l := Lost{Attribute: a.Key, Label: a.Label, Shown: shown, Keeper: keeper, Because: because,
		Restore: []Restorative{}}
	for _, o := range others {
		if _, err := a.parse(o.Value); err == nil {
			l.Restore = append(l.Restore, o)
		}
	}
	slices.SortStableFunc(l.Restore, func(x, y Restorative) int { return y.Source.Rank() - x.Source.Rank() })
	l.Words = a.Label + " " + shown + " is lost. "
	switch {
	case keeper == "":
		l.Words += "Nobody has said for the model which part keeps it. "
	case because == "":
		l.Words += keeper + " keeps it, and nothing was found on that yet: look at it, and measure its cell. "
	default:
		l.Words += keeper + " keeps it, and that is " + because + ". "
	}
	if len(l.Restore) == 0 {
		l.Words += "No other source says what it was: look at the label, and in old records."
		return l
	}
	first := l.Restore[0]
	l.Words += "Restore " + first.Value + ", by " + first.Source.Words()
	if first.Cited != "" {
		l.Words += " (" + first.Cited + ")"
	}
	l.Words += "."
	a.warnOfOthers(&l)
	return l
}

// warnOfOthers says where sources differ about what is to be restored.
func (a Attribute) warnOfOthers(l *Lost) {
	for _, other := range l.Restore[1:] {
		if !a.Same(l.Restore[0].Value, other.Value) {
			l.Words += " But " + other.Source.Words() + " says " + other.Value + ": settle that first."
			return
		}
	}
}
