package condition

import (
	_ "embed"
	"regexp"
	"slices"
	"strings"
	"sync"

	"frugalheron/core/sheet"
	"frugalheron/core/table"
)

//go:embed severities.tsv
var severityTable string

// severityRule says how grave some kinds are in a subsystem.
type severityRule struct {
	subsystem string // * for all
	kinds     []string
	words     *regexp.Regexp // on the part; nil for all
	severity  Severity
}

var severityRules = sync.OnceValue(func() []severityRule {
	rules := []severityRule{}
	for _, cells := range table.Reference("severities", severityTable, "subsystem", "kinds", "words", "severity",
		"source") {
		rule := severityRule{subsystem: cells[0], kinds: strings.Split(cells[1], ", "), severity: Severity(cells[3])}
		if cells[2] != "" {
			rule.words = regexp.MustCompile(`(?i)` + cells[2])
		}
		rules = append(rules, rule)
	}
	return rules
})

// SeverityOf says how grave a kind of finding is in a subsystem, where nobody said it: by rule of thumb. What is not known
// by name is to be watched.
func SeverityOf(subsystem, kind, tells string) Severity {
	known := sheet.KindOf(kind)
	for _, rule := range severityRules() {
		if (rule.subsystem == "*" || rule.subsystem == subsystem) && slices.Contains(rule.kinds, known.Same) &&
			(rule.words == nil || rule.words.MatchString(tells)) {
			return rule.severity
		}
	}
	if known.Severity != "" {
		return Severity(known.Severity)
	}
	return Watch
}

// SubsystemOfPlace says to which subsystem something belongs that was found at a place, by how people call that: the hinge
// is part of the case. What nobody can tell is of none.
func SubsystemOfPlace(place, kind string) string {
	for _, s := range readSubsystems() {
		if s.words != nil && s.words.MatchString(place) {
			return s.Key
		}
	}
	if found := SubsystemFor(place, kind); found != "boards" {
		return found
	}
	return Other
}

// SubsystemFor says to which subsystem something belongs that was found on a part, by what the part is told to be: of
// those that look at such parts the first in which the kind is usual, else the first.
func SubsystemFor(tells, kind string) string {
	first, same := "", sheet.KindOf(kind).Same
	isUsual := func(s Subsystem) bool {
		return slices.ContainsFunc(s.Kinds, func(k string) bool { return sheet.KindOf(k).Same == same })
	}
	for _, s := range readSubsystems() {
		if s.held == nil || tells == "" || !s.held.MatchString(tells) {
			continue
		}
		if isUsual(s) {
			return s.Key
		}
		if first == "" {
			first = s.Key
		}
	}
	switch {
	case first != "":
		return first
	case strings.HasPrefix(tells, "connector"), strings.HasPrefix(tells, "jumper"):
		return "connectors"
	case tells == "":
		return "other"
	}
	return "boards"
}
