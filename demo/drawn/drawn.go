// Package drawn draws the pictures of the sample world: boards as their sheets say, with every designator
// to be read, and the rear of a case with its rating plate.
package drawn

import (
	"image"
	"image/color"
	"image/draw"
	"math"

	"golang.org/x/image/font"
	"golang.org/x/image/font/basicfont"
	"golang.org/x/image/math/fixed"
)

var (
	lacquer = color.RGBA{0x24, 0x4f, 0x38, 0xff}
	trace   = color.RGBA{0x2e, 0x63, 0x47, 0xff}
	body    = color.RGBA{0x1b, 0x1d, 0x20, 0xff}
	window  = color.RGBA{0x8d, 0x7a, 0x9c, 0xff}
	socket  = color.RGBA{0x5a, 0x4a, 0x35, 0xff}
	tin     = color.RGBA{0xb9, 0xbd, 0xbe, 0xff}
	silk    = color.RGBA{0xe9, 0xe6, 0xd6, 0xff}
	printed = color.RGBA{0xc3, 0xc6, 0xc8, 0xff}
	sand    = color.RGBA{0xd6, 0xcb, 0xb2, 0xff}
	shade   = color.RGBA{0xb3, 0xa7, 0x8c, 0xff}
	dark    = color.RGBA{0x2b, 0x2a, 0x27, 0xff}
	plate   = color.RGBA{0xd9, 0xdc, 0xdd, 0xff}
	ink     = color.RGBA{0x16, 0x18, 0x1a, 0xff}
)

// Board is a board to draw.
type Board struct {
	Title string
	parts []part
}

type part struct {
	designator, marking, kind string
	empty                     bool
}

// mostParts bounds a drawing; a board in a box holds no more.
const mostParts = 140

// Add adds the parts of a line of the sheet.
func (b *Board) Add(designators []string, count int, kind, marking string, empty bool) {
	for i := range count {
		name := ""
		if i < len(designators) {
			name = designators[i]
		}
		if len(b.parts) < mostParts {
			b.parts = append(b.parts, part{name, marking, kind, empty})
		}
	}
}

const (
	width, height = 1600, 1080
	margin        = 48
)

// Draw draws the board as it lies before somebody: parts in rows, as the sheet tells them.
func (b Board) Draw() image.Image {
	canvas := image.NewRGBA(image.Rect(0, 0, width, height))
	fill(canvas, canvas.Bounds(), color.RGBA{0xef, 0xeb, 0xe2, 0xff})
	board := image.Rect(20, 20, width-20, height-20)
	fill(canvas, board, lacquer)
	for x := board.Min.X + 30; x < board.Max.X; x += 26 {
		fill(canvas, image.Rect(x, board.Min.Y+20, x+2, board.Max.Y-20), trace)
	}
	for _, hole := range []image.Point{{44, 44}, {width - 44, 44}, {44, height - 44}, {width - 44, height - 44}} {
		disc(canvas, hole, 12, tin)
		disc(canvas, hole, 6, color.RGBA{0xef, 0xeb, 0xe2, 0xff})
	}
	text(canvas, board.Min.X+60, board.Min.Y+14, 2, silk, b.Title)
	for i, p := range b.parts {
		p.draw(canvas, b.place(i))
	}
	return canvas
}

// place is where a part lies.
func (b Board) place(i int) image.Rectangle {
	columns := max(6, int(math.Ceil(math.Sqrt(float64(len(b.parts))*1.9))))
	rows := max(1, (len(b.parts)+columns-1)/columns)
	cellW, cellH := (width-2*margin)/columns, (height-2*margin-40)/max(rows, 4)
	x, y := margin+(i%columns)*cellW, margin+44+(i/columns)*cellH
	return image.Rect(x+6, y+18, x+cellW-6, y+min(cellH-8, 120))
}

// Places tells where the parts with designators lie: their middles, in parts of the picture.
func (b Board) Places() map[string]Part {
	places := map[string]Part{}
	for i, p := range b.parts {
		if at := b.place(i); p.designator != "" {
			places[p.designator] = Part{X: float64(at.Min.X+at.Max.X) / 2 / width,
				Y: float64(at.Min.Y+at.Max.Y) / 2 / height}
		}
	}
	return places
}

