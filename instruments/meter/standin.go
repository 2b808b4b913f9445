package meter

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"sync"

	"frugalheron/core/quantity"
	"frugalheron/instruments/line"
)

// Faults are what a stand-in can be told to get wrong.
func Faults() []string {
	return []string{"none", "noise", "drift", "overload", "lost link"}
}

// standInName is what stands in the name of a stand-in.
const standInName = "stand-in"

// Values are what a point has, each in the unit in which its quantity is kept.
type Values = map[quantity.Quantity]float64

// StandIn behaves as a meter whose leads are at one point, over the protocol of a real one. It listens on
// loopback. Beside SCPI it takes SIM:POINTS?, SIM:STATE?, SIM:POINT <name> and SIM:FAULT
// <name>.
type StandIn struct {
	*line.Server
	points func() map[string]Values
	mu     sync.Mutex
	at     string
	fault  string
	reads  int
	last   string // the last error, in the words of SYST:ERR?
	random *rand.Rand
}

// noError is the answer of SYST:ERR? while nothing went wrong.
const noError = `0,"No error"`

// NewStandIn listens on loopback at a port, 0 for any. The same readings in the same order are the same each
// time.
func NewStandIn(port int, points map[string]Values) (*StandIn, error) {
	return NewStandInOf(port, func() map[string]Values { return points })
}

// NewStandInOf is one whose points change: they are asked for at each reading.
func NewStandInOf(port int, points func() map[string]Values) (*StandIn, error) {
	s := &StandIn{points: points, fault: Faults()[0], last: noError,
		random: rand.New(rand.NewPCG(34401, 1))} //nolint:gosec // no secret
	if names := slices.Sorted(maps.Keys(points())); len(names) > 0 {
		s.at = names[0]
	}
	var err error
	s.Server, err = line.Serve(port, func() func(string) line.Reply { return s.answer })
	return s, err
}

func (s *StandIn) answer(said string) line.Reply {
	s.mu.Lock()
	defer s.mu.Unlock()
	word, rest, _ := strings.Cut(said, " ")
	switch word = strings.ToUpper(word); word {
	case "*IDN?":
		return line.Reply{Text: "Estuary bench," + standInName + " meter,0,1"}
	case "*RST", "*CLS":
		s.last = noError
		return line.Reply{Silent: true}
	case "SYST:ERR?":
		why := s.last
		s.last = noError
		return line.Reply{Text: why}
	case "SIM:POINTS?":
		return line.Reply{Text: strings.Join(slices.Sorted(maps.Keys(s.points())), ";")}
	case "SIM:STATE?":
		return line.Reply{Text: s.at + ";" + s.fault}
	case "SIM:POINT":
		if _, ok := s.points()[rest]; ok {
			s.at, s.reads = rest, 0
		} else if rest != "" {
			s.last = fmt.Sprintf(`-224,"Illegal parameter value; no point %s"`, rest)
		}
		return line.Reply{Silent: true}
	case "SIM:FAULT":
		if slices.Contains(Faults(), rest) {
			s.fault, s.reads = rest, 0
		} else {
			s.last = fmt.Sprintf(`-224,"Illegal parameter value; no fault %s"`, rest)
		}
		return line.Reply{Silent: true}
	}
	for of, question := range functions {
		if word == question {
			return s.read(of)
		}
	}
	s.last = fmt.Sprintf(`-113,"Undefined header; %.60s"`, word)
	if strings.HasSuffix(word, "?") {
		return line.Reply{Text: ""}
	}
	return line.Reply{Silent: true}
}

// lostAfter is after how many readings a link is lost, once.
const lostAfter = 3

func (s *StandIn) read(of quantity.Quantity) line.Reply {
	s.reads++
	value, there := s.points()[s.at][of]
	switch {
	case s.fault == "lost link" && s.reads > lostAfter:
		s.fault, s.reads = "none", 0 // whoever plugs it in again goes on
		return line.Reply{HangUp: true}
	case s.fault == "overload" || !there && (of == quantity.Ohms || of == quantity.Microfarads):
		return line.Reply{Text: "+9.90000000E+37"} // open leads have no end
	}
	jitter := 0.0005
	if s.fault == "noise" {
		jitter = 0.02
	}
	if s.fault == "drift" {
		value *= 1 + 0.004*float64(s.reads)
	}
	value += (value + 0.001) * jitter * (2*s.random.Float64() - 1)
	if of == quantity.Microfarads {
		value /= farads
	}
	return line.Reply{Text: fmt.Sprintf("%+.4E", value)}
}
