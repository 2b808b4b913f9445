package line_test

import (
	"bufio"
	"context"
	"net"
	"runtime"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/instruments/line"
)

// listen accepts one caller and hands the connection to talk.
func listen(t *testing.T, talk func(net.Conn)) string {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { listener.Close() })
	go func() {
		if connection, err := listener.Accept(); err == nil {
			defer connection.Close()
			talk(connection)
		}
	}()
	return listener.Addr().String()
}

func dial(t *testing.T, address string) *line.Connection {
	c, err := line.Dial(t.Context(), address)
	require.NoError(t, err)
	t.Cleanup(func() { c.Close("") })
	return c
}

func TestAnAnswerWithoutEndEnds(t *testing.T) {
	c := dial(t, listen(t, func(connection net.Conn) {
		for chunk := []byte(strings.Repeat("1", 64<<10)); ; {
			if _, err := connection.Write(chunk); err != nil {
				return
			}
		}
	}))
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	_, err := c.Ask(t.Context(), "MEAS:VOLT:DC?")
	runtime.ReadMemStats(&after)
	require.ErrorIs(t, err, line.ErrLost)
	require.ErrorContains(t, err, "no end after 4096 bytes")
	require.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(1<<20))
	_, err = c.Ask(t.Context(), "*IDN?")
	require.ErrorIs(t, err, line.ErrLost, "the rest of it is no answer to the next question")
}

func TestAnAnswerThatDripsEndsWithTheContext(t *testing.T) {
	c := dial(t, listen(t, func(connection net.Conn) {
		for {
			if _, err := connection.Write([]byte("1")); err != nil {
				return
			}
			time.Sleep(10 * time.Millisecond)
		}
	}))
	ctx, stop := context.WithTimeout(t.Context(), 200*time.Millisecond)
	defer stop()
	_, err := c.Ask(ctx, "*IDN?")
	require.ErrorIs(t, err, context.DeadlineExceeded)
}

func TestNothingThatBeginsAnotherLineIsSaid(t *testing.T) {
	heard := make(chan string, 8)
	c := dial(t, listen(t, func(connection net.Conn) {
		for in := bufio.NewScanner(connection); in.Scan(); {
			heard <- in.Text()
		}
	}))
	var unsayable *line.UnsayableError
	for _, text := range []string{"27128\nBURN", "a\rb", "a\x00", "\x1b[2J", "a\u0085b", "a\u2028b", "\xff",
		strings.Repeat("x", 257)} {
		require.ErrorAs(t, c.Tell(t.Context(), text), &unsayable, "%q", text)
		_, err := c.Ask(t.Context(), text)
		require.ErrorAs(t, err, &unsayable, "%q", text)
	}
	require.NoError(t, c.Tell(t.Context(), "DEVICE µ27128"))
	require.Equal(t, "DEVICE µ27128", <-heard)
	require.Empty(t, heard)
}

func TestWhatAnInstrumentCallsItselfCanBeShown(t *testing.T) {
	for said, want := range map[string]string{
		"bench meter":             "bench meter",
		`the "old" one`:           `the "old" one`,
		"a\x1bb\xff\u202e":        `a\x1bb\xff\u202e`,
		strings.Repeat("é", 1000): strings.Repeat("é", 200) + "...",
	} {
		require.Equal(t, want, line.Shown(said))
	}
}
