// Package upkeep has the operations about what is done again and again, and the diary.
package upkeep

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/upkeep"
	"frugalheron/web/httpx"
)

// ChangedRule is what is to be done again and again, and the version that it started from.
type ChangedRule struct {
	httpx.Versioned
	upkeep.RuleInput
}

// ChangedPlan is what is planned, and the version that it started from.
type ChangedPlan struct {
	httpx.Versioned
	upkeep.PlanInput
}

// EndedRound is how a round ended, and the version that it started from.
type EndedRound struct {
	httpx.Versioned
	upkeep.EndInput
}

// Answered is what somebody says who was at a stop, and the version of what was said there before; 0 for nothing.
type Answered struct {
	Version int `json:"was" minimum:"0" required:"false" doc:"Version of what was said of the stop before, to correct it; 0 for the first time"`
	upkeep.AnswerInput
}

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	registerRules(api, actions)
	registerRounds(api, actions)
	registerDiary(api, actions)
	registerFeed(api, actions)
}

func registerRules(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-upkeep-rules", Method: http.MethodGet, Path: "/api/upkeep-rules",
		Summary: "What is done again and again, and what always holds",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]upkeep.Rule], error) {
		return httpx.Answer(actions.Upkeep.Rules(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-upkeep-subjects", Method: http.MethodGet, Path: "/api/upkeep-rules/subjects",
		Summary: "What a rule of upkeep can be of: machines, and classes of parts that age",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]upkeep.Subject], error) {
		return httpx.Answer(actions.Upkeep.Subjects(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-upkeep-rule", Method: http.MethodPost, Path: "/api/upkeep-rules",
		Summary: "Write a rule of upkeep", DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body upkeep.RuleInput }) (*httpx.Output[upkeep.Rule],
		error) {
		return httpx.Answer(actions.Upkeep.AddRule(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-upkeep-rule", Method: http.MethodPut, Path: "/api/upkeep-rules/{id}",
		Summary: "Rewrite a rule of upkeep", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedRule
	}) (*httpx.Output[upkeep.Rule], error) {
		return httpx.Answer(actions.Upkeep.ChangeRule(ctx, actor, in.ID, in.Body.Version, in.Body.RuleInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-upkeep-rule", Method: http.MethodPost, Path: "/api/upkeep-rules/{id}/void",
		Summary: "Strike out a rule of upkeep; what was done by it stays", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Upkeep.VoidRule(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-machine-upkeep", Method: http.MethodGet, Path: "/api/machines/{id}/upkeep",
		Summary: "What falls due at a machine, what always holds of it, and what was done", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[upkeep.MachineUpkeep], error) {
		return httpx.Answer(actions.Upkeep.OfMachine(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "do-upkeep", Method: http.MethodPost, Path: "/api/machines/{id}/upkeep",
		Summary: "Say that a task of upkeep was done to a machine, on no round", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body upkeep.DoneInput
	}) (*httpx.Output[upkeep.Deed], error) {
		return httpx.Answer(actions.Upkeep.DoneAt(ctx, actor, in.ID, in.Body))
	})
}

func registerRounds(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-rounds-due", Method: http.MethodGet, Path: "/api/rounds/due",
		Summary: "Tasks that are due today, each as a round",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]upkeep.RoundDue], error) {
		return httpx.Answer(actions.Upkeep.RoundsDue(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-rounds", Method: http.MethodGet, Path: "/api/rounds",
		Summary: "Rounds that are walked now, and the newest of the others",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]upkeep.RoundSummary], error) {
		return httpx.Answer(actions.Upkeep.Rounds(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-round", Method: http.MethodGet, Path: "/api/rounds/{id}",
		Summary: "A round with its stops in walking order", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[upkeep.Round], error) {
		return httpx.Answer(actions.Upkeep.Round(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "begin-round", Method: http.MethodPost, Path: "/api/rounds",
		Summary: "Put all that is due of a task into walking order", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body upkeep.RoundInput }) (*httpx.Output[upkeep.Round], error) {
		return httpx.Answer(actions.Upkeep.BeginRound(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "answer-stop", Method: http.MethodPost, Path: "/api/rounds/{id}/stops/{n}",
		Summary: "Say what was done or seen at a stop of a round", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		N    int `path:"n" minimum:"1" maximum:"1000000"`
		Body Answered
	}) (*httpx.Output[upkeep.Deed], error) {
		return httpx.Answer(actions.Upkeep.Answer(ctx, actor, in.ID, in.N, in.Body.Version, in.Body.AnswerInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "end-round", Method: http.MethodPost, Path: "/api/rounds/{id}/end",
		Summary: "End a round; where nobody was stays due", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body EndedRound
	}) (*httpx.Output[upkeep.RoundSummary], error) {
		return httpx.Answer(actions.Upkeep.EndRound(ctx, actor, in.ID, in.Body.Version, in.Body.EndInput))
	})
}

func registerDiary(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-diary", Method: http.MethodGet, Path: "/api/diary",
		Summary: "Weeks of the diary: what falls due, what is planned, and what was done", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		From  string `query:"from" maxLength:"10" doc:"YYYY-MM-DD, a day in the first week; today when it is left out"`
		Weeks int    `query:"weeks" minimum:"1" maximum:"60" default:"4"`
	}) (*httpx.Output[[]upkeep.DiaryWeek], error) {
		return httpx.Answer(actions.Upkeep.Diary(ctx, actor, in.From, in.Weeks))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-plan", Method: http.MethodPost, Path: "/api/plans", Summary: "Plan something for a day",
		DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body upkeep.PlanInput }) (*httpx.Output[upkeep.Plan],
		error) {
		return httpx.Answer(actions.Upkeep.AddPlan(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-plan", Method: http.MethodPut, Path: "/api/plans/{id}", Summary: "Rewrite a plan",
		Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedPlan
	}) (*httpx.Output[upkeep.Plan], error) {
		return httpx.Answer(actions.Upkeep.ChangePlan(ctx, actor, in.ID, in.Body.Version, in.Body.PlanInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-plan", Method: http.MethodPost, Path: "/api/plans/{id}/void", Summary: "Strike out a plan",
		Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Upkeep.VoidPlan(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}

func registerFeed(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-calendar-address", Method: http.MethodGet, Path: "/api/calendar-address",
		Summary: "Whether your calendar has an address",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[upkeep.Feed], error) {
		return httpx.Answer(actions.Upkeep.FeedOf(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "make-calendar-address", Method: http.MethodPost, Path: "/api/calendar-address",
		Summary: "Make a new secret address for your calendar; the one before leads nowhere from then on",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[upkeep.Feed], error) {
		return httpx.Answer(actions.Upkeep.MakeFeed(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "drop-calendar-address", Method: http.MethodDelete, Path: "/api/calendar-address",
		Summary: "Take the address of your calendar away", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*struct{}, error) {
		return nil, actions.Upkeep.DropFeed(ctx, actor)
	})
	httpx.Register(api, nil, huma.Operation{
		OperationID: "read-calendar", Method: http.MethodGet, Path: "/api/calendar/{secret}/heron.ics",
		Summary: "The calendar of a secret address, as iCalendar", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, _ action.Actor, in *struct {
		Secret string `path:"secret" maxLength:"64"`
	}) (*httpx.File, error) {
		return httpx.MadeFile(actions.Upkeep.ReadFeed(ctx, in.Secret))
	})
}
