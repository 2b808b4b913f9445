package web_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/files"
	"frugalheron/demo"
)

var privateName = regexp.MustCompile(`(?i)holloway|fenwick`)

// Whatever is read, a viewer never receives the name of a private person, and neither does anybody who
// takes a file away: every operation that reads is tried on the whole sample world.
func TestNamesOfPrivatePersonsStayWithStaff(t *testing.T) {
	s := emptySite(t)
	require.NoError(t, demo.Seed(t.Context(), s.actions, func(string) {}))

	curator, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[2])
	machine := curator.first(t, "/api/machines?search=EH-0142", "machines")
	status, body := curator.upload(fmt.Sprintf("/api/machines/%d/attachments", machine), "letter of M. Holloway.txt",
		[]byte("Dear Ottilie,\nthe machine was mine.\nMarten\u00a0 HOLLOWAY"))
	require.Equal(t, 201, status, body)
	var letter files.Attachment
	require.NoError(t, json.Unmarshal([]byte(body), &letter))
	require.True(t, letter.StaffOnly)
	letterPath := fmt.Sprintf("/api/attachments/%d", letter.ID)
	status, _ = viewer.send("GET", letterPath, nil)
	require.Equal(t, 404, status)
	status, body = curator.send("PUT", letterPath,
		map[string]any{"version": letter.Version, "staffOnly": false, "caption": "Letter of Capt. Holloway"})
	require.Equal(t, 200, status, body)

	seenByStaff, read := 0, 0
	for _, op := range s.server.Operations() {
		if op.Method != http.MethodGet {
			continue
		}
		for id := 1; id <= 40; id++ {
			path := strings.NewReplacer("{id}", fmt.Sprint(id), "{thing}", fmt.Sprint(id)).Replace(op.Path)
			if !strings.Contains(op.Path, "{id}") {
				if id > 1 {
					break
				}
				path += map[string]string{"find": "?words=pilot", "list-types": "?start=41",
					"count-holding": "?start=41", "list-library": "?start=41",
					"find-occurrences": "?number=41256"}[op.OperationID]
			}
			status, body := viewer.send("GET", path, nil)
			require.NotEqual(t, 500, status, path)
			require.NotRegexp(t, privateName, body, "viewer reads %s", path)
			if status == 200 {
				read++
			}
			_, body = curator.send("GET", path, nil)
			if privateName.MatchString(body) {
				seenByStaff++
				require.NotRegexp(t, `\.(txt|csv|json)$`, path, "taken away by a curator")
			}
		}
	}
	require.Greater(t, read, 200)
	require.Greater(t, seenByStaff, 10)
	_, body = viewer.send("GET", letterPath+"/original", nil)
	require.Equal(t, "Dear Ottilie,\nthe machine was mine.\na former pilot", body)
	_, body = viewer.send("GET", fmt.Sprintf("/api/machines/%d/dossier", machine), nil)
	require.Contains(t, body, "a former pilot")
	_, body = viewer.send("GET", "/api/lots?words=quill+holloway", nil)
	require.Contains(t, body, `"lots":[]`)
}

// first reads the id of the first record of a list.
func (c *client) first(t *testing.T, path, list string) int64 {
	status, body := c.send("GET", path, nil)
	require.Equal(t, 200, status)
	var page map[string]json.RawMessage
	require.NoError(t, json.Unmarshal([]byte(body), &page))
	var records []struct{ ID int64 }
	require.NoError(t, json.Unmarshal(page[list], &records))
	require.NotEmpty(t, records)
	return records[0].ID
}
