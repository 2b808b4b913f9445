// Package console listens to the serial console of a machine through a port server on the network, raw or by telnet
// (RFC 854), and holds the stand-in that ships in its place. docs/console.md tells of it in full.
package console

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"net"
	"strings"
	"sync"
	"time"
	"unicode"
)

// ErrLost is returned when the other side hangs up or does not answer; what came before stays good.
var ErrLost = errors.New("the console does not answer any more")

// patience is how long it may take to reach a port, or to take what is typed.
const patience = 10 * time.Second

// telnetMark stands before the address of a port that speaks telnet.
const telnetMark = "telnet://"

// Client is a line to a console.
type Client struct {
	connection net.Conn
	in         *bufio.Reader
	telnet     *telnet // nil for a raw port
	writing    sync.Mutex
}

// Dial reaches a port server at an address, as 127.0.0.1:7073 for a raw port or telnet://127.0.0.1:7073.
func Dial(ctx context.Context, address string) (*Client, error) {
	ctx, cancel := context.WithTimeout(ctx, patience)
	defer cancel()
	host, isTelnet := strings.CutPrefix(address, telnetMark)
	connection, err := (&net.Dialer{}).DialContext(ctx, "tcp", host)
	if err != nil {
		return nil, fmt.Errorf("no console answers at %s: %w", address, err)
	}
	c := &Client{connection: connection, in: bufio.NewReader(connection)}
	if isTelnet {
		c.telnet = &telnet{}
	}
	return c, nil
}

// Read waits at most for a while for what comes next. It returns nothing when nothing came, and ErrLost when the line ended.
// What the two sides only negotiate is nothing.
func (c *Client) Read(wait time.Duration) ([]byte, error) {
	c.connection.SetReadDeadline(time.Now().Add(wait)) //nolint:errcheck // the read tells
	buffer := make([]byte, 4096)
	for {
		n, err := c.in.Read(buffer)
		var late net.Error
		switch {
		case errors.As(err, &late) && late.Timeout():
			return nil, nil
		case err != nil:
			return nil, fmt.Errorf("%w (%v)", ErrLost, err)
		case c.telnet == nil:
			return buffer[:n], nil
		}
		text, answer := c.telnet.take(buffer[:n])
		if err := c.send(answer); err != nil || len(text) > 0 {
			return text, err
		}
	}
}

// Type sends a line with a carriage return behind it, as somebody types it. An empty line is the return alone.
func (c *Client) Type(line string) error {
	for _, r := range line {
		if unicode.IsControl(r) || r > unicode.MaxASCII {
			return fmt.Errorf("%q is no character that is typed on a console; leave it out", r)
		}
	}
	typed := []byte(line + "\r")
	if c.telnet != nil {
		typed = append(typed, 0) // RFC 854: a carriage return alone
	}
	return c.send(typed)
}

func (c *Client) send(bytes []byte) error {
	if len(bytes) == 0 {
		return nil
	}
	c.writing.Lock()
	defer c.writing.Unlock()
	c.connection.SetWriteDeadline(time.Now().Add(patience)) //nolint:errcheck // the write tells
	if _, err := c.connection.Write(bytes); err != nil {
		return fmt.Errorf("%w (%v)", ErrLost, err)
	}
	return nil
}

// Close hangs up.
func (c *Client) Close() error { return c.connection.Close() }
