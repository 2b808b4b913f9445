// Package wiring answers which plug of a machine goes where and which way round, and what may be mistaken
// before anything is unplugged.
package wiring

import (
	"fmt"
	"strings"

	"frugalheron/core/malformed"
)

// Connector is a plug in its socket, or a socket that stands beside the others without one.
type Connector struct {
	Name       string `json:"name" maxLength:"40" doc:"Of the machine's own, as J5 or Disk J1"`
	FromBoard  string `json:"fromBoard" says:"text" maxLength:"200" doc:"What the cable comes from, as Disk drive; empty for a socket without a plug"`
	FromPlace  string `json:"fromPlace" maxLength:"60" required:"false" doc:"Where on it"`
	ToBoard    string `json:"toBoard" says:"text" maxLength:"200" doc:"What carries the socket, as Main board"`
	ToPlace    string `json:"toPlace" maxLength:"60" required:"false" doc:"Designator of the socket"`
	Kind       string `json:"kind" maxLength:"100" required:"false" doc:"As header 2.54, edge, power, DIN"`
	PlugPins   int    `json:"plugPins" minimum:"0" maximum:"400" required:"false" doc:"0 while nobody counted"`
	SocketPins int    `json:"socketPins" minimum:"0" maximum:"400" required:"false"`
	Offset     int    `json:"offset" minimum:"-400" maximum:"400" required:"false" doc:"Pins of the socket before pin 1 of the plug; below 0 the plug hangs over"`
	Pin1       string `json:"pin1" maxLength:"200" required:"false" doc:"Where pin 1 is, as red edge to the rear"`
	Key        string `json:"key" maxLength:"200" required:"false" doc:"What keeps it from going in the wrong way: notch, pin pulled"`
	Colours    string `json:"colours" maxLength:"200" required:"false" doc:"Wire colours from pin 1 on"`
	Cable      string `json:"cable" maxLength:"200" required:"false"`
	Never      string `json:"never" says:"text" maxLength:"400" required:"false" doc:"Why nothing must be plugged in here, for a socket that looks like another"`
	Note       string `json:"note" says:"text" maxLength:"1000" required:"false"`
	PictureID  *int64 `json:"pictureId,omitempty" doc:"A picture of it as it was"`
	FoundOpen  bool   `json:"foundOpen,omitempty" required:"false" doc:"It was found open: where it goes, and whether it goes anywhere, is not known"`
}

// Check refuses what cannot be drawn or found again.
func (c Connector) Check() error {
	switch {
	case strings.TrimSpace(c.Name) == "":
		return malformed.In("name", "give it a name that stands on the board, or on a label of yours")
	case strings.ContainsAny(c.Name, ",|"):
		return malformed.In("name", "commas and strokes separate names in the log; leave them out")
	case c.PlugPins > 0 && c.SocketPins > 0 && (c.Offset >= c.SocketPins || c.Offset+c.PlugPins <= 0):
		return malformed.In("offset", "moved by %d pins the plug misses the socket of %d pins", c.Offset, c.SocketPins)
	case c.FoundOpen && c.FromBoard == "":
		return malformed.In("fromBoard", "say what the plug that was found open comes from, as Loose lead behind the drive")
	case c.Never != "" && c.FromBoard != "":
		return malformed.In("never", "a socket that must stay free has no plug; leave empty what it comes from")
	}
	return nil
}

// IsSocketOnly reports whether nothing is plugged in here.
func (c Connector) IsSocketOnly() bool { return c.FromBoard == "" && c.PlugPins == 0 }

// IsAt reports whether it is the socket or the plug at a place on a board. One whose place is not told is by its name.
func (c Connector) IsAt(board, place string) bool {
	at := func(onBoard, atPlace string) bool {
		if atPlace == "" {
			atPlace = c.Name
		}
		return kindKey(onBoard) == kindKey(board) && kindKey(atPlace) == kindKey(place)
	}
	return at(c.ToBoard, c.ToPlace) || at(c.FromBoard, c.FromPlace)
}

// HasOrientation reports whether somebody wrote down which way round the plug sits.
func (c Connector) HasOrientation() bool { return c.Pin1 != "" || c.Key != "" || c.Colours != "" }

// Free are the pins that meet no other, by their numbers.
type Free struct {
	Socket []int `json:"socket" doc:"Pins of the socket that the plug leaves free"`
	Plug   []int `json:"plug" doc:"Pins of the plug that hang in the air"`
}

// Free counts the pins that meet no other. Without both counts nothing is known, and nothing is free.
func (c Connector) Free() Free {
	free := Free{[]int{}, []int{}}
	if c.PlugPins == 0 || c.SocketPins == 0 {
		return free
	}
	for pin := 1; pin <= c.SocketPins; pin++ {
		if pin <= c.Offset || pin > c.Offset+c.PlugPins {
			free.Socket = append(free.Socket, pin)
		}
	}
	for pin := 1; pin <= c.PlugPins; pin++ {
		if at := pin + c.Offset; at < 1 || at > c.SocketPins {
			free.Plug = append(free.Plug, pin)
		}
	}
	return free
}

// runs writes numbers as "1-2, 37-40".
func runs(pins []int) string {
	words := []string{}
	for i := 0; i < len(pins); {
		j := i
		for j+1 < len(pins) && pins[j+1] == pins[j]+1 {
			j++
		}
		if j > i {
			words = append(words, fmt.Sprintf("%d-%d", pins[i], pins[j]))
		} else {
			words = append(words, fmt.Sprint(pins[i]))
		}
		i = j + 1
	}
	return strings.Join(words, ", ")
}
