package inventory

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/web/httpx"
)

// RenamedPlace is a place with what it is called from now on.
type RenamedPlace struct {
	From string `json:"from" says:"text" minLength:"1" maxLength:"200" doc:"As Loft, shelf 3"`
	To   string `json:"to" says:"text" minLength:"1" maxLength:"200"`
}

func registerPlaces(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "rename-place", Method: http.MethodPut, Path: "/api/places/name",
		Summary: "Give a place another name, and with it the places in it", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body RenamedPlace }) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Inventory.RenamePlace(ctx, actor, in.Body.From, in.Body.To)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}
