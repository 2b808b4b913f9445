package console

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/require"
)

// However the network cuts what comes, its text and what is answered are the same; no text is longer than what came, and
// each option is agreed to once at most.
func FuzzTelnetHoweverItIsCut(f *testing.F) {
	for _, seed := range []string{"64K OK\r\x00>", "\xff\xfb\x01a\xff\xfd\x18b",
		"a\xff\xffb\xff\xfa\x18\x00x\xff\xf0c", "\xff",
		"\xff\xfb\x01\xff\xfb\x01\xff\xfc\x01\xff\xfe\x03", "\r\x00\r\n\x00", "\xff\xfa\xff\xff\xff\xf0"} {
		f.Add([]byte(seed), 1)
		f.Add([]byte(seed), 3)
	}
	f.Fuzz(func(t *testing.T, came []byte, size int) {
		whole := telnet{}
		text, answer := whole.take(came)
		require.LessOrEqual(t, len(text), len(came))
		cut := telnet{}
		pieces, answers := []byte{}, []byte{}
		for rest := came; len(rest) > 0; {
			n := min(len(rest), max(1, size%7))
			some, said := cut.take(rest[:n])
			pieces, answers = append(pieces, some...), append(answers, said...)
			rest = rest[n:]
		}
		require.True(t, bytes.Equal(text, pieces), "%q and %q", text, pieces)
		require.True(t, bytes.Equal(answer, answers), "%q and %q", answer, answers)
		require.Zero(t, len(answer)%3)
		for _, option := range []byte{echo, suppressGoes} {
			require.LessOrEqual(t, bytes.Count(answer, []byte{iac, do, option}), 1)
		}
		for i := 0; i < len(answer); i += 3 {
			require.Contains(t, []byte{do, dont, wont}, answer[i+1], "we offer nothing")
		}
	})
}
