package people

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/people"
	"frugalheron/web/httpx"
)

// DecidedMention says whether a person is meant in a text.
type DecidedMention struct {
	httpx.Versioned
	Meant bool `json:"meant" doc:"The text speaks of this person; else the words mean something else, and everybody reads them"`
}

func registerMentions(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "list-mentions", Method: http.MethodGet, Path: "/api/mentions",
		Summary:     "Names of private persons in texts of which nobody has said whether they are meant",
		Description: "Until somebody does, others than staff read the role in their place.",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]people.Mention], error) {
		return httpx.Answer(actions.People.Mentions(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "decide-mention", Method: http.MethodPost, Path: "/api/mentions/{id}/decision",
		Summary: "Say whether a private person is meant in a text", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body DecidedMention
	}) (*struct{}, error) {
		return nil, actions.People.DecideMention(ctx, actor, in.ID, in.Body.Version, in.Body.Meant)
	})
}
