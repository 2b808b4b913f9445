// Package blobs keeps uploaded bytes: in a folder, or in any S3-compatible store, by URL. Content is
// named by its SHA-256: it is on disk before it is acknowledged, and looked at again when it is read.
// What is shown of content is kept beside it, sealed with a sum of its own, and may be made anew.
package blobs

import (
	"context"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/hex"
	"errors"
	"fmt"
	"strings"
)

// Errors of a store. They are wrapped with the key that they are about.
var (
	// ErrNotFound is returned for a key that nothing is under.
	ErrNotFound = errors.New("nothing is kept under this key")
	// ErrDamaged is returned for content that is no longer what its name says.
	ErrDamaged = errors.New("what is kept is not what was uploaded")
	// ErrFull is returned when there is no space left; nothing was kept then.
	ErrFull = errors.New("no space is left where pictures and documents are kept")
)

// Info is what a store says of a key without reading what is under it.
type Info struct {
	Key   string
	Bytes int64
}

// bucket is what holds bytes by key; several processes may share one.
type bucket interface {
	// put keeps all of the data under the key or none of it, in place of what was there. Once it
	// returns nil, the data survive a loss of power.
	put(ctx context.Context, key string, data []byte, mediaType string) error
	// get reads what is under a key; ErrNotFound for nothing.
	get(ctx context.Context, key string) ([]byte, error)
	// stat says how much is under a key; ErrNotFound for nothing.
	stat(ctx context.Context, key string) (Info, error)
	// settle makes sure that a key which was found survives a loss of power: who put it there may not be done.
	settle(key string) error
	// list visits all keys that start with a prefix, in the order of the alphabet.
	list(ctx context.Context, prefix string, visit func(Info) error) error
}

// Store is where bytes are kept.
type Store struct{ in bucket }

// Open opens a store: a folder, which is made unless it is there, or a URL as
// s3://bucket?endpoint=https://host&region=eu.
func Open(ctx context.Context, where string) (*Store, error) {
	kind, _, isURL := strings.Cut(where, "://")
	var in bucket
	var err error
	switch {
	case !isURL:
		in, err = openFolder(where)
	case kind == "s3":
		in, err = openS3(ctx, where)
	default:
		err = fmt.Errorf("%s is neither a folder nor s3://bucket", where)
	}
	if err != nil {
		return nil, fmt.Errorf("open the store of pictures and documents: %w", err)
	}
	return &Store{in}, nil
}

// Room is a part of the store; content is looked for in the room that it was put into.
type Room string

// Rooms.
const (
	Originals Room = "originals" // pictures and documents as they were uploaded
	Roms      Room = "roms"      // images of read-only memories
)

func (r Room) key(sum string) (string, error) {
	if raw, err := hex.DecodeString(sum); err != nil || len(raw) != sha256.Size || sum != strings.ToLower(sum) {
		return "", fmt.Errorf("%q is no SHA-256", sum)
	}
	return string(r) + "/" + sum[:2] + "/" + sum, nil
}

// Sum names content: its SHA-256 in hexadecimal digits.
func Sum(data []byte) string {
	sum := sha256.Sum256(data)
	return hex.EncodeToString(sum[:])
}

// PutContent keeps content and returns its sum. What is there already is believed only after its size and
// sum agree; content that was damaged is mended so.
func (s *Store) PutContent(ctx context.Context, room Room, data []byte, mediaType string) (string, error) {
	sum := Sum(data)
	key, err := room.key(sum)
	if err != nil {
		return "", err
	}
	info, err := s.in.stat(ctx, key)
	if err == nil && info.Bytes == int64(len(data)) {
		if _, err = s.Content(ctx, room, sum); err == nil {
			return sum, s.in.settle(key)
		}
	}
	if err != nil && !errors.Is(err, ErrNotFound) && !errors.Is(err, ErrDamaged) {
		return "", err
	}
	return sum, s.in.put(ctx, key, data, mediaType)
}

// Content reads content by its sum: ErrNotFound when it is missing, ErrDamaged when it is not what it was.
func (s *Store) Content(ctx context.Context, room Room, sum string) ([]byte, error) {
	key, err := room.key(sum)
	if err != nil {
		return nil, err
	}
	data, err := s.in.get(ctx, key)
	if err != nil {
		return nil, err
	}
	if Sum(data) != sum {
		return nil, fmt.Errorf("%s: %w", key, ErrDamaged)
	}
	return data, nil
}

// EachContent visits all content of a room, by its name in the store, without reading it.
func (s *Store) EachContent(ctx context.Context, room Room, visit func(sum string, bytes int64) error) error {
	return s.in.list(ctx, string(room)+"/", func(i Info) error {
		return visit(i.Key[strings.LastIndexByte(i.Key, '/')+1:], i.Bytes)
	})
}

func viewKey(of, name string) string { return "views/" + of[:2] + "/" + of + "-" + name + ".sealed" }

// PutView keeps what is shown of content: the sum of the view stands before it.
func (s *Store) PutView(ctx context.Context, of, name string, view []byte) error {
	seal := sha256.Sum256(view)
	return s.in.put(ctx, viewKey(of, name), append(seal[:], view...), "application/octet-stream")
}

// View reads a view. One that is missing or damaged is ErrNotFound: it can be made anew.
func (s *Store) View(ctx context.Context, of, name string) ([]byte, error) {
	sealed, err := s.in.get(ctx, viewKey(of, name))
	if err != nil {
		return nil, err
	}
	if len(sealed) < sha256.Size {
		return nil, ErrNotFound
	}
	view := sealed[sha256.Size:]
	if seal := sha256.Sum256(view); subtle.ConstantTimeCompare(seal[:], sealed[:sha256.Size]) != 1 {
		return nil, ErrNotFound
	}
	return view, nil
}
