package sheets

import (
	"errors"

	"frugalheron/app/action"
	"frugalheron/core/datecode"
	"frugalheron/core/device"
	"frugalheron/core/malformed"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/store/inventory"
)

// ReckonBody reckons the sheet of an assembly; a text that cannot be a sheet is Invalid.
func ReckonBody(library *device.Library, body string, assembly inventory.Assembly,
	era datecode.Era) (reckoning.Result, error) {
	result, err := reckoning.Of(library, []byte(body), reckoning.Options{
		Mode: sheet.Body, Era: era, Purpose: sheet.Purpose(assembly.Purpose),
	})
	var refused *malformed.Error
	if errors.As(err, &refused) {
		return result, action.Reject("body", refused.Error())
	}
	return result, err
}
