package files

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/app/picture"
	"frugalheron/web/httpx"
)

// Upload is a file as it comes.
type Upload struct {
	Name string `query:"name" maxLength:"400" required:"true" doc:"Name of the file"`
}

// PageOfAttachments asks for a page of pictures and documents.
type PageOfAttachments struct {
	After int64 `query:"after" minimum:"0" doc:"What next was in the page before"`
	Limit int   `query:"limit" minimum:"1" maximum:"200" default:"100"`
}

// ChangedAttachment is what is said of a picture or document, and the version that it started from.
type ChangedAttachment struct {
	httpx.Versioned
	files.AttachmentInput
}

func registerAttachments(api *httpx.API, actions *app.App) {
	for _, owner := range []struct {
		name, path, words string
		readBy            action.Roles
		of                func(id int64) files.Owner
	}{
		{"machine", "/api/machines/{id}/attachments", "a machine", action.MayLook, func(id int64) files.Owner {
			return files.Owner{MachineID: &id}
		}},
		{"lot", "/api/lots/{id}/attachments", "an arrival", action.MayLook, func(id int64) files.Owner {
			return files.Owner{AcquisitionID: &id}
		}},
		{"stock", "/api/stock/{id}/attachments", "a drawer of the stores", action.MayWriteSheets, func(id int64) files.Owner {
			return files.Owner{StockID: &id}
		}},
		{"offer", "/api/offers/{id}/attachments", "an offer", action.MayWriteSheets, func(id int64) files.Owner {
			return files.Owner{OfferID: &id}
		}},
	} {
		httpx.Register(api, action.MayWriteSheets, api.TakesFile(huma.Operation{
			OperationID: "attach-to-" + owner.name, Method: http.MethodPost, Path: owner.path,
			Summary: "Add a picture or a document to " + owner.words, DefaultStatus: http.StatusCreated,
			Description: "JPEG, PNG, WebP, HEIC, PDF or plain text, one file a request, up to 64 MB. Once it is answered with 201, the file is kept for good.",
			Errors:      httpx.ErrorsOfCreate,
		}, picture.MostBytes), func(ctx context.Context, actor action.Actor, in *struct {
			httpx.ByID
			Upload
		}) (*httpx.Output[files.Attachment], error) {
			return httpx.Answer(actions.Files.Attach(ctx, actor, owner.of(in.ID), in.Name, httpx.Uploaded(ctx)))
		})
		httpx.Register(api, owner.readBy, huma.Operation{
			OperationID: "list-attachments-of-" + owner.name, Method: http.MethodGet, Path: owner.path,
			Summary: "Pictures and documents of " + owner.words, Errors: httpx.ErrorsOfCreate,
		}, func(ctx context.Context, actor action.Actor, in *struct {
			httpx.ByID
			PageOfAttachments
		}) (*httpx.Output[files.AttachmentPage], error) {
			return httpx.Answer(actions.Files.Attachments(ctx, actor, owner.of(in.ID), in.After, in.Limit))
		})
	}
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-attachment", Method: http.MethodGet, Path: "/api/attachments/{id}",
		Summary: "What is said of a picture or document", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.Output[files.Attachment], error) {
		return httpx.Answer(actions.Files.Attachment(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "view-picture", Method: http.MethodGet, Path: "/api/attachments/{id}/view",
		Summary: "A picture, upright, without where it was taken", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Size string `query:"size" enum:"thumb,screen,full" default:"screen"`
	}) (*httpx.File, error) {
		side := map[string]int{"thumb": files.ThumbSide, "screen": files.ScreenSide, "full": 0}[in.Size]
		return httpx.ShownFile(actions.Files.View(ctx, actor, in.ID, side))
	})
	httpx.Register(api, action.MayLook, huma.Operation{
		OperationID: "get-original", Method: http.MethodGet, Path: "/api/attachments/{id}/original",
		Summary: "What was uploaded, as it is; of a picture for staff only", Errors: httpx.ErrorsOfRead,
	}, func(ctx context.Context, actor action.Actor, in *httpx.ByID) (*httpx.File, error) {
		return httpx.KeptFile(actions.Files.Original(ctx, actor, in.ID))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "change-attachment", Method: http.MethodPut, Path: "/api/attachments/{id}",
		Summary: "Change what is said of a picture or document", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body ChangedAttachment
	}) (*httpx.Output[files.Attachment], error) {
		return httpx.Answer(actions.Files.ChangeAttachment(ctx, actor, in.ID, in.Body.Version,
			in.Body.AttachmentInput))
	})
	httpx.Register(api, action.MayWriteSheets, huma.Operation{
		OperationID: "void-attachment", Method: http.MethodPost, Path: "/api/attachments/{id}/void",
		Summary: "Strike out a picture or document", Errors: httpx.ErrorsOfChange,
	}, func(ctx context.Context, actor action.Actor, in *struct {
		httpx.ByID
		Body httpx.Versioned
	}) (*httpx.Output[httpx.Done], error) {
		event, err := actions.Files.VoidAttachment(ctx, actor, in.ID, in.Body.Version)
		return httpx.Answer(httpx.Done{Event: event}, err)
	})
}
