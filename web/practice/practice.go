// Package practice has the operations about practising on the simulated machine.
package practice

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/practice"
	corepractice "frugalheron/core/practice"
	"frugalheron/web/httpx"
)

// BegunPractice says with which machine practice begins.
type BegunPractice struct {
	Seed int `json:"seed" minimum:"0" maximum:"1000000" required:"false" doc:"The machine of that number; 0 for any"`
}

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-practice", Method: http.MethodGet, Path: "/api/practice",
		Summary: "How far one has come who practises; nothing of it is a record", Errors: []int{http.StatusForbidden},
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[practice.Practice], error) {
		return httpx.Answer(actions.Practice.Practice(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "begin-practice", Method: http.MethodPost, Path: "/api/practice",
		Summary: "Begin to practise on a machine of which nobody knows what is wrong", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body BegunPractice }) (
		*httpx.Output[practice.Practice], error) {
		return httpx.Answer(actions.Practice.Begin(ctx, actor, in.Body.Seed))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "practise", Method: http.MethodPost, Path: "/api/practice/deeds",
		Summary: "Do something on the practice machine", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body corepractice.Act }) (
		*httpx.Output[practice.Practice], error) {
		return httpx.Answer(actions.Practice.Do(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "end-practice", Method: http.MethodPost, Path: "/api/practice/diagnosis",
		Summary: "Say what is wrong with the practice machine", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body corepractice.NamedFault }) (
		*httpx.Output[practice.Practice], error) {
		return httpx.Answer(actions.Practice.Say(ctx, actor, in.Body))
	})
}
