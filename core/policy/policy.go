// Package policy answers: by which school is a machine restored, what does each choice mean for it and cost, and which job
// follows from what was found?
package policy

import (
	_ "embed"
	"slices"
	"strconv"
	"strings"
	"sync"

	"frugalheron/core/job"
	"frugalheron/core/table"
)

//go:embed policies.tsv
var policyTable string

// Option is one way to answer a question.
type Option struct {
	Key        string         `json:"key"`
	Title      string         `json:"title"`
	Means      string         `json:"means" doc:"What it means for the machine"`
	Reversible job.Reversible `json:"reversible" enum:",yes,partly,no"`
	Template   string         `json:"template" doc:"Key of the usual job that follows; empty for none"`
	needs      []string       // for each piece; # stands for another of the same
	board      int            // minutes for each board that is worked on
	piece      int            // minutes for each piece
}

// Question is what is decided once for a collection, or for a machine.
type Question struct {
	Key       string   `json:"key"`
	Title     string   `json:"title"`
	Options   []Option `json:"options"`
	HasPieces bool     `json:"hasPieces" doc:"What each option costs follows from the parts of a machine"`
}

// Of finds an option by its key.
func (q Question) Of(key string) (Option, bool) {
	at := slices.IndexFunc(q.Options, func(o Option) bool { return o.Key == key })
	if at < 0 {
		return Option{}, false
	}
	return q.Options[at], true
}

// titles are the questions in the order in which they are put.
var titles = []struct{ key, title string }{{aim, "What restoring is for"}, {capacitors, "Capacitors"},
	{battery, "Batteries and cells"}, {disk, "Mechanical disks"}, {"idle-card", "An original card that serves nothing"},
	{stuck, "A part that is stuck"}}

// Keys of questions from which jobs follow.
const (
	aim        = "aim"
	capacitors = "capacitors"
	battery    = "battery"
	disk       = "disk"
	stuck      = "stuck"
)

// Questions lists all.
func Questions() []Question { return slices.Clone(questions()) }

// QuestionOf finds a question by its key.
func QuestionOf(key string) (Question, bool) {
	at := slices.IndexFunc(questions(), func(q Question) bool { return q.Key == key })
	if at < 0 {
		return Question{}, false
	}
	return questions()[at], true
}

var questions = sync.OnceValue(func() []Question {
	all := make([]Question, len(titles))
	for i, t := range titles {
		all[i] = Question{Key: t.key, Title: t.title, HasPieces: len(classesOf[t.key]) > 0}
	}
	for _, c := range table.Reference("choices of a restoration", policyTable, "question", "option", "title", "means",
		"reversible", "template", "needs", "board", "piece", "source") {
		o := Option{Key: c[1], Title: c[2], Means: c[3], Reversible: job.Reversible(c[4]), Template: c[5],
			needs: strings.FieldsFunc(strings.ReplaceAll(c[6], "; ", ";"), func(r rune) bool { return r == ';' })}
		o.board, _ = strconv.Atoi(c[7])
		o.piece, _ = strconv.Atoi(c[8])
		at := slices.IndexFunc(all, func(q Question) bool { return q.Key == c[0] })
		all[at].Options = append(all[at].Options, o)
	}
	return all
})

// classesOf are the ageing classes that a question is about.
var classesOf = map[string][]string{
	capacitors: {"electrolytic", "smd-electrolytic", "tantalum", "safety-capacitor"},
	battery: {"battery-nicd", "battery-nimh", "battery-lead", "battery-alkaline", "battery-li-ion", "battery-lithium",
		"battery-other", "clock-module"},
	disk: {"disk"},
}

// Piece is one part of a machine that ages.
type Piece struct {
	Board int64
	Class string
	Place string // its designator; empty where it has none
	Words string // what it is, as it stands on it
	IsBad bool   // something is found on it
}

// burns reports whether a piece is known to burn or short one day, whatever it measures.
func (p Piece) burns() bool { return p.Class == "safety-capacitor" }

// isDueBy reports whether a piece is worked on where an option of a question is chosen.
func (p Piece) isDueBy(question, option string) bool {
	switch {
	case !slices.Contains(classesOf[question], p.Class):
		return false
	case question == capacitors && option == "needed":
		return p.IsBad || p.burns()
	case question == capacitors:
		return p.IsBad || p.burns() || p.Class == "electrolytic" || p.Class == "smd-electrolytic"
	case question == battery:
		return (p.Class == "clock-module") == (option == "potted-open" || option == "module")
	}
	return true
}

// PartNeed is what an option needs of one part.
type PartNeed struct {
	What  string `json:"what" says:"text"`
	Count int    `json:"count"`
}

// Cost is what an option takes at a machine.
type Cost struct {
	Option  string     `json:"option"`
	Pieces  int        `json:"pieces" doc:"Parts that are worked on"`
	Boards  int        `json:"boards" doc:"That they sit on"`
	Minutes int        `json:"minutes" doc:"By rule of thumb: so many a board, and so many a piece"`
	Places  []string   `json:"places" says:"text" doc:"Where they have designators"`
	Needs   []PartNeed `json:"needs" doc:"Parts, in the order in which they are met"`
}

// Costs lays the options of a question beside each other for the pieces of a machine.
func Costs(question string, pieces []Piece) []Cost {
	q, _ := QuestionOf(question)
	costs := []Cost{}
	for _, o := range q.Options {
		c := Cost{Option: o.Key, Places: []string{}, Needs: []PartNeed{}}
		boards := map[int64]bool{}
		for _, p := range pieces {
			if !p.isDueBy(question, o.Key) {
				continue
			}
			c.Pieces++
			c.Minutes += o.piece
			if !boards[p.Board] {
				boards[p.Board] = true
				c.Boards++
				c.Minutes += o.board
			}
			if p.Place != "" {
				c.Places = append(c.Places, p.Place)
			}
			for _, need := range o.needsFor(p) {
				c.need(need)
			}
		}
		costs = append(costs, c)
	}
	return costs
}

func (c *Cost) need(what string) {
	at := slices.IndexFunc(c.Needs, func(n PartNeed) bool { return n.What == what })
	if at < 0 {
		c.Needs = append(c.Needs, PartNeed{What: what})
		at = len(c.Needs) - 1
	}
	c.Needs[at].Count++
}

// needsFor are the parts that an option needs for a piece.
func (o Option) needsFor(p Piece) []string {
	needs := []string{}
	for _, need := range o.needs {
		if need = strings.ReplaceAll(need, "#", p.Words); need != "" {
			needs = append(needs, need)
		}
	}
	return needs
}
