package condition

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/core/risk"
	"frugalheron/web/httpx"
)

// NewSurvey is how a survey begins.
type NewSurvey struct {
	On string `json:"on" maxLength:"10" required:"false" doc:"YYYY-MM-DD; today when it is left out"`
	By string `json:"by" maxLength:"200" required:"false" doc:"Who looks, where that is not the account"`
}

// JudgedSubsystem is what was said of a subsystem, and the version of the survey that it started from.
type JudgedSubsystem struct {
	httpx.Versioned
	condition.JudgedItem
}

// EndedSurvey is how a survey ends.
type EndedSurvey struct {
	httpx.Versioned
	Cosmetic string `json:"cosmetic" maxLength:"40" required:"false" doc:"One of the cosmetic grades"`
	Note     string `json:"note" says:"text" maxLength:"4000" required:"false"`
}

func registerJudge(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-condition", Method: http.MethodGet, Path: "/api/machines/{id}/condition",
		Summary: "How a machine is, survey by survey, and what to inspect on it", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[condition.Condition], error) {
		return httpx.Answer(actions.Condition.Condition(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "start-survey", Method: http.MethodPost, Path: "/api/machines/{id}/surveys",
		Summary: "Begin a survey", DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body NewSurvey
	}) (*httpx.Output[condition.Condition], error) {
		return httpx.Answer(actions.Condition.StartSurvey(ctx, actor, in.ID, in.Body.On, in.Body.By))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "judge-subsystem", Method: http.MethodPut, Path: "/api/surveys/{id}/subsystems/{subsystem}",
		Summary: "Say what was seen of a subsystem", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Subsystem string `path:"subsystem" maxLength:"40"`
		Body      JudgedSubsystem
	}) (*httpx.Output[condition.Condition], error) {
		return httpx.Answer(actions.Condition.JudgeItem(ctx, actor, in.ID, in.Body.Version, in.Subsystem,
			in.Body.JudgedItem))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "end-survey", Method: http.MethodPost, Path: "/api/surveys/{id}/end",
		Summary: "End a survey; what was not inspected stays so", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body EndedSurvey
	}) (*httpx.Output[condition.Condition], error) {
		return httpx.Answer(actions.Condition.EndSurvey(ctx, actor, in.ID, in.Body.Version, in.Body.Cosmetic,
			in.Body.Note))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "note-finding", Method: http.MethodPost, Path: "/api/machines/{id}/findings",
		Summary:       "Note something found, or how a finding is now, outside of a survey",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body condition.NotedFinding
	}) (*httpx.Output[condition.Condition], error) {
		return httpx.Answer(actions.Condition.NoteFinding(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "check-fault", Method: http.MethodPost, Path: "/api/assemblies/{id}/fault-checks",
		Summary:       "Say whether an assembly has a fault that those of its kind are known to have",
		DefaultStatus: http.StatusNoContent, Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body condition.FaultCheckInput
	}) (*struct{}, error) {
		return nil, actions.Condition.CheckFault(ctx, actor, in.ID, in.Body)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-board-condition", Method: http.MethodGet, Path: "/api/assemblies/{id}/condition",
		Summary: "What is known to be wrong with a board, wherever it is", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[condition.BoardCondition], error) {
		return httpx.Answer(actions.Condition.BoardCondition(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "note-board-finding", Method: http.MethodPost, Path: "/api/assemblies/{id}/findings",
		Summary:       "Note something found on a board, or how a finding is now",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body condition.NotedFinding
	}) (*httpx.Output[condition.BoardCondition], error) {
		return httpx.Answer(actions.Condition.NoteBoardFinding(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-finding", Method: http.MethodPost, Path: "/api/findings/{id}/void",
		Summary: "Strike out a finding entered by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Condition.VoidFinding(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	registerMeasuring(api, actions)
	registerRisks(api, actions)
}

// Reading is a value that was read off.
type Reading struct {
	Value float64 `json:"value" minimum:"-1000000000000" maximum:"1000000000000" doc:"In the unit of the measurement"`
}

// TouchedPoint is where a stand-in's leads are put, and what it is to get wrong.
type TouchedPoint struct {
	Point string `json:"point" maxLength:"100" required:"false" doc:"Empty to leave them where they are"`
	Fault string `json:"fault" maxLength:"40"`
}

// TurnedAdjuster is where an adjuster stands now.
type TurnedAdjuster struct {
	httpx.Versioned
	Position string `json:"position" says:"text" maxLength:"200"`
	Why      string `json:"why" says:"text" maxLength:"300"`
}

// ChangedClass is an ageing class, and the version that it started from.
type ChangedClass struct {
	Version int `json:"version" minimum:"0" doc:"0 while it is as it ships"`
	risk.Class
}

// PlaceClimate says how a place treats what stands there.
type PlaceClimate struct {
	Place   string `json:"place" maxLength:"200"`
	Climate string `json:"climate" enum:",kept,room,damp,hot,outside"`
}

func registerRisks(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-risks", Method: http.MethodGet, Path: "/api/risks",
		Summary: "What ages, in the order in which to look at it", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Machine int64 `query:"machine" minimum:"0" doc:"0 for the whole collection"`
		After   int   `query:"after" minimum:"0"`
		Limit   int   `query:"limit" minimum:"1" maximum:"200" default:"50"`
	}) (*httpx.Output[condition.RiskPage], error) {
		return httpx.Answer(actions.Condition.Risks(ctx, actor, in.Machine, in.After, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "looks-ahead", Method: http.MethodGet, Path: "/api/looks-ahead",
		Summary: "How many looks are overdue, and how many fall due month by month",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[condition.LooksAhead], error) {
		return httpx.Answer(actions.Condition.LooksAhead(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "findings-by-year", Method: http.MethodGet, Path: "/api/findings-by-year",
		Summary: "How many findings were open at the end of each year",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]condition.YearOfFindings], error) {
		return httpx.Answer(actions.Condition.FindingsByYear(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "plan-openings", Method: http.MethodGet, Path: "/api/openings",
		Summary: "What to open first in some hours", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Minutes int `query:"minutes" minimum:"15" maximum:"60000" default:"480"`
	}) (*httpx.Output[condition.OpeningPlan], error) {
		return httpx.Answer(actions.Condition.PlanOpenings(ctx, actor, in.Minutes))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-maintenance-classes", Method: http.MethodGet, Path: "/api/maintenance-classes",
		Summary: "How often what ages is looked at in this collection", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]condition.OwnClass], error) {
		return httpx.Answer(actions.Condition.MaintenanceClasses(ctx, actor))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "change-maintenance-class", Method: http.MethodPut, Path: "/api/maintenance-classes",
		Summary: "Say how often something that ages is looked at", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body ChangedClass }) (*httpx.Output[[]condition.OwnClass], error) {
		return httpx.Answer(actions.Condition.ChangeMaintenanceClass(ctx, actor, in.Body.Version, in.Body.Class))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "set-climate", Method: http.MethodPut, Path: "/api/climates",
		Summary: "Say how a place treats what stands there", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body PlaceClimate }) (*struct{}, error) {
		return nil, actions.Condition.SetClimate(ctx, actor, in.Body.Place, in.Body.Climate)
	})
}
