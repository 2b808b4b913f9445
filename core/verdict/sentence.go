package verdict

import (
	"fmt"
	"regexp"
	"strings"
)

// Reason is a piece of evidence or a rule, with the line it comes from where there is one. Its code stays the same when
// its words change; the words are made here, and nowhere else.
type Reason struct {
	Code string `json:"code" doc:"Stable name of the sentence"`
	Args []Arg  `json:"args" doc:"What the sentence is about, in the order of its words"`
	Text string `json:"text" says:"text" doc:"The whole sentence"`
	Spot *Spot  `json:"spot" doc:"The line this comes from, or null"`
}

// Arg is something that a sentence is about: words of people, or a word or number of ours.
type Arg struct {
	Name  string `json:"name"`
	Text  string `json:"text,omitempty" says:"text" doc:"In somebody's words"`
	Value string `json:"value,omitempty" doc:"A number, a designator, or a word of a list"`
}

// Word is a word of ours: a number, a designator, one of a list. Nobody is named in it.
type Word string

// Sentence is a reason that can be given, with places for what it is about.
type Sentence struct {
	code  string
	names []string
	words []string // before, between and behind the places
}

var place = regexp.MustCompile(`\{(\w+)\}`)

// NewSentence returns a sentence by its code and its words, with places as {name}.
func NewSentence(code, words string) Sentence {
	s := Sentence{code: code, words: place.Split(words, -1)}
	for _, match := range place.FindAllStringSubmatch(words, -1) {
		s.names = append(s.names, match[1])
	}
	return s
}

// Because gives the reason, with what it is about in the order of its places: text of people as a string, a Word, or a
// whole number. It panics when there are more, or fewer: the sentence is another one then.
func (s Sentence) Because(about ...any) Reason {
	if len(about) != len(s.names) {
		panic(fmt.Sprintf("sentence %s has %d places, not %d", s.code, len(s.names), len(about)))
	}
	r := Reason{Code: s.code, Args: make([]Arg, len(about))}
	var text strings.Builder
	text.WriteString(s.words[0])
	for i, one := range about {
		arg := Arg{Name: s.names[i]}
		switch value := one.(type) {
		case string:
			arg.Text = value
		case Word:
			arg.Value = string(value)
		case int:
			arg.Value = fmt.Sprint(value)
		default:
			panic(fmt.Sprintf("sentence %s cannot be about a %T", s.code, one))
		}
		r.Args[i] = arg
		text.WriteString(arg.Text)
		text.WriteString(arg.Value)
		text.WriteString(s.words[i+1])
	}
	r.Text = text.String()
	return r
}

// At is the reason with the line that it comes from.
func (r Reason) At(assembly int64, line int) Reason {
	r.Spot = &Spot{Assembly: assembly, Line: line}
	return r
}
