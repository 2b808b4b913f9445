package files

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/core/plan"
	storefiles "frugalheron/store/files"
	"frugalheron/web/httpx"
)

func registerPlans(api *httpx.API, deeds *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-plans", Method: http.MethodGet, Path: "/api/machines/{id}/plans",
		Summary: "Pictures of boards with numbers on them", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor,
		in *httpx.ByID) (*httpx.Output[[]storefiles.PlannedPicture], error) {
		return httpx.Answer(deeds.Files.PlannedPictures(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-plan", Method: http.MethodGet, Path: "/api/attachments/{id}/plan",
		Summary: "Numbers and outlines on a picture of a board, with their legend", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[files.PlanView], error) {
		return httpx.Answer(deeds.Files.BoardPlan(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "draw-plan", Method: http.MethodPut, Path: "/api/attachments/{id}/plan",
		Summary: "Rewrite the numbers and outlines on a picture", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body DrawnPlan
	}) (*httpx.Output[files.PlanView], error) {
		return httpx.Answer(deeds.Files.DrawPlan(ctx, actor, in.ID, in.Body.Version, in.Body.AssemblyID, in.Body.Plan,
			in.Body.Rows))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-plan-drawing", Method: http.MethodGet, Path: "/api/attachments/{id}/plan.svg",
		Summary: "A picture with its numbers and legend as SVG", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Embedded bool `query:"embedded" doc:"With the picture in it; else with its address"`
	}) (*httpx.File, error) {
		return httpx.MadeFile(deeds.Files.PlanDrawing(ctx, actor, in.ID, in.Embedded))
	})
}

// DrawnPlan is what is drawn on a picture, and the version that it started from.
type DrawnPlan struct {
	Version    int             `json:"version" minimum:"0" doc:"0 for the first time"`
	AssemblyID int64           `json:"assemblyId" minimum:"1"`
	Plan       plan.Plan       `json:"plan"`
	Rows       []files.PlanRow `json:"rows" required:"false" maxItems:"50" doc:"Runs of parts, to be laid out between two points"`
}
