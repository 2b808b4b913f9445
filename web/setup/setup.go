// Package setup has the operations about how machines are set up and operated.
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

// ChangedConfiguration is how a machine was set up, and the version that it started from.
type ChangedConfiguration struct {
	httpx.Versioned
	setup.ConfigurationInput
}

// ChangedOperatingCard is how a machine is operated, and the version that it started from; 0 for the first.
type ChangedOperatingCard struct {
	Version int `json:"version" minimum:"0" doc:"Version that the change started from; 0 for the first"`
	setup.OperatingCardInput
}

// SettingsToRead are settings while somebody writes them.
type SettingsToRead struct {
	AssemblyID int64  `json:"assemblyId" minimum:"1"`
	Settings   string `json:"settings" says:"text" maxLength:"4000"`
}

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerConfigurations(api, actions)
	registerSlots(api, actions)
	registerPopulation(api, actions)
	registerCredentials(api, actions)
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-operating-card", Method: http.MethodGet, Path: "/api/machines/{id}/operating-card",
		Summary: "How a machine is operated", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[setup.Operating], error) {
		return httpx.Answer(actions.Setup.Operating(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "write-operating-card", Method: http.MethodPut, Path: "/api/machines/{id}/operating-card",
		Summary: "Write how a machine is operated", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedOperatingCard
	}) (*httpx.Output[setup.OperatingCard], error) {
		return httpx.Answer(actions.Setup.ChangeOperatingCard(ctx, actor, in.ID, in.Body.Version,
			in.Body.OperatingCardInput))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "read-panel", Method: http.MethodPost, Path: "/api/panel/read", Metadata: httpx.AsksOnly(),
		Summary: "What the lamps of a panel show while a procedure is written", Errors: httpx.ErrorsOfCreate,
	}, func(_ context.Context, actor action.Actor, in *struct {
		Body setup.OperatingCardInput
	}) (*httpx.Output[setup.OperatingCard], error) {
		return httpx.Answer(actions.Setup.ReadPanel(actor, in.Body))
	})
}

func registerConfigurations(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-setup", Method: http.MethodGet, Path: "/api/machines/{id}/configurations",
		Summary: "How a machine is set up, and was", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[setup.Setup], error) {
		return httpx.Answer(actions.Setup.Setup(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "keep-configuration", Method: http.MethodPost, Path: "/api/machines/{id}/configurations",
		Summary: "Write down how a machine is, or was, set up", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfCreate, MaxBodyBytes: mostConfiguration,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body setup.ConfigurationInput
	}) (*httpx.Output[setup.Configuration], error) {
		return httpx.Answer(actions.Setup.Keep(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-configuration", Method: http.MethodPut, Path: "/api/configurations/{id}",
		Summary: "Rewrite how a machine was set up", Errors: httpx.ErrorsOfChange, MaxBodyBytes: mostConfiguration,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedConfiguration
	}) (*httpx.Output[setup.Configuration], error) {
		return httpx.Answer(actions.Setup.Change(ctx, actor, in.ID, in.Body.Version, in.Body.ConfigurationInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-configuration", Method: http.MethodPost, Path: "/api/configurations/{id}/void",
		Summary: "Strike out what was written down by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Setup.Void(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "compare-configurations", Method: http.MethodGet,
		Path:    "/api/machines/{id}/configurations/difference",
		Summary: "What makes one way of setting a machine up into another", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		From int64 `query:"from" minimum:"0" doc:"A configuration; 0 for how it is today"`
		To   int64 `query:"to" minimum:"0" doc:"A configuration; 0 for how it is today"`
	}) (*httpx.Output[setup.SetupDifference], error) {
		return httpx.Answer(actions.Setup.Difference(ctx, actor, in.ID, in.From, in.To))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "read-settings", Method: http.MethodPost, Path: "/api/settings/read", Metadata: httpx.AsksOnly(),
		Summary: "What the jumpers and switches of a board mean while they are written", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body SettingsToRead }) (
		*httpx.Output[setup.ReadSettings], error) {
		return httpx.Answer(actions.Setup.ReadSettings(ctx, actor, in.Body.AssemblyID, in.Body.Settings))
	})
}

// mostConfiguration lets the longest texts through in JSON, where a character may take six bytes.
const mostConfiguration = 4 << 20
