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

// ReckonBody reckons the sheet of an assembly, whose memory has a purpose where the sheet says none; a text that cannot be a sheet is Invalid.
func ReckonBody(library *device.Library, body, purpose string, era datecode.Era) (reckoning.Result, error) {
	result, err := reckoning.Of(library, []byte(body), reckoning.Options{
		Mode: sheet.Body, Era: era, Purpose: sheet.Purpose(purpose),
	})
	var refused *malformed.Error
	if errors.As(err, &refused) {
		return result, action.Reject("body", refused.Error())
	}
	return result, err
}
