package app

import (
	"fmt"
	"strings"
	"unicode"

	"frugalheron/core/datecode"
	"frugalheron/store"
)

// oneLine trims a field and refuses control characters, which would break lists and labels.
func oneLine(field string, text *string) error {
	*text = strings.TrimSpace(*text)
	return noControl(field, *text, "")
}

// lines is oneLine for a field of several lines.
func lines(field string, text *string) error {
	*text = strings.TrimSpace(*text)
	return noControl(field, *text, "\n\r\t")
}

func noControl(field, text, allowed string) error {
	for i, r := range text {
		if unicode.IsControl(r) && !strings.ContainsRune(allowed, r) {
			return &Invalid{field, fmt.Sprintf("a control character (code %d) at byte %d; take it out", r, i+1)}
		}
	}
	return nil
}

// headingText is oneLine for what becomes part of a sheet's heading, where | and # divide.
func headingText(field string, text *string) error {
	if err := oneLine(field, text); err != nil {
		return err
	}
	if strings.Contains(*text, "|") || strings.Contains(" "+*text, " #") {
		return &Invalid{field, "may hold no | and no word that starts with #: in a sheet's heading they divide"}
	}
	return nil
}

func checkAll(checks ...error) error {
	for _, err := range checks {
		if err != nil {
			return err
		}
	}
	return nil
}

func checkMachine(m *store.MachineFields) error {
	err := checkAll(
		oneLine("accession", &m.Accession), oneLine("name", &m.Name), oneLine("maker", &m.Maker),
		oneLine("model", &m.Model), oneLine("serial", &m.Serial), oneLine("place", &m.Place), lines("provenance", &m.Provenance),
	)
	switch {
	case err != nil:
		return err
	case m.Accession == "":
		return &Invalid{"accession", "give the accession number, as EH-0142"}
	case m.Name == "":
		return &Invalid{"name", "give the machine a name"}
	case m.EraFrom == nil && m.EraTo != nil:
		return &Invalid{"eraFrom", "give the first year as well as the last"}
	case m.EraFrom != nil && m.EraTo == nil:
		return &Invalid{"eraTo", "give the last year as well as the first"}
	case m.EraFrom != nil && *m.EraTo < *m.EraFrom:
		return &Invalid{"eraTo", "lies before the first year"}
	}
	return nil
}

func checkAssembly(a *store.AssemblyFields) error {
	err := checkAll(
		headingText("title", &a.Title), headingText("part", &a.Part), headingText("rev", &a.Rev),
		headingText("serial", &a.Serial), headingText("slot", &a.Slot),
	)
	if err == nil && a.Title == "" {
		return &Invalid{"title", "give the board a name, as Main board"}
	}
	if a.Fit == "" {
		a.Fit = "unknown"
	}
	switch a.Kind {
	case "":
		a.Kind = "board"
	case store.OutsideKind:
		return &Invalid{"kind", "a machine has its outside already; choose another kind"}
	}
	return err
}

func eraOf(m store.Machine) datecode.Era {
	if m.EraFrom == nil || m.EraTo == nil {
		return datecode.Era{}
	}
	return datecode.Era{From: *m.EraFrom, To: *m.EraTo}
}

// filledLines splits a text into the lines that hold something, without spaces around.
func filledLines(text string) []string {
	found := []string{}
	for line := range strings.Lines(text) {
		if line = strings.TrimSpace(line); line != "" {
			found = append(found, line)
		}
	}
	return found
}
