package blobs

import (
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"syscall"
	"time"
)

// partPrefix starts the names of files that are still being written.
const partPrefix = ".part-"

// partLasts is how long a file may be in writing; what an older one left behind is thrown away.
const partLasts = 24 * time.Hour

// folder keeps each key as a file. A file is written beside its place, brought to disk, and then put there.
type folder struct {
	root   string
	create func(home string) (partFile, error)
}

// partFile is a file that is still being written.
type partFile interface {
	io.WriteCloser
	Sync() error
	Name() string
}

func createPart(home string) (partFile, error) { return os.CreateTemp(home, partPrefix) }

func openFolder(where string) (*folder, error) {
	root, err := filepath.Abs(where)
	if err != nil {
		return nil, err
	}
	f := &folder{root, createPart}
	if err := f.makeFolders(root); err != nil {
		return nil, err
	}
	return f, f.sweep()
}

func (f *folder) path(key string) string { return filepath.Join(f.root, filepath.FromSlash(key)) }

func (f *folder) put(ctx context.Context, key string, data []byte, _ string) error {
	target := f.path(key)
	home := filepath.Dir(target)
	if err := f.makeFolders(home); err != nil {
		return noSpace(err)
	}
	part, err := f.create(home)
	if err != nil {
		return noSpace(err)
	}
	err = writeThrough(ctx, part, data)
	if err == nil {
		err = os.Rename(part.Name(), target)
	}
	if err != nil {
		os.Remove(part.Name()) //nolint:errcheck // swept later
		return noSpace(err)
	}
	return noSpace(syncFolder(home))
}

// writeThrough writes a file and brings it to disk; the file is closed in any case.
func writeThrough(ctx context.Context, file partFile, data []byte) error {
	_, err := file.Write(data)
	if err == nil {
		err = file.Sync()
	}
	if closing := file.Close(); err == nil {
		err = closing
	}
	if err == nil {
		err = ctx.Err()
	}
	return err
}

// makeFolders makes a folder and those above it, each on disk before anything is put into it.
func (f *folder) makeFolders(path string) error {
	if info, err := os.Stat(path); err == nil {
		if !info.IsDir() {
			return &fs.PathError{Op: "mkdir", Path: path, Err: syscall.ENOTDIR}
		}
		return nil
	}
	above := filepath.Dir(path)
	if above != path {
		if err := f.makeFolders(above); err != nil {
			return err
		}
	}
	if err := os.Mkdir(path, 0o700); err != nil && !errors.Is(err, fs.ErrExist) {
		return err
	}
	return syncFolder(above)
}

// syncFolder brings the names in a folder to disk. A folder that cannot be opened for that, as one above
// ours that belongs to somebody else, is not ours to bring there.
func syncFolder(path string) error {
	dir, err := os.Open(path)
	if errors.Is(err, fs.ErrPermission) {
		return nil
	}
	if err != nil {
		return err
	}
	err = dir.Sync()
	if closing := dir.Close(); err == nil {
		err = closing
	}
	return err
}

func (f *folder) get(ctx context.Context, key string) ([]byte, error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	data, err := os.ReadFile(f.path(key))
	return data, missing(key, err)
}

func (f *folder) stat(_ context.Context, key string) (Info, error) {
	info, err := os.Stat(f.path(key))
	if err != nil {
		return Info{}, missing(key, err)
	}
	return Info{key, info.Size()}, nil
}

// settle brings the name to disk; what it names was there before it.
func (f *folder) settle(key string) error { return syncFolder(filepath.Dir(f.path(key))) }

func (f *folder) list(ctx context.Context, prefix string, visit func(Info) error) error {
	err := filepath.WalkDir(f.path(prefix), func(path string, entry fs.DirEntry, err error) error {
		if err != nil || entry.IsDir() || strings.HasPrefix(entry.Name(), partPrefix) {
			return err
		}
		if err := ctx.Err(); err != nil {
			return err
		}
		info, err := entry.Info()
		if err != nil {
			return err
		}
		key, err := filepath.Rel(f.root, path)
		if err != nil {
			return err
		}
		return visit(Info{filepath.ToSlash(key), info.Size()})
	})
	if errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	return err
}

// sweep throws away what writers that died have left behind.
func (f *folder) sweep() error {
	return filepath.WalkDir(f.root, func(path string, entry fs.DirEntry, err error) error {
		if err != nil || entry.IsDir() || !strings.HasPrefix(entry.Name(), partPrefix) {
			return err
		}
		info, err := entry.Info()
		if errors.Is(err, fs.ErrNotExist) {
			return nil // its writer has put it into its place
		}
		if err != nil || time.Since(info.ModTime()) < partLasts {
			return err
		}
		if err := os.Remove(path); !errors.Is(err, fs.ErrNotExist) {
			return err
		}
		return nil
	})
}

func missing(key string, err error) error {
	if errors.Is(err, fs.ErrNotExist) {
		return fmt.Errorf("%s: %w", key, ErrNotFound)
	}
	return err
}

func noSpace(err error) error {
	if errors.Is(err, syscall.ENOSPC) || errors.Is(err, syscall.EDQUOT) {
		return fmt.Errorf("%w: %w", ErrFull, err)
	}
	return err
}
