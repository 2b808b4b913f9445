package panel_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/panel"
)

func lit(l *panel.Lamps) string {
	if l == nil {
		return "-"
	}
	row := ""
	for _, on := range l.Lit {
		row += map[bool]string{true: "*", false: "."}[on]
	}
	return l.Value + " " + row
}

func told(t *testing.T, p panel.Panel, text string) []string {
	t.Helper()
	steps, err := p.Read(text)
	require.NoError(t, err)
	lines := []string{}
	for _, s := range steps {
		lines = append(lines, fmt.Sprintf("%d %s %s / %s", s.Line, s.Verb, lit(s.Address), lit(s.Data)))
	}
	return lines
}

func TestLampsAtEachStep(t *testing.T) {
	p := panel.Panel{Radix: panel.Octal, AddressBits: 6, DataBits: 6, Advance: 2}
	assert.Equal(t, []string{"1 address 10 ..*... / -", "2 deposit 10 ..*... / 27 .*.***",
		"4 deposit 12 ..*.*. / 07 ...***",
		"5 examine 10 ..*... / 27 .*.***", "6 examine 12 ..*.*. / -", "7 press - / -"},
		told(t, p, "address 10\ndeposit 27\n# next\ndeposit 7\nexamine 10 = 27\nexamine\npress start"))
	assert.Equal(t, []string{"1 deposit - / 01 .....*"}, told(t, p, "deposit 1"), "where is not told")
	p.Advance = 0
	assert.Equal(t, []string{"1 address 77 ****** / -", "2 deposit 77 ****** / 01 .....*",
		"3 deposit 77 ****** / 02 ....*."},
		told(t, p, "address 77\ndeposit 1\ndeposit 2"))
	p.Advance = 1
	assert.Equal(t, "3 deposit 00 ...... / 02 ....*.", told(t, p, "address 77\ndeposit 1\ndeposit 2")[2],
		"it counts round")
	split := panel.Panel{Radix: panel.Split, AddressBits: 16, DataBits: 8}
	assert.Equal(t, []string{"1 address 001.377 .......********* / -", "2 deposit 001.377 .......********* / 303 **....**"},
		told(t, split, "address 001.377\ndeposit 303"))
	assert.Equal(t, told(t, split, "address 001.377"), told(t, split, "address 001377"))
	hex := panel.Panel{Radix: panel.Hex, AddressBits: 12, DataBits: 5}
	assert.Equal(t, []string{"1 address 0FC ....******.. / -"}, told(t, hex, "address fc"))
}

func TestWhatCannotStandOnAPanel(t *testing.T) {
	p := panel.Panel{Radix: panel.Octal, AddressBits: 6, DataBits: 6}
	for text, why := range map[string]string{"deposit 18": `line 1, column 10: "8": is no digit in octal`,
		"\naddress 100": "line 2: 100 does not go into 6 bits", "deposit": "says no value", "jump 3": "begins with",
		"press": "does not say what to press", "examine 1 = 9": `column 13: "9"`, "deposit é": "is no digit",
		"deposit 7777777777777777777777777": "does not go into"} {
		_, err := p.Read(text)
		require.ErrorContains(t, err, why, text)
	}
	split := panel.Panel{Radix: panel.Split, AddressBits: 16, DataBits: 8}
	for _, text := range []string{"deposit 400", "deposit 1.2", "address 1.2.3", "deposit +1", "address 9.9"} {
		_, err := split.Read(text)
		require.Error(t, err, text)
	}
	for _, broken := range []panel.Panel{{Radix: "decimal", AddressBits: 6, DataBits: 6}, {Radix: panel.Hex,
		DataBits: 6},
		{Radix: panel.Hex, AddressBits: 6, DataBits: 65}, {Radix: panel.Hex, AddressBits: 6, DataBits: 6,
			Advance: -1}} {
		_, err := broken.Read("")
		require.Error(t, err)
	}
}

// What the lamps show is the value that was written, and what they are read as is that value again.
func TestLampsShowTheValue(t *testing.T) {
	written := map[panel.Radix]string{panel.Octal: "%o", panel.Hex: "%x", panel.Binary: "%b"}
	rapid.Check(t, func(t *rapid.T) {
		radix := rapid.SampledFrom([]panel.Radix{panel.Octal, panel.Hex, panel.Binary}).Draw(t, "radix")
		bits := rapid.IntRange(1, 64).Draw(t, "bits")
		value := rapid.Uint64().Draw(t, "value") >> (64 - bits)
		p := panel.Panel{Radix: radix, AddressBits: 64, DataBits: bits}
		steps, err := p.Read("deposit " + fmt.Sprintf(written[radix], value))
		require.NoError(t, err)
		row := strings.NewReplacer("*", "1", ".", "0").Replace(strings.Fields(lit(steps[0].Data))[1])
		require.Equal(t, fmt.Sprintf("%0*b", bits, value), row)
		again, err := p.Read("deposit " + steps[0].Data.Value)
		require.NoError(t, err)
		require.Equal(t, steps[0].Data, again[0].Data)
	})
}

func FuzzRead(f *testing.F) {
	f.Add("address 0100\ndeposit 7", "octal", 16)
	f.Fuzz(func(t *testing.T, text, radix string, bits int) {
		steps, err := panel.Panel{Radix: panel.Radix(radix), AddressBits: bits, DataBits: bits}.Read(text)
		for _, s := range steps {
			if err != nil || s.Data != nil && len(s.Data.Lit) != bits {
				t.Fatalf("%+v", s)
			}
		}
	})
}
