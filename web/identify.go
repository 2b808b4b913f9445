package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app/action"
	"frugalheron/app/dating"
	"frugalheron/app/files"
	"frugalheron/app/unknowns"
	"frugalheron/core/plan"
	"frugalheron/core/reckoning"
	"frugalheron/store/library"
	storeunknowns "frugalheron/store/unknowns"
)

func (s *Server) registerIdentify() {
	register(s, action.MayLook, huma.Operation{
		OperationID: "date-machine", Method: http.MethodGet, Path: "/api/machines/{id}/dating", Summary: "When a machine was built, and what of it is original", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[dating.DatedMachine], error) {
		return answer(s.app.Dating.Dating(ctx, actor, in.ID))
	})
	register(s, action.MayLook, huma.Operation{
		OperationID: "identify-stage", Method: http.MethodGet, Path: "/api/machines/{id}/identified", Summary: "How far the identifying of a machine has come", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[reckoning.Stage], error) {
		return answer(s.app.Bench.IdentifyStage(ctx, actor, in.ID))
	})
	register(s, action.MayLook, huma.Operation{
		OperationID: "list-models", Method: http.MethodGet, Path: "/api/models", Summary: "Models of machines", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Search string `query:"search" maxLength:"200"`
	}) (*output[[]library.MachineModel], error) {
		return answer(s.app.Library.Models(ctx, actor, in.Search))
	})
	register(s, action.MayWriteSheets, huma.Operation{
		OperationID: "add-model", Method: http.MethodPost, Path: "/api/models", Summary: "Add a model", DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body library.ModelFields }) (*output[library.MachineModel], error) {
		return answer(s.app.Library.AddModel(ctx, actor, in.Body))
	})
	register(s, action.MayWriteSheets, huma.Operation{
		OperationID: "change-model", Method: http.MethodPut, Path: "/api/models/{id}", Summary: "Change what is said of a model", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Versioned
			library.ModelFields
		}
	}) (*output[library.MachineModel], error) {
		return answer(s.app.Library.ChangeModel(ctx, actor, in.ID, in.Body.Version, in.Body.ModelFields))
	})
	s.registerQuestions()
	s.registerMysteries()
	s.registerPlans()
	s.registerMakers()
}

func (s *Server) registerQuestions() {
	register(s, action.MayLook, huma.Operation{
		OperationID: "list-unknowns", Method: http.MethodGet, Path: "/api/unknowns", Summary: "What nobody knows yet, on a machine or in the collection", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Machine int64 `query:"machine" minimum:"0" doc:"0 for the whole collection"`
	}) (*output[unknowns.Unknowns], error) {
		return answer(s.app.Unknowns.Unknowns(ctx, actor, in.Machine))
	})
	register(s, action.MayWriteSheets, huma.Operation{
		OperationID: "ask", Method: http.MethodPost, Path: "/api/questions", Summary: "Write about something unknown", DefaultStatus: http.StatusCreated, Errors: errorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body storeunknowns.QuestionFields }) (*output[storeunknowns.Question], error) {
		return answer(s.app.Unknowns.Ask(ctx, actor, in.Body))
	})
	register(s, action.MayWriteSheets, huma.Operation{
		OperationID: "change-question", Method: http.MethodPut, Path: "/api/questions/{id}", Summary: "Change what is asked and who was asked", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Versioned
			Text  string `json:"text" maxLength:"4000"`
			Asked string `json:"asked" maxLength:"1000"`
		}
	}) (*output[storeunknowns.Question], error) {
		return answer(s.app.Unknowns.ChangeQuestion(ctx, actor, in.ID, in.Body.Version, in.Body.Text, in.Body.Asked))
	})
	register(s, action.MayWriteSheets, huma.Operation{
		OperationID: "guess", Method: http.MethodPost, Path: "/api/questions/{id}/guesses", Summary: "Note what the answer could be, and why", Errors: errorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Text   string `json:"text" maxLength:"400"`
			Reason string `json:"reason" maxLength:"400"`
		}
	}) (*struct{}, error) {
		return nil, s.app.Unknowns.GuessAt(ctx, actor, in.ID, in.Body.Text, in.Body.Reason)
	})
	register(s, action.MayWriteSheets, huma.Operation{
		OperationID: "answer-question", Method: http.MethodPost, Path: "/api/questions/{id}/answer", Summary: "Settle a question; a type that comes with it is recognised everywhere at once", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body struct {
			Versioned
			unknowns.Answer
		}
	}) (*output[unknowns.Settled], error) {
		return answer(s.app.Unknowns.AnswerQuestion(ctx, actor, in.ID, in.Body.Version, in.Body.Answer))
	})
}

