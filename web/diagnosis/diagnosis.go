// Package diagnosis has the operations about symptoms and the trials that look for their cause.
package diagnosis

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/diagnosis"
	"frugalheron/web/httpx"
)

// ChangedDiagnosis is a symptom with its trials, and the version that it started from.
type ChangedDiagnosis struct {
	httpx.Versioned
	diagnosis.DiagnosisInput
}

// ChangedLayout is how memory is laid out, and the version that it started from; 0 for the first.
type ChangedLayout struct {
	Version int `json:"version" minimum:"0" doc:"Version that the change started from; 0 for the first"`
	diagnosis.MemoryLayoutInput
}

// Register adds them.
func Register(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-diagnoses", Method: http.MethodGet, Path: "/api/machines/{id}/diagnoses",
		Summary: "Symptoms of a machine with their trials, and what these tell", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[diagnosis.Diagnoses], error) {
		return httpx.Answer(actions.Diagnosis.Diagnoses(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "begin-diagnosis", Method: http.MethodPost, Path: "/api/machines/{id}/diagnoses",
		Summary: "Begin to look for the cause of a symptom", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body diagnosis.DiagnosisInput
	}) (*httpx.Output[diagnosis.Diagnosis], error) {
		return httpx.Answer(actions.Diagnosis.Begin(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-diagnosis", Method: http.MethodPut, Path: "/api/diagnoses/{id}",
		Summary: "Rewrite a symptom with its factors and trials", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedDiagnosis
	}) (*httpx.Output[diagnosis.Diagnosis], error) {
		return httpx.Answer(actions.Diagnosis.Change(ctx, actor, in.ID, in.Body.Version, in.Body.DiagnosisInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-diagnosis", Method: http.MethodPost, Path: "/api/diagnoses/{id}/void",
		Summary: "Strike out what was begun by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Diagnosis.Void(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-memory", Method: http.MethodGet, Path: "/api/machines/{id}/memory",
		Summary: "How the memory of a machine is laid out, and to which chips its tests lead", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[diagnosis.MachineMemory], error) {
		return httpx.Answer(actions.Diagnosis.Memory(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "lay-out-memory", Method: http.MethodPut, Path: "/api/machines/{id}/memory-layout",
		Summary: "Write down how the memory of a machine is laid out", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedLayout
	}) (*httpx.Output[diagnosis.MemoryLayout], error) {
		return httpx.Answer(actions.Diagnosis.ChangeLayout(ctx, actor, in.ID, in.Body.Version,
			in.Body.MemoryLayoutInput))
	})
}
