// Package census answers what a board can do by what its chips are for, and what that says of explanations of the
// board. A
// chip that nobody has identified makes unknown what is not there: it could be it.
package census

import (
	_ "embed"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"sync"

	"frugalheron/core/reckoning"
	"frugalheron/core/table"
)

//go:embed roles.tsv
var roleTable string

//go:embed capabilities.tsv
var capabilityTable string

// State says whether a board has what something needs.
type State string

// States.
const (
	Present State = "present"
	Missing State = "missing"
	Unknown State = "unknown" // a chip that nobody has identified could be what is missing
)

// Role is what chips of a board are for.
type Role struct {
	Key   string   `json:"key"`
	Name  string   `json:"name"`
	Count int      `json:"count"`
	Parts []string `json:"parts" doc:"Designators, as written on the sheet"`
}

// Capability is something that a board could do.
type Capability struct {
	Key   string `json:"key"`
	Words string `json:"words"`
	State State  `json:"state" enum:"present,missing,unknown"`
	Why   string `json:"why" doc:"Which parts do it, or what is missing"`
}

// Census is what the chips of a board are for, and what it can do with them.
type Census struct {
	Roles        []Role       `json:"roles"`
	Capabilities []Capability `json:"capabilities"`
	Unidentified []string     `json:"unidentified" doc:"Chips that nobody has named"`
}

type roleRow struct {
	key, name, kind string
	class, function *regexp.Regexp
	purposes        []string // nil for any
}

type capabilityRow struct {
	key, words string
	needs      [][]string // each a choice
	without    []string
	tells      *regexp.Regexp
}

var tables = sync.OnceValue(func() (read struct {
	roles        []roleRow
	capabilities []capabilityRow
}) {
	for _, c := range table.Reference("roles", roleTable, "role", "name", "kind", "class", "function", "purpose",
		"source") {
		r := roleRow{key: c[0], name: c[1], kind: c[2], class: regexp.MustCompile("^(?:" + c[3] + ")$"),
			function: regexp.MustCompile("(?i)" + c[4])}
		if c[5] != "" {
			r.purposes = strings.Split(c[5], "|")
		}
		read.roles = append(read.roles, r)
	}
	for _, c := range table.Reference("capabilities", capabilityTable, "key", "words", "needs", "without", "tells",
		"source") {
		one := capabilityRow{key: c[0], words: c[1], tells: regexp.MustCompile("(?i)" + c[4])}
		for need := range strings.SplitSeq(c[2], "+") {
			one.needs = append(one.needs, strings.Split(need, "/"))
		}
		if c[3] != "" {
			one.without = strings.Split(c[3], "+")
		}
		read.capabilities = append(read.capabilities, one)
	}
	return read
})

// plays reports whether an entry has a role.
func (r roleRow) plays(e reckoning.Entry) bool {
	if string(e.Kind) != r.kind {
		return false
	}
	if e.Type == nil {
		return r.kind != "chip" && r.kind != "module"
	}
	return r.class.MatchString(string(e.Type.Class)) && r.function.MatchString(e.Type.Function) &&
		(r.purposes == nil || slices.Contains(r.purposes, string(e.Purpose)))
}

// Of counts what the chips of a board are for.
func Of(entries []reckoning.Entry) Census {
	c := Census{Roles: []Role{}, Capabilities: []Capability{}, Unidentified: []string{}}
	for _, e := range entries {
		if e.Empty {
			continue
		}
		if e.Kind == reckoning.Chip && e.IsUnidentified() {
			c.Unidentified = append(c.Unidentified, nameOf(e))
		}
		played := map[string]bool{}
		for _, r := range tables().roles {
			if r.plays(e) && !played[r.key] {
				played[r.key] = true
				c.add(r, e)
			}
		}
	}
	for _, row := range tables().capabilities {
		c.Capabilities = append(c.Capabilities, c.judge(row))
	}
	return c
}

func nameOf(e reckoning.Entry) string {
	if e.Parts != "" {
		return e.Parts
	}
	return strings.TrimSpace(fmt.Sprintf("%dx %s", e.Count, e.Marking))
}

func (c *Census) add(r roleRow, e reckoning.Entry) {
	at := slices.IndexFunc(c.Roles, func(one Role) bool { return one.Key == r.key })
	if at < 0 {
		at, c.Roles = len(c.Roles), append(c.Roles, Role{Key: r.key, Name: r.name, Parts: []string{}})
	}
	c.Roles[at].Count += e.Count
	c.Roles[at].Parts = append(c.Roles[at].Parts, nameOf(e))
}

func (c *Census) role(key string) (Role, bool) {
	at := slices.IndexFunc(c.Roles, func(one Role) bool { return one.Key == key })
	if at < 0 {
		return Role{}, false
	}
	return c.Roles[at], true
}

func nameOfRole(key string) string {
	for _, r := range tables().roles {
		if r.key == key {
			return r.name
		}
	}
	return key
}

// judge says whether the board can do something. What it has beside it that speaks against it is known for
// certain; what it
// lacks is not, as long as a chip is unidentified.
func (c *Census) judge(row capabilityRow) Capability {
	one := Capability{Key: row.key, Words: row.words, State: Present}
	has, lacks, spoilt := []string{}, []string{}, []string{}
	for _, need := range row.needs {
		names, found := []string{}, false
		for _, key := range need {
			names = append(names, nameOfRole(key))
			if role, ok := c.role(key); ok && !found {
				found = true
				has = append(has, fmt.Sprintf("%s %s", role.Name, strings.Join(role.Parts, ", ")))
			}
		}
		if !found {
			lacks = append(lacks, strings.Join(names, " or "))
		}
	}
	for _, key := range row.without {
		if role, ok := c.role(key); ok {
			spoilt = append(spoilt, fmt.Sprintf("%s %s", role.Name, strings.Join(role.Parts, ", ")))
		}
	}
	switch {
	case len(spoilt) > 0:
		one.State, one.Why = Missing, "it has "+strings.Join(spoilt, "; ")
	case len(lacks) > 0 && len(c.Unidentified) > 0:
		one.State = Unknown
		one.Why = fmt.Sprintf("no %s is known on it; what is not identified could be it: %s", strings.Join(lacks,
			", no "),
			strings.Join(c.Unidentified, ", "))
	case len(lacks) > 0:
		one.State, one.Why = Missing, "no "+strings.Join(lacks, ", no ")+" on it"
	case len(row.without) > 0 && len(c.Unidentified) > 0:
		one.State = Unknown
		one.Why = strings.Join(has, "; ") + "; what is not identified could be more than that: " +
			strings.Join(c.Unidentified, ", ")
	default:
		one.Why = strings.Join(has, "; ")
	}
	return one
}
