package httpx

import (
	"net/http"
	"strconv"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"

	"frugalheron/app/people"
)

// ByID addresses one record.
type ByID struct {
	ID int64 `path:"id" minimum:"1"`
}

// Versioned is the body of a change: the version it started from, beside the fields.
type Versioned struct {
	Version int `json:"version" minimum:"1" doc:"Version that the change started from"`
}

// Output wraps a body.
type Output[T any] struct{ Body T }

// Answer wraps what an action returned.
func Answer[T any](body T, err error) (*Output[T], error) {
	if err != nil {
		return nil, err
	}
	return &Output[T]{body}, nil
}

var (
	ErrorsOfRead   = []int{http.StatusNotFound}
	ErrorsOfCreate = []int{http.StatusNotFound, http.StatusUnprocessableEntity}
	ErrorsOfChange = []int{http.StatusNotFound, http.StatusConflict, http.StatusUnprocessableEntity}
)

// namesHeader says in an answer how many names of private persons were found in what was written, so that the
// interface can ask at once whether they are meant.
const namesHeader = "Heron-Names-Found"

// tellNames writes that header.
func tellNames(ctx huma.Context, next func(huma.Context)) {
	_, w := humachi.Unwrap(ctx)
	telling := people.OnNamesFound(ctx.Context(), func(found int) { w.Header().Set(namesHeader, strconv.Itoa(found)) })
	next(huma.WithContext(ctx, telling))
}
