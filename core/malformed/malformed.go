// Package malformed answers: what of an input cannot be taken, where is that, and what would be taken? All engines
// refuse by its one type, which has a position and a cause, as errors of encoding/csv have.
package malformed

import "fmt"

// Error says where an input cannot be taken, and why.
type Error struct {
	Field  string // by its JSON name; empty where there is but one
	Item   int    // of a list, from 1; 0 where there is none
	Line   int    // from 1; 0 where the input as a whole is meant
	Column int    // in bytes, from 1; 0 where the line as a whole is meant
	Text   string // as it was written; empty where the cause names it
	Err    error  // the cause, with what would be taken
}

// Of says what is wrong with an input as a whole.
func Of(format string, about ...any) error { return &Error{Err: fmt.Errorf(format, about...)} }

// In says what is wrong with a field.
func In(field, format string, about ...any) error {
	return &Error{Field: field, Err: fmt.Errorf(format, about...)}
}

// Named says what is wrong with a field, and names it in the words too: for inputs with many fields of a kind, as cards[2].at.
func Named(field, format string, about ...any) error { return In(field, field+": "+format, about...) }

// At says what is wrong on a line, from 1; 0 is the input as a whole.
func At(line int, format string, about ...any) error {
	return &Error{Line: line, Err: fmt.Errorf(format, about...)}
}

// Error names the place, the text and the cause.
func (e *Error) Error() string {
	place := ""
	switch {
	case e.Line > 0 && e.Column > 0:
		place = fmt.Sprintf("line %d, column %d: ", e.Line, e.Column)
	case e.Line > 0:
		place = fmt.Sprintf("line %d: ", e.Line)
	case e.Column > 0:
		place = fmt.Sprintf("column %d: ", e.Column)
	}
	if e.Text != "" {
		place += fmt.Sprintf("%q: ", e.Text)
	}
	return place + e.Err.Error()
}

// Unwrap returns the cause.
func (e *Error) Unwrap() error { return e.Err }
