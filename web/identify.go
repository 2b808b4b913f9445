package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/unknowns"
	storeunknowns "frugalheron/store/unknowns"
)

func registerQuestions(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-unknowns", Method: http.MethodGet, Path: "/api/unknowns", Summary: "What nobody knows yet, on a machine or in the collection", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Machine int64 `query:"machine" minimum:"0" doc:"0 for the whole collection"`
	}) (*output[unknowns.Unknowns], error) {
		return answer(deeds.Unknowns.Unknowns(ctx, actor, in.Machine))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "ask", Method: http.MethodPost, Path: "/api/questions", Summary: "Write about something unknown", DefaultStatus: http.StatusCreated, Errors: errorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body storeunknowns.QuestionFields }) (*output[storeunknowns.Question], error) {
		return answer(deeds.Unknowns.Ask(ctx, actor, in.Body))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-question", Method: http.MethodPut, Path: "/api/questions/{id}", Summary: "Change what is asked and who was asked", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Versioned
			Text  string `json:"text" maxLength:"4000"`
			Asked string `json:"asked" maxLength:"1000"`
		}
	}) (*output[storeunknowns.Question], error) {
		return answer(deeds.Unknowns.ChangeQuestion(ctx, actor, in.ID, in.Body.Version, in.Body.Text, in.Body.Asked))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "guess", Method: http.MethodPost, Path: "/api/questions/{id}/guesses", Summary: "Note what the answer could be, and why", Errors: errorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Text   string `json:"text" maxLength:"400"`
			Reason string `json:"reason" maxLength:"400"`
		}
	}) (*struct{}, error) {
		return nil, deeds.Unknowns.GuessAt(ctx, actor, in.ID, in.Body.Text, in.Body.Reason)
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "answer-question", Method: http.MethodPost, Path: "/api/questions/{id}/answer", Summary: "Settle a question; a type that comes with it is recognised everywhere at once", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Versioned
			unknowns.Answer
		}
	}) (*output[unknowns.Settled], error) {
		return answer(deeds.Unknowns.AnswerQuestion(ctx, actor, in.ID, in.Body.Version, in.Body.Answer))
	})
}

func registerMysteries(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-mysteries", Method: http.MethodGet, Path: "/api/mysteries", Summary: "Boards that somebody puzzles over", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Machine int64 `query:"machine" minimum:"0" doc:"0 for the whole collection"`
	}) (*output[[]unknowns.ToldMystery], error) {
		return answer(deeds.Unknowns.Mysteries(ctx, actor, in.Machine))
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "get-mystery", Method: http.MethodGet, Path: "/api/assemblies/{id}/mystery", Summary: "What an unknown board could be", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[unknowns.ToldMystery], error) {
		return answer(deeds.Unknowns.Mystery(ctx, actor, in.ID))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "weigh-mystery", Method: http.MethodPut, Path: "/api/assemblies/{id}/mystery", Summary: "Rewrite explanations, evidence and decision", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body WrittenMystery
	}) (*output[unknowns.ToldMystery], error) {
		return answer(deeds.Unknowns.WeighMystery(ctx, actor, in.ID, in.Body.Version, in.Body.MysteryFields))
	})
}

// WrittenMystery is what is thought about a board, and the version that it started from.
type WrittenMystery struct {
	Version int `json:"version" minimum:"0" doc:"0 for the first time"`
	unknowns.MysteryFields
}
