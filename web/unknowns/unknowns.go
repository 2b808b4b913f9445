package unknowns

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/unknowns"
	"frugalheron/web/httpx"
)

func registerQuestions(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-unknowns", Method: http.MethodGet, Path: "/api/unknowns",
		Summary: "What nobody knows yet, on a machine or in the collection",
		Errors:  []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Machine int64 `query:"machine" minimum:"0" doc:"0 for the whole collection"`
	}) (*httpx.Output[unknowns.Unknowns], error) {
		return httpx.Answer(actions.Unknowns.Unknowns(ctx, actor, in.Machine))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "count-unknowns", Method: http.MethodGet, Path: "/api/unknowns/counts",
		Summary: "How much nobody knows in the collection, by sort",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]unknowns.UnknownCount], error) {
		return httpx.Answer(actions.Unknowns.Counts(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "ask", Method: http.MethodPost, Path: "/api/questions", Summary: "Write about something unknown",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body unknowns.QuestionInput }) (*httpx.Output[unknowns.Question], error) {
		return httpx.Answer(actions.Unknowns.Ask(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-question", Method: http.MethodPut, Path: "/api/questions/{id}",
		Summary: "Change what is asked and who was asked", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			Text  string `json:"text" maxLength:"4000"`
			Asked string `json:"asked" maxLength:"1000"`
		}
	}) (*httpx.Output[unknowns.Question], error) {
		return httpx.Answer(actions.Unknowns.ChangeQuestion(ctx, actor, in.ID, in.Body.Version, in.Body.Text,
			in.Body.Asked))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "guess", Method: http.MethodPost, Path: "/api/questions/{id}/guesses",
		Summary: "Note what the answer could be, and why", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			Text   string `json:"text" maxLength:"400"`
			Reason string `json:"reason" maxLength:"400"`
		}
	}) (*struct{}, error) {
		return nil, actions.Unknowns.GuessAt(ctx, actor, in.ID, in.Body.Text, in.Body.Reason)
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "answer-question", Method: http.MethodPost, Path: "/api/questions/{id}/answer",
		Summary: "Settle a question; a type that comes with it is recognised everywhere at once",
		Errors:  httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			unknowns.Answer
		}
	}) (*httpx.Output[unknowns.Settled], error) {
		return httpx.Answer(actions.Unknowns.AnswerQuestion(ctx, actor, in.ID, in.Body.Version, in.Body.Answer))
	})
}

func registerIdentifications(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-identifications", Method: http.MethodGet, Path: "/api/identifications",
		Summary: "Boards that somebody puzzles over", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Machine int64 `query:"machine" minimum:"0" doc:"0 for the whole collection"`
	}) (*httpx.Output[[]unknowns.IdentificationView], error) {
		return httpx.Answer(actions.Unknowns.Identifications(ctx, actor, in.Machine))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-identification", Method: http.MethodGet, Path: "/api/assemblies/{id}/identification",
		Summary: "What an unknown board could be", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor,
		in *httpx.ByID) (*httpx.Output[unknowns.IdentificationView], error) {
		return httpx.Answer(actions.Unknowns.Identification(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "weigh-identification", Method: http.MethodPut, Path: "/api/assemblies/{id}/identification",
		Summary: "Rewrite explanations, evidence and decision", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body IdentificationInput
	}) (*httpx.Output[unknowns.IdentificationView], error) {
		return httpx.Answer(actions.Unknowns.WeighIdentification(ctx, actor, in.ID, in.Body.Version,
			in.Body.IdentificationInput))
	})
}

// IdentificationInput is what is thought about a board, and the version that it started from.
type IdentificationInput struct {
	Version int `json:"version" minimum:"0" doc:"0 for the first time"`
	unknowns.IdentificationInput
}
