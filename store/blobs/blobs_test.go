package blobs_test

import (
	"context"
	"errors"
	"os"
	"path/filepath"
	"sync"
	"syscall"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/store/blobs"
)

var ctx = context.Background()

// filesIn lists the names of all files below a folder.
func filesIn(t *testing.T, folder string) []string {
	files := []string{}
	require.NoError(t, filepath.WalkDir(folder, func(path string, entry os.DirEntry, err error) error {
		if err == nil && !entry.IsDir() {
			files = append(files, path)
		}
		return err
	}))
	return files
}

// bothStores runs a test on a folder and on an S3-compatible store.
func bothStores(t *testing.T, test func(t *testing.T, reopen func() *blobs.Store)) {
	t.Run("folder", func(t *testing.T) {
		where := filepath.Join(t.TempDir(), "not there yet")
		test(t, func() *blobs.Store { return open(t, where) })
	})
	t.Run("s3", func(t *testing.T) {
		where := startS3(t, "pictures")
		test(t, func() *blobs.Store { return open(t, where) })
	})
}

func open(t *testing.T, where string) *blobs.Store {
	kept, err := blobs.Open(ctx, where)
	require.NoError(t, err)
	return kept
}

// Content is named by its sum, kept once however many bring it, and found by other processes.
func TestWhatIsKeptStays(t *testing.T) {
	bothStores(t, func(t *testing.T, reopen func() *blobs.Store) {
		kept, data := reopen(), []byte("a board picture")
		sum := blobs.Sum(data)
		_, err := kept.Content(ctx, blobs.Originals, sum)
		require.ErrorIs(t, err, blobs.ErrNotFound)
		var all sync.WaitGroup
		failed := make(chan error, 8)
		for range 8 {
			all.Go(func() {
				_, err := kept.PutContent(ctx, blobs.Originals, data, "text/plain")
				failed <- err
			})
		}
		all.Wait()
		for range 8 {
			require.NoError(t, <-failed)
		}
		for _, more := range []string{"", "an image"} {
			_, err := kept.PutContent(ctx, blobs.Roms, []byte(more), "application/octet-stream")
			require.NoError(t, err)
		}
		again := reopen()
		found, err := again.Content(ctx, blobs.Originals, sum)
		require.NoError(t, err)
		require.Equal(t, data, found)
		_, err = again.Content(ctx, blobs.Roms, sum)
		require.ErrorIs(t, err, blobs.ErrNotFound, "it was put into another room")
		sizes := map[string]int64{}
		require.NoError(t, again.EachContent(ctx, blobs.Roms, func(sum string, bytes int64) error {
			sizes[sum] = bytes
			return nil
		}))
		require.Equal(t, map[string]int64{blobs.Sum(nil): 0, blobs.Sum([]byte("an image")): 8}, sizes)
		_, err = again.Content(ctx, blobs.Originals, "../../etc/passwd")
		require.ErrorContains(t, err, "is no SHA-256")
	})
}

func TestViewsAreSealedAndMayBeMadeAnew(t *testing.T) {
	bothStores(t, func(t *testing.T, reopen func() *blobs.Store) {
		kept, of := reopen(), blobs.Sum([]byte("picture"))
		_, err := kept.View(ctx, of, "320")
		require.ErrorIs(t, err, blobs.ErrNotFound)
		for _, view := range []string{"first", "made anew", ""} {
			require.NoError(t, kept.PutView(ctx, of, "320", []byte(view)))
			found, err := kept.View(ctx, of, "320")
			require.NoError(t, err)
			require.Equal(t, view, string(found))
		}
	})
}

