// Package picture answers: what is this file, and how is it shown? It goes by what the bytes are, never by
// the name; it refuses what is no picture or document, or would not fit into memory; and it makes upright
// views without anything that a camera wrote beside the picture, the position above all.
package picture

import (
	"bytes"
	"fmt"
	"image"
	"image/draw"
	"image/jpeg"
	_ "image/png"
	"math"
	"strings"
	"time"
	"unicode/utf8"

	"github.com/bep/imagemeta"
	_ "github.com/gen2brain/heic"
	scale "golang.org/x/image/draw"
	_ "golang.org/x/image/webp"
)

// MostBytes is how large a file may be.
const MostBytes = 64 << 20

// mostPixels bounds a picture however little memory a pixel of it takes: making views takes time, too.
const mostPixels = 150_000_000

// Kind of a file.
type Kind string

// Kinds.
const (
	Picture  Kind = "picture"
	Document Kind = "document"
	// Recording is video or sound. It is kept as it is, and cited by time.
	Recording Kind = "recording"
)

// File is what a file turned out to be.
type File struct {
	Kind      Kind
	MediaType string
	Width     int // upright, in pixels; 0 for a document
	Height    int
	Taken     string // day on which a camera says it was taken, YYYY-MM-DD, or empty
	Memory    int64  // bytes that decoding it takes, estimated from its header; 0 for a document
	turn      int    // orientation as EXIF counts it, 1 to 8
}

// Ending is what the names of files of a media type end with, as .jpg.
func Ending(mediaType string) string {
	switch mediaType {
	case "image/jpeg":
		return ".jpg"
	case "image/png":
		return ".png"
	case "image/webp":
		return ".webp"
	case "image/heic":
		return ".heic"
	case "application/pdf":
		return ".pdf"
	}
	if ending, ok := recordings[mediaType]; ok {
		return ending
	}
	return ".txt"
}

// RefusedError says why a file is not taken, and what to do.
type RefusedError struct{ Why string }

// Error says it.
func (e *RefusedError) Error() string { return e.Why }

func refuse(format string, args ...any) error { return &RefusedError{fmt.Sprintf(format, args...)} }

