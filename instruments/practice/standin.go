package practice

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"sync"
	"time"

	"frugalheron/instruments/console"
	"frugalheron/instruments/line"
	"frugalheron/instruments/meter"
)

// StandIn is the bench with the practice machine on it: its switch and its cards are told by lines of text, its rails are
// measured through the meter's stand-in, its console is heard through the console's. It listens on loopback.
type StandIn struct {
	*line.Server
	Console *console.StandIn
	mu      sync.Mutex
	profile string
	bench   Bench
}

// state is what SIM:STATE? answers.
type state struct {
	Bench
	Profile string `json:"profile"`
	Lamps   string `json:"lamps"`
}

// NewStandIn listens on loopback at a port, and lets its console be heard at another by raw TCP or telnet; 0 for any.
func NewStandIn(port, atConsole int, isTelnet bool) (*StandIn, error) {
	s := &StandIn{profile: Profiles()[0]}
	var err error
	if s.Console, err = console.NewStandIn(atConsole, isTelnet, s.saying); err != nil {
		return nil, err
	}
	s.Server, err = line.Serve(port, func() func(string) line.Reply { return s.answer })
	if err != nil {
		s.Console.Close() //nolint:errcheck // what went wrong is told
		return nil, err
	}
	return s, nil
}

// Close stops both.
func (s *StandIn) Close() error {
	s.Console.Close() //nolint:errcheck // the other tells
	return s.Server.Close()
}

func (s *StandIn) saying() console.Saying {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.profile == asPractice {
		return console.Saying{Text: MachineOf(s.bench).Says(time.Now())}
	}
	return sayingOf(s.profile)
}

// Points are what the meter's leads can be put to.
func (s *StandIn) Points() map[string]meter.Values {
	s.mu.Lock()
	defer s.mu.Unlock()
	return MachineOf(s.bench).Points()
}

func (s *StandIn) answer(said string) line.Reply {
	s.mu.Lock()
	defer s.mu.Unlock()
	word, rest, _ := strings.Cut(said, " ")
	tell := func(v any) line.Reply {
		told, err := json.Marshal(v)
		if err != nil {
			return line.Reply{Text: "ERR " + err.Error()}
		}
		return line.Reply{Text: string(told)}
	}
	switch strings.ToUpper(word) {
	case "*IDN?":
		return line.Reply{Text: "Estuary bench,stand-in machine,0,1"}
	case "SIM:PROFILES?":
		return line.Reply{Text: strings.Join(Profiles(), ";")}
	case "SIM:PROFILE":
		if !slices.Contains(Profiles(), rest) {
			return line.Reply{Text: fmt.Sprintf("ERR no profile %s", rest)}
		}
		s.profile = rest
		return line.Reply{Text: "OK"}
	case "SIM:BENCH":
		var bench Bench
		if err := json.Unmarshal([]byte(rest), &bench); err != nil {
			return line.Reply{Text: "ERR " + err.Error()}
		}
		s.bench, s.profile = bench, asPractice
		return line.Reply{Text: "OK"}
	case "SIM:STATE?":
		return tell(state{s.bench, s.profile, MachineOf(s.bench).Lamps()})
	case "SIM:ANSWER?":
		return tell(MachineOf(s.bench).Answer())
	}
	return line.Reply{Text: fmt.Sprintf("ERR unknown: %.60s", word)}
}

// With lets a meter's stand-in measure the machine beside its own points.
func (s *StandIn) With(points map[string]meter.Values) func() map[string]meter.Values {
	return func() map[string]meter.Values {
		all := maps.Clone(points)
		maps.Copy(all, s.Points())
		return all
	}
}
