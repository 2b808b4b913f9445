// Package packs has the operations by which collections give each other of their libraries.
package packs

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/packs"
	"frugalheron/web/httpx"
)

// LibraryPack is a pack, and which of its entries are to be taken.
type LibraryPack struct {
	Text string             `json:"text" says:"text" maxLength:"16000000" doc:"The file, as JSON"`
	Take []packs.PackChoice `json:"take" required:"false" maxItems:"20000" doc:"Nothing says only what would be done"`
}

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "export-library", Method: http.MethodGet, Path: "/api/library.json",
		Summary: "Types, known assemblies, models, signs and procedures as a pack for other collections",
		Errors:  httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.File, error) {
		return httpx.MadeFile(actions.Packs.Export(ctx, actor))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "take-library", Method: http.MethodPost, Path: "/api/library/pack",
		Summary: "Take entries of a pack, or say what it would do", Errors: []int{http.StatusUnprocessableEntity},
		MaxBodyBytes: 20 << 20,
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body LibraryPack }) (*httpx.Output[packs.LibraryPackTaken], error) {
		return httpx.Answer(actions.Packs.Take(ctx, actor, in.Body.Text, in.Body.Take))
	})
}
