package input

import (
	"errors"

	"frugalheron/app/action"
	"frugalheron/core/malformed"
)

// Refused puts what a rule of the job refuses where the form names it; any other error stays what it is.
func Refused(err error) error {
	if broken := (*malformed.Error)(nil); errors.As(err, &broken) {
		return action.Reject(broken.Field, broken.Error())
	}
	return err
}
