package picture_test

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/picture"
)

// quarter is a picture whose upper left quarter is red, so that one sees which way up it is.
func quarter(w, h int) image.Image {
	canvas := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			canvas.Set(x, y, color.White)
			if x < w/2 && y < h/2 {
				canvas.Set(x, y, color.RGBA{0xff, 0, 0, 0xff})
			}
		}
	}
	return canvas
}

// photographed is a JPEG as a camera writes it: turned, with the day and the place where it was taken.
func photographed(t *testing.T, w, h int, orientation uint16) []byte {
	var plain bytes.Buffer
	require.NoError(t, jpeg.Encode(&plain, quarter(w, h), &jpeg.Options{Quality: 95}))
	tiff := new(bytes.Buffer)
	le := binary.LittleEndian
	put := func(values ...any) {
		for _, v := range values {
			require.NoError(t, binary.Write(tiff, le, v))
		}
	}
	entry := func(tag, kind uint16, count, value uint32) { put(tag, kind, count, value) }
	put([]byte("II*\x00"), uint32(8), uint16(3))
	entry(0x0112, 3, 1, uint32(orientation))
	entry(0x8769, 4, 1, 50)  // where the camera's own part is
	entry(0x8825, 4, 1, 100) // where the position is
	put(uint32(0), uint16(1))
	entry(0x9003, 2, 20, 68) // taken
	put(uint32(0), []byte("2025:03:15 10:20:30\x00"))
	for tiff.Len() < 100 {
		put(byte(0))
	}
	put(uint16(1))
	entry(0x0001, 2, 2, uint32('N'))
	put(uint32(0), []byte("51.4321 LATITUDE"))
	payload := append([]byte("Exif\x00\x00"), tiff.Bytes()...)
	out := []byte{0xff, 0xd8, 0xff, 0xe1}
	out = binary.BigEndian.AppendUint16(out, uint16(len(payload)+2))
	return append(append(out, payload...), plain.Bytes()[2:]...)
}

func TestViewsAreUprightAndTellNothingElse(t *testing.T) {
	for orientation, redAt := range map[uint16]image.Point{1: {0, 0}, 2: {1, 0}, 3: {1, 1}, 4: {0, 1}, 5: {0, 0},
		6: {1, 0}, 7: {1, 1}, 8: {0, 1}} {
		data := photographed(t, 80, 40, orientation)
		file, err := picture.Look(data)
		require.NoError(t, err)
		require.Equal(t, "image/jpeg", file.MediaType)
		require.Equal(t, "2025-03-15", file.Taken)
		wide, high := 80, 40
		if orientation >= 5 {
			wide, high = 40, 80
		}
		require.Equal(t, []int{wide, high}, []int{file.Width, file.Height}, orientation)
		views, err := file.Views(data, 0, 40)
		require.NoError(t, err)
		for i, view := range views {
			require.NotContains(t, string(view), "Exif")
			require.NotContains(t, string(view), "LATITUDE")
			shown, err := jpeg.Decode(bytes.NewReader(view))
			require.NoError(t, err)
			size := shown.Bounds().Size()
			require.Equal(t, []image.Point{{wide, high}, {wide / 2, high / 2}}[i], size)
			at := image.Pt(size.X/4+redAt.X*size.X/2, size.Y/4+redAt.Y*size.Y/2)
			r, g, _, _ := shown.At(at.X, at.Y).RGBA()
			require.True(t, r > 0xc000 && g < 0x6000, "orientation %d, view %d", orientation, i)
		}
	}
}

func TestWhatIsNoPictureOrDocumentIsRefusedWithTheReason(t *testing.T) {
	var small bytes.Buffer
	require.NoError(t, png.Encode(&small, quarter(8, 8)))
	bomb := bytes.Clone(small.Bytes())
	binary.BigEndian.PutUint32(bomb[16:], 50_000)
	binary.BigEndian.PutUint32(bomb[20:], 50_000)
	binary.BigEndian.PutUint32(bomb[29:], crc32.ChecksumIEEE(bomb[12:29]))
	for reason, data := range map[string][]byte{
		"is empty":            {},
		"more than 64 MB":     make([]byte, picture.MostBytes+1),
		"a program":           []byte("MZ\x90\x00 renamed to photo.jpg"),
		"a program, whatever": []byte("#!/bin/sh\nrm"),
		"may carry a script; save it as PNG": []byte(
			`<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>`),
		"a web page may carry a script": []byte("<!DOCTYPE html><p>hello"),
		"50000 x 50000 pixels":          bomb,
		"cannot be read":                small.Bytes()[:20],
		"none of JPEG, PNG":             {0x50, 0x4b, 3, 4, 0, 0, 1, 2},
	} {
		_, err := picture.Look(data)
		var refused *picture.RefusedError
		require.ErrorAs(t, err, &refused, reason)
		require.Contains(t, refused.Why, reason)
	}
	file, err := picture.Look(small.Bytes())
	require.NoError(t, err)
	_, err = file.Views(small.Bytes()[:small.Len()-20], 0) // cut off behind its size
	require.ErrorContains(t, err, "cut off or damaged")

	for _, name := range []string{"", "..", "../x.png", `..\x.png`, "a/b.png", "x\x00.png", "\xff.png",
		string(make([]byte, 300))} {
		_, err := picture.Name(name)
		require.Error(t, err, "%q", name)
	}
	name, err := picture.Name(" Plate, rear.JPG ")
	require.NoError(t, err)
	require.Equal(t, "Plate, rear.JPG", name)
}

