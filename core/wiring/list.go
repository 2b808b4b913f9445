package wiring

import (
	"fmt"
	"slices"
	"strings"

	"frugalheron/core/table"
)

// Placed is a connector and whether it is open now.
type Placed struct {
	Connector
	Open bool `json:"open"`
}

// columns of a wiring list.
var columns = []string{"name", "from", "from place", "to", "to place", "kind", "plug pins", "socket pins", "offset",
	"free on socket", "free on plug",
	"pin 1", "key", "wire colours", "cable", "state", "warnings", "note"}

// List writes a wiring list as CSV (RFC 4180), a connector a line.
func List(placed []Placed) string {
	plain := make([]Connector, len(placed))
	for i, p := range placed {
		plain[i] = p.Connector
	}
	warnings := Warnings(plain)
	rows := make([][]string, 0, len(placed))
	for _, p := range placed {
		texts := []string{}
		for _, warning := range Of(warnings, []string{p.Name}) {
			texts = append(texts, warning.Text)
		}
		free := p.Free()
		rows = append(rows, []string{
			p.Name, p.FromBoard, p.FromPlace, p.ToBoard, p.ToPlace, p.Kind, count(p.PlugPins), count(p.SocketPins),
			fmt.Sprint(p.Offset), runs(free.Socket), runs(free.Plug),
			p.Pin1, p.Key, p.Colours, p.Cable, p.state(), strings.Join(texts, "; "), p.Note,
		})
	}
	return table.Write(columns, rows)
}

func (p Placed) state() string {
	switch {
	case p.Never != "":
		return "never: " + p.Never
	case p.IsSocketOnly():
		return "free"
	case p.IsFoundOpen():
		return "found open"
	case p.Open:
		return "open"
	}
	return "connected"
}

func count(pins int) string {
	if pins == 0 {
		return ""
	}
	return fmt.Sprint(pins)
}

// Boards lists what carries sockets, in the order in which it is met.
func Boards(placed []Placed) []string {
	boards := []string{}
	for _, p := range placed {
		if !slices.Contains(boards, p.ToBoard) {
			boards = append(boards, p.ToBoard)
		}
	}
	return boards
}
