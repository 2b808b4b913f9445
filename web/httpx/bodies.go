package httpx

import (
	"frugalheron/core/sheet"
)

// Done answers an action that leaves no record behind.
type Done struct {
	Event int64 `json:"event" doc:"The event of the history, by which the action can be undone"`
}

// ByVersion addresses a record as it was read.
type ByVersion struct {
	ByID
	Version int `query:"version" minimum:"1" required:"true"`
}

// SheetBodyLimit lets a sheet of 1 MiB through in JSON, where a character may take six bytes.
const SheetBodyLimit = 6*sheet.MaxBytes + 4096
