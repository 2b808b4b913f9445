package romreader

import (
	"encoding/hex"
	"fmt"
	"hash/crc32"
	"maps"
	"math/rand/v2"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"frugalheron/instruments/line"
)

// Faults are what a stand-in can be told to get wrong.
func Faults() []string {
	return []string{"none", "bad contact", "fading bit", "address line", "slow link", "lost link"}
}

// standInName is by what stand-ins are known.
const standInName = "stand-in"

// Chip is what a stand-in holds.
type Chip struct {
	Device string
	Data   []byte
}

// StandIn behaves as a reader with one socket, over the protocol of a real one. It listens on loopback.
// Beside the protocol it takes CHIPS, STATE, INSERT <name> and FAULT <name>.
type StandIn struct {
	*line.Server
	chips    map[string]Chip
	sizes    func(device string) int
	mu       sync.Mutex
	inserted string
	fault    string
	reads    int
	slow     time.Duration
}

// NewStandIn listens on loopback at a port, 0 for any. sizes gives how many bytes a device holds, 0 for
// one that is not known.
func NewStandIn(port int, chips map[string]Chip, sizes func(device string) int) (*StandIn, error) {
	s := &StandIn{chips: chips, sizes: sizes, fault: Faults()[0], slow: 120 * time.Millisecond}
	if names := s.names(); len(names) > 0 {
		s.inserted = names[0]
	}
	var err error
	s.Server, err = line.Serve(port, s.session)
	return s, err
}

// session remembers which device a caller selected.
func (s *StandIn) session() func(said string) line.Reply {
	size := 0
	return func(said string) line.Reply {
		words := strings.Fields(said)
		answer, hangUp := s.answer(strings.ToUpper(words[0]), words[1:], &size)
		return line.Reply{Text: answer, HangUp: hangUp}
	}
}

func (s *StandIn) names() []string { return slices.Sorted(maps.Keys(s.chips)) }

func (s *StandIn) answer(word string, rest []string, size *int) (answer string, hangUp bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	told := strings.Join(rest, " ")
	switch word {
	case "HELLO":
		return "OK " + standInName + " reader of the bench", false
	case "BYE":
		return "", true
	case "CHIPS":
		return "OK " + strings.Join(s.names(), "|"), false
	case "STATE":
		return "OK " + s.inserted + "|" + s.fault, false
	case "INSERT":
		if _, ok := s.chips[told]; !ok {
			return "NO there is no chip " + told, false
		}
		s.inserted = told
		return "OK", false
	case "FAULT":
		if !slices.Contains(Faults(), told) {
			return "NO the fault is not known; one of " + strings.Join(Faults(), ", "), false
		}
		s.fault, s.reads = told, 0
		return "OK", false
	case "DEVICE":
		if *size = s.sizes(told); *size == 0 {
			return "NO the device " + told + " is not known", false
		}
		return fmt.Sprintf("OK %X", *size), false
	case "READ", "SUM":
		return s.read(word, rest, *size)
	}
	return "NO the word " + word + " is not known", false
}

func (s *StandIn) read(word string, rest []string, size int) (answer string, hangUp bool) {
	if size == 0 {
		return "NO select a device first", false
	}
	from, count, ok := stretchOf(rest)
	if !ok || count > Block || from+count > size {
		return fmt.Sprintf("NO name a stretch of at most %X bytes within %X", Block, size), false
	}
	s.reads++
	switch s.fault {
	case "slow link":
		time.Sleep(s.slow)
	case "lost link":
		// Every so often it hangs up; what was read before stays good.
		if s.reads%40 == 0 {
			return "", true
		}
	}
	data := s.bytes(from, count)
	if word == "SUM" {
		return fmt.Sprintf("OK %08X", crc32.ChecksumIEEE(data)), false
	}
	return "OK " + strings.ToUpper(hex.EncodeToString(data)), false
}

func stretchOf(words []string) (from, count int, ok bool) {
	if len(words) != 2 {
		return 0, 0, false
	}
	a, errA := strconv.ParseUint(words[0], 16, 31)
	b, errB := strconv.ParseUint(words[1], 16, 31)
	return int(a), int(b), errA == nil && errB == nil && b > 0 //nolint:gosec // at most 31 bits
}

// faintEvery is how far the cells are apart that have lost charge in a fading chip.
const faintEvery = 1531

// bytes reads the chip in the socket with the fault that was told. An address beyond the chip reads what
// the lines that it has say; no chip at all reads FF.
func (s *StandIn) bytes(from, count int) []byte {
	data := make([]byte, count)
	chip := s.chips[s.inserted].Data
	for i := range data {
		at := from + i
		if len(chip) == 0 {
			data[i] = 0xff
			continue
		}
		if s.fault == "address line" {
			at &^= 1 << 6
		}
		b := chip[at%len(chip)]
		switch s.fault {
		case "bad contact":
			// A pin that touches now and then: its bit is lost at random.
			if rand.IntN(200) == 0 { //nolint:gosec // no secret
				b &^= 0x08
			}
		case "fading bit":
			// Cells without enough charge read 1.
			if at%faintEvery == 7 {
				b |= 0x04
			}
		}
		data[i] = b
	}
	return data
}