// Whatever lies under the name of content is told from it: half of it, other bytes, nothing. Bringing
// the content again mends it.
func TestDamageIsToldAndMended(t *testing.T) {
	folder := t.TempDir()
	kept, data := open(t, folder), []byte("sixteen bytes ok")
	sum, err := kept.PutContent(ctx, blobs.Originals, data, "text/plain")
	require.NoError(t, err)
	require.NoError(t, kept.PutView(ctx, sum, "320", data))
	files := filesIn(t, folder)
	require.Len(t, files, 2)
	for _, damage := range [][]byte{data[:7], []byte("sixteen bytes no"), {}, append(data, 'x')} {
		for _, file := range files {
			require.NoError(t, os.WriteFile(file, damage, 0o600))
		}
		_, err := kept.Content(ctx, blobs.Originals, sum)
		require.ErrorIs(t, err, blobs.ErrDamaged)
		_, err = kept.View(ctx, sum, "320")
		require.ErrorIs(t, err, blobs.ErrNotFound)
		again, err := kept.PutContent(ctx, blobs.Originals, data, "text/plain")
		require.NoError(t, err)
		require.Equal(t, sum, again)
		found, err := kept.Content(ctx, blobs.Originals, sum)
		require.NoError(t, err)
		require.Equal(t, data, found)
	}
}

// With the disk full, at whatever moment, nothing is acknowledged and nothing of it stays; once there is
// room again the same content can be kept.
func TestAFullDiskKeepsNothingOfAFile(t *testing.T) {
	folder := t.TempDir()
	data := []byte("a board picture of which only a part fits")
	for _, fault := range []blobs.Fault{{Write: 9}, {Write: 1 << 20, Sync: true}, {Write: 1 << 20, Close: true}} {
		full, err := blobs.OpenFaulty(folder, fault, syscall.ENOSPC)
		require.NoError(t, err)
		_, err = full.PutContent(ctx, blobs.Originals, data, "text/plain")
		require.ErrorIs(t, err, blobs.ErrFull)
		require.Empty(t, filesIn(t, folder))
		_, err = full.Content(ctx, blobs.Originals, blobs.Sum(data))
		require.ErrorIs(t, err, blobs.ErrNotFound)
	}
	broken, err := blobs.OpenFaulty(folder, blobs.Fault{Write: 3}, errors.New("the cable is out"))
	require.NoError(t, err)
	_, err = broken.PutContent(ctx, blobs.Originals, data, "text/plain")
	require.ErrorContains(t, err, "the cable is out")
	require.NotErrorIs(t, err, blobs.ErrFull)

	given, cancel := context.WithCancel(ctx)
	cancel()
	kept := open(t, folder)
	_, err = kept.PutContent(given, blobs.Originals, data, "text/plain")
	require.ErrorIs(t, err, context.Canceled)
	require.Empty(t, filesIn(t, folder))
	sum, err := kept.PutContent(ctx, blobs.Originals, data, "text/plain")
	require.NoError(t, err)
	found, err := kept.Content(ctx, blobs.Originals, sum)
	require.NoError(t, err)
	require.Equal(t, data, found)
}

// What a writer that died has left behind goes at the next start, what is being written stays.
func TestLeftoversOfDeadWritersAreSwept(t *testing.T) {
	folder := t.TempDir()
	home := filepath.Join(folder, "originals", "ab")
	require.NoError(t, os.MkdirAll(home, 0o700))
	old, young := filepath.Join(home, ".part-1"), filepath.Join(home, ".part-2")
	for _, name := range []string{old, young} {
		require.NoError(t, os.WriteFile(name, []byte("half"), 0o600))
	}
	require.NoError(t, os.Chtimes(old, blobs.LongAgo, blobs.LongAgo))
	kept := open(t, folder)
	require.Equal(t, []string{young}, filesIn(t, folder))
	require.NoError(t, kept.EachContent(ctx, blobs.Originals, func(sum string, _ int64) error {
		return errors.New("listed " + sum)
	}))
}

func TestWhereNothingCanBeKept(t *testing.T) {
	file := filepath.Join(t.TempDir(), "a file")
	require.NoError(t, os.WriteFile(file, nil, 0o600))
	s3 := startS3(t, "pictures")
	for _, where := range []string{filepath.Join(file, "below"), file, "carrier-pigeon://loft", "s3://",
		s3 + "&colour=red",
		"s3://pictures?endpoint=nowhere", startS3(t, "other") + "x"} {
		_, err := blobs.Open(ctx, where)
		require.Error(t, err, where)
	}
}
