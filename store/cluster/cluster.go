// Package cluster runs a private PostgreSQL server on loopback, in a folder of its own: for the
// demonstration, which keeps its data, and for tests, which throw it away.
package cluster

import (
	"bytes"
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"net"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
)

// superuser owns the databases of a private cluster.
const superuser = "heron"

// Options say how a cluster runs.
type Options struct {
	// Throwaway trades safety for speed: a crash may lose everything. For tests.
	Throwaway bool
}

// Cluster is a running server.
type Cluster struct {
	folder   string
	programs programs
	port     int
	password string
}

// Start runs the server whose data is in the folder, making it first where needed. A server that
// an earlier process left running there is taken over.
func Start(ctx context.Context, folder string, options Options) (*Cluster, error) {
	found, err := findPrograms()
	if err != nil {
		return nil, err
	}
	c := &Cluster{folder: folder, programs: found}
	if err := c.initialise(ctx, options); err != nil {
		return nil, err
	}
	if c.password, err = c.readPassword(); err != nil {
		return nil, err
	}
	return c, c.start(ctx, options)
}

// URL addresses a database of the cluster.
func (c *Cluster) URL(database string) string { return c.urlAt(c.port, database) }

func (c *Cluster) urlAt(port int, database string) string {
	return (&url.URL{
		Scheme: "postgres", User: url.UserPassword(superuser, c.password),
		Host: net.JoinHostPort("127.0.0.1", strconv.Itoa(port)), Path: "/" + database, RawQuery: "sslmode=disable",
	}).String()
}

// Stop ends the server; connections are cut, transactions rolled back.
func (c *Cluster) Stop() error {
	ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
	defer cancel()
	_, err := c.programs.run(ctx, "pg_ctl", "stop", "-D", c.data(), "-m", "fast", "-w")
	return err
}

// StopAt ends the server that runs on a folder, if one does.
func StopAt(ctx context.Context, folder string) error {
	found, err := findPrograms()
	if err != nil {
		return err
	}
	c := &Cluster{folder: folder, programs: found}
	c.password, err = c.readPassword()
	switch {
	case errors.Is(err, os.ErrNotExist): // none was ever made here
		return nil
	case err != nil:
		return err
	}
	if port, running := c.running(ctx); !running || !c.answers(ctx, port) {
		return nil
	}
	return c.Stop()
}

func (c *Cluster) data() string     { return filepath.Join(c.folder, "postgres") }
func (c *Cluster) logFile() string  { return filepath.Join(c.folder, "postgres.log") }
func (c *Cluster) passFile() string { return filepath.Join(c.folder, "password") }

// initialise makes the data folder unless it is there. A folder that was only half made, because
// somebody stopped it, has no password file yet and is made again.
func (c *Cluster) initialise(ctx context.Context, options Options) error {
	if _, err := os.Stat(c.passFile()); err == nil {
		return nil
	}
	if err := os.RemoveAll(c.data()); err != nil {
		return err
	}
	if err := os.MkdirAll(c.folder, 0o700); err != nil {
		return err
	}
	draft := c.passFile() + ".new"
	if err := os.WriteFile(draft, []byte(rand.Text()), 0o600); err != nil {
		return err
	}
	if err := c.programs.own(c.folder, draft); err != nil {
		return err
	}
	arguments := []string{"-D", c.data(), "-U", superuser, "--pwfile", draft, "--auth", "scram-sha-256", "--encoding",
		"UTF8", "--locale", "C.UTF-8"}
	if options.Throwaway {
		arguments = append(arguments, "--no-sync")
	}
	if _, err := c.programs.run(ctx, "initdb", arguments...); err != nil {
		return err
	}
	return os.Rename(draft, c.passFile())
}

func (c *Cluster) readPassword() (string, error) {
	password, err := os.ReadFile(c.passFile())
	return strings.TrimSpace(string(password)), err
}

// running finds a server that runs on the folder, and its port.
func (c *Cluster) running(ctx context.Context) (port int, running bool) {
	if _, err := c.programs.run(ctx, "pg_ctl", "status", "-D", c.data()); err != nil {
		return 0, false
	}
	// The fourth line of the file holds the port.
	state, err := os.ReadFile(filepath.Join(c.data(), "postmaster.pid"))
	if err != nil {
		return 0, false
	}
	lines := strings.Split(string(state), "\n")
	if len(lines) < 4 {
		return 0, false
	}
	if port, err = strconv.Atoi(strings.TrimSpace(lines[3])); err != nil {
		return 0, false
	}
	return port, true
}

