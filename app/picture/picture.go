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

// mostPixels bounds what is decoded: 150 megapixels take 600 MB.
const mostPixels = 150_000_000

// Kind of a file.
type Kind string

// Kinds.
const (
	Picture  Kind = "picture"
	Document Kind = "document"
)

// File is what a file turned out to be.
type File struct {
	Kind      Kind
	MediaType string
	Ending    string // as .jpg
	Width     int    // upright, in pixels; 0 for a document
	Height    int
	Taken     string // day on which a camera says it was taken, YYYY-MM-DD, or empty
	turn      int    // orientation as EXIF counts it, 1 to 8
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
	if err != nil || f.Kind == Document {
		return f, err
	}
	config, _, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return f, refuse("the picture cannot be read (%s); it may be cut off or damaged", err)
	}
	if pixels := int64(config.Width) * int64(config.Height); pixels > mostPixels || config.Width <= 0 || config.Height <= 0 {
		return f, refuse("the picture is %d x %d pixels; up to %d million pixels are taken", config.Width, config.Height, mostPixels/1_000_000)
	}
	f.Width, f.Height = config.Width, config.Height
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
		return File{Kind: Picture, MediaType: "image/jpeg", Ending: ".jpg"}, imagemeta.JPEG, nil
	case starts("\x89PNG\r\n\x1a\n"):
		return File{Kind: Picture, MediaType: "image/png", Ending: ".png"}, imagemeta.PNG, nil
	case starts("RIFF") && len(data) > 12 && string(data[8:12]) == "WEBP":
		return File{Kind: Picture, MediaType: "image/webp", Ending: ".webp"}, imagemeta.WebP, nil
	case brand == "heic" || brand == "heix" || brand == "mif1" || brand == "heim" || brand == "heis":
		return File{Kind: Picture, MediaType: "image/heic", Ending: ".heic"}, imagemeta.HEIF, nil
	case starts("%PDF-"):
		return File{Kind: Document, MediaType: "application/pdf", Ending: ".pdf"}, 0, nil
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
		return File{Kind: Document, MediaType: "text/plain; charset=utf-8", Ending: ".txt"}, 0, nil
	}
	return File{}, 0, refuse("this is none of JPEG, PNG, WebP, HEIC, PDF and plain text; save it as one of these")
}

func isText(data []byte) bool {
	if !utf8.Valid(data) {
		return false
	}
	return !bytes.ContainsFunc(data, func(r rune) bool { return r < 32 && r != '\n' && r != '\r' && r != '\t' && r != '\f' })
}

// readMeta reads which way up the picture is, and when it was taken. What a camera wrote wrong is left out.
func (f *File) readMeta(data []byte, format imagemeta.ImageFormat) {
	f.turn = 1
	if format == imagemeta.HEIF {
		return // its decoder turns it
	}
	_, err := imagemeta.Decode(imagemeta.Options{
		R: bytes.NewReader(data), ImageFormat: format, Sources: imagemeta.EXIF, Timeout: time.Second,
		ShouldHandleTag: func(tag imagemeta.TagInfo) bool { return tag.Tag == "Orientation" || tag.Tag == "DateTimeOriginal" },
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

// View makes an upright JPEG of a picture with neither side longer than most pixels (0 for all of them). It
// holds the picture and nothing else.
func (f File) View(data []byte, most int) ([]byte, error) {
	decoded, _, err := image.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, refuse("the picture cannot be read (%s); it may be cut off or damaged", err)
	}
	return f.render(decoded, most)
}

// Views makes several of them from one decoding, by their longest sides.
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
	width, height := max(1, int(math.Round(float64(size.X)*ratio))), max(1, int(math.Round(float64(size.Y)*ratio)))
	small := image.NewRGBA(image.Rect(0, 0, width, height))
	draw.Draw(small, small.Bounds(), image.White, image.Point{}, draw.Src) // what is transparent lies on paper
	if ratio == 1 {
		draw.Draw(small, small.Bounds(), decoded, decoded.Bounds().Min, draw.Over)
	} else {
		scale.ApproxBiLinear.Scale(small, small.Bounds(), decoded, decoded.Bounds(), scale.Over, nil)
	}
	var out bytes.Buffer
	err := jpeg.Encode(&out, upright(small, f.turn), &jpeg.Options{Quality: quality})
	return out.Bytes(), err
}

// upright turns and mirrors a picture as its orientation asks for.
func upright(from *image.RGBA, turn int) image.Image {
	if turn <= 1 {
		return from
	}
	w, h := from.Bounds().Dx(), from.Bounds().Dy()
	wide, high := w, h
	if turn >= 5 {
		wide, high = h, w
	}
	to := image.NewRGBA(image.Rect(0, 0, wide, high))
	for y := range h {
		for x := range w {
			tx, ty := x, y
			switch turn {
			case 2:
				tx = w - 1 - x
			case 3:
				tx, ty = w-1-x, h-1-y
			case 4:
				ty = h - 1 - y
			case 5:
				tx, ty = y, x
			case 6:
				tx, ty = h-1-y, x
			case 7:
				tx, ty = h-1-y, w-1-x
			case 8:
				tx, ty = y, w-1-x
			}
			copy(to.Pix[to.PixOffset(tx, ty):][:4], from.Pix[from.PixOffset(x, y):][:4])
		}
	}
	return to
}
