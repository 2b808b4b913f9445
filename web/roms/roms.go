package roms

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/roms"
	"frugalheron/core/rom"
	"frugalheron/web/httpx"
)

// BySum addresses an image.
type BySum struct {
	SHA256 string `path:"sha256" minLength:"64" maxLength:"64" pattern:"^[0-9a-f]{64}$"`
}

// RomUpload is a file that was read out of a chip.
type RomUpload struct {
	Name       string `query:"name" maxLength:"400" required:"true" doc:"Name of the file"`
	Designator string `query:"designator" maxLength:"20" required:"true" doc:"Chip that it was read from, as U14"`
	Label      string `query:"label" maxLength:"200" doc:"What stands on the chip"`
	Method     string `query:"method" maxLength:"200" doc:"How it was read"`
	ReadOn     string `query:"readOn" maxLength:"10" doc:"YYYY-MM-DD; today when it is left out"`
	Exception  string `query:"exception" maxLength:"400" doc:"Why no second reading can be had"`
}

// WhyAlone says why one reading of a chip is enough.
type WhyAlone struct {
	Why string `json:"why" says:"text" maxLength:"400"`
}

// ChangedRom is what is said of an image, and the version that it started from.
type ChangedRom struct {
	httpx.Versioned
	roms.RomInput
}

// mostRomUpload is how large an uploaded file may be: records of the largest image fit.
const mostRomUpload = 64 << 20

func registerRoms(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-rom-sockets", Method: http.MethodGet, Path: "/api/machines/{id}/roms",
		Summary: "Sockets for read-only memories of a machine, with what was read there", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[[]roms.RomSocket], error) {
		return httpx.Answer(actions.Roms.Roms(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, api.TakesFile(huma.Operation{
		OperationID: "add-rom-file", Method: http.MethodPost, Path: "/api/assemblies/{id}/roms",
		Summary: "Keep what was read out of a chip", DefaultStatus: http.StatusCreated,
		Description: "Binary, hex records, S-records, or a zip archive of such, up to 64 MB; a file of an archive whose name starts with another designator of the board goes to that chip.",
		Errors:      httpx.ErrorsOfCreate,
	}, mostRomUpload), func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		RomUpload
	}) (*httpx.Output[[]roms.AddedRead], error) {
		of := roms.RomReading{Designator: in.Designator, Label: in.Label, Method: in.Method, ReadOn: in.ReadOn,
			Exception: in.Exception}
		return httpx.Answer(actions.Roms.AddRomFile(ctx, actor, in.ID, of, in.Name, httpx.Uploaded(ctx)))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "except-read", Method: http.MethodPost, Path: "/api/rom-reads/{id}/exception",
		Summary: "Let one reading count alone", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body WhyAlone
	}) (*struct{}, error) {
		return nil, actions.Roms.ExceptRead(ctx, actor, in.ID, in.Body.Why)
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-read", Method: http.MethodPost, Path: "/api/rom-reads/{id}/void",
		Summary: "Strike out a reading", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Roms.VoidRead(ctx, actor, in.ID)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-roms", Method: http.MethodGet, Path: "/api/roms", Summary: "Images of read-only memories",
		Errors: []int{http.StatusUnprocessableEntity},
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Search string `query:"search" maxLength:"200" doc:"Words of the name, or the start of a sum"`
		Skip   int    `query:"skip" minimum:"0"`
		Limit  int    `query:"limit" minimum:"1" maximum:"200" default:"100"`
	}) (*httpx.Output[roms.RomPage], error) {
		return httpx.Answer(actions.Roms.RomList(ctx, actor, in.Search, in.Skip, in.Limit))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-rom", Method: http.MethodGet, Path: "/api/roms/{sha256}",
		Summary: "What is known of an image", Errors: httpx.ErrorsOfRead,
		Description: "Sums are for everybody; texts and code only where the bytes are.",
	}, func(ctx context.Context, actor action.Actor, in *BySum) (*httpx.Output[roms.RomView], error) {
		return httpx.Answer(actions.Roms.Rom(ctx, actor, in.SHA256))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "name-rom", Method: http.MethodPut, Path: "/api/roms/{sha256}",
		Summary: "Say what an image is; it is known by that wherever it is met", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		BySum
		Body ChangedRom
	}) (*httpx.Output[roms.RomImage], error) {
		return httpx.Answer(actions.Roms.NameRom(ctx, actor, in.SHA256, in.Body.Version, in.Body.RomInput))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "map-rom", Method: http.MethodGet, Path: "/api/roms/{sha256}/map",
		Summary: "What each cell of an image holds", Errors: httpx.ErrorsOfRead,
		Description: "A letter for each cell: b blank, t text, r repeated, d tables, c as varied as programs are, x as varied as chance.",
	}, func(ctx context.Context, actor action.Actor, in *struct {
		BySum
		Cell int `query:"cell" minimum:"16" maximum:"65536" default:"64" doc:"Bytes in a cell"`
	}) (*httpx.Output[rom.Cells], error) {
		return httpx.Answer(actions.Roms.RomMap(ctx, actor, in.SHA256, in.Cell))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "read-rom", Method: http.MethodGet, Path: "/api/roms/{sha256}/bytes",
		Summary: "A stretch of an image as rows of figures", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		BySum
		From  int `query:"from" minimum:"0"`
		Count int `query:"count" minimum:"1" maximum:"4096" default:"512"`
	}) (*httpx.Output[[]roms.HexRow], error) {
		return httpx.Answer(actions.Roms.RomHex(ctx, actor, in.SHA256, in.From, in.Count))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-rom-file", Method: http.MethodGet, Path: "/api/roms/{sha256}/file",
		Summary: "An image as a file", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		BySum
		Format string `query:"format" enum:"bin,ihex,srec" default:"bin"`
	}) (*httpx.File, error) {
		return httpx.KeptFile(actions.Roms.RomFile(ctx, actor, in.SHA256, rom.Format(in.Format)))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "compare-roms", Method: http.MethodGet, Path: "/api/roms/{sha256}/against/{other}",
		Summary: "Two images side by side; the first is the earlier", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		BySum
		Other string `path:"other" minLength:"64" maxLength:"64" pattern:"^[0-9a-f]{64}$"`
		Cell  int    `query:"cell" minimum:"16" maximum:"65536" default:"64"`
	}) (*httpx.Output[roms.RomComparison], error) {
		return httpx.Answer(actions.Roms.CompareRoms(ctx, actor, in.SHA256, in.Other, in.Cell))
	})
	registerLanes(api, actions)
}

