package rom

import (
	"archive/zip"
	"bytes"
	"errors"
	"fmt"
	"io"
	"path"
	"strings"
)

// File is a file of an archive.
type File struct {
	Name string // without folders
	Data []byte
}

// Bounds of an archive: more is no set of images of one machine, but a mistake or an attack.
const (
	MaxFiles    = 64
	MaxUnpacked = 64 << 20
)

// IsArchive reports whether data is a zip archive.
func IsArchive(data []byte) bool { return bytes.HasPrefix(data, []byte("PK\x03\x04")) }

// Unpack reads the files of a zip archive; folders are skipped. Nothing is written anywhere. What a header
// says of sizes is not trusted.
func Unpack(data []byte) ([]File, error) {
	archive, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil && !errors.Is(err, zip.ErrInsecurePath) {
		return nil, wrong(0, "the archive cannot be read (%v): it was cut off or changed", err)
	}
	files := []File{}
	left := int64(MaxUnpacked)
	for _, entry := range archive.File {
		name := strings.ReplaceAll(entry.Name, `\`, "/")
		switch {
		case strings.HasSuffix(name, "/"):
			continue
		case path.IsAbs(name) || strings.HasPrefix(path.Clean(name), "..") || strings.Contains(name, ":"):
			return nil, wrong(0, "the archive names a file outside of itself, %q; nothing was taken from it",
				entry.Name)
		case len(files) == MaxFiles:
			return nil, wrong(0, "the archive holds more than %d files", MaxFiles)
		}
		content, err := unpackOne(entry, left)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", entry.Name, err)
		}
		if IsArchive(content) {
			return nil, wrong(0, "%s is an archive within the archive; unpack it first", entry.Name)
		}
		left -= int64(len(content))
		files = append(files, File{path.Base(name), content})
	}
	if len(files) == 0 {
		return nil, wrong(0, "the archive holds no file")
	}
	return files, nil
}

func unpackOne(entry *zip.File, left int64) ([]byte, error) {
	reader, err := entry.Open()
	if err != nil {
		return nil, wrong(0, "cannot be unpacked (%v)", err)
	}
	defer reader.Close()
	content, err := io.ReadAll(io.LimitReader(reader, left+1))
	switch {
	case err != nil:
		return nil, wrong(0, "cannot be unpacked (%v): the archive was cut off or changed", err)
	case int64(len(content)) > left:
		return nil, wrong(0, "the files of the archive have more than %d bytes together", MaxUnpacked)
	}
	return content, nil
}
