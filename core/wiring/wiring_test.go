package wiring_test

import (
	"encoding/csv"
	"encoding/xml"
	"fmt"
	"io"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/malformed"
	"frugalheron/core/wiring"
)

var disk = wiring.Connector{Name: "J5", FromBoard: "Disk drive", ToBoard: "Main board", Kind: "header 2.54",
	PlugPins: 34, SocketPins: 40, Offset: 2, Pin1: "red edge to the rear", Cable: "grey ribbon"}

func ExampleWarnings() {
	tape := wiring.Connector{Name: "J6", FromBoard: "Tape drive", ToBoard: "Main board", Kind: "Header  2.54",
		PlugPins: 34, SocketPins: 34, Key: "notch"}
	test := wiring.Connector{Name: "J9", ToBoard: "Main board", Kind: "header 2.54", SocketPins: 34,
		Never: "it carries +12 V for the test bench"}
	lamp := wiring.Connector{Name: "P1", FromBoard: "Lamp", ToBoard: "Main board", Kind: "power", PlugPins: 2,
		SocketPins: 2}
	for _, w := range wiring.Warnings([]wiring.Connector{disk, tape, test, lamp}) {
		fmt.Println(w.Kind, w.Names, w.Text)
	}
	// Output:
	// never [J9 J5] J9 on Main board looks like J5 and must not take its plug: it carries +12 V for the test bench. Label it before J5 is unplugged.
	// never [J9 J6] J9 on Main board looks like J6 and must not take its plug: it carries +12 V for the test bench. Label it before J6 is unplugged.
	// twins [J5 J6] the plug of J5 fits the socket of J6 on Main board, too; label both before they are unplugged
	// width [J5] J5: the plug has 34 pins, the socket 40; of the socket stay free 1-2, 37-40
	// which way [P1] P1: nobody wrote down which way round it sits; note pin 1, a key or the colour of a wire first
}

func TestWarningsByCase(t *testing.T) {
	kinds := func(connectors ...wiring.Connector) []string {
		found := []string{}
		for _, w := range wiring.Warnings(connectors) {
			found = append(found, w.Kind+" "+strings.Join(w.Names, "+"))
		}
		return found
	}
	plug := func(name, kind string, plug, socket int) wiring.Connector {
		return wiring.Connector{Name: name, FromBoard: "x", ToBoard: "y", Kind: kind, PlugPins: plug,
			SocketPins: socket, Key: "notch"}
	}
	require.Empty(t, kinds(plug("J1", "din", 5, 5), plug("J2", "power", 5, 5), plug("J3", "din", 20, 20)))
	require.Equal(t, []string{"twins J1+J2"}, kinds(plug("J1", "", 5, 5), plug("J2", "power", 5, 5)))
	require.Equal(t, []string{"twins J1+J2"}, kinds(plug("J1", "din", 5, 5), plug("J2", "din", 8, 8)),
		"narrower by three")
	require.Empty(t, kinds(plug("J1", "header", 10, 10), plug("J2", "header", 40, 40)), "nobody takes 10 pins for 40")
	require.Equal(t, []string{"twins J1+J2"},
		kinds(plug("J1", "din", 5, 5), wiring.Connector{Name: "J2", ToBoard: "y", Kind: "din", SocketPins: 5}))
	require.Equal(t, []string{"twins J2+J1", "not counted J1"}, kinds(plug("J1", "din", 0, 5), plug("J2", "din", 5, 5)))
	over := plug("J1", "header", 34, 26)
	require.Equal(t, wiring.Free{Socket: []int{}, Plug: []int{27, 28, 29, 30, 31, 32, 33, 34}}, over.Free())
	over.Offset = -4
	require.Equal(t, []int{1, 2, 3, 4, 31, 32, 33, 34}, over.Free().Plug)
	require.Contains(t, wiring.Warnings([]wiring.Connector{over})[0].Text, "of the plug hang over 1-4, 31-34")
}

func TestConnectorsAreChecked(t *testing.T) {
	require.NoError(t, disk.Check())
	for want, change := range map[string]func(c *wiring.Connector){
		"give it a name":    func(c *wiring.Connector) { c.Name = " " },
		"separate names":    func(c *wiring.Connector) { c.Name = "J1,J2" },
		"misses the socket": func(c *wiring.Connector) { c.Offset = 40 },
		"has no plug":       func(c *wiring.Connector) { c.Never = "for tests" },
	} {
		c := disk
		change(&c)
		var wrong *malformed.Error
		require.ErrorAs(t, c.Check(), &wrong)
		require.ErrorContains(t, c.Check(), want)
	}
	// Every pin of the socket is either met by the plug or free, and so is every pin of the plug.
	rapid.Check(t, func(t *rapid.T) {
		c := disk
		c.PlugPins, c.SocketPins, c.Offset = rapid.IntRange(1, 60).Draw(t, "plug"),
			rapid.IntRange(1, 60).Draw(t, "socket"), rapid.IntRange(-20, 20).Draw(t, "offset")
		if c.Check() != nil {
			return
		}
		free := c.Free()
		require.Equal(t, c.SocketPins-len(free.Socket), c.PlugPins-len(free.Plug))
		require.Positive(t, c.SocketPins-len(free.Socket))
	})
}

