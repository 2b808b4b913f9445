package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"frugalheron/app"
)

// download is an answer that a browser saves as a file.
type download struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

func asFile(contentType, accession, ending string, body []byte) *download {
	name := ""
	for _, r := range accession {
		if 'a' <= r && r <= 'z' || 'A' <= r && r <= 'Z' || '0' <= r && r <= '9' || r == '-' || r == '.' {
			name += string(r)
		} else {
			name += "_"
		}
	}
	return &download{contentType, `attachment; filename="` + name + ending + `"`, body}
}

func (s *Server) registerExport() {
	register(s, app.MayLook, huma.Operation{
		OperationID: "export-sheets", Method: http.MethodGet, Path: "/api/machines/{id}/sheets.txt", Summary: "All sheets of a machine as one text", Errors: errorsOfRead,
		Description: "Taking the text over into a machine gives the same boards.",
	}, func(ctx context.Context, actor app.Actor, in *ByID) (*download, error) {
		machine, text, err := s.app.ExportSheets(ctx, actor, in.ID)
		if err != nil {
			return nil, err
		}
		return asFile("text/plain; charset=utf-8", machine.Accession, ".sheet", []byte(text)), nil
	})
	register(s, app.MayLook, huma.Operation{
		OperationID: "export-entries", Method: http.MethodGet, Path: "/api/machines/{id}/entries.csv", Summary: "What stands on all sheets of a machine as CSV", Errors: errorsOfRead,
	}, func(ctx context.Context, actor app.Actor, in *ByID) (*download, error) {
		machine, table, err := s.app.ExportEntries(ctx, actor, in.ID)
		if err != nil {
			return nil, err
		}
		return asFile("text/csv; charset=utf-8", machine.Accession, ".csv", table), nil
	})
}
