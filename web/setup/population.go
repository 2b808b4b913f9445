package setup

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/setup"
	"frugalheron/web/httpx"
)

// ChangedMemoryRules is which modules a machine takes, and the version that it started from; 0 for the first.
type ChangedMemoryRules struct {
	Version int `json:"version" minimum:"0" doc:"Version that the change started from; 0 for the first"`
	setup.MemoryRulesInput
}

func registerPopulation(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-population", Method: http.MethodGet, Path: "/api/machines/{id}/population",
		Summary: "Which memory stands in a machine, whether it may, and what could",
		Errors:  []int{http.StatusNotFound, http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Want string `query:"want" maxLength:"30" doc:"An amount, as 8 MB, or max; empty for the nearest that may stand"`
	}) (*httpx.Output[setup.Population], error) {
		return httpx.Answer(actions.Setup.Population(ctx, actor, in.ID, in.Want))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "write-memory-rules", Method: http.MethodPut, Path: "/api/machines/{id}/memory-rules",
		Summary: "Write down which memory modules a machine takes", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedMemoryRules
	}) (*httpx.Output[setup.MemoryRules], error) {
		return httpx.Answer(actions.Setup.ChangeMemoryRules(ctx, actor, in.ID, in.Body.Version,
			in.Body.MemoryRulesInput))
	})
}
