// Package practice answers: what did somebody do right and wrong who practises the ladder on a simulated machine?
//
// The machine is none: nothing of it is a record. What is done on it is judged by the gate and the ladder as on any
// machine. What is wrong with it is simulated elsewhere; here stands what can be wrong, and where.
package practice

import "fmt"

// Fault is something that can be wrong with the machine.
type Fault string

// Faults of the machine.
const (
	Sags          Fault = "sags"
	Shorted       Fault = "shorted"
	BadChip       Fault = "bad-chip"
	NoCell        Fault = "no-cell"
	SilentConsole Fault = "silent-console"
)

// FaultWords says what a fault is, how it shows, and where it can be.
type FaultWords struct {
	Key    Fault    `json:"key" enum:"sags,shorted,bad-chip,no-cell,silent-console"`
	Name   string   `json:"name"`
	Shows  string   `json:"shows" doc:"How it is told from the others"`
	Places []string `json:"places"`
}

// What the machine is made of.
const (
	Minimum   = "Processor board"
	DiskCard  = "Disk card"
	OwnBytes  = 2 << 10  // of memory on its processor board
	BankBytes = 32 << 10 // of each memory board
	chips     = 8        // of a memory board, a bit each
)

// MemoryBoards lists them in the order of their addresses.
func MemoryBoards() []string { return []string{"Memory board 1", "Memory board 2"} }

// Units lists what can be fitted.
func Units() []string { return append(append([]string{Minimum}, MemoryBoards()...), DiskCard) }

// ChipOf is the chip of a memory board that holds a bit.
func ChipOf(board string, bit int) string { return fmt.Sprintf("%s, U%d", board, 10+bit) }

// ChipAt is the board and the bit of a chip; false where no chip is called so.
func ChipAt(place string) (board string, bit int, ok bool) {
	for _, board := range MemoryBoards() {
		for bit := range chips {
			if place == ChipOf(board, bit) {
				return board, bit, true
			}
		}
	}
	return "", 0, false
}

// Points lists what can be measured.
func Points() []string { return []string{"+5", "+12", "-12", "console driver", "clock cell"} }

// PointOf is what a meter's stand-in calls a point of the machine.
func PointOf(point string) string { return "Practice " + point }

// Faults lists all that can be wrong.
func Faults() []FaultWords {
	places := []string{}
	for _, board := range MemoryBoards() {
		for bit := range chips {
			places = append(places, ChipOf(board, bit))
		}
	}
	return []FaultWords{
		{Sags, "A rail that sags under load",
			"within its limits on the dummy load, and lower with each card: a tired supply, not a card", []string{"Supply"}},
		{Shorted, "A card with a short",
			"a rail falls to nearly nothing when this card is in, and is well without it", append(MemoryBoards(), DiskCard)},
		{BadChip, "A bad memory chip", "the memory test names the same bit of one bank: bit n is chip U10 + n of that board",
			places},
		{NoCell, "A clock without its battery", "the console says that the clock is not set, and the cell measures next to nothing",
			[]string{"Clock cell"}},
		{SilentConsole, "A silent console",
			"nothing is said though the lamps say that it runs: the driver of the line lacks its negative supply",
			[]string{"Console driver"}},
	}
}

// FaultOf is what is known of a fault; nil for none of that name.
func FaultOf(key Fault) *FaultWords {
	for _, f := range Faults() {
		if f.Key == key {
			return &f
		}
	}
	return nil
}

// PlacesOf lists where a fault can be.
func PlacesOf(key Fault) []string {
	if f := FaultOf(key); f != nil {
		return f.Places
	}
	return nil
}

// NamedFault is what somebody says is wrong, or what is.
type NamedFault struct {
	Fault Fault  `json:"fault" enum:"sags,shorted,bad-chip,no-cell,silent-console"`
	Place string `json:"place" maxLength:"60"`
}
