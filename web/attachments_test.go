package web_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"io"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/files"
	"frugalheron/app/picture"
	"frugalheron/demo"
)

func shade(t testing.TB, n int) []byte {
	canvas := image.NewGray(image.Rect(0, 0, 64, 48))
	for i := range canvas.Pix {
		canvas.Pix[i] = byte(i * (n + 1))
	}
	canvas.Set(0, 0, color.Gray{byte(n)})
	var file bytes.Buffer
	require.NoError(t, png.Encode(&file, canvas))
	return file.Bytes()
}

func TestPicturesComeManyAtOnceAndStay(t *testing.T) {
	s := newSite(t)
	curator, viewer := s.as(t, demo.Accounts[0]), s.as(t, demo.Accounts[2])
	path := s.path("/api/machines/{machine}/attachments")
	const many = 24
	ids := make([]int64, many)
	var all sync.WaitGroup
	for i := range many {
		all.Go(func() {
			status, body := curator.upload(path, fmt.Sprintf("photo %d.png", i), shade(t, i))
			if status == 201 {
				var one files.Attachment
				json.Unmarshal([]byte(body), &one) //nolint:errcheck // its id is looked at below
				ids[i] = one.ID
			}
		})
	}
	all.Wait()
	for i, id := range ids {
		require.NotZero(t, id)
		_, original := curator.send("GET", fmt.Sprintf("/api/attachments/%d/original", id), nil)
		require.Equal(t, string(shade(t, i)), original)
	}
	// The same content again is the same attachment; struck out, it comes back.
	again := func() files.Attachment {
		status, body := curator.upload(path, "again.png", shade(t, 3))
		require.Equal(t, 201, status)
		var one files.Attachment
		require.NoError(t, json.Unmarshal([]byte(body), &one))
		return one
	}
	one := again()
	require.Equal(t, ids[3], one.ID)
	status, body := curator.send("POST", fmt.Sprintf("/api/attachments/%d/void", one.ID),
		map[string]int{"version": one.Version})
	require.Equal(t, 200, status, body)
	require.Equal(t, many-1, s.count(t, viewer, path))
	require.Equal(t, ids[3], again().ID)
	require.Equal(t, many, s.count(t, viewer, path))

	// A viewer sees the picture, not its original.
	response := viewer.do("GET", fmt.Sprintf("/api/attachments/%d/view?size=thumb", ids[0]), nil, nil)
	shown, err := io.ReadAll(response.Body)
	require.NoError(t, err)
	response.Body.Close()
	require.Equal(t, 200, response.StatusCode)
	require.Equal(t, "image/jpeg", response.Header.Get("Content-Type"))
	require.Contains(t, response.Header.Get("Cache-Control"), "private")
	require.Equal(t, "\xff\xd8\xff", string(shown[:3]))
	status, _ = viewer.send("GET", fmt.Sprintf("/api/attachments/%d/original", ids[0]), nil)
	require.Equal(t, 403, status)

	// Where it was taken stays with the original.
	var photo bytes.Buffer
	require.NoError(t, jpeg.Encode(&photo, image.NewGray(image.Rect(0, 0, 400, 300)), nil))
	position := "Exif\x00\x00LATITUDE 51.4321"
	data := append([]byte("\xff\xd8\xff\xe1\x00"+string(rune(len(position)+2))+position), photo.Bytes()[2:]...)
	status, body = curator.upload(path, "from a phone.jpg", data)
	require.Equal(t, 201, status, body)
	require.NoError(t, json.Unmarshal([]byte(body), &one))
	for _, size := range []string{"thumb", "screen", "full"} {
		status, body = viewer.send("GET", fmt.Sprintf("/api/attachments/%d/view?size=%s", one.ID, size), nil)
		require.Equal(t, 200, status)
		require.NotContains(t, body, "LATITUDE", size)
	}
	_, body = curator.send("GET", fmt.Sprintf("/api/attachments/%d/original", one.ID), nil)
	require.Contains(t, body, "LATITUDE")

	// What cites it keeps it.
	status, body = curator.send("POST", s.path("/api/machines/{machine}/evidence"), map[string]any{
		"attribute": "serial", "value": "TV2-1", "kind": "label", "pictureId": ids[1],
		"region": map[string]float64{"x": 0.1, "y": 0.1, "w": 0.5, "h": 0.2},
	})
	require.Equal(t, 201, status, body)
	status, body = curator.send("POST", fmt.Sprintf("/api/attachments/%d/void", ids[1]), map[string]int{"version": 1})
	require.Equal(t, 422, status)
	require.Contains(t, problemOf(t, body).Detail, "1 statements cite it")
}

func (s *site) count(t *testing.T, c *client, path string) int {
	status, body := c.send("GET", path, nil)
	require.Equal(t, 200, status)
	var page struct{ Attachments []files.Attachment }
	require.NoError(t, json.Unmarshal([]byte(body), &page))
	return len(page.Attachments)
}

func TestFilesThatAreNotTakenSayWhy(t *testing.T) {
	s := newSite(t)
	curator := s.as(t, demo.Accounts[0])
	path := s.path("/api/machines/{machine}/attachments")
	for reason, file := range map[string]struct {
		name string
		data []byte
	}{
		"leads into another folder": {"../etc/photo.png", shade(t, 1)},
		"is a program":              {"photo.jpg", []byte("MZ\x90\x00")},
		"may carry a script":        {"drawing.svg", []byte("<svg><script>1</script></svg>")},
	} {
		status, body := curator.upload(path, file.name, file.data)
		require.Equal(t, 422, status, reason)
		require.Contains(t, problemOf(t, body).Detail, reason)
	}
	status, _ := curator.upload(path, "large.png", make([]byte, picture.MostBytes+2))
	require.Equal(t, 413, status)
	status, _ = curator.upload("/api/machines/9999/attachments", "photo.png", shade(t, 1))
	require.Equal(t, 404, status)
	require.Zero(t, s.count(t, curator, path))
}
