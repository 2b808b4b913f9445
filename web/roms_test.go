package web_test

import (
	"bytes"
	"fmt"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/app/files"
	"frugalheron/app/roms"
	"frugalheron/core/rom"
	"frugalheron/demo"
)

// Files come in by the API in any format, go out in any other, and stay with staff until a curator lets
// them go.
func TestImagesComeAndGo(t *testing.T) {
	s := newSite(t)
	curator, technician, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	_, err := s.actions.Sheets.SaveSheet(t.Context(), action.Actor{Role: action.Technician}, s.board.ID, 1,
		"U9 2716-1 8501")
	require.NoError(t, err)
	image := demo.Images()["EH-0113 U19"].Data
	records, err := rom.Encode(rom.SRecords, 0xf800, image)
	require.NoError(t, err)
	path := fmt.Sprintf("/api/assemblies/%d/roms", s.board.ID)
	upload := func(c *client, query string, data []byte) (int, string) {
		response, err := c.http.Post(s.URL+path+"?"+query, "application/octet-stream", bytes.NewReader(data))
		require.NoError(t, err)
		defer response.Body.Close()
		body, err := io.ReadAll(response.Body)
		require.NoError(t, err)
		return response.StatusCode, string(body)
	}
	const of = "name=u9.s19&designator=U9&label=TM+2.0"
	for range 2 {
		status, body := upload(technician, of, records)
		require.Equal(t, 201, status, body)
		require.Equal(t, rom.SRecords, decoded[[]roms.AddedRead](t, body)[0].Format)
	}
	for query, want := range map[string]int{"name=u9.bin": 422, "name=u9.bin&designator=U9&readOn=2999-01-01": 422,
		of: 403} {
		who := technician
		if want == 403 {
			who = viewer
		}
		status, body := upload(who, query, image)
		require.Equal(t, want, status, body)
	}
	status, body := upload(technician, of, make([]byte, 64<<20+1))
	require.Equal(t, 413, status, body)
	status, body = upload(technician, of, []byte(":0300300002337A1F\n"))
	require.Equal(t, 422, status)
	require.Contains(t, body, "line 1: its checksum is 1F and ought to be 1E")

	machine := s.path("/api/machines/{machine}")
	_, body = viewer.send("GET", machine+"/roms", nil)
	sockets := decoded[[]roms.RomSocket](t, body)
	require.Equal(t, rom.Accepted, sockets[0].Chip.State)
	at := "/api/roms/" + sockets[0].Chip.SHA256
	for _, c := range []struct {
		format string
		want   []byte
	}{{"bin", image}, {"ihex", nil}, {"srec", nil}} {
		status, file := technician.send("GET", at+"/file?format="+c.format, nil)
		require.Equal(t, 200, status)
		read, err := rom.Decode([]byte(file))
		require.NoError(t, err)
		require.Equal(t, image, read.Data)
	}
	for _, closed := range []string{"/file", "/bytes?from=0", "/map", "/against/" + sockets[0].Chip.SHA256} {
		status, body := viewer.send("GET", at+closed, nil)
		require.Equal(t, 403, status, body)
		status, body = technician.send("GET", at+closed, nil)
		require.Equal(t, 200, status, body)
	}
	status, body = viewer.send("GET", at, nil)
	require.Equal(t, 200, status)
	told := decoded[roms.RomView](t, body)
	require.Len(t, told.Holders, 1)
	require.False(t, told.MayHave)
	status, body = curator.send("PUT", at,
		map[string]any{"version": told.Version, "name": "Recorder", "romVersion": "2.0", "public": true})
	require.Equal(t, 200, status, body)
	status, body = curator.send("PUT", at, map[string]any{"version": told.Version, "name": "Other"})
	require.Equal(t, 409, status)
	require.Contains(t, body, `"romVersion":"2.0"`) // what it is now
	status, body = viewer.send("GET", at+"/bytes?from=2040&count=16", nil)
	require.Equal(t, 200, status)
	require.Len(t, decoded[[]roms.HexRow](t, body), 1)
	_, body = viewer.send("GET", "/api/roms?search=recorder", nil)
	require.Equal(t, 1, decoded[roms.RomPage](t, body).Images[0].Sockets)
	status, body = technician.send("POST", at+"/split", map[string]any{"lanes": 3})
	require.Equal(t, 422, status, body)
	_, body = technician.send("POST", at+"/split", map[string]any{"lanes": 2})
	lanes := decoded[[]roms.RomImage](t, body)
	_, body = technician.send("GET", "/api/roms/"+lanes[0].SHA256+"/against/"+lanes[1].SHA256, nil)
	require.NotEmpty(t, decoded[roms.RomComparison](t, body).Cells.Kinds)
	status, _ = technician.send("GET", "/api/roms/"+strings.Repeat("0", 64), nil)
	require.Equal(t, 404, status)
	status, _ = technician.send("GET", "/api/roms/..%2f..", nil)
	require.Equal(t, 422, status)
	// No reader is set up; nothing is begun.
	status, body = technician.send("POST", fmt.Sprintf("/api/assemblies/%d/chip-readings", s.board.ID),
		map[string]any{"designator": "U9", "device": "2716"})
	require.Equal(t, 422, status)
	require.Contains(t, body, "--reader")
	status, _ = viewer.send("GET", "/api/reader", nil)
	require.Equal(t, 403, status)
}

// What leaves as a drawing or a pack names no private person.
func TestDrawingsAndPacksKeepPrivate(t *testing.T) {
	s := newSite(t)
	curator := s.as(t, demo.Accounts[0])
	status, body := curator.send("POST", "/api/parties",
		map[string]any{"name": "Marten Holloway", "kind": "person", "private": true, "role": "a former pilot"})
	require.Equal(t, 201, status, body)
	_, err := s.actions.Sheets.SaveSheet(t.Context(), action.Actor{Role: action.Technician}, s.board.ID, 1,
		"U1 74LS00 8501\nJ1 lead")
	require.NoError(t, err)
	status, body = curator.upload(s.path("/api/machines/{machine}/attachments"), "board.png", shade(t, 1))
	require.Equal(t, 201, status, body)
	picture := decoded[files.Attachment](t, body)
	at := fmt.Sprintf("/api/attachments/%d/annotation", picture.ID)
	drawn := map[string]any{"version": 0, "assemblyId": s.board.ID,
		"annotation": map[string]any{"callouts": []any{map[string]any{"designator": "J1", "x": 0.5, "y": 0.5}},
			"blocks": []any{
				map[string]any{"name": "lead of Marten Holloway", "members": []any{"J1"}, "reaches": []any{}},
			}}}
	status, body = curator.send("PUT", at, drawn)
	require.Equal(t, 200, status, body)
	require.Contains(t, body, "Marten Holloway")
	status, body = curator.send("PUT", at, drawn)
	require.Equal(t, 409, status, body)
	status, body = curator.send("GET", at+".svg?embedded=true", nil)
	require.Equal(t, 200, status)
	require.Contains(t, body, "lead of a former pilot")
	require.NotContains(t, body, "Holloway")
	status, body = curator.send("POST", "/api/own-types/pack",
		map[string]any{"text": "number,class,function,notes\nHX1000,own,timer,asked Marten Holloway", "dry": false})
	require.Equal(t, 200, status, body)
	_, body = curator.send("GET", "/api/own-types.csv", nil)
	require.Contains(t, body, "asked a former pilot")
}
