package calendar

import "frugalheron/core/malformed"

// Entered is a day as it was entered, which may be none, or no day at all: reading it never fails, so that Check can say
// where it stands.
type Entered struct {
	Date
	Text string
}

// On is a day that was entered as it should be.
func On(d Date) Entered { return Entered{d, d.String()} }

// Written is a day as it stands in a text, which may be none, or no day at all.
func Written(text string) Entered {
	d, _ := Parse(text) // Check tells
	return Entered{d, text}
}

// UnmarshalText keeps the text, and the day that it names.
func (e *Entered) UnmarshalText(text []byte) error {
	*e = Written(string(text))
	return nil
}

// Check refuses what is no day, and a day after now where now is not zero. The *malformed.Error names the field.
func (e Entered) Check(field string, now Date) error {
	switch {
	case e.Text != "" && e.IsZero():
		return malformed.In(field, "%s: %q is no day; write YYYY-MM-DD", field, e.Text)
	case !e.IsZero() && !now.IsZero() && now.Before(e.Date):
		return malformed.In(field, "%s: %s is after %s, the day for which this is asked", field, e.Date, now)
	}
	return nil
}
