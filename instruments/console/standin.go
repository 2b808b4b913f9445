package console

import (
	"fmt"
	"net"
	"strconv"
	"strings"
	"sync"
	"time"
)

// Saying is what a stand-in says to one who listens: the text from where it was switched on, and what it answers to a line
// that is typed; a nil answer is silence.
type Saying struct {
	Text   string
	Answer func(typed string) string
}

// StandIn behaves as a port server with a machine behind it. It listens on loopback.
type StandIn struct {
	listener net.Listener
	isTelnet bool
	saying   func() Saying
	mu       sync.Mutex
	open     map[net.Conn]bool
}

// NewStandIn listens on loopback at a port, 0 for any. What it says is asked for anew for each who listens.
func NewStandIn(port int, isTelnet bool, saying func() Saying) (*StandIn, error) {
	listener, err := net.Listen("tcp", net.JoinHostPort("127.0.0.1", strconv.Itoa(port)))
	if err != nil {
		return nil, fmt.Errorf("the stand-in cannot listen: %w", err)
	}
	s := &StandIn{listener: listener, isTelnet: isTelnet, saying: saying, open: map[net.Conn]bool{}}
	go s.accept()
	return s, nil
}

// Address is where it listens, as Dial takes it.
func (s *StandIn) Address() string {
	if s.isTelnet {
		return telnetMark + s.listener.Addr().String()
	}
	return s.listener.Addr().String()
}

// Close stops listening and hangs up.
func (s *StandIn) Close() error {
	err := s.listener.Close()
	s.mu.Lock()
	defer s.mu.Unlock()
	for c := range s.open {
		c.Close() //nolint:errcheck // it is the end anyway
	}
	return err
}

func (s *StandIn) accept() {
	for {
		connection, err := s.listener.Accept()
		if err != nil {
			return
		}
		s.mu.Lock()
		s.open[connection] = true
		s.mu.Unlock()
		go s.talk(connection)
	}
}

// A stand-in speaks line by line, a little faster than a machine; who listens may say nothing for a while.
const (
	lineTime = 4 * time.Millisecond
	idle     = 40 * time.Minute
)

func (s *StandIn) talk(connection net.Conn) {
	defer func() {
		connection.Close()
		s.mu.Lock()
		defer s.mu.Unlock()
		delete(s.open, connection)
	}()
	send := func(text string) error {
		if s.isTelnet {
			text = strings.ReplaceAll(text, "\xff", "\xff\xff")
		}
		_, err := connection.Write([]byte(text))
		return err
	}
	var filter telnet
	if s.isTelnet {
		if _, err := connection.Write([]byte{iac, will, echo, iac, will, suppressGoes}); err != nil {
			return
		}
	}
	saying := s.saying()
	for line := range strings.SplitAfterSeq(saying.Text, "\n") {
		time.Sleep(lineTime)
		if send(line) != nil {
			return
		}
	}
	typed, buffer := "", make([]byte, 256)
	for {
		connection.SetReadDeadline(time.Now().Add(idle)) //nolint:errcheck // the read tells
		n, err := connection.Read(buffer)
		if err != nil {
			return
		}
		said := buffer[:n]
		if s.isTelnet {
			said, _ = filter.take(said)
		}
		for _, b := range said {
			if b != '\r' {
				typed += string(rune(b))
			} else if saying.Answer != nil && send(typed+"\r\n"+saying.Answer(typed)) != nil {
				return
			}
			if b == '\r' || len(typed) > 1000 {
				typed = ""
			}
		}
	}
}
