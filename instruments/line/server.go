package line

import (
	"bufio"
	"fmt"
	"net"
	"strconv"
	"strings"
	"time"
)

// Reply is what a stand-in says to a line.
type Reply struct {
	Text   string
	Silent bool // nothing is said
	HangUp bool // and the line is cut
}

// Server lets a stand-in answer on loopback, any number of callers at once.
type Server struct {
	listener net.Listener
	session  func() func(said string) Reply
}

// Serve listens on loopback at a port, 0 for any. session is called for each caller, and what it returns for
// each line that is not empty.
func Serve(port int, session func() func(said string) Reply) (*Server, error) {
	listener, err := net.Listen("tcp", net.JoinHostPort("127.0.0.1", strconv.Itoa(port)))
	if err != nil {
		return nil, fmt.Errorf("the stand-in cannot listen: %w", err)
	}
	s := &Server{listener, session}
	go s.accept()
	return s, nil
}

// Address is where it listens.
func (s *Server) Address() string { return s.listener.Addr().String() }

// Close stops listening.
func (s *Server) Close() error { return s.listener.Close() }

func (s *Server) accept() {
	for {
		connection, err := s.listener.Accept()
		if err != nil {
			return
		}
		go serve(connection, s.session())
	}
}

// idle is how long a caller may say nothing.
const idle = 10 * time.Minute

func serve(connection net.Conn, answer func(said string) Reply) {
	defer connection.Close()
	in := bufio.NewReaderSize(connection, 256)
	for {
		connection.SetDeadline(time.Now().Add(idle)) //nolint:errcheck // the next read tells
		said, tooLong, err := in.ReadLine()
		if err != nil || tooLong {
			return
		}
		if strings.TrimSpace(string(said)) == "" {
			continue
		}
		reply := answer(strings.TrimSpace(string(said)))
		if reply.HangUp {
			return
		}
		if reply.Silent {
			continue
		}
		if _, err := fmt.Fprintf(connection, "%s\n", reply.Text); err != nil {
			return
		}
	}
}
