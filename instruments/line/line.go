// Package line talks with instruments in lines of text over TCP, one question and one answer at a time, and
// holds the server that their stand-ins share.
package line

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"net"
	"strings"
	"time"
)

// Patience is how long an answer may take; a slow instrument takes a second or two.
const Patience = 15 * time.Second

// ErrLost is returned when the other side hangs up or does not answer.
var ErrLost = errors.New("it does not answer any more")

// Connection is a line to an instrument.
type Connection struct {
	connection net.Conn
	in         *bufio.Reader
}

// Dial finds an instrument at an address, as 127.0.0.1:7071.
func Dial(ctx context.Context, address string) (*Connection, error) {
	ctx, cancel := context.WithTimeout(ctx, Patience)
	defer cancel()
	connection, err := (&net.Dialer{}).DialContext(ctx, "tcp", address)
	if err != nil {
		return nil, err
	}
	return &Connection{connection, bufio.NewReaderSize(connection, 2048)}, nil
}

// Ask sends a line and waits for the answer. It returns ErrLost when none comes; whoever cancels the context
// need not wait.
func (c *Connection) Ask(ctx context.Context, question string) (string, error) {
	if err := c.Tell(ctx, question); err != nil {
		return "", err
	}
	stop := context.AfterFunc(ctx, func() { c.connection.SetDeadline(time.Now()) }) //nolint:errcheck // it is the end anyway
	defer stop()
	answer, err := c.in.ReadString('\n')
	if err != nil {
		if ctx.Err() != nil {
			return "", ctx.Err()
		}
		return "", fmt.Errorf("%w (%v)", ErrLost, err)
	}
	return strings.TrimSpace(answer), nil
}

// Tell sends a line that is not answered.
func (c *Connection) Tell(ctx context.Context, text string) error {
	deadline := time.Now().Add(Patience)
	if d, ok := ctx.Deadline(); ok && d.Before(deadline) {
		deadline = d
	}
	if err := c.connection.SetDeadline(deadline); err != nil {
		return fmt.Errorf("%w (%v)", ErrLost, err)
	}
	if _, err := fmt.Fprintf(c.connection, "%s\n", text); err != nil {
		return fmt.Errorf("%w (%v)", ErrLost, err)
	}
	return nil
}

// Close hangs up, with a last word where the instrument knows one.
func (c *Connection) Close(bye string) error {
	if bye != "" {
		fmt.Fprintf(c.connection, "%s\n", bye) //nolint:errcheck // it may have hung up already
	}
	return c.connection.Close()
}
