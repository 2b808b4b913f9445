// Package practice simulates a machine to practise on: behind a meter and a console, with a fault that a seed chooses. Who
// practises finds it by the ladder. docs/practice.md tells of it in full.
package practice

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"time"

	"frugalheron/core/practice"
	"frugalheron/core/quantity"
	"frugalheron/instruments/meter"
)

// Bench is how the machine stands: what is on it, and what is in it.
type Bench struct {
	Seed   int      `json:"seed"`
	On     bool     `json:"on"`
	Load   string   `json:"load"` // practice.Dummy or practice.Machine
	Fitted []string `json:"fitted"`
}

// Machine is the machine of a seed.
type Machine struct {
	Bench
	fault practice.Fault
	place string
	at    int // offset of the first address that fails
}

// MachineOf is the machine of a bench. The same seed has the same fault.
func MachineOf(b Bench) *Machine {
	random := rand.New(rand.NewPCG(uint64(b.Seed), 7)) //nolint:gosec // no secret
	m := &Machine{Bench: b}
	faults := practice.Faults()
	m.fault = faults[(b.Seed%len(faults)+len(faults))%len(faults)].Key
	places := practice.PlacesOf(m.fault)
	m.place = places[random.IntN(len(places))]
	m.at = random.IntN(practice.BankBytes-64) &^ 15
	return m
}

// Answer is what is wrong with it, and where.
func (m *Machine) Answer() practice.NamedFault {
	return practice.NamedFault{Fault: m.fault, Place: m.place}
}

func (m *Machine) has(unit string) bool {
	return m.Load == practice.Machine && slices.Contains(m.Fitted, unit)
}

// isShorted reports whether the card that is shorted is in.
func (m *Machine) isShorted() bool { return m.fault == practice.Shorted && m.has(m.place) }

// runs reports whether the processor does.
func (m *Machine) runs() bool {
	return m.On && m.has(practice.Minimum) && !m.isShorted() && m.plusFive() >= leastToRun
}

// leastToRun is the supply at which the processor still runs, in volts: lower than what its data sheet promises.
const leastToRun = 4.4

// plusFive is its rail of +5 V, in volts. A tired supply holds it on a dummy load and sags with each card.
func (m *Machine) plusFive() float64 {
	cards := 0
	if m.Load == practice.Machine {
		cards = len(m.Fitted)
	}
	if m.fault == practice.Sags {
		return 5.05 - 0.14*float64(cards)
	}
	return 5.06 - 0.012*float64(cards)
}

// Points are what the leads of a meter can be put to, with what stands there.
func (m *Machine) Points() map[string]meter.Values {
	volts := func(v float64, isFed bool) meter.Values {
		if !isFed {
			v = 0
		}
		return meter.Values{quantity.Volts: v}
	}
	twelve, driver, cell := 12.04, -11.6, 3.02
	if m.isShorted() {
		twelve = 0.31
	}
	if m.fault == practice.SilentConsole {
		driver = -0.02
	}
	if m.fault == practice.NoCell {
		cell = 0.38
	}
	return map[string]meter.Values{
		practice.PointOf("+5"):  volts(m.plusFive(), m.On),
		practice.PointOf("+12"): volts(twelve, m.On), practice.PointOf("-12"): volts(-11.9, m.On),
		practice.PointOf("console driver"): volts(driver, m.On && m.has(practice.Minimum)),
		practice.PointOf("clock cell"):     volts(cell, true),
	}
}

// Lamps are those that are lit.
func (m *Machine) Lamps() string {
	switch {
	case !m.On:
		return "none"
	case m.runs():
		return "power, run"
	}
	return "power"
}

// Says is the text of its console since it was switched on.
func (m *Machine) Says(now time.Time) string {
	if !m.runs() || m.fault == practice.SilentConsole {
		return ""
	}
	var said strings.Builder
	said.WriteString("ESTUARY TRAINER MONITOR V1.2\r\n")
	if m.fault == practice.NoCell {
		said.WriteString("CLOCK NOT SET\r\n")
	} else {
		fmt.Fprintf(&said, "DATE %s\r\n", now.Format(time.DateOnly))
	}
	bytes, failed := practice.OwnBytes, false
	for bank, unit := range practice.MemoryBoards() {
		if !m.has(unit) {
			continue
		}
		bytes += practice.BankBytes
		if lines := m.failing(bank, unit); lines != "" {
			said.WriteString(lines)
			failed = true
		}
	}
	if failed {
		said.WriteString("MEMORY TEST FAILED\r\n")
	} else {
		fmt.Fprintf(&said, "MEMORY %dK OK\r\n", bytes/1024)
	}
	if m.has(practice.DiskCard) {
		said.WriteString("DISK 0: 10 MB\r\n")
	}
	said.WriteString(">")
	return said.String()
}

// failing is what its memory test says of a bank: a bit that is stuck at 0 fails where it should be 1.
func (m *Machine) failing(bank int, unit string) string {
	board, bit, ok := practice.ChipAt(m.place)
	if !ok || board != unit {
		return ""
	}
	var said strings.Builder
	for i, expected := range []int{0xff, 0x55, 0xaa, 0xff, 0x55, 0xaa} {
		if actual := expected &^ (1 << bit); actual != expected {
			fmt.Fprintf(&said, "ADDR %05X EXP %02X ACT %02X\r\n", (bank+1)*practice.BankBytes+m.at+i*5, expected, actual)
		}
	}
	return said.String()
}
