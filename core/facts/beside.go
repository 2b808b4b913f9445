package facts

import (
	"slices"
	"strings"
)

// Besides are ways in which what is known of two things goes together.
type Besides string

// Ways. Unknown is told wherever one of both is not known: nothing follows from silence.
const (
	IsSame      Besides = "same"
	IsDifferent Besides = "different"
	IsUnknown   Besides = "unknown"
	IsDisputed  Besides = "disputed"
)

// Beside is an attribute of two things, laid beside each other.
type Beside struct {
	Attribute string  `json:"attribute"`
	Label     string  `json:"label"`
	Subject   string  `json:"subject" says:"text"`
	State     Besides `json:"state" enum:"same,different,unknown,disputed"`
	First     string  `json:"first" says:"text" doc:"Empty where it is not known"`
	Second    string  `json:"second" says:"text"`
	Why       string  `json:"why" says:"text"`
}

// LayBeside compares two things by what is known of each: by attribute and subject, in the order of the attributes. What
// tells one thing from all others, as a serial number, is not compared.
func LayBeside(first, second []Fact) []Beside {
	rows := []Beside{}
	find := func(known []Fact, like Fact) *Fact {
		at := slices.IndexFunc(known, func(f Fact) bool {
			return f.Attribute == like.Attribute && folded(f.Subject) == folded(like.Subject)
		})
		if at < 0 {
			return nil
		}
		return &known[at]
	}
	for _, f := range InOrder(append(slices.Clone(first), second...)) {
		isThere := slices.ContainsFunc(rows, func(r Beside) bool {
			return r.Attribute == f.Attribute && folded(r.Subject) == folded(f.Subject)
		})
		if isThere || slices.Contains(ofOneThing, f.Attribute) {
			continue
		}
		rows = append(rows, beside(AttributeOf(f.Attribute), f.Subject, find(first, f), find(second, f)))
	}
	return rows
}

// ofOneThing are attributes of a single machine.
var ofOneThing = []string{"serial", "hardware-address", "asset-tag", "former-number", "condition", "worked",
	"network-address", "host-name", "clock-kept", "completeness"}

func beside(a Attribute, subject string, first, second *Fact) Beside {
	row := Beside{Attribute: a.Key, Label: a.Label, Subject: subject, First: valueOf(first), Second: valueOf(second)}
	switch {
	case first != nil && first.State == Disputed:
		row.State, row.Why = IsDisputed, "what is said of the first differs: "+first.Why()
	case second != nil && second.State == Disputed:
		row.State, row.Why = IsDisputed, "what is said of the second differs: "+second.Why()
	case row.First == "" || row.Second == "":
		row.State, row.Why = IsUnknown, "nobody has said it of the second"
		switch {
		case row.First == "" && row.Second == "":
			row.Why = "what is said of it decides nothing yet"
		case row.First == "":
			row.Why = "nobody has said it of the first"
		}
	case a.Same(row.First, row.Second):
		row.State = IsSame
		if folded(row.First) != folded(row.Second) {
			row.Why = "written in another way, or the one lies in the other"
		}
	default:
		row.State = IsDifferent
	}
	return row
}

func valueOf(f *Fact) string {
	if f == nil || f.Now == nil {
		return ""
	}
	return f.Now.Value
}

// Same reports whether two values of an attribute say the same. Where one of both is a choice, as 64/128 KB, the other may
// be one of it.
func (a Attribute) Same(first, second string) bool {
	if a.Form == Quantity && strings.Contains(first+second, "/") {
		a.Form = List
	}
	one, errOne := a.parse(first)
	other, errOther := a.parse(second)
	if errOne != nil || errOther != nil {
		return folded(first) == folded(second)
	}
	return one.agrees(other)
}