func (s *Server) registerMysteries() {
	register(s, action.MayLook, huma.Operation{
		OperationID: "list-mysteries", Method: http.MethodGet, Path: "/api/mysteries", Summary: "Boards that somebody puzzles over", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Machine int64 `query:"machine" minimum:"0" doc:"0 for the whole collection"`
	}) (*output[[]unknowns.ToldMystery], error) {
		return answer(s.app.Unknowns.Mysteries(ctx, actor, in.Machine))
	})
	register(s, action.MayLook, huma.Operation{
		OperationID: "get-mystery", Method: http.MethodGet, Path: "/api/assemblies/{id}/mystery", Summary: "What an unknown board could be", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[unknowns.ToldMystery], error) {
		return answer(s.app.Unknowns.Mystery(ctx, actor, in.ID))
	})
	register(s, action.MayWriteSheets, huma.Operation{
		OperationID: "weigh-mystery", Method: http.MethodPut, Path: "/api/assemblies/{id}/mystery", Summary: "Rewrite explanations, evidence and decision", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body WrittenMystery
	}) (*output[unknowns.ToldMystery], error) {
		return answer(s.app.Unknowns.WeighMystery(ctx, actor, in.ID, in.Body.Version, in.Body.MysteryFields))
	})
}

// WrittenMystery is what is thought about a board, and the version that it started from.
type WrittenMystery struct {
	Version int `json:"version" minimum:"0" doc:"0 for the first time"`
	unknowns.MysteryFields
}

// DrawnPlan is what is drawn on a picture, and the version that it started from.
type DrawnPlan struct {
	Version    int             `json:"version" minimum:"0" doc:"0 for the first time"`
	AssemblyID int64           `json:"assemblyId" minimum:"1"`
	Plan       plan.Plan       `json:"plan"`
	Rows       []files.PlanRow `json:"rows" required:"false" maxItems:"50" doc:"Runs of parts, to be laid out between two points"`
}

func (s *Server) registerPlans() {
	register(s, action.MayLook, huma.Operation{
		OperationID: "list-plans", Method: http.MethodGet, Path: "/api/machines/{id}/plans", Summary: "Pictures of boards with numbers on them", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[[]storeunknowns.PlannedPicture], error) {
		return answer(s.app.Files.PlannedPictures(ctx, actor, in.ID))
	})
	register(s, action.MayLook, huma.Operation{
		OperationID: "get-plan", Method: http.MethodGet, Path: "/api/attachments/{id}/plan", Summary: "Numbers and outlines on a picture of a board, with their legend", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[files.ToldPlan], error) {
		return answer(s.app.Files.BoardPlan(ctx, actor, in.ID))
	})
	register(s, action.MayWriteSheets, huma.Operation{
		OperationID: "draw-plan", Method: http.MethodPut, Path: "/api/attachments/{id}/plan", Summary: "Rewrite the numbers and outlines on a picture", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body DrawnPlan
	}) (*output[files.ToldPlan], error) {
		return answer(s.app.Files.DrawPlan(ctx, actor, in.ID, in.Body.Version, in.Body.AssemblyID, in.Body.Plan, in.Body.Rows))
	})
	register(s, action.MayLook, huma.Operation{
		OperationID: "get-plan-drawing", Method: http.MethodGet, Path: "/api/attachments/{id}/plan.svg", Summary: "A picture with its numbers and legend as SVG", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Embedded bool `query:"embedded" doc:"With the picture in it; else with its address"`
	}) (*file, error) {
		return madeFile(s.app.Files.PlanDrawing(ctx, actor, in.ID, in.Embedded))
	})
}
