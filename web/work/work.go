// Package work has the operations about jobs.
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

// ChangedJob is what is to be done, and the version that it started from.
type ChangedJob struct {
	httpx.Versioned
	work.JobInput
}

// WorkedOnJob is how a job goes on, and the version that it started from.
type WorkedOnJob struct {
	httpx.Versioned
	work.WorkInput
}

// FinishedJob is how a job ended, and the version that it started from.
type FinishedJob struct {
	httpx.Versioned
	work.FinishInput
}

// ProvedJob is that the test of a job was made, and the version that it started from.
type ProvedJob struct {
	httpx.Versioned
	work.ProofInput
}

// MadeChoice is what was decided, and the version that it started from.
type MadeChoice struct {
	Version int `json:"version" minimum:"0" doc:"Of the choice before; 0 while nobody decided"`
	work.ChoiceInput
}

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-treatment", Method: http.MethodGet, Path: "/api/machines/{id}/treatment",
		Summary: "The jobs of a machine, and the findings that no job mends yet", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[work.Treatment], error) {
		return httpx.Answer(actions.Work.Treatment(ctx, actor, in.ID))
	})
	registerPolicies(api, actions)
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-open-jobs", Method: http.MethodGet, Path: "/api/jobs",
		Summary: "The jobs of all machines that are not ended, the oldest first",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]work.Job], error) {
		return httpx.Answer(actions.Work.OpenJobs(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-deadlines", Method: http.MethodGet, Path: "/api/deadlines",
		Summary: "What is overdue or falls due within a month: lasting repairs, what must go back, orders",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]work.Deadline], error) {
		return httpx.Answer(actions.Work.Deadlines(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-job", Method: http.MethodPost, Path: "/api/machines/{id}/jobs",
		Summary: "Put down what is to be done", DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body work.JobInput
	}) (*httpx.Output[work.Job], error) {
		return httpx.Answer(actions.Work.AddJob(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-job", Method: http.MethodPut, Path: "/api/jobs/{id}",
		Summary: "Rewrite what is to be done", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedJob
	}) (*httpx.Output[work.Job], error) {
		return httpx.Answer(actions.Work.ChangeJob(ctx, actor, in.ID, in.Body.Version, in.Body.JobInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "work-on-job", Method: http.MethodPost, Path: "/api/jobs/{id}/work",
		Summary: "Say how a job goes on: in hand, waiting, done in part, declined", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body WorkedOnJob
	}) (*httpx.Output[work.Job], error) {
		return httpx.Answer(actions.Work.WorkOnJob(ctx, actor, in.ID, in.Body.Version, in.Body.WorkInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "finish-job", Method: http.MethodPost, Path: "/api/jobs/{id}/finish",
		Summary: "End a job: its findings are gone, and a new part stands on the sheet", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body FinishedJob
	}) (*httpx.Output[work.Job], error) {
		return httpx.Answer(actions.Work.FinishJob(ctx, actor, in.ID, in.Body.Version, in.Body.FinishInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "prove-job", Method: http.MethodPost, Path: "/api/jobs/{id}/proof",
		Summary: "Say what the test of a job that is done said, the first time or again", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ProvedJob
	}) (*httpx.Output[work.Job], error) {
		return httpx.Answer(actions.Work.ProveJob(ctx, actor, in.ID, in.Body.Version, in.Body.ProofInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-job", Method: http.MethodPost, Path: "/api/jobs/{id}/void",
		Summary: "Strike out a job that was put down by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Work.VoidJob(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}
