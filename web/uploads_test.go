package web_test

import (
	"bufio"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/app/files"
	"frugalheron/app/picture"
	"frugalheron/demo"
)

// filesOf lists the files that a site keeps below a room of its store.
func (s *site) filesOf(t *testing.T, room string) []string {
	found := []string{}
	require.NoError(t, filepath.WalkDir(filepath.Join(s.files, room),
		func(path string, entry os.DirEntry, err error) error {
			if err == nil && !entry.IsDir() {
				found = append(found, path)
			}
			return err
		}))
	return found
}

// A file that is missing or damaged is told, never shown; bringing it again mends it. Views are made anew.
func TestMissingAndDamagedFilesAreTold(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[1])
	picturePath := s.path("/api/machines/{machine}/attachments")
	data := shade(t, 7)
	status, body := c.upload(picturePath, "board.png", data)
	require.Equal(t, 201, status, body)
	kept := decoded[files.Attachment](t, body)
	at := fmt.Sprintf("/api/attachments/%d", kept.ID)
	_, first := c.send("GET", at+"/view?size=thumb", nil)
	originals, views := s.filesOf(t, "originals"), s.filesOf(t, "views")
	require.Len(t, originals, 1)
	require.Len(t, views, 2, "a small picture is shown whole by the view for screens")

	for _, view := range views {
		require.NoError(t, os.WriteFile(view, []byte("damaged"), 0o600))
	}
	status, again := c.send("GET", at+"/view?size=thumb", nil)
	require.Equal(t, 200, status)
	require.Equal(t, first, again)
	status, _ = c.send("GET", at+"/view?size=full", nil)
	require.Equal(t, 200, status)

	for _, damage := range [][]byte{data[:len(data)/2], append([]byte("x"), data[1:]...), nil} {
		if damage == nil {
			require.NoError(t, os.Remove(originals[0]))
		} else {
			require.NoError(t, os.WriteFile(originals[0], damage, 0o600))
		}
		status, body := c.send("GET", at+"/original", nil)
		require.Equal(t, http.StatusGone, status)
		require.Contains(t, problemOf(t, body).Detail, "Upload the same file again")
		status, _ = c.send("GET", at+"/view?size=screen", nil)
		require.Equal(t, 200, status, "the view is whole")
		status, body = c.upload(picturePath, "board.png", data)
		require.Equal(t, 201, status, body)
		require.Equal(t, kept.ID, decoded[files.Attachment](t, body).ID)
		status, body = c.send("GET", at+"/original", nil)
		require.Equal(t, 200, status)
		require.Equal(t, string(data), body)
	}
	// With the view gone as well, nothing can be made of a damaged original.
	require.NoError(t, os.WriteFile(originals[0], data[:10], 0o600))
	for _, view := range s.filesOf(t, "views") {
		require.NoError(t, os.Remove(view))
	}
	status, _ = c.send("GET", at+"/view?size=screen", nil)
	require.Equal(t, http.StatusGone, status)
}

// What is too large is refused before it is read, what is cut off is not kept, and many at once wait for their turn.
func TestUploadsWaitForTheirTurn(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[1])
	path := s.path("/api/machines/{machine}/attachments")
	session := sessionIn(c.http.Jar.Cookies(mustParse(t, s.URL)))
	// raw begins an upload by hand, with more lines of its head, and returns its connection.
	raw := func(length int, more string) net.Conn {
		connection, err := net.Dial("tcp", strings.TrimPrefix(s.URL, "http://"))
		require.NoError(t, err)
		t.Cleanup(func() { connection.Close() })
		_, err = fmt.Fprintf(connection,
			"POST %s?name=x.txt HTTP/1.1\r\nHost: heron\r\nCookie: heron_session=%s\r\nContent-Type: application/octet-stream\r\nContent-Length: %d\r\n%s\r\n", path, session, length, more)
		require.NoError(t, err)
		return connection
	}
	answered := func(connection net.Conn) (int, string) {
		require.NoError(t, connection.SetReadDeadline(time.Now().Add(time.Minute)))
		response, err := http.ReadResponse(bufio.NewReader(connection), nil)
		require.NoError(t, err)
		defer response.Body.Close()
		text, err := io.ReadAll(response.Body)
		require.NoError(t, err)
		return response.StatusCode, string(text)
	}
	status, body := answered(raw(picture.MostBytes+1, ""))
	require.Equal(t, http.StatusRequestEntityTooLarge, status)
	require.Contains(t, body, "up to 64 MB")

	cut := raw(1000, "")
	_, err := cut.Write([]byte("half of it"))
	require.NoError(t, err)
	require.NoError(t, cut.(*net.TCPConn).CloseWrite())
	status, body = answered(cut)
	require.Equal(t, http.StatusBadRequest, status)
	require.Contains(t, body, "nothing of it was kept")
	require.NoDirExists(t, filepath.Join(s.files, "originals"))

	// Four that are slow hold their turns; the fifth waits, and is taken once one of them is done.
	slow := make([]net.Conn, 4)
	for i := range slow {
		slow[i] = raw(10, "Expect: 100-continue\r\n")
		// The server says so when it is about to read, which it is once the upload has its turn.
		goOn := make([]byte, len("HTTP/1.1 100 Continue\r\n\r\n"))
		require.NoError(t, slow[i].SetReadDeadline(time.Now().Add(time.Minute)))
		_, err := io.ReadFull(slow[i], goOn)
		require.NoError(t, err)
		require.Contains(t, string(goOn), "100 Continue")
	}
	fifth := make(chan string, 1)
	var waiting sync.WaitGroup
	waiting.Go(func() {
		_, body := c.upload(path, "fifth.txt", []byte("the fifth file"))
		fifth <- body
	})
	select {
	case body := <-fifth:
		t.Fatal("it did not wait: " + body)
	case <-time.After(300 * time.Millisecond):
	}
	_, err = slow[0].Write([]byte("a slow one"))
	require.NoError(t, err)
	status, body = answered(slow[0])
	require.Equal(t, 201, status, body)
	var kept files.Attachment
	require.NoError(t, json.Unmarshal([]byte(<-fifth), &kept))
	require.NotZero(t, kept.ID)
	waiting.Wait()
	// Somebody else need not wait for them.
	status, body = s.as(t, demo.Accounts[0]).upload(path, "other.txt", []byte("of somebody else"))
	require.Equal(t, 201, status, body)
}

func mustParse(t *testing.T, address string) *url.URL {
	parsed, err := url.Parse(address)
	require.NoError(t, err)
	return parsed
}
