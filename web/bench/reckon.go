package bench

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/bench"
	"frugalheron/core/datecode"
	"frugalheron/core/device"
	"frugalheron/core/reckoning"
	"frugalheron/core/sheet"
	"frugalheron/web/httpx"
)

func registerReckoning(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "reckon", Metadata: httpx.AsksOnly(), Method: http.MethodPost, Path: "/api/reckon",
		Summary:      "Reckon a sheet without keeping it",
		MaxBodyBytes: httpx.SheetBodyLimit, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Body struct {
			Text    string `json:"text" doc:"Sheet, with or without headings, at most 1 MiB"`
			EraFrom int    `json:"eraFrom,omitempty" minimum:"1900" maximum:"2100" doc:"First year in which the parts are expected"`
			EraTo   int    `json:"eraTo,omitempty" minimum:"1900" maximum:"2100"`
		}
	}) (*httpx.Output[bench.Reckoned], error) {
		return httpx.Answer(actions.Bench.Reckon(ctx, actor, in.Body.Text,
			datecode.Era{From: in.Body.EraFrom, To: in.Body.EraTo}))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "reckon-machine", Metadata: httpx.AsksOnly(), Method: http.MethodPost,
		Path: "/api/machines/{id}/reckoning", Summary: "Reckon a machine, with drafts in place of kept sheets",
		MaxBodyBytes: httpx.SheetBodyLimit, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body Drafts
	}) (*httpx.Output[bench.ReckonedMachine], error) {
		return httpx.Answer(actions.Bench.ReckonMachine(ctx, actor, in.ID, in.Body.byAssembly()))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "reckon-assembly", Metadata: httpx.AsksOnly(), Method: http.MethodPost,
		Path:         "/api/assemblies/{id}/reckoning",
		Summary:      "Reckon an assembly on its own, with a draft in place of its kept sheet",
		MaxBodyBytes: httpx.SheetBodyLimit, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body Drafts
	}) (*httpx.Output[bench.ReckonedMachine], error) {
		return httpx.Answer(actions.Bench.ReckonAssembly(ctx, actor, in.ID, in.Body.byAssembly()))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "reckon-machine-since", Metadata: httpx.AsksOnly(), Method: http.MethodPost,
		Path:         "/api/machines/{id}/reckoning/since",
		Summary:      "Reckon a machine after what changed in editors, and tell only what became another",
		MaxBodyBytes: httpx.SheetBodyLimit, Errors: errorsOfSince,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedDrafts
	}) (*httpx.Output[bench.ReckonedSince], error) {
		return httpx.Answer(actions.Bench.ReckonMachineSince(ctx, actor, in.ID, in.Body.since()))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "reckon-assembly-since", Metadata: httpx.AsksOnly(), Method: http.MethodPost,
		Path:         "/api/assemblies/{id}/reckoning/since",
		Summary:      "Reckon an assembly on its own after what changed in its editor, and tell only what became another",
		MaxBodyBytes: httpx.SheetBodyLimit, Errors: errorsOfSince,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedDrafts
	}) (*httpx.Output[bench.ReckonedSince], error) {
		return httpx.Answer(actions.Bench.ReckonAssemblySince(ctx, actor, in.ID, in.Body.since()))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-types", Method: http.MethodGet, Path: "/api/types",
		Summary: "Library types by the start of their number",
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Start string `query:"start" minLength:"1" maxLength:"20" required:"true"`
		Limit int    `query:"limit" minimum:"1" maximum:"50" default:"12"`
	}) (*httpx.Output[[]device.Type], error) {
		return httpx.Answer(actions.Library.Types(ctx, actor, in.Start, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "write-line", Metadata: httpx.AsksOnly(), Method: http.MethodPost, Path: "/api/sheet-line",
		Summary: "Write a row of the table as a line of a sheet",
		Errors:  []int{http.StatusUnprocessableEntity},
	}, func(_ context.Context, _ action.Actor, in *struct{ Body sheet.Record }) (*httpx.Output[Line], error) {
		text, err := in.Body.Text()
		if err != nil {
			return nil, &action.Invalid{Field: "parts", Why: err.Error()}
		}
		return httpx.Answer(Line{text}, nil)
	})
}

// Drafts are the sheets that stand in editors.
type Drafts struct {
	Drafts []Draft `json:"drafts" maxItems:"100"`
}

func (d Drafts) byAssembly() map[int64]string {
	bodies := map[int64]string{}
	for _, draft := range d.Drafts {
		bodies[draft.AssemblyID] = draft.Body
	}
	return bodies
}

var errorsOfSince = append([]int{http.StatusGone}, httpx.ErrorsOfCreate...)

// ChangedDrafts is what changed in editors after an answer.
type ChangedDrafts struct {
	Answer  string             `json:"answer" minLength:"1" maxLength:"64" doc:"The name of the answer before"`
	Drafts  []Draft            `json:"drafts" maxItems:"100" doc:"Whole, of sheets that were none at the answer before"`
	Changes []bench.LineChange `json:"changes" maxItems:"100" doc:"In sheets that were drafts at the answer before"`
	Kept    []int64            `json:"kept" maxItems:"100" doc:"Assemblies in whose editor stands again what is kept"`
}

func (c ChangedDrafts) since() bench.Since {
	return bench.Since{Answer: c.Answer, Drafts: Drafts{c.Drafts}.byAssembly(), Changes: c.Changes, Kept: c.Kept}
}

// Draft is a sheet that is not kept yet.
type Draft struct {
	AssemblyID int64  `json:"assemblyId"`
	Body       string `json:"body"`
}

// Line is a line of a sheet.
type Line struct {
	Text string `json:"text"`
}

func registerIdentified(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-in-hand", Method: http.MethodGet, Path: "/api/in-hand",
		Summary: "What was begun on machines and not ended",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]bench.InHand], error) {
		return httpx.Answer(actions.Bench.InHand(ctx, actor))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-glance", Method: http.MethodGet, Path: "/api/machines/{id}/glance",
		Summary: "A machine on one page: what it is, how it sits, its figures, and what needs attention",
		Errors:  httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[bench.Glance], error) {
		return httpx.Answer(actions.Bench.Glance(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "identify-stage", Method: http.MethodGet, Path: "/api/machines/{id}/identified",
		Summary: "How far the identifying of a machine has come", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[reckoning.Stage], error) {
		return httpx.Answer(actions.Bench.IdentifyStage(ctx, actor, in.ID))
	})
}
