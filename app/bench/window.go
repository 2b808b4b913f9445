package bench

import (
	"frugalheron/app/input"
	"frugalheron/core/calendar"
	"frugalheron/core/dating"
	"frugalheron/core/edtf"
	"frugalheron/core/model"
)

// Window is the time in which a model was made.
type Window struct {
	MadeFrom *calendar.Date `json:"madeFrom" doc:"First day on which one can have been made, or null"`
	MadeTo   *calendar.Date `json:"madeTo"`
	made     *edtf.Date
}

func windowOf(made string) Window {
	w := Window{made: input.DateOf(made)}
	if w.made != nil {
		from, to := w.made.Earliest(), w.made.Latest()
		w.MadeFrom, w.MadeTo = &from, &to
	}
	return w
}

// place tells how the time in which a machine was built lies in it.
func (w Window) place(built *dating.Span) model.Placed {
	if w.made == nil || built == nil {
		return model.Nowhere
	}
	return model.Place(*w.made, built.From, built.To)
}
