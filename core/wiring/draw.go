package wiring

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/svg"
)

// Sizes of a drawing, in its own units.
const (
	drawnWide = 1000
	rowHigh   = 92
	pinsAt    = 300
	pinPitch  = 16
)

// Draw writes the sockets of a board as SVG: pins in two rows where there are more than ten, those that a plug
// covers filled, paler while it is out, those left free hollow, pin 1 square. What a plug hangs over is drawn beside
// the socket.
func Draw(board string, placed []Placed) string {
	on := []Placed{}
	for _, p := range placed {
		if p.ToBoard == board {
			on = append(on, p)
		}
	}
	high, tops := 48, make([]int, len(on))
	for i := range on {
		tops[i] = high
		high += rowHigh
	}
	var out strings.Builder
	fmt.Fprintf(&out,
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" font-family="sans-serif" font-size="16">`+"\n",
		drawnWide, high)
	title := board
	if title == "" {
		title = "Not said where"
	}
	fmt.Fprintf(&out, "<title>%s</title>\n", svg.Escaped("Sockets on "+title))
	fmt.Fprintf(&out, `<rect width="%d" height="%d" fill="#fffdf9"/>`+"\n", drawnWide, high)
	fmt.Fprintf(&out, `<text x="16" y="30" font-size="20" font-weight="bold" fill="#1d2b33">%s</text>`+"\n",
		svg.Escaped(title))
	for i, p := range on {
		drawSocket(&out, p, tops[i])
	}
	out.WriteString("</svg>\n")
	return out.String()
}

func drawSocket(out *strings.Builder, p Placed, top int) {
	frame, dash := "#2f5d73", ""
	switch {
	case p.Never != "":
		frame = "#9c2f1b"
	case p.Open || p.IsSocketOnly():
		dash = ` stroke-dasharray="6 4"`
	}
	fmt.Fprintf(out, `<text x="16" y="%d" font-weight="bold" fill="#1d2b33">%s</text>`+"\n", top+22,
		svg.Escaped(p.Name))
	fmt.Fprintf(out, `<text x="16" y="%d" fill="#566069">%s</text>`+"\n", top+42, svg.Escaped(svg.Clipped(p.Kind, 30)))
	fmt.Fprintf(out, `<text x="16" y="%d" fill="#566069">%s</text>`+"\n", top+62, svg.Escaped(p.shortState()))
	pins := max(p.SocketPins, p.Offset+p.PlugPins)
	first := min(1, p.Offset+1)
	rows := 1
	if p.SocketPins > 10 {
		rows = 2
	}
	free := p.Free()
	pitch := pinPitch
	if wide := (pins - first + rows) / rows * pinPitch; wide > 420 {
		pitch = max(5, 420*pinPitch/wide)
	}
	for pin := first; pin <= pins; pin++ {
		n := pin - first
		x, y := pinsAt+n/rows*pitch, top+20+n%rows*18
		fill := "#2f5d73"
		isSocket := pin >= 1 && pin <= p.SocketPins
		switch {
		case !isSocket:
			fill = "#9c2f1b" // a pin of the plug over nothing
		case slices.Contains(free.Socket, pin) || p.IsSocketOnly():
			fill = "#fffdf9"
		case p.Open:
			fill = "#b9cfda" // where the plug goes back
		}
		shape := fmt.Sprintf(`<circle cx="%d" cy="%d" r="%d"`, x, y, max(2, pitch*5/16))
		if pin == 1 {
			shape = fmt.Sprintf(`<rect x="%d" y="%d" width="%d" height="%d"`, x-pitch*5/16, y-pitch*5/16,
				max(4, pitch*10/16), max(4, pitch*10/16))
		}
		fmt.Fprintf(out, `%s fill="%s" stroke="%s" stroke-width="1.5"/>`+"\n", shape, fill, frame)
	}
	if p.SocketPins > 0 {
		x1, x2 := pinsAt+(1-first)/rows*pitch-10, pinsAt+(p.SocketPins-first)/rows*pitch+10
		fmt.Fprintf(out, `<rect x="%d" y="%d" width="%d" height="%d" fill="none" stroke="%s" stroke-width="2"%s/>`+"\n",
			x1, top+8, x2-x1, 24+(rows-1)*18, frame, dash)
	} else {
		fmt.Fprintf(out, `<text x="%d" y="%d" fill="#8a5a00">pins not counted</text>`+"\n", pinsAt, top+26)
	}
	fmt.Fprintf(out, `<text x="%d" y="%d" fill="#1d2b33" font-size="15">%s</text>`+"\n", pinsAt, top+74,
		svg.Escaped(svg.Clipped(p.way(), 80)))
	fmt.Fprintf(out, `<text x="740" y="%d" fill="#1d2b33">%s</text>`+"\n", top+30,
		svg.Escaped(svg.Clipped(p.end(), 32)))
	fmt.Fprintf(out, `<text x="740" y="%d" fill="#566069">%s</text>`+"\n", top+50,
		svg.Escaped(svg.Clipped(p.Cable, 32)))
}

// shortState is the state in a word or two, for where there is little room.
func (p Placed) shortState() string {
	if p.Never != "" {
		return "plug in nothing"
	}
	return p.state()
}

func (p Placed) end() string {
	if p.Never != "" {
		return ""
	}
	return strings.TrimSpace("from " + strings.TrimSpace(p.FromBoard+" "+p.FromPlace))
}

func (p Placed) way() string {
	if p.Never != "" {
		return p.Never
	}
	words := []string{}
	for _, one := range [][2]string{{"pin 1: ", p.Pin1}, {"key: ", p.Key}, {"wires: ", p.Colours}} {
		if one[1] != "" {
			words = append(words, one[0]+one[1])
		}
	}
	if free := p.Free(); len(free.Socket) > 0 {
		words = append(words, "free: "+runs(free.Socket))
	}
	if len(words) == 0 && !p.IsSocketOnly() {
		return "which way round is not written down"
	}
	return strings.Join(words, "; ")
}
