package work

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/work"
	"frugalheron/web/httpx"
)

// ByQuestion names a question of the policies.
type ByQuestion struct {
	Question string `path:"question" maxLength:"40"`
}

func registerPolicies(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-policies", Method: http.MethodGet, Path: "/api/policies",
		Summary: "By which school the collection restores: questions, options and what was decided",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]work.Policy], error) {
		return httpx.Answer(actions.Work.Policies(ctx, actor, 0))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "choose-policy", Method: http.MethodPut, Path: "/api/policies/{question}",
		Summary: "Decide a question for the collection", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByQuestion
		Body MadeChoice
	}) (*httpx.Output[[]work.Policy], error) {
		return httpx.Answer(actions.Work.Choose(ctx, actor, 0, in.Question, in.Body.Version, in.Body.ChoiceInput))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-policies-of-machine", Method: http.MethodGet, Path: "/api/machines/{id}/policies",
		Summary: "By which school a machine is restored", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]work.Policy], error) {
		return httpx.Answer(actions.Work.Policies(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "choose-policy-of-machine", Method: http.MethodPut, Path: "/api/machines/{id}/policies/{question}",
		Summary: "Decide a question for a machine, with the reason", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		ByQuestion
		Body MadeChoice
	}) (*httpx.Output[[]work.Policy], error) {
		return httpx.Answer(actions.Work.Choose(ctx, actor, in.ID, in.Question, in.Body.Version, in.Body.ChoiceInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "get-policy-costs", Method: http.MethodGet, Path: "/api/machines/{id}/policies/{question}/costs",
		Summary: "What each option takes at a machine: parts, hours, money", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		ByQuestion
	}) (*httpx.Output[[]work.PolicyCost], error) {
		return httpx.Answer(actions.Work.PolicyCosts(ctx, actor, in.ID, in.Question))
	})
}