// patched is a file with other bytes at an offset.
func patched(data []byte, at int, with ...byte) []byte {
	data = bytes.Clone(data)
	copy(data[at:], with)
	return data
}

// sized is a PNG whose header says another size, depth and kind of colour.
func sized(t *testing.T, w, h uint32, depth, colour, interlace byte) []byte {
	var small bytes.Buffer
	require.NoError(t, png.Encode(&small, quarter(8, 8)))
	header := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32([]byte("IHDR"), w), h)
	header = append(header, depth, colour, 0, 0, interlace)
	data := patched(small.Bytes(), 12, header...)
	return patched(data, 29, binary.BigEndian.AppendUint32(nil, crc32.ChecksumIEEE(header))...)
}

// What decoding takes is known from the header, and what takes too much is refused before anything is decoded.
func TestMemoryIsEstimatedFromTheHeader(t *testing.T) {
	for _, test := range []struct {
		name       string
		w, h       uint32
		depth      byte
		colour     byte
		interlace  byte
		megabytes  int // about; 0 for refused
		refusedFor string
	}{
		{"8 bits", 6000, 4000, 8, 2, 0, 96, ""},
		{"16 bits", 6000, 4000, 16, 6, 0, 192, ""},
		{"16 bits, interlaced", 6000, 4000, 16, 6, 1, 0, "384 MB of memory"},
		{"16 bits of 12,000 x 12,000", 12000, 12000, 16, 6, 0, 0,
			"12000 x 12000 pixels and would take 1152 MB of memory to read; up to 377 MB"},
		{"grey of 12,000 x 12,000", 12000, 12000, 16, 0, 0, 0, "1152 MB"},
		{"too many pixels", 40000, 4000, 8, 0, 0, 0, "150 million pixels"},
	} {
		data := sized(t, test.w, test.h, test.depth, test.colour, test.interlace)
		file, err := picture.Look(data)
		if test.megabytes == 0 {
			require.ErrorContains(t, err, test.refusedFor, test.name)
			continue
		}
		require.NoError(t, err, test.name)
		require.EqualValues(t, test.megabytes, file.Memory/1_000_000, test.name)
		require.EqualValues(t, file.Memory+int64(test.w)*int64(test.h)*4, file.FullBytes())
	}
	var plain bytes.Buffer
	require.NoError(t, jpeg.Encode(&plain, quarter(64, 64), nil))
	file, err := picture.Look(plain.Bytes())
	require.NoError(t, err)
	require.EqualValues(t, 64*64*1.5, file.Memory, "luma and two quarters of chroma")
	frame := bytes.Index(plain.Bytes(), []byte{0xff, 0xc0})
	progressive := patched(plain.Bytes(), frame+1, 0xc2)
	file, err = picture.Look(patched(progressive, frame+5, 0x10, 0x00, 0x10, 0x00)) // 4096 x 4096
	require.NoError(t, err)
	require.EqualValues(t, 4096*4096*7.5, file.Memory, "with its coefficients")
	_, err = picture.Look(patched(progressive, frame+5, 0x28, 0x00, 0x28, 0x00)) // 10240 x 10240
	require.ErrorContains(t, err, "would take 786 MB of memory")
}

func TestDocuments(t *testing.T) {
	for want, data := range map[string][]byte{"application/pdf": []byte("%PDF-1.7 ..."),
		"text/plain; charset=utf-8": []byte("Für den Tisch:\r\n\tU1 7400")} {
		file, err := picture.Look(data)
		require.NoError(t, err)
		require.Equal(t, picture.Document, file.Kind)
		require.Equal(t, want, file.MediaType)
	}
}

func FuzzLook(f *testing.F) {
	var small bytes.Buffer
	if err := png.Encode(&small, quarter(4, 4)); err != nil {
		f.Fatal(err)
	}
	f.Add(small.Bytes())
	f.Add([]byte("\xff\xd8\xff\xe1\x00\x10Exif\x00\x00II*\x00"))
	f.Add([]byte("RIFF\x10\x00\x00\x00WEBPVP8 "))
	f.Fuzz(func(t *testing.T, data []byte) {
		file, err := picture.Look(data)
		if err == nil && file.Kind == picture.Picture && file.Width*file.Height < 1_000_000 {
			file.Views(data, 16, 0) //nolint:errcheck // must not panic; what is damaged is refused
		}
	})
}

func TestVideoAndSoundAreKeptAsTheyAre(t *testing.T) {
	for begins, mediaType := range map[string]string{
		"\x00\x00\x00\x20ftypisom....": "video/mp4", "\x00\x00\x00\x20ftypqt  ....": "video/quicktime",
		"\x00\x00\x00\x20ftypM4A ....": "audio/mp4", "RIFF\x24\x00\x00\x00WAVEfmt ": "audio/wav",
		"ID3\x04":  "audio/mpeg",
		"fLaC\x00": "audio/flac", "OggS\x00": "audio/ogg", "\x1aE\xdf\xa3\x01\x42\x82\x84webm": "video/webm",
	} {
		file, err := picture.Look([]byte(begins))
		require.NoError(t, err, mediaType)
		require.Equal(t, picture.Recording, file.Kind)
		require.Equal(t, mediaType, file.MediaType)
		require.NotEqual(t, ".txt", picture.Ending(mediaType))
	}
	_, err := picture.Look([]byte("\x1aE\xdf\xa3 something else"))
	require.Error(t, err)
}
