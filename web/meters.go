package web

import (
	"context"
	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/condition"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
)

func registerMeasuring(api *API, deeds *app.App) {
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-measurements", Method: http.MethodGet, Path: "/api/machines/{id}/measurements", Summary: "What was measured on a machine, the newest first", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[[]condition.Measurement], error) {
		return answer(deeds.Condition.Measurements(ctx, actor, in.ID))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "measure", Method: http.MethodPost, Path: "/api/machines/{id}/measurements", Summary: "Keep what was measured, or name a point for the meter", DefaultStatus: http.StatusCreated, Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body condition.WrittenMeasurement
	}) (*output[condition.Measured], error) {
		return answer(deeds.Condition.Measure(ctx, actor, in.ID, in.Body))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "take-reading", Method: http.MethodPost, Path: "/api/measurements/{id}/take", Summary: "Have the meter read the point once more", Errors: errorsOfChange,
		Description: "When the meter does not answer, the readings so far are kept, and trouble says why.",
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[condition.Measurement], error) {
		return answer(deeds.Condition.TakeReading(ctx, actor, in.ID))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "add-reading", Method: http.MethodPost, Path: "/api/measurements/{id}/readings", Summary: "Put a reading to a point", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body Reading
	}) (*output[condition.Measurement], error) {
		return answer(deeds.Condition.AddReading(ctx, actor, in.ID, in.Body.Value))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "drop-reading", Method: http.MethodPost, Path: "/api/measurements/{id}/drop", Summary: "Take out the last reading of a series", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *ByVersion) (*output[condition.Measurement], error) {
		return answer(deeds.Condition.DropReading(ctx, actor, in.ID, in.Version))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "strike-measurement", Method: http.MethodPost, Path: "/api/measurements/{id}/strike", Summary: "Strike out a measurement entered by mistake", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *ByVersion) (*output[Done], error) {
		event, err := deeds.Condition.StrikeMeasurement(ctx, actor, in.ID, in.Version)
		return answer(Done{event}, err)
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "get-meter", Method: http.MethodGet, Path: "/api/meter", Summary: "The meter on the bench", Errors: []int{http.StatusForbidden},
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*output[condition.Meter], error) {
		return answer(deeds.Condition.Meter(ctx, actor))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "touch-point", Method: http.MethodPost, Path: "/api/meter/stand-in", Summary: "Put a stand-in's leads to a point, and tell it what to get wrong", Errors: errorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct{ Body TouchedPoint }) (*struct{}, error) {
		return nil, deeds.Condition.TouchPoint(ctx, actor, in.Body.Point, in.Body.Fault)
	})
	register(api, action.MayLook, huma.Operation{
		OperationID: "list-adjusters", Method: http.MethodGet, Path: "/api/machines/{id}/adjusters", Summary: "Trimmers and controls of a machine", Errors: errorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *ByID) (*output[[]condition.Adjuster], error) {
		return answer(deeds.Condition.Adjusters(ctx, actor, in.ID))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "note-adjuster", Method: http.MethodPost, Path: "/api/machines/{id}/adjusters", Summary: "Note a trimmer or control, and where it stands", DefaultStatus: http.StatusCreated, Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body condition.AdjusterFields
	}) (*output[[]condition.Adjuster], error) {
		return answer(deeds.Condition.AddAdjuster(ctx, actor, in.ID, in.Body))
	})
	register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "turn-adjuster", Method: http.MethodPost, Path: "/api/adjusters/{id}/turns", Summary: "Note that an adjuster was turned", Errors: errorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		ByID
		Body TurnedAdjuster
	}) (*output[[]condition.Adjuster], error) {
		return answer(deeds.Condition.TurnAdjuster(ctx, actor, in.ID, in.Body.Version, in.Body.Position, in.Body.Why))
	})
}
