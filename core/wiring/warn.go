package wiring

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
)

// Warning is what may be mistaken, told before anything is unplugged.
type Warning struct {
	Kind  string   `json:"kind" enum:"never,same pins,twins,width,which way,not counted" doc:"What it is about; never is the gravest"`
	Names []string `json:"names" doc:"The connectors it is about"`
	Text  string   `json:"text" says:"text"`
}

var gravest = []string{"never", "same pins", "twins", "width", "which way", "not counted"}

// Warnings lists what may be mistaken among the connectors of a machine, the gravest first.
func Warnings(connectors []Connector) []Warning {
	warnings := []Warning{}
	add := func(kind, text string, names ...string) { warnings = append(warnings, Warning{kind, names, text}) }
	for i, c := range connectors {
		if c.IsSocketOnly() {
			continue
		}
		for j, other := range connectors {
			if j < i && c.sharesPins(other) {
				perhaps := ""
				if c.PlugPins == 0 || other.PlugPins == 0 {
					perhaps = "perhaps "
				}
				add("same pins",
					fmt.Sprintf("%s and %s are both said to sit on %s of %s, %son the same pins; look again "+
						"which is where", other.Name, c.Name, c.ToPlace, c.ToBoard, perhaps), other.Name, c.Name)
			}
			if i == j || !c.fits(other) {
				continue
			}
			switch {
			case other.Never != "":
				add("never",
					fmt.Sprintf("%s looks like %s and must not take its plug: %s. Label it before %s is unplugged.",
						other.words(), c.Name, other.Never, c.Name), other.Name, c.Name)
			case other.IsSocketOnly():
				add("twins",
					fmt.Sprintf(
						"the plug of %s fits %s, too, where nothing was plugged in; label it before it is unplugged",
						c.Name, other.words()), c.Name, other.Name)
			case i < j || !other.fits(c):
				add("twins",
					fmt.Sprintf("the plug of %s fits the socket of %s, too; label both before they are unplugged",
						c.Name, other.words()), c.Name, other.Name)
			}
		}
		free := c.Free()
		if len(free.Socket)+len(free.Plug) > 0 {
			text := fmt.Sprintf("%s: the plug has %d pins, the socket %d", c.Name, c.PlugPins, c.SocketPins)
			if len(free.Socket) > 0 {
				text += "; of the socket stay free " + runs(free.Socket)
			}
			if len(free.Plug) > 0 {
				text += "; of the plug hang over " + runs(free.Plug)
			}
			add("width", text, c.Name)
		}
		if !c.HasOrientation() {
			add("which way",
				fmt.Sprintf(
					"%s: nobody wrote down which way round it sits; note pin 1, a key or the colour of a wire first",
					c.Name), c.Name)
		}
		if c.PlugPins == 0 || c.SocketPins == 0 {
			add("not counted",
				fmt.Sprintf(
					"%s: the pins of plug and socket are not both counted, so nobody can tell what else it fits",
					c.Name), c.Name)
		}
	}
	slices.SortStableFunc(warnings, func(a, b Warning) int {
		return cmp.Compare(slices.Index(gravest, a.Kind), slices.Index(gravest, b.Kind))
	})
	return warnings
}

// fits reports whether the plug of c would go into the socket of another: of one kind, and not wider. Kinds
// that nobody wrote down could be any.
func (c Connector) fits(other Connector) bool {
	if c.PlugPins == 0 || other.SocketPins == 0 {
		return false
	}
	if a, b := kindKey(c.Kind), kindKey(other.Kind); a != b && a != "" && b != "" {
		return false
	}
	// A plug that is narrower by more than a few pins is not mistaken for one that fits.
	return c.PlugPins <= other.SocketPins &&
		(c.PlugPins == other.SocketPins || c.PlugPins == c.SocketPins && other.SocketPins-c.PlugPins <= 6 ||
			c.SocketPins == other.SocketPins)
}

// sharesPins reports whether two plugs are said to sit on the same pins of one socket.
func (c Connector) sharesPins(other Connector) bool {
	if other.IsSocketOnly() || c.ToPlace == "" || kindKey(c.ToBoard) != kindKey(other.ToBoard) ||
		kindKey(c.ToPlace) != kindKey(other.ToPlace) {
		return false
	}
	// Where the pins of one are not counted, it may be the same ones.
	return c.PlugPins == 0 || other.PlugPins == 0 ||
		c.Offset < other.Offset+other.PlugPins && other.Offset < c.Offset+c.PlugPins
}

func kindKey(kind string) string { return strings.ToLower(strings.Join(strings.Fields(kind), " ")) }

func (c Connector) words() string {
	if c.ToBoard != "" {
		return c.Name + " on " + c.ToBoard
	}
	return c.Name
}

// Of lists the warnings about some connectors, by their names.
func Of(warnings []Warning, names []string) []Warning {
	about := []Warning{}
	for _, w := range warnings {
		if slices.ContainsFunc(w.Names, func(n string) bool {
			return slices.ContainsFunc(names, func(name string) bool { return strings.EqualFold(n, name) })
		}) {
			about = append(about, w)
		}
	}
	return about
}
