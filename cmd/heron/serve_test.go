package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/cookiejar"
	"os"
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/store/storetest"
)

// process is the command running on its own.
type process struct {
	*exec.Cmd
	url string
	t   *testing.T
}

func startServing(t *testing.T, database string, more ...string) *process {
	cmd := exec.Command(os.Args[0], append([]string{"serve", "--listen", "127.0.0.1:0"}, more...)...)
	cmd.Env = append(os.Environ(), asMain+"=1", "HERON_DATABASE_URL="+database)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	var said bytes.Buffer
	cmd.Stderr = &said
	require.NoError(t, cmd.Start())
	t.Cleanup(func() {
		if cmd.ProcessState == nil {
			cmd.Process.Kill() //nolint:errcheck // it may be gone
			cmd.Wait()         //nolint:errcheck
		}
	})
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err, said.String())
	_, url, found := strings.Cut(strings.TrimSpace(line), "serves on ")
	require.True(t, found, line)
	return &process{cmd, url, t}
}

func (p *process) send(client *http.Client, method, path string, body any) (int, string) {
	encoded, err := json.Marshal(body)
	require.NoError(p.t, err)
	request, err := http.NewRequest(method, p.url+path, bytes.NewReader(encoded))
	require.NoError(p.t, err)
	request.Header.Set("Content-Type", "application/json")
	response, err := client.Do(request)
	require.NoError(p.t, err)
	defer response.Body.Close()
	text, err := io.ReadAll(response.Body)
	require.NoError(p.t, err)
	return response.StatusCode, string(text)
}

// A first start without the demonstration: the curator's account comes from the command line, and
// what the server called saved is there after it was killed. The session is, too.
func TestServeFirstStartAndKill(t *testing.T) {
	database := storetest.Empty(t)
	for _, test := range []struct {
		password string
		status   int
	}{{"short\n", 1}, {"", 1}, {"long enough for one\n", 0}, {"long enough for one\n", 1}} {
		status, out, err := heron(test.password, "user", "add", "ida", "--role", "curator", "--database-url", database)
		require.Equal(t, test.status, status, "%q: %v %s", test.password, err, out)
	}
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	client := &http.Client{Jar: jar}

	first := startServing(t, database)
	status, _ := first.send(client, "POST", "/api/session",
		map[string]string{"login": "ida", "password": "long enough for one"})
	require.Equal(t, 200, status)
	status, body := first.send(client, "POST", "/api/machines", map[string]string{"accession": "EH-1", "name": "Kept"})
	require.Equal(t, 201, status, body)
	status, body = first.send(client, "POST", "/api/machines/1/assemblies", map[string]string{"title": "Main board"})
	require.Equal(t, 201, status, body)
	status, body = first.send(client, "PUT", "/api/assemblies/1/sheet",
		map[string]any{"base": 0, "body": "U1 74LS00 8501"})
	require.Equal(t, 200, status, body)
	require.NoError(t, first.Process.Kill())
	first.Wait() //nolint:errcheck // killed on purpose

	second := startServing(t, database)
	status, body = second.send(client, "GET", "/api/assemblies/1/sheet", nil)
	require.Equal(t, 200, status, body)
	require.Contains(t, body, "U1 74LS00 8501")

	// Asked to stop, it stops in order.
	require.NoError(t, second.Process.Signal(os.Interrupt))
	require.NoError(t, second.Wait())
}

func TestServeSaysThatThePortIsTaken(t *testing.T) {
	taken, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer taken.Close()
	status, _, err := heron("", "serve", "--listen", taken.Addr().String(), "--database-url", storetest.URL(t))
	require.Equal(t, exitFailed, status)
	require.ErrorContains(t, err, "in use by another program")
	status, _, err = heron("", "demo", "--port", fmt.Sprint(taken.Addr().(*net.TCPAddr).Port), "--data", t.TempDir())
	require.Equal(t, exitFailed, status)
	require.ErrorContains(t, err, "PORT=8081")
}
