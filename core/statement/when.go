package statement

import (
	"slices"

	"frugalheron/core/calendar"
	"frugalheron/core/facts"
)

// When is the time that was said, in EDTF, as seen from today, YYYY-MM-DD; empty where none was.
func (h Happened) When(today string) string {
	switch h.New {
	case "today":
		return today
	case "yesterday":
		if day, err := calendar.Parse(today); err == nil {
			return day.AddDays(-1).String()
		}
	}
	return h.New
}

// Witness is the kind of source of what works or does not: somebody tried it now, or recalls how it was.
func (h Happened) Witness() facts.Source {
	if slices.Contains([]string{"", "today", "yesterday"}, h.New) {
		return facts.Tested
	}
	return facts.Recalled
}
