package inventory

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/web/httpx"
)

// MachineFilters narrow a list of machines.
type MachineFilters struct {
	ID        []int64  `query:"id,explode" maxItems:"1000" minimum:"1" doc:"These machines alone"`
	Search    string   `query:"search" maxLength:"200" doc:"Words that must all occur in the machine's record or place"`
	Place     []string `query:"place,explode" maxItems:"50" doc:"One of these places; an empty one stands for machines without"`
	Maker     []string `query:"maker,explode" maxItems:"50" doc:"One of these makers"`
	Year      []int    `query:"year,explode" maxItems:"50" doc:"One of these first years in which parts are expected"`
	Stage     []string `query:"stage,explode" maxItems:"4" enum:"untouched,in hand,needs attention,settled" doc:"How far taking stock has come"`
	Statement []string `query:"statement,explode" maxItems:"2" enum:"disputed,not disputed" doc:"Whether equally strong sources differ about it"`
	Type      string   `query:"type" maxLength:"40" doc:"Number of a type that stands on one of its sheets"`
}

func (f MachineFilters) inApp() inventory.MachineFilters {
	return inventory.MachineFilters{IDs: f.ID, Search: f.Search, Places: f.Place, Makers: f.Maker, Years: f.Year,
		Stages: f.Stage, Statements: f.Statement, Type: f.Type}
}

type listMachinesInput struct {
	MachineFilters
	Sort  string `query:"sort" enum:"accession,name,maker,place,year,chips,unidentified,ram,rom" default:"accession"`
	Down  bool   `query:"down" doc:"The largest first"`
	After string `query:"after" maxLength:"1000" doc:"What next was in the page before"`
	Limit int    `query:"limit" minimum:"1" maximum:"200" default:"50"`
}

func registerMachines(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-machines", Method: http.MethodGet, Path: "/api/machines", Summary: "Find machines",
		Description: "A page of machines in the order of a column; equal ones in the order in which they were entered.",
		Errors:      []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *listMachinesInput) (*httpx.Output[inventory.MachinePage], error) {
		return httpx.Answer(actions.Inventory.ListMachines(ctx, actor, inventory.MachineList{
			MachineFilters: in.inApp(), Sort: in.Sort, Descending: in.Down, After: in.After, Limit: in.Limit,
		}))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "export-machines", Method: http.MethodGet, Path: "/api/machines.csv",
		Summary: "The machines of a list as CSV, in its order", Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		MachineFilters
		Sort string `query:"sort" enum:"accession,name,maker,place,year,chips,unidentified,ram,rom" default:"accession"`
		Down bool   `query:"down" doc:"The largest first"`
	}) (*httpx.File, error) {
		return httpx.MadeFile(actions.Inventory.ExportMachines(ctx, actor, inventory.MachineList{
			MachineFilters: in.inApp(), Sort: in.Sort, Descending: in.Down}))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "count-facets", Method: http.MethodGet, Path: "/api/machines/facets",
		Summary: "How many machines there are of each value that the list can be narrowed by",
		Errors:  []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *MachineFilters) (*httpx.Output[inventory.Facets], error) {
		return httpx.Answer(actions.Inventory.CountFacets(ctx, actor, in.inApp()))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "count-holding", Method: http.MethodGet, Path: "/api/machines/holding",
		Summary: "Types by the start of their number, with how many machines hold them",
		Errors:  []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		MachineFilters
		Start string `query:"start" minLength:"1" maxLength:"20" required:"true"`
	}) (*httpx.Output[[]inventory.FacetCount], error) {
		return httpx.Answer(actions.Inventory.CountHolding(ctx, actor, in.inApp(), in.Start))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "create-machine", Method: http.MethodPost, Path: "/api/machines", Summary: "Enter a machine",
		DefaultStatus: http.StatusCreated, Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body inventory.MachineInput }) (*httpx.Output[inventory.Machine], error) {
		return httpx.Answer(actions.Inventory.CreateMachine(ctx, actor, in.Body))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-machine", Method: http.MethodGet, Path: "/api/machines/{id}", Summary: "Read a machine",
		Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[inventory.Machine], error) {
		return httpx.Answer(actions.Inventory.Machine(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayKeepTheRecord, huma.Operation{
		OperationID: "change-machine", Method: http.MethodPut, Path: "/api/machines/{id}",
		Summary: "Change what is said of a machine",
		Errors:  httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body struct {
			httpx.Versioned
			inventory.MachineInput
		}
	}) (*httpx.Output[inventory.Machine], error) {
		return httpx.Answer(actions.Inventory.ChangeMachine(ctx, actor, in.ID, in.Body.Version, in.Body.MachineInput))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-places", Method: http.MethodGet, Path: "/api/places", Summary: "Name the places in use",
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]string], error) {
		return httpx.Answer(actions.Inventory.Places(ctx, actor))
	})
}
