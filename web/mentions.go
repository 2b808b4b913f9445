package web

import (
	"context"
	"net/http"
	"strconv"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"

	"frugalheron/app/action"
	"frugalheron/app/people"
	storepeople "frugalheron/store/people"
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

// DecidedMention says whether a person is meant in a text.
type DecidedMention struct {
	Versioned
	Meant bool `json:"meant" doc:"The text speaks of this person; else the words mean something else, and everybody reads them"`
}

func (s *Server) registerMentions() {
	register(s, action.MayWriteSheets, huma.Operation{
		OperationID: "list-mentions", Method: http.MethodGet, Path: "/api/mentions", Summary: "Names of private persons in texts of which nobody has said whether they are meant",
		Description: "Until somebody does, others than staff read the role in their place.",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*output[[]storepeople.Mention], error) {
		return answer(s.app.People.Mentions(ctx, actor))
	})
	register(s, action.MayWriteSheets, huma.Operation{
		OperationID: "decide-mention", Method: http.MethodPost, Path: "/api/mentions/{id}/decision", Summary: "Say whether a private person is meant in a text", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body DecidedMention
	}) (*struct{}, error) {
		return nil, s.app.People.DecideMention(ctx, actor, in.ID, in.Body.Version, in.Body.Meant)
	})
}