func (p part) draw(canvas *image.RGBA, at image.Rectangle) {
	text(canvas, at.Min.X, at.Min.Y-16, 1, silk, p.designator)
	switch p.kind {
	case "chip", "module":
	case "capacitor":
		centre := image.Pt((at.Min.X+at.Max.X)/2, (at.Min.Y+at.Max.Y)/2)
		disc(canvas, centre, min(at.Dx(), at.Dy())/3, color.RGBA{0xc8, 0x8f, 0x3a, 0xff})
		return
	case "crystal":
		fill(canvas, shrunk(at, 8, at.Dy()/4), tin)
		text(canvas, at.Min.X+12, (at.Min.Y+at.Max.Y)/2-6, 1, ink, p.marking)
		return
	default:
		fill(canvas, shrunk(at, 10, at.Dy()/3), color.RGBA{0xd8, 0xd4, 0xc6, 0xff})
		text(canvas, at.Min.X+12, (at.Min.Y+at.Max.Y)/2-6, 1, ink, p.marking)
		return
	}
	for x := at.Min.X + 6; x+6 < at.Max.X; x += 12 {
		fill(canvas, image.Rect(x, at.Min.Y, x+5, at.Max.Y), tin)
	}
	outline := shrunk(at, 0, 7)
	if p.empty {
		fill(canvas, outline, socket)
		fill(canvas, shrunk(outline, 10, 8), lacquer)
		return
	}
	fill(canvas, outline, body)
	disc(canvas, image.Pt(outline.Min.X, (outline.Min.Y+outline.Max.Y)/2), 6, lacquer)
	if len(p.marking) > 2 && p.marking[:2] == "27" {
		disc(canvas, image.Pt((outline.Min.X+outline.Max.X)/2, outline.Max.Y-14), 9, window)
	}
	text(canvas, outline.Min.X+10, outline.Min.Y+4, 1, printed, p.marking)
}

// Part is a part of a picture, in parts of its width and height.
type Part struct{ X, Y, W, H float64 }

// Rear draws the rear of a case, and tells where on the picture the serial number stands.
func Rear(maker, model, serial string) (image.Image, Part) {
	const w, h = 1400, 760
	canvas := image.NewRGBA(image.Rect(0, 0, w, h))
	fill(canvas, canvas.Bounds(), color.RGBA{0xef, 0xeb, 0xe2, 0xff})
	fill(canvas, image.Rect(40, 60, w-40, h-60), sand)
	fill(canvas, image.Rect(40, h-80, w-40, h-60), shade)
	for x := 90; x < 460; x += 22 {
		fill(canvas, image.Rect(x, 110, x+10, 330), shade)
	}
	fill(canvas, image.Rect(100, 440, 250, 580), dark) // mains inlet
	for i, x := range []int{135, 170, 205} {
		fill(canvas, image.Rect(x, 485+(i%2)*18, x+12, 520+(i%2)*18), tin)
	}
	for i, name := range []string{"SERIAL 1", "SERIAL 2", "VIDEO"} {
		x := 320 + i*210
		fill(canvas, image.Rect(x, 470, x+170, 550), tin)
		fill(canvas, image.Rect(x+14, 482, x+156, 538), dark)
		text(canvas, x, 560, 2, ink, name)
	}
	label := image.Rect(840, 130, 1320, 400)
	fill(canvas, label, plate)
	frame(canvas, label, ink)
	text(canvas, label.Min.X+20, label.Min.Y+16, 3, ink, maker)
	text(canvas, label.Min.X+20, label.Min.Y+70, 2, ink, "MODEL  "+model)
	text(canvas, label.Min.X+20, label.Min.Y+112, 2, ink, "220-240V ~ 50Hz 0.9A")
	at := image.Rect(label.Min.X+12, label.Min.Y+160, label.Max.X-12, label.Min.Y+220)
	text(canvas, at.Min.X+8, at.Min.Y+12, 3, ink, "SER "+serial)
	return canvas, Part{float64(at.Min.X) / w, float64(at.Min.Y) / h, float64(at.Dx()) / w, float64(at.Dy()) / h}
}

func fill(canvas *image.RGBA, at image.Rectangle, c color.Color) {
	draw.Draw(canvas, at, image.NewUniform(c), image.Point{}, draw.Src)
}

func frame(canvas *image.RGBA, at image.Rectangle, c color.Color) {
	for _, side := range []image.Rectangle{
		{at.Min, image.Pt(at.Max.X, at.Min.Y+2)}, {image.Pt(at.Min.X, at.Max.Y-2), at.Max},
		{at.Min, image.Pt(at.Min.X+2, at.Max.Y)}, {image.Pt(at.Max.X-2, at.Min.Y), at.Max},
	} {
		fill(canvas, side, c)
	}
}

func shrunk(at image.Rectangle, x, y int) image.Rectangle {
	return image.Rect(at.Min.X+x, at.Min.Y+y, at.Max.X-x, at.Max.Y-y)
}

func disc(canvas *image.RGBA, centre image.Point, radius int, c color.Color) {
	for y := -radius; y <= radius; y++ {
		reach := int(math.Sqrt(float64(radius*radius - y*y)))
		fill(canvas, image.Rect(centre.X-reach, centre.Y+y, centre.X+reach+1, centre.Y+y+1), c)
	}
}

// text writes in letters of 7 x 13 points, so many times as large.
func text(canvas *image.RGBA, x, y, times int, c color.Color, words string) {
	small := image.NewAlpha(image.Rect(0, 0, 7*len(words)+7, 14))
	drawer := font.Drawer{Dst: small, Src: image.Opaque, Face: basicfont.Face7x13, Dot: fixed.P(0, 11)}
	drawer.DrawString(words)
	for sy := range 14 {
		for sx := range small.Bounds().Dx() {
			if small.AlphaAt(sx, sy).A > 127 {
				fill(canvas, image.Rect(x+sx*times, y+sy*times, x+(sx+1)*times, y+(sy+1)*times), c)
			}
		}
	}
}
