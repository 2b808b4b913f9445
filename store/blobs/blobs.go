// Package blobs keeps uploaded bytes: in a folder, or in any S3-compatible store, by URL. What is under a
// key never changes.
package blobs

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/url"
	"os"
	"path/filepath"
	"strings"

	"gocloud.dev/blob"
	_ "gocloud.dev/blob/fileblob"
	_ "gocloud.dev/blob/memblob"
	_ "gocloud.dev/blob/s3blob"
	"gocloud.dev/gcerrors"
)

// ErrNotFound is returned for a key that nothing is under.
var ErrNotFound = errors.New("nothing is kept under this key")

// Store is where bytes are kept.
type Store struct{ bucket *blob.Bucket }

// Open opens a store: a folder, which is made unless it is there, or a URL as
// s3://bucket?endpoint=https://host&region=eu. Several processes may share it.
func Open(ctx context.Context, where string) (*Store, error) {
	if !strings.Contains(where, "://") {
		folder, err := filepath.Abs(where)
		if err != nil {
			return nil, err
		}
		if err := os.MkdirAll(folder, 0o700); err != nil {
			return nil, err
		}
		// Files are written beside their place and then put there, so that none is ever half.
		where = (&url.URL{Scheme: "file", Path: folder, RawQuery: "no_tmp_dir=true&metadata=skip"}).String()
	}
	bucket, err := blob.OpenBucket(ctx, where)
	if err != nil {
		return nil, fmt.Errorf("open the store of pictures and documents: %w", err)
	}
	return &Store{bucket}, nil
}

// Close ends the use of the store.
func (s *Store) Close() error { return s.bucket.Close() }

// Put keeps bytes under a key, unless something is there: what is kept never changes.
func (s *Store) Put(ctx context.Context, key string, data []byte, mediaType string) error {
	there, err := s.bucket.Exists(ctx, key)
	if err != nil || there {
		return err
	}
	return s.bucket.WriteAll(ctx, key, data, &blob.WriterOptions{ContentType: mediaType})
}

// Get reads what is under a key; ErrNotFound for nothing.
func (s *Store) Get(ctx context.Context, key string) ([]byte, error) {
	reader, err := s.bucket.NewReader(ctx, key, nil)
	if gcerrors.Code(err) == gcerrors.NotFound {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	defer reader.Close()
	return io.ReadAll(reader)
}
