package main

import (
	"bufio"
	"net/http"
	"net/http/cookiejar"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/demo"
)

// startDemo runs the demonstration on a folder until it says how to stop it.
func startDemo(t *testing.T, folder string, flags ...string) (*process, []string) {
	cmd := exec.Command(os.Args[0], append([]string{"demo", "--port", "0", "--data", folder}, flags...)...)
	cmd.Env = append(os.Environ(), asMain+"=1")
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	cmd.Stderr = os.Stderr
	require.NoError(t, cmd.Start())
	t.Cleanup(func() {
		if cmd.ProcessState == nil {
			cmd.Process.Signal(os.Interrupt) //nolint:errcheck // it may be gone
			cmd.Wait()                       //nolint:errcheck
		}
	})
	p, said := &process{Cmd: cmd, t: t}, []string{}
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		said = append(said, lines.Text())
		if _, url, found := strings.Cut(lines.Text(), "sample world:  "); found {
			p.url = url
		}
		if strings.HasPrefix(lines.Text(), "Ctrl-C") {
			go func() { // what it says while stopping must not block it
				for lines.Scan() {
				}
			}()
			return p, said
		}
	}
	require.Fail(t, "the demonstration ended", strings.Join(said, "\n"))
	return nil, nil
}

func (p *process) interrupt() {
	require.NoError(p.t, p.Process.Signal(os.Interrupt))
	require.NoError(p.t, p.Wait())
}

// The sample world is seeded once, everything is stopped on Ctrl-C, the data are there next time,
// and two demonstrations keep off each other's data.
func TestDemo(t *testing.T) {
	folder, err := os.MkdirTemp("", "heron-demo-") // not t.TempDir: the server's own user must get in
	require.NoError(t, err)
	require.NoError(t, os.Chmod(folder, 0o755))
	t.Cleanup(func() { os.RemoveAll(folder) })
	signIn := func(p *process) *http.Client {
		jar, err := cookiejar.New(nil)
		require.NoError(t, err)
		client := &http.Client{Jar: jar}
		status, body := p.send(client, "POST", "/api/session",
			map[string]string{"login": demo.Accounts[0].Login, "password": demo.Accounts[0].Password})
		require.Equal(t, 200, status, body)
		return client
	}

	first, said := startDemo(t, folder)
	told := strings.Join(said, "\n")
	for _, account := range demo.Accounts {
		require.Contains(t, told, account.Login)
		require.Contains(t, told, account.Password)
	}
	require.Contains(t, told, "machine 14 of 14")
	client := signIn(first)
	status, body := first.send(client, "POST", "/api/machines",
		map[string]string{"accession": "EH-0999", "name": "Kept"})
	require.Equal(t, 201, status, body)
	refused, _, err := heron("", "demo", "--port", "0", "--data", folder)
	require.Equal(t, exitFailed, refused)
	require.ErrorContains(t, err, "another demonstration uses the data")
	first.interrupt()
	state, err := os.ReadFile(filepath.Join(folder, "cluster", "postgres", "postmaster.pid"))
	require.ErrorIs(t, err, os.ErrNotExist, "the database still runs: %s", state)

	second, said := startDemo(t, folder)
	require.NotContains(t, strings.Join(said, "\n"), "machine 1 of")
	status, body = second.send(signIn(second), "GET", "/api/machines?search=EH-0999", nil)
	require.Equal(t, 200, status)
	require.Contains(t, body, `"total":1`)
	// What is confirmed as uploaded is kept, whatever happens right afterwards.
	response, err := signIn(second).Post(second.url+"/api/machines/1/attachments?name=note.txt",
		"application/octet-stream", strings.NewReader("found under the lid"))
	require.NoError(t, err)
	response.Body.Close()
	require.Equal(t, 201, response.StatusCode)

	// Killed without warning, it leaves its database running; the next start takes that over, and
	// starting over begins with the sample world alone.
	require.NoError(t, second.Process.Signal(syscall.SIGKILL))
	second.Wait() //nolint:errcheck // killed on purpose
	files := 0
	require.NoError(t, filepath.WalkDir(filepath.Join(folder, "blobs", "originals"),
		func(path string, entry os.DirEntry, err error) error {
			if text, _ := os.ReadFile(path); string(text) == "found under the lid" {
				files++
			}
			return err
		}))
	require.Equal(t, 1, files)
	third, said := startDemo(t, folder, "--reset")
	require.Contains(t, strings.Join(said, "\n"), "machine 14 of 14")
	status, body = third.send(signIn(third), "GET", "/api/machines?search=EH-0999", nil)
	require.Equal(t, 200, status)
	require.Contains(t, body, `"total":0`)
	third.interrupt()

	// Where others can reach it, the sample passwords are no good; they are back on loopback.
	open, said := startDemo(t, folder, "--host", "0.0.0.0")
	told = strings.Join(said, "\n")
	require.Contains(t, told, "WARNING")
	password := regexp.MustCompile(`ottilie +with password (\S+)`).FindStringSubmatch(told)[1]
	for given, want := range map[string]int{demo.Accounts[0].Password: 401, password: 200} {
		status, _ := open.send(http.DefaultClient, "POST", "/api/session",
			map[string]string{"login": demo.Accounts[0].Login, "password": given})
		require.Equal(t, want, status)
	}
	open.interrupt()
	again, _ := startDemo(t, folder)
	signIn(again)
	again.interrupt()
}
