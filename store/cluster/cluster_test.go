package cluster_test

import (
	"context"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/store/cluster"
	"frugalheron/store/pg"
)

// What was committed is there after the server was killed without warning, and a cluster that was
// left running is taken over.
func TestCommittedSurvivesKill(t *testing.T) {
	ctx := context.Background()
	// Not t.TempDir: the server's own user must be able to enter every folder above.
	folder, err := os.MkdirTemp("", "heron-cluster-")
	require.NoError(t, err)
	t.Cleanup(func() { os.RemoveAll(folder) })
	running, err := cluster.Start(ctx, folder, cluster.Options{})
	require.NoError(t, err)
	again, err := cluster.Start(ctx, folder, cluster.Options{})
	require.NoError(t, err)
	require.Equal(t, running.URL("postgres"), again.URL("postgres"))

	db, err := pg.Open(ctx, running.URL("postgres"))
	require.NoError(t, err)
	_, err = db.Exec(`CREATE TABLE kept (body text); INSERT INTO kept VALUES ('U1 74LS00')`)
	require.NoError(t, err)
	db.Close()

	state, err := os.ReadFile(filepath.Join(folder, "postgres", "postmaster.pid"))
	require.NoError(t, err)
	first, _, _ := strings.Cut(string(state), "\n")
	pid, err := strconv.Atoi(first)
	require.NoError(t, err)
	require.NoError(t, syscall.Kill(pid, syscall.SIGKILL))

	restarted, err := cluster.Start(ctx, folder, cluster.Options{})
	require.NoError(t, err)
	defer restarted.Stop() //nolint:errcheck // the folder goes anyway
	db, err = pg.Open(ctx, restarted.URL("postgres"))
	require.NoError(t, err)
	defer db.Close()
	var body string
	require.NoError(t, db.Get(&body, `SELECT body FROM kept`))
	require.Equal(t, "U1 74LS00", body)
}
