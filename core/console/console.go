// Package console answers: what does a machine say of itself by the text of its console, or of its screen?
//
// What is read is a claim of its firmware or its programs, with the line that it stands on; it counts as theirs, not as
// what somebody counted. Where a line can be read in two ways, or only nearly, that is told with it.
package console

import (
	"fmt"
	"strings"

	"frugalheron/core/calendar"
	"frugalheron/core/facts"
)

// Outcome is what became of listening.
type Outcome string

// Outcomes.
const (
	Silent  Outcome = "silent"  // nothing came
	Garbage Outcome = "garbage" // what came is no text
	Stuck   Outcome = "stuck"   // the line rests where it may not
	Prompts Outcome = "prompts" // it waits for somebody to type
	Stopped Outcome = "stopped" // it stopped within a line
	Text    Outcome = "text"
)

// Claim is something that a line says of the machine.
type Claim struct {
	Line      int          `json:"line"`
	Attribute string       `json:"attribute"`
	Subject   string       `json:"subject" says:"text" doc:"The part that it is about; empty for the machine"`
	Value     string       `json:"value" says:"text"`
	Source    facts.Source `json:"source" enum:"firmware,seen"`
	Why       string       `json:"why" says:"text"`
	Doubt     string       `json:"doubt" says:"text" doc:"Why it may not be so; empty where the line says it plainly"`
}

// Trouble is a line by which the machine complains.
type Trouble struct {
	Line int    `json:"line"`
	Text string `json:"text" says:"text"`
}

// Clock is what the machine says of its clock.
type Clock struct {
	Line  int    `json:"line"`
	Shown string `json:"shown" says:"text"`
	Why   string `json:"why" says:"text"`
}

// TextReading is what a text amounts to.
type TextReading struct {
	Outcome  Outcome    `json:"outcome" enum:"silent,garbage,stuck,prompts,stopped,text"`
	Why      string     `json:"why" says:"text"`
	Next     string     `json:"next" says:"text" doc:"What to look at next; empty for nothing"`
	Lines    []TextLine `json:"lines"`
	Claims   []Claim    `json:"claims"`
	Failures []Failure  `json:"failures" doc:"Places of memory that failed"`
	Troubles []Trouble  `json:"troubles" doc:"Lines by which it complains, those of memory among them"`
	Clock    *Clock     `json:"clock" doc:"What it says of its clock, or null"`
	Prompt   string     `json:"prompt" says:"text" doc:"Behind which it waits; empty for none"`
	Bells    int        `json:"bells"`
	Doubts   []string   `json:"doubts" says:"text"`
}

// Read tells what came on a day amounts to.
func Read(raw []byte, on calendar.Date) TextReading {
	s := ScreenOf(raw)
	r := TextReading{Lines: s.Lines, Claims: []Claim{}, Failures: []Failure{}, Troubles: []Trouble{}, Bells: s.Bells,
		Doubts: s.Doubts}
	if r.judge(raw, s); r.Outcome == Silent || r.Outcome == Garbage || r.Outcome == Stuck {
		return r
	}
	for _, line := range s.Lines {
		if t := troubleIn(line); t != nil {
			r.Troubles = append(r.Troubles, *t)
		}
		r.Claims = append(r.Claims, claimsIn(line)...)
		if clock, claim := clockIn(line, on); clock != nil {
			r.Clock = clock
			if claim != nil {
				r.Claims = append(r.Claims, *claim)
			}
		}
	}
	r.Failures = failuresIn(s.Lines)
	r.settleMemory()
	r.settleClock()
	return r
}

// ReadTyped tells what a text amounts to that somebody typed off a screen, or pasted: that its last line has no end says
// nothing of the machine.
func ReadTyped(text string, on calendar.Date) TextReading {
	r := Read([]byte(text), on)
	if r.Outcome == Stopped {
		r.Outcome, r.Why = Text, "as it stood on the screen"
	}
	return r
}

// judge says what became of listening.
func (r *TextReading) judge(raw []byte, s Screen) {
	distinct := map[byte]bool{}
	for _, b := range raw {
		distinct[b] = true
	}
	switch {
	case len(raw) == 0:
		r.Outcome, r.Why = Silent, "nothing came"
		r.Next = "Is it on, and does another sign say that it runs? Then the lead (crossed or straight, which pins it " +
			"uses), the port, and whether this machine speaks on a console at all"
	case s.shown == 0 && s.odd == 0, len(distinct) == 1 && s.odd > 0:
		r.Outcome, r.Why = Stuck, fmt.Sprintf("%d times the same byte, and no text", len(raw))
		r.Next = "A line that rests in the wrong state looks so: a lead that is crossed where it should be straight, a " +
			"missing negative supply of the line driver, or a driver that died"
	case s.shown >= leastToJudge && (s.odd*10 >= s.shown || s.usual*100 < s.shown*55):
		r.Outcome = Garbage
		r.Why = fmt.Sprintf("%d of %d characters are none of a text", s.shown-s.usual, s.shown)
		r.Next = "Another speed first: half and double of it, then 110, 300, 1200, 2400, 4800, 9600, 19200; then bits and " +
			"parity. Nothing of it is read"
	case s.IsOpen && isPrompt(s.Lines[len(s.Lines)-1].Text):
		r.Outcome, r.Prompt = Prompts, s.Lines[len(s.Lines)-1].Text
		r.Why = fmt.Sprintf("it waits behind %q", r.Prompt)
	case s.IsOpen && len(raw) > 0:
		r.Outcome, r.Why = Stopped, "its last line has no end: it waits, or stopped there"
	default:
		r.Outcome, r.Why = Text, "it ends with a line"
	}
}

// leastToJudge is from how many characters on a text is judged by what it is made of.
const leastToJudge = 8

// isPrompt reports whether a machine waits behind a line that has no end.
func isPrompt(text string) bool {
	text = strings.TrimSpace(text)
	return text != "" && len(text) <= 60 && strings.ContainsAny(text[len(text)-1:], ">#$%?:*@.!]=")
}
