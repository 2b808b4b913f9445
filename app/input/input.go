// Package input checks what people send, field by field: what is trimmed, and what is refused, with the place and the
// remedy.
package input

import (
	"errors"
	"fmt"
	"strings"
	"unicode"

	"frugalheron/app/action"
	"frugalheron/core/calendar"
	"frugalheron/core/edtf"
	"frugalheron/core/malformed"
)

// OneLine trims a field and refuses control characters, which would break lists and labels.
func OneLine(field string, text *string) error {
	*text = strings.TrimSpace(*text)
	return NoControl(field, *text, "")
}

// Lines is oneLine for a field of several lines.
func Lines(field string, text *string) error {
	*text = strings.TrimSpace(*text)
	return NoControl(field, *text, "\n\r\t")
}

// NoControl refuses control characters, but for those that are allowed.
func NoControl(field, text, allowed string) error {
	for i, r := range text {
		if unicode.IsControl(r) && !strings.ContainsRune(allowed, r) {
			return action.Reject(field, fmt.Sprintf("a control character (code %d) at byte %d; take it out", r, i+1))
		}
	}
	return nil
}

// HeadingText is oneLine for what becomes part of a sheet's heading, where | and # divide.
func HeadingText(field string, text *string) error {
	if err := OneLine(field, text); err != nil {
		return err
	}
	if strings.Contains(*text, "|") || strings.Contains(" "+*text, " #") {
		return action.Reject(field, "may hold no | and no word that starts with #: in a sheet's heading they divide")
	}
	return nil
}

// CheckAll returns the first that is wrong.
func CheckAll(checks ...error) error {
	for _, err := range checks {
		if err != nil {
			return err
		}
	}
	return nil
}

// FilledLines splits a text into the lines that hold something, without spaces around.
func FilledLines(text string) []string {
	found := []string{}
	for line := range strings.Lines(text) {
		if line = strings.TrimSpace(line); line != "" {
			found = append(found, line)
		}
	}
	return found
}

// Missing turns the absence of a record that a field names into what is wrong with the field.
func Missing(err error, field, why string) error {
	if errors.Is(err, action.ErrNotFound) {
		return action.Reject(field, why)
	}
	return err
}

// CheckEDTF writes a date in its shortest form, or says why it is none. Empty stays empty.
func CheckEDTF(field string, text *string) error {
	*text = strings.TrimSpace(*text)
	if *text == "" {
		return nil
	}
	d, err := edtf.Parse(*text)
	var wrong *malformed.Error
	if errors.As(err, &wrong) {
		return action.Reject(field, wrong.Err.Error())
	}
	*text = d.String()
	return err
}

// DateOf reads a date that was checked when it was kept; nil for none.
func DateOf(text string) *edtf.Date {
	d, err := edtf.Parse(text)
	if err != nil {
		return nil
	}
	return &d
}

// Day refuses what is no day, written as 2026-11-25.
func Day(field, text string) error {
	if _, err := calendar.Parse(text); err != nil {
		return action.Reject(field, "write the day as 2026-11-25")
	}
	return nil
}

// PastDay refuses what is no day, and days to come; today is the day it is in the collection.
func PastDay(field, text, today string) error {
	if err := Day(field, text); err != nil {
		return err
	}
	if text > today {
		return action.Reject(field, "lies in the future; enter it once it is done")
	}
	return nil
}
