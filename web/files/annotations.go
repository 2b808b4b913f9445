package files

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/core/annotation"
	"frugalheron/web/httpx"
)

func registerAnnotations(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-annotations", Method: http.MethodGet, Path: "/api/machines/{id}/annotations",
		Summary: "Pictures of boards with numbers on them", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor,
		in *httpx.ByID) (*httpx.Output[[]files.AnnotatedPicture], error) {
		return httpx.Answer(actions.Files.AnnotatedPictures(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-annotation", Method: http.MethodGet, Path: "/api/attachments/{id}/annotation",
		Summary: "Numbers and outlines on a picture of a board, with their legend", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[files.AnnotationView], error) {
		return httpx.Answer(actions.Files.Annotation(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "draw-annotation", Method: http.MethodPut, Path: "/api/attachments/{id}/annotation",
		Summary: "Rewrite the numbers and outlines on a picture", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body AnnotationInput
	}) (*httpx.Output[files.AnnotationView], error) {
		return httpx.Answer(actions.Files.Annotate(ctx, actor, in.ID, in.Body.Version, in.Body.AssemblyID,
			in.Body.Annotation,
			in.Body.Rows))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-annotation-drawing", Method: http.MethodGet, Path: "/api/attachments/{id}/annotation.svg",
		Summary: "A picture with its numbers and legend as SVG", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Embedded bool `query:"embedded" doc:"With the picture in it; else with its address"`
	}) (*httpx.File, error) {
		return httpx.MadeFile(actions.Files.AnnotationDrawing(ctx, actor, in.ID, in.Embedded))
	})
}

// AnnotationInput is what is drawn on a picture, and the version that it started from.
type AnnotationInput struct {
	Version    int                   `json:"version" minimum:"0" doc:"0 for the first time"`
	AssemblyID int64                 `json:"assemblyId" minimum:"1"`
	Annotation annotation.Annotation `json:"annotation"`
	Rows       []files.AnnotationRow `json:"rows" required:"false" maxItems:"50" doc:"Runs of parts, to be laid out between two points"`
}
