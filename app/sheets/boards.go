package sheets

import (
	"errors"

	"frugalheron/app/action"
	"frugalheron/core/calendar"
	"frugalheron/core/datecode"
	"frugalheron/core/device"
	"frugalheron/core/malformed"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
)

// ParseBody reads the sheet of an assembly; a text that cannot be one is Invalid.
func ParseBody(body string) (sheet.Sheet, error) {
	parsed, err := sheet.Parse([]byte(body), sheet.Body)
	var refused *malformed.Error
	if errors.As(err, &refused) {
		return parsed, action.Reject("body", refused.Error())
	}
	return parsed, err
}

// OptionsFor says how the sheet of a board is read: by what its memory is for and when the board came in, which stand in no
// heading of it, and by the years of its machine.
func OptionsFor(purpose, fit string, era datecode.Era, today calendar.Date) reckoning.Options {
	return reckoning.Options{Era: era, Purpose: sheet.Purpose(purpose), Fit: fit, Today: today}
}

// ReckonBody reckons the text of a sheet.
func ReckonBody(library *device.Library, body string, options reckoning.Options) (reckoning.Result, error) {
	parsed, err := ParseBody(body)
	if err != nil {
		return reckoning.Result{}, err
	}
	return reckoning.OfSheet(library, parsed, options), nil
}
