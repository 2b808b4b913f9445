package romreader_test

import (
	"bufio"
	"context"
	"fmt"
	"net"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/instruments/romreader"
)

var sample = func() []byte {
	data := make([]byte, 8192)
	for i := range data {
		data[i] = byte(i*i>>3) ^ byte(i>>5)
	}
	return data
}()

func standIn(t *testing.T) *romreader.Client {
	s, err := romreader.NewStandIn(0,
		map[string]romreader.Chip{"U14 monitor": {Device: "2764", Data: sample}, "none": {}},
		func(device string) int { return map[string]int{"2764": 8192, "2732": 4096}[device] })
	require.NoError(t, err)
	t.Cleanup(func() { s.Close() })
	c, err := romreader.Dial(t.Context(), s.Address())
	require.NoError(t, err)
	t.Cleanup(func() { c.Close() })
	return c
}

func read(t *testing.T, c *romreader.Client, from, size int) ([]byte, int, error) {
	data, again := []byte{}, 0
	err := c.Read(t.Context(), from, size, func(r romreader.Reading) error {
		require.Equal(t, from+len(data), r.From)
		data = append(data, r.Data...)
		again += r.Again
		return nil
	})
	return data, again, err
}

func TestAStandInReadsAndFails(t *testing.T) {
	c := standIn(t)
	require.Equal(t, "stand-in reader of the bench", c.Name())
	var refused *romreader.RefusedError
	_, _, err := read(t, c, 0, 512)
	require.ErrorAs(t, err, &refused)
	require.ErrorContains(t, err, "select a device first")
	_, err = c.Select(t.Context(), "27000")
	require.ErrorAs(t, err, &refused)
	size, err := c.Select(t.Context(), "2764")
	require.NoError(t, err)
	require.Equal(t, len(sample), size)
	chips, err := c.Chips(t.Context())
	require.NoError(t, err)
	require.Equal(t, []string{"U14 monitor", "none"}, chips)

	data, again, err := read(t, c, 0, size)
	require.NoError(t, err)
	require.Zero(t, again)
	require.Equal(t, sample, data)
	data, _, err = read(t, c, 4000, size) // as one goes on that was stopped
	require.NoError(t, err)
	require.Equal(t, sample[4000:], data)
	_, _, err = read(t, c, 0, size+1)
	require.ErrorAs(t, err, &refused)

	require.ErrorContains(t, c.Spoil(t.Context(), "gremlins"), "not known")
	require.NoError(t, c.Spoil(t.Context(), "bad contact"))
	var unsteady *romreader.UnsteadyError
	_, _, err = read(t, c, 0, size)
	require.ErrorAs(t, err, &unsteady)
	require.ErrorContains(t, err, "bad contact")
	require.NoError(t, c.Spoil(t.Context(), "fading bit"))
	data, _, err = read(t, c, 0, size)
	require.NoError(t, err) // it reads the same each time: only an earlier reading tells
	require.NotEqual(t, sample, data)
	require.NoError(t, c.Spoil(t.Context(), "lost link"))
	_, _, err = read(t, c, 0, size)
	require.ErrorIs(t, err, romreader.ErrLost)
}

func TestAReaderThatAnswersNonsense(t *testing.T) {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer listener.Close()
	answers := []string{"OK odd reader", "OK zero", "OK 800", "OK 12zz", "maybe"}
	go func() {
		connection, err := listener.Accept()
		if err != nil {
			return
		}
		defer connection.Close()
		in := bufio.NewScanner(connection)
		for _, answer := range answers {
			if !in.Scan() {
				return
			}
			fmt.Fprintln(connection, answer)
		}
	}()
	c, err := romreader.Dial(t.Context(), listener.Addr().String())
	require.NoError(t, err)
	var refused *romreader.RefusedError
	_, err = c.Select(t.Context(), "2716")
	require.ErrorAs(t, err, &refused)
	size, err := c.Select(t.Context(), "2716")
	require.NoError(t, err)
	_, _, err = read(t, c, 0, size)
	require.ErrorContains(t, err, "figures")
	_, _, err = read(t, c, 0, size)
	require.ErrorContains(t, err, "neither OK nor NO")
	_, _, err = read(t, c, 0, size)
	require.ErrorIs(t, err, romreader.ErrLost)
	stopped, cancel := context.WithCancel(t.Context())
	cancel()
	_, err = romreader.Dial(stopped, listener.Addr().String())
	require.Error(t, err)
}
