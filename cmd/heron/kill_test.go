package main

import (
	"bytes"
	"context"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/cookiejar"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/store/cluster"
)

// kills is how often server or database are killed: go test ./cmd/heron -run TestKillsLoseNothing -kills 100
var kills = flag.Int("kills", 4, "how often server or database are killed")

// writer writes machines and pictures, and sends each again with its key until it is acknowledged.
type writer struct {
	t       *testing.T
	client  *http.Client
	url     string // of the server that runs now
	machine int64
	kept    map[string]string // accession -> name, acknowledged
	files   map[int64]string  // attachment -> content, acknowledged
}

// try sends a request once; ok is false when there was no answer, or none yet.
func (w *writer) try(key, path, contentType string, body []byte) (answer []byte, ok bool) {
	request, err := http.NewRequest("POST", w.url+path, bytes.NewReader(body))
	require.NoError(w.t, err)
	request.Header.Set("Content-Type", contentType)
	request.Header.Set("Idempotency-Key", key)
	response, err := w.client.Do(request)
	if err != nil {
		return nil, false
	}
	defer response.Body.Close()
	answer, err = io.ReadAll(response.Body)
	if err != nil {
		return nil, false
	}
	if response.StatusCode >= 500 {
		require.Equal(w.t, http.StatusServiceUnavailable, response.StatusCode, "%s", answer)
		require.NotEmpty(w.t, response.Header.Get("Retry-After"))
		return nil, false
	}
	if response.StatusCode == http.StatusConflict {
		// Done, and its answer lost with the server; or the server that began it is gone.
		return answer, bytes.Contains(answer, []byte("Done already"))
	}
	require.Equal(w.t, http.StatusCreated, response.StatusCode, "%s", answer)
	return answer, true
}

// write writes the nth machine and file, each until it is acknowledged or the time is over.
func (w *writer) write(n int, until time.Time) {
	accession := fmt.Sprintf("EH-%d", n)
	machine, err := json.Marshal(map[string]string{"accession": accession, "name": "Terminal " + strconv.Itoa(n)})
	require.NoError(w.t, err)
	file := []byte(fmt.Sprintf("page %d\n%s", n, strings.Repeat("words of a letter ", n%2000)))
	isKept, isFiled := false, false
	for time.Now().Before(until) && !(isKept && isFiled) {
		if !isKept {
			if _, isKept = w.try("machine-"+accession, "/api/machines", "application/json", machine); isKept {
				w.kept[accession] = "Terminal " + strconv.Itoa(n)
			}
		}
		if !isFiled {
			var answer []byte
			path := fmt.Sprintf("/api/machines/%d/attachments?name=letter-%d.txt", w.machine, n)
			if answer, isFiled = w.try("file-"+accession, path, "application/octet-stream", file); isFiled {
				var added struct{ ID int64 }
				require.NoError(w.t, json.Unmarshal(answer, &added))
				if added.ID != 0 {
					w.files[added.ID] = string(file)
				}
			}
		}
		time.Sleep(5 * time.Millisecond)
	}
}

// Server and database are killed in the middle of writing: what was acknowledged is there, once, files included.
func TestKillsLoseNothing(t *testing.T) {
	folder, err := os.MkdirTemp("", "heron-kill-") // the database's own user has to be able to enter it
	require.NoError(t, err)
	t.Cleanup(func() { os.RemoveAll(folder) })
	files := t.TempDir()
	running, err := cluster.Start(t.Context(), folder, cluster.Options{})
	require.NoError(t, err)
	defer running.Stop() //nolint:errcheck // the folder goes anyway
	watching, unwatch := context.WithCancel(t.Context())
	watched := make(chan struct{})
	go func() {
		defer close(watched)
		running.Watch(watching, cluster.Options{}, func(what string) { t.Log(what) })
	}()
	defer func() { unwatch(); <-watched }()
	database := running.URL("postgres")
	status, out, errors := heron("long enough for one\n", "user", "add", "ida", "--role", "curator", "--database-url",
		database)
	require.Equal(t, 0, status, out, errors)

	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	w := &writer{t: t, client: &http.Client{Jar: jar, Timeout: 20 * time.Second}, kept: map[string]string{},
		files: map[int64]string{}}
	serving := startServing(t, database, "--blobs", files)
	w.url = serving.url
	status, _ = serving.send(w.client, "POST", "/api/session",
		map[string]string{"login": "ida", "password": "long enough for one"})
	require.Equal(t, 200, status)
	status, body := serving.send(w.client, "POST", "/api/machines",
		map[string]string{"accession": "EH-0", "name": "First"})
	require.Equal(t, 201, status, body)
	var first struct{ ID int64 }
	require.NoError(t, json.Unmarshal([]byte(body), &first))
	w.machine = first.ID

	n := 0
	for range *kills {
		until := time.Now().Add(time.Duration(150+rand.IntN(250)) * time.Millisecond)
		victim := serving.Process.Pid
		isServer := rand.IntN(2) == 0
		if !isServer {
			victim = postmaster(t, folder)
		}
		killed := make(chan error, 1)
		time.AfterFunc(time.Until(until)-time.Duration(rand.IntN(100))*time.Millisecond, func() {
			killed <- syscall.Kill(victim, syscall.SIGKILL)
		})
		for time.Now().Before(until) {
			n++
			w.write(n, until)
		}
		require.NoError(t, <-killed)
		if isServer {
			serving.Wait() //nolint:errcheck // it was killed
			// Children of a database that was killed before may have gone on for a while.
			require.Eventually(t, func() bool {
				status, _, _ := heron("", "db", "migrate", "--database-url", database)
				return status == 0
			}, 2*time.Minute, 200*time.Millisecond)
			serving = startServing(t, database, "--blobs", files)
			w.url = serving.url
		}
		require.Eventually(t, func() bool {
			response, err := http.Get(w.url + "/readyz")
			if err != nil {
				return false
			}
			response.Body.Close()
			return response.StatusCode == http.StatusOK
		}, 2*time.Minute, 50*time.Millisecond)
		// What was under way is sent again.
		w.write(n, time.Now().Add(2*time.Minute))
	}
	require.Greater(t, len(w.kept), *kills)
	for accession, name := range w.kept {
		status, body := serving.send(w.client, "GET", "/api/find?words="+accession, nil)
		require.Equal(t, 200, status)
		require.Contains(t, body, fmt.Sprintf("%q", name))
	}
	for id, content := range w.files {
		status, body := serving.send(w.client, "GET", fmt.Sprintf("/api/attachments/%d/original", id), nil)
		require.Equal(t, 200, status, body)
		require.Equal(t, content, body)
	}
	t.Logf("%d machines and %d files through %d kills", len(w.kept), len(w.files), *kills)
}

// postmaster is the process of the database.
func postmaster(t *testing.T, folder string) int {
	state, err := os.ReadFile(filepath.Join(folder, "postgres", "postmaster.pid"))
	require.NoError(t, err)
	first, _, _ := strings.Cut(string(state), "\n")
	pid, err := strconv.Atoi(first)
	require.NoError(t, err)
	return pid
}
