// Package console has the operations about what machines say on their consoles.
package console

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/console"
	"frugalheron/app/evidence"
	coreconsole "frugalheron/core/console"
	"frugalheron/web/httpx"
)

// TypedLine is what is typed on a console.
type TypedLine struct {
	Typed  string `json:"typed" says:"text" maxLength:"200" required:"false" doc:"A line; empty for the return key alone"`
	Secret bool   `json:"secret" required:"false" doc:"The history keeps that something was typed, not what"`
}

// PlayedProfile is what a stand-in's console is to be.
type PlayedProfile struct {
	Profile string `json:"profile" maxLength:"60"`
}

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-console", Method: http.MethodGet, Path: "/api/machines/{id}/console",
		Summary: "What the console of a machine said", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[console.Console], error) {
		return httpx.Answer(actions.Console.Console(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-console-capture", Method: http.MethodGet, Path: "/api/console-captures/{id}",
		Summary: "All that was said once", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[console.Capture], error) {
		return httpx.Answer(actions.Console.Capture(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "read-console-text", Metadata: httpx.AsksOnly(), Method: http.MethodPost,
		Path: "/api/machines/{id}/console/read", Summary: "What a text amounts to; nothing is kept",
		Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body console.TextInput
	}) (*httpx.Output[coreconsole.TextReading], error) {
		return httpx.Answer(actions.Console.ReadText(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "keep-console-text", Method: http.MethodPost, Path: "/api/machines/{id}/console/texts",
		Summary: "Keep what stood on a screen, pasted or typed off", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body console.TextInput
	}) (*httpx.Output[console.CaptureKept], error) {
		return httpx.Answer(actions.Console.KeepText(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "take-console-claim", Method: http.MethodPost, Path: "/api/console-captures/{id}/statements",
		Summary:       "Let what a line says count as a statement, with the line as its source",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body console.TakeInput
	}) (*httpx.Output[evidence.Statement], error) {
		return httpx.Answer(actions.Console.Take(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-console-capture", Method: http.MethodPost, Path: "/api/console-captures/{id}/void",
		Summary: "Strike out what was kept by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Console.Void(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	registerListening(api, actions)
}

func registerListening(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "get-console-port", Method: http.MethodGet, Path: "/api/console-port",
		Summary: "The port through which consoles are heard", Errors: []int{http.StatusForbidden},
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[console.Port], error) {
		return httpx.Answer(actions.Console.Port(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "play-console", Method: http.MethodPost, Path: "/api/console-port/stand-in",
		Summary: "Tell a stand-in what its console is", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body PlayedProfile }) (*struct{}, error) {
		return nil, actions.Console.Play(ctx, actor, in.Body.Profile)
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "listen-to-console", Method: http.MethodPost, Path: "/api/machines/{id}/console/listen",
		Summary: "Begin to listen to the console of a machine", DefaultStatus: http.StatusCreated,
		Errors:      httpx.ErrorsOfCreate,
		Description: "What comes is kept as it comes. One console is heard at a time.",
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body console.ListenInput
	}) (*httpx.Output[console.Capture], error) {
		return httpx.Answer(actions.Console.Listen(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "stop-listening", Method: http.MethodPost, Path: "/api/console-captures/{id}/stop",
		Summary: "Stop listening", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[console.Capture], error) {
		return httpx.Answer(actions.Console.Stop(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "type-on-console", Method: http.MethodPost, Path: "/api/console-captures/{id}/typed",
		Summary: "Type a line on the console that is listened to", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body TypedLine
	}) (*struct{}, error) {
		return nil, actions.Console.Type(ctx, actor, in.ID, in.Body.Typed, in.Body.Secret)
	})
}
