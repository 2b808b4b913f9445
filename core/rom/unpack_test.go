package rom_test

import (
	"archive/zip"
	"bytes"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/rom"
)

func archiveOf(t *testing.T, files ...rom.File) []byte {
	var out bytes.Buffer
	w := zip.NewWriter(&out)
	for _, f := range files {
		entry, err := w.Create(f.Name)
		require.NoError(t, err)
		_, err = entry.Write(f.Data)
		require.NoError(t, err)
	}
	require.NoError(t, w.Close())
	return out.Bytes()
}

func TestArchives(t *testing.T) {
	good := archiveOf(t, rom.File{Name: "board/"}, rom.File{Name: "board/U14.bin", Data: []byte("abc")},
		rom.File{Name: "U15.bin", Data: []byte("d")})
	require.True(t, rom.IsArchive(good))
	files, err := rom.Unpack(good)
	require.NoError(t, err)
	require.Equal(t, []rom.File{{Name: "U14.bin", Data: []byte("abc")}, {Name: "U15.bin", Data: []byte("d")}}, files)

	many := []rom.File{}
	for range rom.MaxFiles + 1 {
		many = append(many, rom.File{Name: "x.bin", Data: []byte("x")})
	}
	for want, archive := range map[string][]byte{
		"outside of itself":  archiveOf(t, rom.File{Name: "../../etc/U14.bin", Data: []byte("abc")}),
		"outside":            archiveOf(t, rom.File{Name: `..\U14.bin`, Data: []byte("abc")}),
		"names a file":       archiveOf(t, rom.File{Name: "/U14.bin", Data: []byte("abc")}),
		"more than 64 files": archiveOf(t, many...),
		"more than 67108864": archiveOf(t, rom.File{Name: "bomb.bin", Data: make([]byte, rom.MaxUnpacked+1)}),
		"within the archive": archiveOf(t, rom.File{Name: "inner.zip", Data: good}),
		"no file":            archiveOf(t, rom.File{Name: "board/"}),
		"cut off or changed": good[:len(good)/2],
	} {
		_, err := rom.Unpack(archive)
		require.ErrorContains(t, err, want)
	}
	changed := bytes.Replace(good, []byte("abc"), []byte("abd"), 1)
	if !bytes.Equal(changed, good) {
		_, err = rom.Unpack(changed)
		require.ErrorContains(t, err, "cut off or changed")
	}
}
