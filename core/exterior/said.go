package exterior

import (
	"regexp"
	"strings"

	"frugalheron/core/facts"
)

// Claim is what a line states about an attribute of the machine.
type Claim struct {
	Attribute string
	Kind      facts.Source
	Value     string
	Line      int
}

// measures are the things whose words are a measured attribute.
var measures = map[string]string{"weight": "weight", "size": "outer-size"}

// labelled are the words before a reading that name an attribute.
var labelled = []struct{ word, attribute string }{
	{"serial", "serial"}, {"catalogue", "catalogue-number"}, {"asset", "asset-tag"}, {"address", "hardware-address"},
	{"inventory", "former-number"}, {"former", "former-number"}, {"maker", "maker"}, {"model", "model"},
	{"variant", "variant"}, {"sold as", "sold-as"}, {"licence", "licensed-from"}, {"firmware", "firmware"},
}

var rating = []struct {
	attribute string
	form      *regexp.Regexp
}{
	{"mains-voltage", regexp.MustCompile(`(?i)\b\d{2,3}(?:\s*[-–/]\s*\d{2,3}){0,3}\s*V(?:olts?)?\b`)},
	{"mains-frequency", regexp.MustCompile(`(?i)\b\d{2}(?:\s*[-–/]\s*\d{2})?\s*Hz\b`)},
	{"mains-current", regexp.MustCompile(`(?i)\b\d+(?:\.\d+)?(?:\s*[-–/]\s*\d+(?:\.\d+)?)?\s*m?A(?:mps?)?\b`)},
	{"mains-earth", regexp.MustCompile(`(?i)\b(?:not earthed|double insulated|no earth|earthed|earth)\b`)},
}

// Statements lists what the outside states about the machine, in the order of the text.
func (s Sheet) Statements() []Claim {
	said := []Claim{}
	for _, e := range s.Entries {
		said = append(said, e.statements()...)
	}
	return said
}

func (e Entry) statements() []Claim {
	say := func(attribute string, kind facts.Source, value string) Claim {
		if text, err := normal(attribute, value); err == nil {
			value = text
		}
		return Claim{attribute, kind, value, e.Line}
	}
	said := []Claim{}
	if attribute := measures[e.Thing]; attribute != "" {
		return append(said, say(attribute, facts.Measured, e.Words))
	}
	switch e.Thing {
	case "colour":
		return append(said, say("colour", facts.Seen, e.Words))
	case "plate", "label", "badge", "mark":
	default:
		return said
	}
	words := strings.ToLower(e.Words)
	if e.Reading != "" {
		for _, l := range labelled {
			if strings.Contains(words, l.word) {
				said = append(said, say(l.attribute, facts.Label, e.Reading))
				break
			}
		}
	}
	if e.Thing == "plate" {
		for _, r := range rating {
			if found := r.form.FindString(e.Words); found != "" {
				said = append(said, say(r.attribute, facts.Label, strings.ToLower(found)))
			}
		}
	}
	return said
}

func normal(attribute, value string) (string, error) {
	return facts.AttributeOf(attribute).Normal(value)
}
