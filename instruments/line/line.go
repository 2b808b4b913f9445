// Package line talks with instruments in lines of text over TCP, one question and one answer at a time, and
// holds the server that their stand-ins share.
package line

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"net"
	"strconv"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"
)

// Patience is how long an answer may take; a slow instrument takes a second or two.
const Patience = 15 * time.Second

// MostAnswer is how long an answer may be, in bytes; mostQuestion how long a line to an instrument.
const (
	MostAnswer   = 4096
	mostQuestion = 256
)

// UnsayableError says why a text is not sent to an instrument; nothing of it was.
type UnsayableError struct{ Why string }

// Error gives the reason.
func (e *UnsayableError) Error() string { return "this cannot be said to an instrument: " + e.Why }

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
	return &Connection{connection, bufio.NewReaderSize(connection, MostAnswer)}, nil
}

// Ask says a line and waits for the answer. It ends with the context, and after Patience; an answer has at most
// MostAnswer bytes.
func (c *Connection) Ask(ctx context.Context, question string) (string, error) {
	if err := c.Tell(ctx, question); err != nil {
		return "", err
	}
	stop := context.AfterFunc(ctx, func() {
		c.connection.SetDeadline(time.Now())
	}) //nolint:errcheck // it is the end anyway
	defer stop()
	answer, err := c.in.ReadSlice('\n')
	switch {
	case err == nil:
		return strings.TrimSpace(string(answer)), nil
	case ctx.Err() != nil:
		return "", ctx.Err()
	case errors.Is(err, bufio.ErrBufferFull):
		c.connection.Close() //nolint:errcheck // where its next answer begins is not known any more
		return "", fmt.Errorf("%w (its answer has no end after %d bytes)", ErrLost, MostAnswer)
	}
	if d, ok := ctx.Deadline(); ok && !time.Now().Before(d) {
		return "", context.DeadlineExceeded // the line noticed it before the context did
	}
	return "", fmt.Errorf("%w (%v)", ErrLost, err)
}

// Tell says a line that nothing answers. What would end the line early, or begin another, is refused.
func (c *Connection) Tell(ctx context.Context, text string) error {
	if err := sayable(text); err != nil {
		return err
	}
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

func sayable(text string) error {
	if len(text) > mostQuestion {
		return &UnsayableError{
			fmt.Sprintf("it has %d bytes; a line to an instrument has at most %d", len(text), mostQuestion),
		}
	}
	if !utf8.ValidString(text) {
		return &UnsayableError{"it is not UTF-8"}
	}
	for i, r := range text {
		if unicode.IsControl(r) || r == '\u2028' || r == '\u2029' {
			return &UnsayableError{fmt.Sprintf("a control character (code %d) at byte %d; take it out", r, i+1)}
		}
	}
	return nil
}

// Shown writes what an instrument said of itself so that it can stand on a screen: odd bytes are written as
// escapes, and what is too long is cut.
func Shown(said string) string {
	const most = 200
	quoted := strconv.QuoteToGraphic(said)
	shown := []rune(strings.ReplaceAll(quoted[1:len(quoted)-1], `\"`, `"`))
	if len(shown) > most {
		return string(shown[:most]) + "..."
	}
	return string(shown)
}

// Close hangs up, with a last word where the instrument knows one.
func (c *Connection) Close(bye string) error {
	if bye != "" {
		fmt.Fprintf(c.connection, "%s\n", bye) //nolint:errcheck // it may have hung up already
	}
	return c.connection.Close()
}