// answers reports whether the server on a port lets us in. One that was just killed still has its
// process id and its port for a moment; one that is just starting lets nobody in yet.
func (c *Cluster) answers(ctx context.Context, port int) bool {
	ctx, cancel := context.WithTimeout(ctx, 2*time.Second)
	defer cancel()
	connection, err := pgx.Connect(ctx, c.urlAt(port, "postgres"))
	if err != nil {
		return false
	}
	defer connection.Close(ctx) //nolint:errcheck // it was only a question
	return connection.Ping(ctx) == nil
}

// Starting is tried again for a while: after a crash, children of the old server may take a
// moment to let go of its memory, and a free port may be taken before the server gets it.
const (
	startTries = 6
	startPause = 2 * time.Second
)

func (c *Cluster) start(ctx context.Context, options Options) error {
	return c.startAt(ctx, options, freePort)
}

// startAt starts the server on the port that choose gives, which is asked anew for each try.
func (c *Cluster) startAt(ctx context.Context, options Options, choose func() (int, error)) (err error) {
	for range startTries {
		if port, running := c.running(ctx); running && c.answers(ctx, port) {
			c.port = port
			return nil
		}
		if c.port, err = choose(); err != nil {
			return err
		}
		settings := fmt.Sprintf("-p %d -c listen_addresses=127.0.0.1 -c unix_socket_directories=''", c.port)
		if options.Throwaway {
			settings += " -c fsync=off -c synchronous_commit=off -c full_page_writes=off"
		}
		if _, err = c.programs.run(ctx, "pg_ctl", "start", "-D", c.data(), "-l", c.logFile(), "-w", "-t", "60", "-o",
			settings); err == nil {
			return nil
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(startPause):
		}
	}
	return fmt.Errorf("%w\nthe end of %s:\n%s", err, c.logFile(), tail(c.logFile()))
}

func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}

func tail(file string) string {
	content, err := os.ReadFile(file)
	if err != nil {
		return err.Error()
	}
	lines := bytes.Split(bytes.TrimSpace(content), []byte("\n"))
	return string(bytes.Join(lines[max(0, len(lines)-8):], []byte("\n")))
}

// ErrNoPostgreSQL is returned when the server's programs are not installed.
var ErrNoPostgreSQL = errors.New("PostgreSQL is not installed; on Debian: apt-get install postgresql")

// programs are PostgreSQL's own, and the user they run as.
type programs struct {
	folder string
	user   *serverUser // nil: as we are
}

func findPrograms() (programs, error) {
	places, _ := filepath.Glob("/usr/lib/postgresql/*/bin/initdb") // the pattern is constant
	if path, err := exec.LookPath("initdb"); err == nil {
		places = append(places, path)
	}
	if len(places) == 0 {
		return programs{}, ErrNoPostgreSQL
	}
	newest := places[0]
	for _, place := range places {
		if versionOf(place) > versionOf(newest) {
			newest = place
		}
	}
	user, err := userForServer()
	return programs{folder: filepath.Dir(newest), user: user}, err
}

func versionOf(initdb string) int {
	version, _ := strconv.Atoi(filepath.Base(filepath.Dir(filepath.Dir(initdb))))
	return version
}

func (p programs) run(ctx context.Context, name string, arguments ...string) (string, error) {
	cmd := exec.CommandContext(ctx, filepath.Join(p.folder, name), arguments...)
	cmd.Dir = "/"
	p.user.apply(cmd)
	// The server inherits what pg_ctl has open, so its output goes to a file, never to a pipe
	// that we would wait for.
	output, err := os.CreateTemp("", "heron-"+name)
	if err != nil {
		return "", err
	}
	defer os.Remove(output.Name())
	defer output.Close()
	cmd.Stdout, cmd.Stderr = output, output
	err = cmd.Run()
	said, _ := os.ReadFile(output.Name())
	if err != nil {
		return "", fmt.Errorf("%s: %w: %s", name, err, bytes.TrimSpace(said))
	}
	return string(said), nil
}

// own gives files to the user that the server runs as.
func (p programs) own(files ...string) error {
	if p.user == nil {
		return nil
	}
	for _, file := range files {
		if err := os.Chown(file, p.user.uid, p.user.gid); err != nil {
			return err
		}
	}
	return nil
}
