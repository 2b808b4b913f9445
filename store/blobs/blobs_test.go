package blobs_test

import (
	"context"
	"os"
	"path/filepath"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/store/blobs"
)

var ctx = context.Background()

// What is kept under a key never changes, is found by other processes, and is never half.
func TestWhatIsKeptStays(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "not there yet")
	kept, err := blobs.Open(ctx, folder)
	require.NoError(t, err)
	_, err = kept.Get(ctx, "originals/ab/abc")
	require.ErrorIs(t, err, blobs.ErrNotFound)

	var all sync.WaitGroup
	for range 8 {
		all.Go(func() { kept.Put(ctx, "originals/ab/abc", []byte("first"), "text/plain") }) //nolint:errcheck // looked at below
	}
	all.Wait()
	require.NoError(t, kept.Put(ctx, "originals/ab/abc", []byte("second"), "text/plain"))
	require.NoError(t, kept.Close())

	again, err := blobs.Open(ctx, folder)
	require.NoError(t, err)
	defer again.Close()
	data, err := again.Get(ctx, "originals/ab/abc")
	require.NoError(t, err)
	require.Equal(t, "first", string(data))
	// Nothing half lies about: one file, with all of it.
	files := []string{}
	require.NoError(t, filepath.WalkDir(folder, func(path string, entry os.DirEntry, err error) error {
		if err == nil && !entry.IsDir() {
			files = append(files, filepath.Base(path))
		}
		return err
	}))
	require.Equal(t, []string{"abc"}, files)
}

func TestWhereNothingCanBeKept(t *testing.T) {
	file := filepath.Join(t.TempDir(), "a file")
	require.NoError(t, os.WriteFile(file, nil, 0o600))
	for _, where := range []string{filepath.Join(file, "below"), "carrier-pigeon://loft"} {
		_, err := blobs.Open(ctx, where)
		require.Error(t, err, where)
	}
}
