package app

import (
	"errors"
	"fmt"
	"frugalheron/core/calendar"
	"frugalheron/core/edtf"
	"strings"
	"time"
	"unicode"
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

// today is the day that moves are entered with unless they say another.
func today() string { return time.Now().Format(time.DateOnly) }

// missing turns the absence of a record that a field names into what is wrong with the field.
func missing(err error, field, why string) error {
	if errors.Is(err, ErrNotFound) {
		return &Invalid{field, why}
	}
	return err
}

// checkEDTF writes a date in its shortest form, or says why it is none. Empty stays empty.
func checkEDTF(field string, text *string) error {
	*text = strings.TrimSpace(*text)
	if *text == "" {
		return nil
	}
	d, err := edtf.Parse(*text)
	var wrong *edtf.WrongError
	if errors.As(err, &wrong) {
		return &Invalid{field, wrong.Why}
	}
	*text = d.String()
	return err
}

// dateOf reads a date that was checked when it was kept; nil for none.
func dateOf(text string) *edtf.Date {
	d, err := edtf.Parse(text)
	if err != nil {
		return nil
	}
	return &d
}

func day(field, text string) error {
	if _, err := calendar.Parse(text); err != nil {
		return &Invalid{field, "write the day as 2026-11-25"}
	}
	return nil
}

// pastDay refuses what is no day, and days to come.
func pastDay(field, text string) error {
	if err := day(field, text); err != nil {
		return err
	}
	if text > today() {
		return &Invalid{field, "lies in the future; enter it once it is done"}
	}
	return nil
}
