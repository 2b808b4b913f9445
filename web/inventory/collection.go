package inventory

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/web/httpx"
)

// NumberList is a list of accession numbers from an older register.
type NumberList struct {
	Text   string `json:"text" says:"text" maxLength:"4000000" doc:"A line for each number: the number, then ; or a tab, then what is known of it"`
	DryRun bool   `json:"dryRun" required:"false" doc:"Only say what would happen"`
}

// ChangedCollection are the settings of the collection, and the version that they started from.
type ChangedCollection struct {
	httpx.Versioned
	inventory.CollectionInput
}

func registerCollection(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-collection", Method: http.MethodGet, Path: "/api/collection",
		Summary: "Settings of the collection",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[inventory.Collection], error) {
		return httpx.Answer(actions.Inventory.Collection(ctx, actor))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "change-collection", Method: http.MethodPut, Path: "/api/collection",
		Summary: "Change settings of the collection", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Body ChangedCollection
	}) (*httpx.Output[inventory.Collection], error) {
		return httpx.Answer(actions.Inventory.ChangeCollection(ctx, actor, in.Body.Version, in.Body.CollectionInput))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "next-number", Method: http.MethodGet, Path: "/api/collection/next-number",
		Summary: "The accession number that the next thing gets", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Lot int64 `query:"lot" minimum:"0" doc:"The arrival that it came with; 0 for none"`
	}) (*httpx.Output[inventory.NextNumber], error) {
		return httpx.Answer(actions.Inventory.NextNumber(ctx, actor, in.Lot))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-register", Method: http.MethodGet, Path: "/api/collection/register",
		Summary: "Gaps in the accession numbers, and those that no machine has",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[inventory.Register], error) {
		return httpx.Answer(actions.Inventory.Register(ctx, actor))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "import-numbers", Method: http.MethodPost, Path: "/api/collection/numbers",
		Summary:     "Take over numbers that an older register gave, or explain gaps",
		Description: "None of them is ever given again.", Errors: []int{http.StatusUnprocessableEntity},
		MaxBodyBytes: 8 << 20,
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body NumberList }) (*httpx.Output[[]inventory.NumberLine], error) {
		return httpx.Answer(actions.Inventory.ImportNumbers(ctx, actor, in.Body.Text, in.Body.DryRun))
	})
}
