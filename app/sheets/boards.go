package sheets

import (
	"errors"

	"frugalheron/app/action"
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

// Reckon reckons the sheet of an assembly, whose memory has a purpose where the sheet says none.
func Reckon(library *device.Library, parsed sheet.Sheet, purpose string, era datecode.Era) reckoning.Result {
	return reckoning.OfSheet(library, parsed, reckoning.Options{Era: era, Purpose: sheet.Purpose(purpose)})
}

// ReckonBody reckons the text of a sheet.
func ReckonBody(library *device.Library, body, purpose string, era datecode.Era) (reckoning.Result, error) {
	parsed, err := ParseBody(body)
	if err != nil {
		return reckoning.Result{}, err
	}
	return Reckon(library, parsed, purpose, era), nil
}
