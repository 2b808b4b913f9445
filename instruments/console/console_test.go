package console_test

import (
	"net"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/instruments/console"
)

// port is a port server that says bytes to one who listens, and tells what it is told.
func port(t *testing.T, said ...string) (address string, told chan string) {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { listener.Close() })
	told = make(chan string, 16)
	go func() {
		connection, err := listener.Accept()
		if err != nil {
			return
		}
		defer connection.Close()
		for _, one := range said {
			if _, err := connection.Write([]byte(one)); err != nil {
				return
			}
			time.Sleep(5 * time.Millisecond) // each on its own
		}
		for buffer := make([]byte, 256); ; {
			n, err := connection.Read(buffer)
			if err != nil {
				close(told)
				return
			}
			told <- string(buffer[:n])
		}
	}()
	return listener.Addr().String(), told
}

func heard(t *testing.T, c *console.Client) string {
	var all strings.Builder
	for {
		some, err := c.Read(100 * time.Millisecond)
		require.NoError(t, err)
		if len(some) == 0 {
			return all.String()
		}
		all.Write(some)
	}
}

func TestTelnetIsTakenOutOfTheText(t *testing.T) {
	const iac = "\xff"
	for name, c := range map[string]struct {
		said         []string
		text, answer string
	}{
		"negotiation": {[]string{iac + "\xfb\x01" + iac + "\xfb\x03" + iac + "\xfd\x18", "64K OK"}, "64K OK",
			iac + "\xfd\x01" + iac + "\xfd\x03" + iac + "\xfc\x18"},
		"an offer made twice":          {[]string{iac + "\xfb\x01" + iac + "\xfb\x01a"}, "a", iac + "\xfd\x01"},
		"an offer nobody knows":        {[]string{iac + "\xfb\x22a"}, "a", iac + "\xfe\x22"},
		"cut within a command":         {[]string{"a" + iac, "\xfb", "\x01b"}, "ab", iac + "\xfd\x01"},
		"255 as itself":                {[]string{"a" + iac + iac + "b"}, "a\xffb", ""},
		"a subnegotiation":             {[]string{"a" + iac + "\xfa\x18\x01secret" + iac + "\xf0b"}, "ab", ""},
		"a carriage return and a NUL":  {[]string{"a\r\x00b\r\nc"}, "a\rb\r\nc", ""},
		"a command of its own":         {[]string{"a" + iac + "\xf1b"}, "ab", ""},
		"what the other will not do":   {[]string{iac + "\xfc\x01a"}, "a", ""},
		"a NUL that is no end of line": {[]string{"a\x00b"}, "a\x00b", ""},
	} {
		t.Run(name, func(t *testing.T) {
			address, told := port(t, c.said...)
			client, err := console.Dial(t.Context(), "telnet://"+address)
			require.NoError(t, err)
			require.Equal(t, c.text, heard(t, client))
			require.NoError(t, client.Close())
			answered := ""
			for one := range told {
				answered += one
			}
			require.Equal(t, c.answer, answered)
		})
	}
}

func TestARawPortIsHeardAsItIs(t *testing.T) {
	address, told := port(t, "a\xff\xfb\x01\r\x00b")
	client, err := console.Dial(t.Context(), address)
	require.NoError(t, err)
	require.Equal(t, "a\xff\xfb\x01\r\x00b", heard(t, client))
	require.NoError(t, client.Type("VER"))
	require.Equal(t, "VER\r", <-told)
	for _, wrong := range []string{"a\nb", "\x1b[2J", "é", "a\x00"} {
		require.ErrorContains(t, client.Type(wrong), "leave it out")
	}
	require.NoError(t, client.Type(""), "the return key alone")
	require.Equal(t, "\r", <-told)
	client.Close()
	_, err = client.Read(time.Millisecond)
	require.ErrorIs(t, err, console.ErrLost)
	require.ErrorIs(t, client.Type("VER"), console.ErrLost)
}

func TestAStandInEchoesAndAnswers(t *testing.T) {
	for _, isTelnet := range []bool{false, true} {
		s, err := console.NewStandIn(0, isTelnet, func() console.Saying {
			return console.Saying{Text: "8 bits: \xff\r\n>", Answer: func(typed string) string { return typed + "?\r\n>" }}
		})
		require.NoError(t, err)
		require.Equal(t, isTelnet, strings.HasPrefix(s.Address(), "telnet://"))
		client, err := console.Dial(t.Context(), s.Address())
		require.NoError(t, err)
		require.Equal(t, "8 bits: \xff\r\n>", heard(t, client))
		require.NoError(t, client.Type("HELLO"))
		require.Equal(t, "HELLO\r\nHELLO?\r\n>", heard(t, client))
		require.NoError(t, s.Close())
		_, err = client.Read(time.Second)
		require.ErrorIs(t, err, console.ErrLost, "who closes hangs up")
		_, err = console.Dial(t.Context(), s.Address())
		require.ErrorContains(t, err, "no console answers")
	}
}