func TestAWiringListAndDrawing(t *testing.T) {
	placed := []wiring.Placed{
		{Connector: disk, Open: true},
		{Connector: wiring.Connector{Name: "P1", FromBoard: `Lamp "<&>"`, ToBoard: "Lamp board"}},
		{Connector: wiring.Connector{Name: "J9", ToBoard: "Main board", Kind: "header 2.54", SocketPins: 34,
			Never: "for tests"}},
		{Connector: wiring.Connector{Name: "J8", ToBoard: "Main board", SocketPins: 3}},
	}
	rows, err := csv.NewReader(strings.NewReader(wiring.List(placed))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 5)
	require.Equal(t, []string{"J5", "Disk drive", "", "Main board", "", "header 2.54", "34", "40", "2", "1-2, 37-40",
		"", "red edge to the rear", "", "", "grey ribbon", "open"}, rows[1][:16])
	require.Contains(t, rows[1][16], "J9 on Main board looks like J5")
	require.Equal(t, "never: for tests", rows[3][15])
	require.Equal(t, "free", rows[4][15])
	require.Equal(t, []string{"Main board", "Lamp board"}, wiring.Boards(placed))
	for board, circles := range map[string]int{"Main board": 39 + 33 + 2, "Lamp board": 0} {
		drawn := wiring.Draw(board, placed)
		decoder := xml.NewDecoder(strings.NewReader(drawn))
		for {
			_, err := decoder.Token()
			if err == io.EOF {
				break
			}
			require.NoError(t, err)
		}
		require.Equal(t, circles, strings.Count(drawn, "<circle"), board)
	}
}

// Whatever is on a map: warnings name connectors that are on it, nothing is said twice of one pair, what must
// stay free goes first, and the drawing and the list are well formed.
func TestAnyMapIsToldWell(t *testing.T) {
	kinds := rapid.SampledFrom([]string{"", "header", "HEADER", "power", "din"})
	rapid.Check(t, func(t *rapid.T) {
		connectors, placed := []wiring.Connector{}, []wiring.Placed{}
		for i := range rapid.IntRange(0, 9).Draw(t, "connectors") {
			c := wiring.Connector{Name: fmt.Sprintf("J%d", i),
				ToBoard: rapid.SampledFrom([]string{"", "Main", `"<&>`}).Draw(t, "board"), Kind: kinds.Draw(t, "kind"),
				SocketPins: rapid.IntRange(0, 50).Draw(t, "socket")}
			switch rapid.IntRange(0, 3).Draw(t, "sort") {
			case 0:
				c.Never = "for tests"
			case 1:
			default:
				c.FromBoard, c.PlugPins, c.Offset = "Drive", rapid.IntRange(0, 50).Draw(t, "plug"),
					rapid.IntRange(-5, 5).Draw(t, "offset")
			}
			if c.Check() != nil {
				continue
			}
			connectors = append(connectors, c)
			placed = append(placed, wiring.Placed{Connector: c, Open: rapid.Bool().Draw(t, "open")})
		}
		said, last := map[string]bool{}, 0
		order := []string{"never", "twins", "width", "which way", "not counted"}
		for _, w := range wiring.Warnings(connectors) {
			require.False(t, said[w.Text], w.Text)
			said[w.Text] = true
			at := slices.Index(order, w.Kind)
			require.GreaterOrEqual(t, at, last)
			last = at
			for _, name := range w.Names {
				require.True(t,
					slices.ContainsFunc(connectors, func(c wiring.Connector) bool { return c.Name == name }))
			}
			require.NotEmpty(t, wiring.Of([]wiring.Warning{w}, w.Names[:1]))
			require.Empty(t, wiring.Of([]wiring.Warning{w}, []string{"none"}))
		}
		rows, err := csv.NewReader(strings.NewReader(wiring.List(placed))).ReadAll()
		require.NoError(t, err)
		require.Len(t, rows, len(placed)+1)
		for _, board := range wiring.Boards(placed) {
			decoder := xml.NewDecoder(strings.NewReader(wiring.Draw(board, placed)))
			for {
				if _, err := decoder.Token(); err == io.EOF {
					break
				} else {
					require.NoError(t, err)
				}
			}
		}
	})
}

func TestTwoPlugsOnTheSamePins(t *testing.T) {
	on := func(name string, pins, offset int) wiring.Connector {
		return wiring.Connector{Name: name, FromBoard: "Lead " + name, ToBoard: "Main board", ToPlace: "J5",
			PlugPins:   pins,
			SocketPins: 20, Offset: offset, Pin1: "left"}
	}
	told := func(connectors ...wiring.Connector) string {
		for _, w := range wiring.Warnings(connectors) {
			if w.Kind == "same pins" {
				return w.Text
			}
		}
		return ""
	}
	require.Empty(t, told(on("A", 10, 0), on("B", 10, 10)))
	require.Contains(t, told(on("A", 10, 0), on("B", 10, 9)),
		"A and B are both said to sit on J5 of Main board, on the same")
	require.Contains(t, told(on("A", 10, 0), on("B", 0, 0)), "perhaps on the same pins")
	elsewhere := on("B", 10, 0)
	elsewhere.ToBoard = "Disk card"
	require.Empty(t, told(on("A", 10, 0), elsewhere))
}

// A plug that was found open waits for nobody, and is told apart from those that somebody pulled.
func TestFoundOpenIsAStateOfItsOwn(t *testing.T) {
	loose := wiring.Placed{Connector: wiring.Connector{Name: "J8", FromBoard: "Loose lead", FoundOpen: true},
		Open: true}
	v := wiring.OpenVerdict([]wiring.Placed{loose})
	require.Equal(t, "1 found open plain", v.Value+" "+string(v.State))
	v = wiring.OpenVerdict([]wiring.Placed{loose, {Connector: wiring.Connector{Name: "J1", FromBoard: "Fan"},
		Open: true}})
	require.Equal(t, "1 open, 1 found open attention", v.Value+" "+string(v.State))
	require.Contains(t, wiring.List([]wiring.Placed{loose}), "found open")
	loose.FromBoard = ""
	require.ErrorContains(t, loose.Check(), "say what the plug")
}