// Name trims a file's name and refuses one that leads elsewhere.
func Name(name string) (string, error) {
	name = strings.TrimSpace(name)
	switch {
	case name == "":
		return "", refuse("the file has no name")
	case strings.ContainsAny(name, `/\`) || name == ".." || name == ".":
		return "", refuse("the name %q leads into another folder; give the file a plain name", name)
	case !utf8.ValidString(name) || strings.ContainsFunc(name, func(r rune) bool { return r < 32 || r == 127 }):
		return "", refuse("the name holds characters that cannot be shown; give the file a plain name")
	case len(name) > 200:
		return "", refuse("the name has more than 200 characters; shorten it")
	}
	return name, nil
}

// Look finds out what a file is. It reads a picture's size, not the picture.
func Look(data []byte) (File, error) {
	if len(data) == 0 {
		return File{}, refuse("the file is empty")
	}
	if len(data) > MostBytes {
		return File{}, refuse("the file has more than %d MB; save it smaller", MostBytes>>20)
	}
	f, format, err := sniff(data)
	if err != nil || f.Kind != Picture {
		return f, err
	}
	config, _, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return f, refuse("the picture cannot be read (%s); it may be cut off or damaged", err)
	}
	if pixels := int64(config.Width) * int64(config.Height); pixels > mostPixels || config.Width <= 0 ||
		config.Height <= 0 {
		return f, refuse("the picture is %d x %d pixels; up to %d million pixels are taken", config.Width,
			config.Height, mostPixels/1_000_000)
	}
	f.Width, f.Height, f.Memory = config.Width, config.Height, memoryOf(f.MediaType, data, config)
	if f.Memory > MostMemory {
		return f, tooLarge(f.Width, f.Height, f.Memory)
	}
	f.readMeta(data, format)
	if f.turn >= 5 {
		f.Width, f.Height = f.Height, f.Width
	}
	return f, nil
}

func sniff(data []byte) (File, imagemeta.ImageFormat, error) {
	starts := func(magic string) bool { return bytes.HasPrefix(data, []byte(magic)) }
	brand := ""
	if len(data) > 12 && string(data[4:8]) == "ftyp" {
		brand = string(data[8:12])
	}
	switch {
	case starts("\xff\xd8\xff"):
		return File{Kind: Picture, MediaType: "image/jpeg"}, imagemeta.JPEG, nil
	case starts("\x89PNG\r\n\x1a\n"):
		return File{Kind: Picture, MediaType: "image/png"}, imagemeta.PNG, nil
	case starts("RIFF") && len(data) > 12 && string(data[8:12]) == "WEBP":
		return File{Kind: Picture, MediaType: "image/webp"}, imagemeta.WebP, nil
	case brand == "heic" || brand == "heix" || brand == "mif1" || brand == "heim" || brand == "heis":
		return File{Kind: Picture, MediaType: "image/heic"}, imagemeta.HEIF, nil
	case recordingOf(data, brand) != "":
		return File{Kind: Recording, MediaType: recordingOf(data, brand)}, 0, nil
	case starts("%PDF-"):
		return File{Kind: Document, MediaType: "application/pdf"}, 0, nil
	case starts("MZ"), starts("\x7fELF"), starts("#!"), starts("\xcf\xfa\xed\xfe"), starts("\xca\xfe\xba\xbe"):
		return File{}, 0, refuse("this is a program, whatever its name says; pictures and documents are taken")
	}
	if isText(data) {
		head := strings.ToLower(string(data[:min(len(data), 4096)]))
		switch {
		case strings.Contains(head, "<svg"):
			return File{}, 0, refuse("a drawing in SVG may carry a script; save it as PNG")
		case strings.Contains(head, "<html"), strings.Contains(head, "<script"), strings.Contains(head, "<!doctype"):
			return File{}, 0, refuse("a web page may carry a script; save it as PDF, and write its address beside it")
		}
		return File{Kind: Document, MediaType: "text/plain; charset=utf-8"}, 0, nil
	}
	return File{}, 0, refuse("this is none of JPEG, PNG, WebP, HEIC, PDF, plain text, and the usual video and sound; save it as one of these")
}

func isText(data []byte) bool {
	if !utf8.Valid(data) {
		return false
	}
	return !bytes.ContainsFunc(data, func(r rune) bool {
		return r < 32 && r != '\n' && r != '\r' && r != '\t' && r != '\f'
	})
}

// readMeta reads which way up the picture is, and when it was taken. What a camera wrote wrong is left out.
func (f *File) readMeta(data []byte, format imagemeta.ImageFormat) {
	f.turn = 1
	if format == imagemeta.HEIF {
		return // its decoder turns it
	}
	_, err := imagemeta.Decode(imagemeta.Options{
		R: bytes.NewReader(data), ImageFormat: format, Sources: imagemeta.EXIF, Timeout: time.Second,
		ShouldHandleTag: func(tag imagemeta.TagInfo) bool {
			return tag.Tag == "Orientation" || tag.Tag == "DateTimeOriginal"
		},
		HandleTag: func(tag imagemeta.TagInfo) error {
			switch value := tag.Value.(type) {
			case uint16:
				if tag.Tag == "Orientation" && value >= 1 && value <= 8 {
					f.turn = int(value)
				}
			case string:
				if taken, err := time.Parse("2006:01:02 15:04:05", value); err == nil && tag.Tag == "DateTimeOriginal" {
					f.Taken = taken.Format(time.DateOnly)
				}
			}
			return nil
		},
	})
	if err != nil && !imagemeta.IsInvalidFormat(err) {
		return // the picture itself is fine
	}
}

// Views makes upright JPEG views of a picture from one decoding. Neither side is longer than most pixels (0
// for all of them). They hold the picture and nothing else.
func (f File) Views(data []byte, mosts ...int) ([][]byte, error) {
	decoded, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, refuse("the picture cannot be read (%s); it may be cut off or damaged", err)
	}
	views := make([][]byte, len(mosts))
	for i, most := range mosts {
		if views[i], err = f.render(decoded, most); err != nil {
			return nil, err
		}
	}
	return views, nil
}

const quality = 86

func (f File) render(decoded image.Image, most int) ([]byte, error) {
	size := decoded.Bounds().Size()
	ratio := 1.0
	if longest := max(size.X, size.Y); most > 0 && longest > most {
		ratio = float64(most) / float64(longest)
	}
	var shown image.Image
	if ratio == 1 {
		shown = f.upright(decoded)
	} else {
		width, height := max(1, int(math.Round(float64(size.X)*ratio))), max(1, int(math.Round(float64(size.Y)*ratio)))
		small := image.NewRGBA(image.Rect(0, 0, width, height))
		draw.Draw(small, small.Bounds(), image.White, image.Point{}, draw.Src) // what is transparent lies on paper
		scale.ApproxBiLinear.Scale(small, small.Bounds(), decoded, decoded.Bounds(), scale.Over, nil)
		shown = f.upright(small)
	}
	var out bytes.Buffer
	err := jpeg.Encode(&out, shown, &jpeg.Options{Quality: quality})
	return out.Bytes(), err
}

// upright turns and mirrors a picture as its orientation asks for. It is drawn at most once: a picture
// that lies as it should and hides nothing is the view itself.
func (f File) upright(from image.Image) image.Image {
	if opaque, ok := from.(interface{ Opaque() bool }); ok && f.turn <= 1 && opaque.Opaque() {
		return from
	}
	bounds := from.Bounds()
	w, h := bounds.Dx(), bounds.Dy()
	wide, high := w, h
	if f.turn >= 5 {
		wide, high = h, w
	}
	to := image.NewRGBA(image.Rect(0, 0, wide, high))
	row := image.NewRGBA(image.Rect(0, 0, w, 1))
	for y := range h {
		draw.Draw(row, row.Bounds(), image.White, image.Point{}, draw.Src) // what is transparent lies on paper
		draw.Draw(row, row.Bounds(), from, image.Pt(bounds.Min.X, bounds.Min.Y+y), draw.Over)
		for x := range w {
			tx, ty := f.turned(x, y, w, h)
			copy(to.Pix[to.PixOffset(tx, ty):][:4], row.Pix[4*x:][:4])
		}
	}
	return to
}

// turned says where a point of a picture of w x h pixels comes to lie.
func (f File) turned(x, y, w, h int) (int, int) {
	switch f.turn {
	case 2:
		return w - 1 - x, y
	case 3:
		return w - 1 - x, h - 1 - y
	case 4:
		return x, h - 1 - y
	case 5:
		return y, x
	case 6:
		return h - 1 - y, x
	case 7:
		return h - 1 - y, w - 1 - x
	case 8:
		return y, w - 1 - x
	}
	return x, y
}
