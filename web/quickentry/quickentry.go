package quickentry

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/app/quickentry"
	"frugalheron/web/httpx"
)

// QuickEntryText is a line about the machine on the bench.
type QuickEntryText struct {
	MachineID int64  `json:"machineId" minimum:"0" doc:"The machine on the bench; 0 for none"`
	Text      string `json:"text" says:"text" maxLength:"2000" doc:"As U14 27128-25 8533, or note and what is to be noted; may start with another machine's accession number"`
}

func registerQuickEntry(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "find", Method: http.MethodGet, Path: "/api/find",
		Summary: "Look for words in machines, assemblies and chips",
		Errors:  []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Words string `query:"words" maxLength:"200" required:"true"`
	}) (*httpx.Output[inventory.Found], error) {
		return httpx.Answer(actions.Inventory.Find(ctx, actor, in.Words))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "understand", Metadata: httpx.AsksOnly(), Method: http.MethodPost, Path: "/api/understand",
		Summary: "Read a statement about a machine; nothing is kept",
		Errors:  httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor,
		in *struct{ Body QuickEntryText }) (*httpx.Output[quickentry.Understood], error) {
		return httpx.Answer(actions.QuickEntry.Understand(ctx, actor, in.Body.MachineID, in.Body.Text))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "quick-entry", Method: http.MethodPost, Path: "/api/quick-entry",
		Summary:     "Keep a statement about a machine",
		Description: "A note, or a line on the sheet of one of its assemblies.", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Body struct {
			QuickEntryText
			AssemblyID int64 `json:"assemblyId" minimum:"0" doc:"Whose sheet a line goes to; 0 for a note"`
			Base       int   `json:"base" minimum:"0" doc:"Revision that it is put on"`
		}
	}) (*httpx.Output[quickentry.Entered], error) {
		return httpx.Answer(actions.QuickEntry.Enter(ctx, actor, in.Body.MachineID, in.Body.AssemblyID, in.Body.Base,
			in.Body.Text))
	})
}