// NamedSet names the contents of a board as a set.
type NamedSet struct {
	Name string `json:"name" maxLength:"200"`
	Note string `json:"note" says:"text" maxLength:"4000" required:"false"`
}

func registerLanes(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "list-rom-sets", Method: http.MethodGet, Path: "/api/rom-sets",
		Summary: "Sets of images, with who has which", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[[]roms.RomSetView], error) {
		return httpx.Answer(actions.Roms.RomSets(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "name-rom-set", Method: http.MethodPost, Path: "/api/assemblies/{id}/rom-set",
		Summary: "Name what counts on a board as a set", DefaultStatus: http.StatusCreated,
		Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body NamedSet
	}) (*httpx.Output[roms.RomSet], error) {
		return httpx.Answer(actions.Roms.NameRomSet(ctx, actor, in.ID, in.Body.Name, in.Body.Note))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "split-rom", Method: http.MethodPost, Path: "/api/roms/{sha256}/split",
		Summary: "Deal an image out to the lanes of a wide bus", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		BySum
		Body struct {
			Lanes int `json:"lanes" minimum:"2" maximum:"8"`
		}
	}) (*httpx.Output[[]roms.RomImage], error) {
		return httpx.Answer(actions.Roms.SplitRom(ctx, actor, in.SHA256, in.Body.Lanes))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "merge-roms", Method: http.MethodPost, Path: "/api/roms/merge",
		Summary: "Put the lanes of a wide bus together", Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Body struct {
			Lanes []string `json:"lanes" minItems:"2" maxItems:"8" doc:"SHA-256 of the image of each lane, lane 0 first"`
		}
	}) (*httpx.Output[roms.RomImage], error) {
		return httpx.Answer(actions.Roms.MergeRoms(ctx, actor, in.Body.Lanes))
	})
}

func registerChipReadings(api *httpx.API, actions *app.App) {
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "get-reader", Method: http.MethodGet, Path: "/api/reader", Summary: "The reader on the bench",
		Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, _ *struct{}) (*httpx.Output[roms.Reader], error) {
		return httpx.Answer(actions.Roms.Reader(ctx, actor))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "prepare-stand-in", Method: http.MethodPut, Path: "/api/reader/stand-in",
		Summary: "Put a chip into the stand-in of a reader, and tell it what to get wrong",
		Errors:  httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		Body struct {
			Chip  string `json:"chip" maxLength:"100"`
			Fault string `json:"fault" maxLength:"40"`
		}
	}) (*struct{}, error) {
		return nil, actions.Roms.PrepareStandIn(ctx, actor, in.Body.Chip, in.Body.Fault)
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "start-reading", Method: http.MethodPost, Path: "/api/assemblies/{id}/chip-readings",
		Summary: "Have the reader read a chip, twice", DefaultStatus: http.StatusCreated, Errors: httpx.ErrorsOfCreate,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body roms.ReadingInput
	}) (*httpx.Output[roms.ChipReading], error) {
		return httpx.Answer(actions.Roms.StartReading(ctx, actor, in.ID, in.Body))
	})
	for _, control := range []struct {
		method, id, path, summary string
		do                        func(ctx context.Context, actor action.Actor, id int64) (roms.ChipReading, error)
	}{
		{http.MethodGet, "get-reading", "", "How far a reading is", actions.Roms.ChipReading},
		{http.MethodPost, "stop-reading", "/stop", "Stop a reading; it can be gone on with", actions.Roms.StopReading},
		{http.MethodPost, "resume-reading", "/resume", "Go on with a reading where it stopped",
			actions.Roms.ResumeReading},
	} {
		httpx.Register(api, action.MayWriteSheets, huma.Operation{
			OperationID: control.id, Method: control.method, Path: "/api/chip-readings/{id}" + control.path,
			Summary: control.summary, Errors: httpx.ErrorsOfCreate,
		}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[roms.ChipReading], error) {
			return httpx.Answer(control.do(ctx, actor, in.ID))
		})
	}
}
