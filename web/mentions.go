package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	storepeople "frugalheron/store/people"
)

// DecidedMention says whether a person is meant in a text.
type DecidedMention struct {
	Versioned
	Meant bool `json:"meant" doc:"The text speaks of this person; else the words mean something else, and everybody reads them"`
}

func registerMentions(api *API, deeds *app.App) {
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-mentions", Method: http.MethodGet, Path: "/api/mentions", Summary: "Names of private persons in texts of which nobody has said whether they are meant",
		Description: "Until somebody does, others than staff read the role in their place.",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*output[[]storepeople.Mention], error) {
		return answer(deeds.People.Mentions(ctx, actor))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "decide-mention", Method: http.MethodPost, Path: "/api/mentions/{id}/decision", Summary: "Say whether a private person is meant in a text", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body DecidedMention
	}) (*struct{}, error) {
		return nil, deeds.People.DecideMention(ctx, actor, in.ID, in.Body.Version, in.Body.Meant)
	})
}
