package statement

import (
	"cmp"
	"errors"
	"fmt"
	"strings"

	"frugalheron/core/facts"
	"frugalheron/core/sheet"
)

// IsSure reports whether the words say that something happened to a thing as a whole, rather than that something is looked
// for: what was found somewhere is said in words that can also be searched.
func (h Happened) IsSure() bool { return h.Deed != Found && h.Deed != Treated }

// CanBe reports whether a value that is stated can be one of its attribute: there are no 99 fish of memory.
func (h Happened) CanBe() bool {
	if h.Deed != Stated {
		return true
	}
	_, err := facts.AttributeOf(h.Attribute).Normal(h.Value)
	return err == nil || errors.Is(err, facts.ErrLost)
}

// About is what it is said of, where of is the board or part that was named, or empty; empty for the machine.
func (h Happened) About(of string) string {
	if of == "" || h.Subject == "" {
		return of + h.Subject
	}
	return of + ", " + h.Subject
}

// Would says what would be noted of a thing as a whole; of is the board or part that was named, or empty for the machine.
func (h Happened) Would(of string) string {
	subject := cmp.Or(h.About(of), "it")
	switch h.Deed {
	case Found:
		where := strings.TrimSpace(of + " " + h.Words)
		if where == "" {
			return "a finding: " + h.found()
		}
		return fmt.Sprintf("a finding: %s, %s", where, h.found())
	case Worked:
		says := "tested " + cmp.Or(h.New, "today")
		does := map[bool]string{true: "works", false: "does not work"}[h.Worked]
		if h.Witness() == facts.Recalled {
			says = "recalled of " + h.New
			does = map[bool]string{true: "worked", false: "did not work"}[h.Worked]
		}
		return strings.TrimSuffix(fmt.Sprintf("%s: %s %s, %s", says, subject, does, h.Note), ", ")
	case Moved:
		return fmt.Sprintf("%s stands in %s from today", subject, h.Words)
	case Lent:
		return strings.TrimSuffix(fmt.Sprintf("%s is lent to %s from %s, until %s", subject, h.Words,
			cmp.Or(h.New, "today"), h.Due), ", until ")
	case Stated:
		return fmt.Sprintf("a statement: %s is %s, from %s", h.Attribute, h.Value, h.Note)
	}
	return ""
}

// Did says what happens to parts on a sheet, where reading is what their line is taken for.
func (h Happened) Did(parts, reading string) string {
	switch h.Deed {
	case TakenOut:
		return fmt.Sprintf("%s is taken out; what is known of it stays in its past", parts)
	case Lent:
		return fmt.Sprintf("%s is lent; what is known of it stays, as it comes back", parts)
	case Returned:
		return fmt.Sprintf("%s is back: %s", parts, reading)
	case Replaced:
		return fmt.Sprintf("another part sits at %s since then: %s", parts, reading)
	case Found:
		return fmt.Sprintf("found on %s: %s", parts, h.found())
	case Treated:
		return fmt.Sprintf("%s: what this ends is taken off", h.Words)
	}
	return reading
}

// found says what was found.
func (h Happened) found() string {
	said := make([]string, len(h.Found))
	for i, m := range h.Found {
		said[i] = m.Kind
		if m.Note != "" {
			said[i] += ": " + m.Note
		}
	}
	return strings.Join(said, ", ")
}

// lineOf reads one line of a sheet; nil for what is no entry.
func lineOf(text string) *sheet.Entry {
	parsed, err := sheet.Parse([]byte(text), sheet.Body)
	if err != nil || len(parsed.Assemblies) != 1 || len(parsed.Assemblies[0].Lines) != 1 {
		return nil
	}
	return parsed.Assemblies[0].Lines[0].Entry
}
