package web_test

import (
	"io"
	"mime"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/library"
	"frugalheron/app/sheets"
	"frugalheron/core/device"
	"frugalheron/demo"
)

func TestLibraryByHTTP(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	ask[sheets.Revision](c, "PUT", "/api/assemblies/{board}/sheet",
		map[string]any{"base": 1, "body": "U1-U3 HX9040-2 8431\nU4 74LS00"})
	named := ask[library.NamedType](c, "POST", "/api/own-types",
		map[string]any{"number": "hx9040", "function": "processor", "class": "own"})
	require.Equal(t, 3, named.Recognised)
	types := ask[[]device.Type](c, "GET", "/api/types?start=hx", nil)
	require.Equal(t, "HX9040", types[0].Number)
	own := ask[[]library.LibraryType](c, "GET", "/api/library", nil)
	require.Len(t, own, 1)
	require.Equal(t, 3, own[0].Occurrences)
	found := ask[[]library.LibraryType](c, "GET", "/api/library?start=74ls0&limit=3", nil)
	require.Len(t, found, 3)
	require.Nil(t, found[0].Own)
	require.Equal(t, 1, found[0].Occurrences)
	lines := ask[[]library.Occurrence](c, "GET", "/api/library/occurrences?number=HX9040", nil)
	require.Equal(t, "HX9040-2 8431", lines[0].Marking)

	status, body := c.send("PUT", "/api/own-types/1", map[string]any{"version": 9, "number": "HX9040", "function": "x"})
	require.Equal(t, 409, status)
	require.Equal(t, "processor", problemOf(t, body).Newer.OwnType.Function)
	status, body = c.send("POST", "/api/own-types", map[string]any{"number": "HX9040", "function": "again"})
	require.Equal(t, 422, status)
	require.Equal(t, "body.number", problemOf(t, body).Errors[0].Location)
	status, _ = c.send("DELETE", "/api/own-types/1", nil)
	require.Equal(t, 200, status)
	status, _ = c.send("DELETE", "/api/own-types/1", nil)
	require.Equal(t, 404, status)
}

func TestDownloads(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[2])
	for path, want := range map[string]struct{ kind, name, says string }{
		"/api/machines/{machine}/sheets.txt": {"text/plain; charset=utf-8", "EH-0142.sheet",
			"== Main board\nU1 74LS00 8501\n"},
		"/api/machines/{machine}/entries.csv": {"text/csv; charset=utf-8", "EH-0142.csv",
			"EH-0142,Main board,1,U1,1,chip"},
	} {
		response := c.do("GET", s.path(path), nil, nil)
		body, err := io.ReadAll(response.Body)
		response.Body.Close()
		require.NoError(t, err)
		require.Equal(t, 200, response.StatusCode)
		require.Equal(t, want.kind, response.Header.Get("Content-Type"))
		disposition, named, err := mime.ParseMediaType(response.Header.Get("Content-Disposition"))
		require.NoError(t, err)
		require.Equal(t, []string{"attachment", want.name}, []string{disposition, named["filename"]})
		require.Contains(t, string(body), want.says)
	}
}
