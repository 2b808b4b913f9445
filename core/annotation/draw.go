package annotation

import (
	"fmt"
	"strings"

	"frugalheron/core/svg"
)

// Sizes of a drawing, in units of its width.
const (
	drawnWide = 1200.0
	legendRow = 22.0
	radius    = 11.0
)

// Draw writes an annotation as SVG: the picture, by its address or as a data URL, outlines and numbers over it, and
// the legend below. The picture's size is in pixels.
func Draw(title, picture string, width, height int, p Annotation, legend Legend) string {
	if width <= 0 || height <= 0 {
		width, height = 4, 3
	}
	high := drawnWide * float64(height) / float64(width)
	rows := legendRows(p, legend)
	var out strings.Builder
	fmt.Fprintf(&out, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %.0f %.0f" font-family="sans-serif" font-size="14">`+"\n", drawnWide, high+legendRow*float64(len(rows)+2))
	fmt.Fprintf(&out, "<title>%s</title>\n", svg.Escaped(title))
	fmt.Fprintf(&out, `<image href="%s" width="%.0f" height="%.1f" preserveAspectRatio="none"/>`+"\n",
		svg.Escaped(picture), drawnWide, high)
	for _, b := range p.Blocks {
		box := p.BoxOf(b)
		fmt.Fprintf(&out,
			`<rect x="%.1f" y="%.1f" width="%.1f" height="%.1f" fill="none" stroke="#2f5d73" stroke-width="3" stroke-dasharray="10 5"/>`+"\n",
			box.X*drawnWide, box.Y*high, box.W*drawnWide, box.H*high)
		fmt.Fprintf(&out,
			`<text x="%.1f" y="%.1f" fill="#1d2b33" stroke="#fffdf9" stroke-width="4" paint-order="stroke" font-weight="bold">%s</text>`+"\n",
			box.X*drawnWide+4, box.Y*high-5, svg.Escaped(b.Name))
	}
	for _, c := range legend.Numbered {
		fmt.Fprintf(&out,
			`<g><title>%s</title><circle cx="%.1f" cy="%.1f" r="%.0f" fill="#fffdf9" stroke="#1d2b33" stroke-width="1.5"/><text x="%.1f" y="%.1f" text-anchor="middle" font-size="12">%d</text></g>`+"\n",
			svg.Escaped(c.Designator+" "+c.Words), c.X*drawnWide, c.Y*high, radius, c.X*drawnWide, c.Y*high+4, c.N)
	}
	for i, row := range rows {
		fmt.Fprintf(&out, `<text x="8" y="%.1f">%s</text>`+"\n", high+legendRow*float64(i+1), svg.Escaped(row))
	}
	out.WriteString("</svg>\n")
	return out.String()
}

func legendRows(p Annotation, legend Legend) []string {
	rows := []string{}
	for _, c := range legend.Numbered {
		words := c.Words
		if c.Line == 0 {
			words = "not on the sheet"
		}
		rows = append(rows, fmt.Sprintf("%d  %s  %s", c.N, c.Designator, words))
	}
	for _, b := range p.Blocks {
		row := fmt.Sprintf("%s: %s", b.Name, strings.Join(b.Members, ", "))
		if len(b.Reaches) > 0 {
			row += "; may reach " + strings.Join(b.Reaches, ", ")
		}
		rows = append(rows, row)
	}
	if len(legend.Unplaced) > 0 {
		left := []string{}
		for _, e := range legend.Unplaced {
			left = append(left, e.Designators...)
		}
		rows = append(rows, "Not on the picture: "+strings.Join(left, ", "))
	}
	return rows
}
