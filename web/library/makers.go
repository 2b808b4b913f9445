package library

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/library"
	"frugalheron/web/httpx"
)

// Pack is a reference pack as CSV.
type Pack struct {
	Text string `json:"text" says:"text" maxLength:"4000000"`
	Dry  bool   `json:"dry" doc:"Only say what would be done"`
	Over bool   `json:"over" required:"false" doc:"Also change types that say something else here; without it they stay"`
}

func registerMakers(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-makers", Method: http.MethodGet, Path: "/api/makers",
		Summary: "Makers of machines and parts", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Search string `query:"search" maxLength:"200"`
	}) (*httpx.Output[[]library.MakerView], error) {
		return httpx.Answer(actions.Library.Makers(ctx, actor, in.Search))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-maker", Method: http.MethodPost, Path: "/api/makers", Summary: "Add a maker",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body library.MakerInput }) (*httpx.Output[library.MakerView], error) {
		return httpx.Answer(actions.Library.AddMaker(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-maker", Method: http.MethodPut, Path: "/api/makers/{id}",
		Summary: "Change what is said of a maker", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			library.MakerInput
		}
	}) (*httpx.Output[library.MakerView], error) {
		return httpx.Answer(actions.Library.ChangeMaker(ctx, actor, in.ID, in.Body.Version, in.Body.MakerInput))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "export-pack", Method: http.MethodGet, Path: "/api/own-types.csv",
		Summary: "The collection's own types as a reference pack", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.File, error) {
		return httpx.MadeFile(actions.Library.ExportPack(ctx, actor))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "take-pack", Method: http.MethodPost, Path: "/api/own-types/pack",
		Summary: "Take over a reference pack, or say what it would do", Errors: []int{http.StatusUnprocessableEntity},
		MaxBodyBytes: 5 << 20,
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body Pack }) (*httpx.Output[library.TakenPack], error) {
		return httpx.Answer(actions.Library.TakePack(ctx, actor, in.Body.Text, in.Body.Dry, in.Body.Over))
	})
}
