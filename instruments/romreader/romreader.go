// Package romreader reads chips through a reader on the network, and holds the stand-in that ships in its
// place.
//
// The protocol is lines of ASCII over TCP, one question and one answer at a time; numbers are hexadecimal:
//
//	HELLO                 OK <name in words>; a stand-in's name starts with "stand-in"
//	DEVICE <number>       OK <bytes>; selects the device in the socket, as 27128
//	READ <from> <count>   OK <count pairs of figures>; at most 100 (256) bytes
//	SUM <from> <count>    OK <CRC-32>; the reader reads the stretch anew and sums it up itself
//	BYE                   the reader hangs up
//
// What cannot be done is answered by "NO <reason in words>"; the connection stays. docs/rom-reader.md tells
// of it in full.
package romreader

import (
	"context"
	"encoding/hex"
	"errors"
	"fmt"
	"hash/crc32"
	"strconv"
	"strings"
	"time"

	"frugalheron/instruments/line"
)

// Block is how many bytes are asked for at once.
const Block = 256

// tries is how often a block is read before it counts as unreadable.
const tries = 3

// ErrLost is returned when the reader hangs up or does not answer; what was read so far stays good.
var ErrLost = errors.New("the reader does not answer any more")

// RefusedError is what the reader itself says it cannot do.
type RefusedError struct{ Why string }

// Error gives the reader's reason.
func (e *RefusedError) Error() string { return "the reader refuses: " + e.Why }

// UnsteadyError says that a stretch reads differently each time.
type UnsteadyError struct{ From, Count int }

// Error names the stretch.
func (e *UnsteadyError) Error() string {
	return fmt.Sprintf("the bytes from %04X to %04X read differently each time: a pin of the chip has a bad contact. Clean the pins, seat it again, and start anew", e.From, e.From+e.Count-1)
}

// Client talks to a reader.
type Client struct {
	connection *line.Connection
	name       string
}

// Dial finds the reader at an address, as 127.0.0.1:7071.
func Dial(ctx context.Context, address string) (*Client, error) {
	connection, err := line.Dial(ctx, address)
	if err != nil {
		return nil, fmt.Errorf("no reader answers at %s: %w", address, err)
	}
	c := &Client{connection: connection}
	if c.name, err = c.ask(ctx, "HELLO"); err != nil {
		connection.Close("") //nolint:errcheck // what went wrong is told
		return nil, err
	}
	c.name = line.Shown(c.name)
	return c, nil
}

// isStandIn reports whether it says of itself that it is one of ours: others are told nothing that no reader knows.
func (c *Client) isStandIn() bool { return strings.Contains(c.name, standInName) }

var errNoStandIn = &RefusedError{"it is no stand-in; put the chip into its socket by hand"}

// Name is what the reader calls itself.
func (c *Client) Name() string { return c.name }

// Close hangs up.
func (c *Client) Close() error { return c.connection.Close("BYE") }

// ask sends a line and waits for the answer.
func (c *Client) ask(ctx context.Context, format string, args ...any) (string, error) {
	said, err := c.connection.Ask(ctx, fmt.Sprintf(format, args...))
	if errors.Is(err, line.ErrLost) {
		return "", fmt.Errorf("%w (%v)", ErrLost, err)
	}
	if err != nil {
		return "", err
	}
	if answer, ok := strings.CutPrefix(said, "OK"); ok {
		return strings.TrimSpace(answer), nil
	}
	why, ok := strings.CutPrefix(said, "NO ")
	if !ok {
		why = fmt.Sprintf("it answered %.80q, which is neither OK nor NO", said)
	}
	return "", &RefusedError{line.Shown(why)}
}

// Select says what sits in the socket, and returns its size in bytes.
func (c *Client) Select(ctx context.Context, device string) (int, error) {
	answer, err := c.ask(ctx, "DEVICE %s", device)
	if err != nil {
		return 0, err
	}
	size, err := strconv.ParseUint(answer, 16, 31)
	if err != nil || size == 0 {
		return 0, &RefusedError{fmt.Sprintf("it gave %.40q as the size of the device", answer)}
	}
	return int(size), nil //nolint:gosec // at most 31 bits
}

// Reading is what is told of a block.
type Reading struct {
	From   int
	Data   []byte
	Again  int // times that the block had to be read again
	Lasted time.Duration
}

// Read reads the chip from an offset on, block by block; each is given to each, which may stop by an error.
// Every block is checked against a sum that the reader takes in a reading of its own: one that does not
// agree is read again, and an UnsteadyError names it if it never does.
func (c *Client) Read(ctx context.Context, from, size int, each func(Reading) error) error {
	for at := from; at < size; at += Block {
		start := time.Now()
		count := min(Block, size-at)
		data, again, err := c.block(ctx, at, count)
		if err != nil {
			return err
		}
		if err := each(Reading{at, data, again, time.Since(start)}); err != nil {
			return err
		}
	}
	return nil
}

func (c *Client) block(ctx context.Context, at, count int) (data []byte, again int, err error) {
	for again = range tries {
		answer, err := c.ask(ctx, "READ %X %X", at, count)
		if err != nil {
			return nil, again, err
		}
		data, err = hex.DecodeString(answer)
		if err != nil || len(data) != count {
			return nil, again,
				&RefusedError{fmt.Sprintf("it gave %d figures for %d bytes at %04X", len(answer), count, at)}
		}
		sum, err := c.ask(ctx, "SUM %X %X", at, count)
		if err != nil {
			return nil, again, err
		}
		if strings.EqualFold(sum, fmt.Sprintf("%08X", crc32.ChecksumIEEE(data))) {
			return data, again, nil
		}
	}
	return nil, again, &UnsteadyError{at, count}
}

// Chips lists what a stand-in can be given to read; nothing for a real reader.
func (c *Client) Chips(ctx context.Context) ([]string, error) {
	if !c.isStandIn() {
		return []string{}, nil
	}
	answer, err := c.ask(ctx, "CHIPS")
	if err != nil || answer == "" {
		return []string{}, err
	}
	return strings.Split(answer, "|"), nil
}

// State says what a stand-in holds and what it gets wrong; nothing for a real reader.
func (c *Client) State(ctx context.Context) (chip, fault string, err error) {
	if !c.isStandIn() {
		return "", "", nil
	}
	answer, err := c.ask(ctx, "STATE")
	chip, fault, _ = strings.Cut(answer, "|")
	return chip, fault, err
}

// Insert puts one of a stand-in's chips into its socket.
func (c *Client) Insert(ctx context.Context, chip string) error {
	if !c.isStandIn() {
		return errNoStandIn
	}
	_, err := c.ask(ctx, "INSERT %s", chip)
	return err
}

// Spoil tells a stand-in what to get wrong, one of Faults.
func (c *Client) Spoil(ctx context.Context, fault string) error {
	if !c.isStandIn() {
		return errNoStandIn
	}
	_, err := c.ask(ctx, "FAULT %s", fault)
	return err
}
