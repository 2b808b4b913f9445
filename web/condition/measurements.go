package condition

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/web/httpx"
)

func registerMeasuring(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-measurements", Method: http.MethodGet, Path: "/api/machines/{id}/measurements",
		Summary: "What was measured on a machine, the newest first", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]condition.Measurement], error) {
		return httpx.Answer(actions.Condition.Measurements(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "measure", Method: http.MethodPost, Path: "/api/machines/{id}/measurements",
		Summary: "Keep what was measured, or name a point for the meter", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body condition.MeasurementInput
	}) (*httpx.Output[condition.Measured], error) {
		return httpx.Answer(actions.Condition.Measure(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "take-reading", Method: http.MethodPost, Path: "/api/measurements/{id}/take",
		Summary: "Have the meter read the point once more", Errors: httpx.ErrorsOfChange,
		Description: "When the meter does not answer, the readings so far are kept, and trouble says why.",
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[condition.Measurement], error) {
		return httpx.Answer(actions.Condition.TakeReading(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-reading", Method: http.MethodPost, Path: "/api/measurements/{id}/readings",
		Summary: "Put a reading to a point", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body Reading
	}) (*httpx.Output[condition.Measurement], error) {
		return httpx.Answer(actions.Condition.AddReading(ctx, actor, in.ID, in.Body.Value))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "drop-reading", Method: http.MethodPost, Path: "/api/measurements/{id}/drop",
		Summary: "Take out the last reading of a series", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor,
		in *httpx.ByVersion) (*httpx.Output[condition.Measurement], error) {
		return httpx.Answer(actions.Condition.DropReading(ctx, actor, in.ID, in.Version))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-measurement", Method: http.MethodPost, Path: "/api/measurements/{id}/void",
		Summary: "Strike out a measurement entered by mistake", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByVersion) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Condition.VoidMeasurement(ctx, actor, in.ID, in.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "get-meter", Method: http.MethodGet, Path: "/api/meter", Summary: "The meter on the bench",
		Errors: []int{http.StatusForbidden},
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[condition.Meter], error) {
		return httpx.Answer(actions.Condition.Meter(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "touch-point", Method: http.MethodPost, Path: "/api/meter/stand-in",
		Summary: "Put a stand-in's leads to a point, and tell it what to get wrong", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body TouchedPoint }) (*struct{}, error) {
		return nil, actions.Condition.TouchPoint(ctx, actor, in.Body.Point, in.Body.Fault)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-adjusters", Method: http.MethodGet, Path: "/api/machines/{id}/adjusters",
		Summary: "Trimmers and controls of a machine", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]condition.Adjuster], error) {
		return httpx.Answer(actions.Condition.Adjusters(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "note-adjuster", Method: http.MethodPost, Path: "/api/machines/{id}/adjusters",
		Summary: "Note a trimmer or control, and where it stands", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body condition.AdjusterInput
	}) (*httpx.Output[[]condition.Adjuster], error) {
		return httpx.Answer(actions.Condition.AddAdjuster(ctx, actor, in.ID, in.Body))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "turn-adjuster", Method: http.MethodPost, Path: "/api/adjusters/{id}/turns",
		Summary: "Note that an adjuster was turned", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body TurnedAdjuster
	}) (*httpx.Output[[]condition.Adjuster], error) {
		return httpx.Answer(actions.Condition.TurnAdjuster(ctx, actor, in.ID, in.Body.Version, in.Body.Position,
			in.Body.Why))
	})
}
