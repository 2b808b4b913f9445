package console_test

import (
	"fmt"
	"math/bits"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/require"

	"frugalheron/core/calendar"
	"frugalheron/core/console"
)

var on = calendar.Date{Year: 2026, Month: 11, Day: 30}

func read(text string) console.TextReading { return console.Read([]byte(text), on) }

// said are the claims of a text in short, a ? behind those in doubt.
func said(r console.TextReading) []string {
	told := []string{}
	for _, c := range r.Claims {
		one := fmt.Sprintf("%d %s %s", c.Line, c.Attribute, c.Value)
		if c.Subject != "" {
			one = fmt.Sprintf("%d %s of %s %s", c.Line, c.Attribute, c.Subject, c.Value)
		}
		if c.Doubt != "" {
			one += "?"
		}
		told = append(told, one)
	}
	return told
}

func TestWhatLinesClaim(t *testing.T) {
	for text, want := range map[string][]string{
		"064K\r128K\r640K OK\n":                          {"1 memory 640 KB"},
		"064K OK\n128K OK\n192K OK\n":                    {"3 memory 192 KB"},
		"Memory size: 0512K\n":                           {"1 memory 512 KB"},
		"Total memory = 4096 KB\nRAM 4 MB\n":             {"2 memory 4 MB"},
		"RAM 64K\nTotal memory 48K\n":                    {"1 memory 64 KB?", "2 memory 48 KB?"},
		"38911 BASIC BYTES FREE\n":                       {},
		"Memory: 38911 bytes free\n":                     {},
		"640K Base Memory, 03072K Extended\n":            {},
		"Memory board 1: 512K\n":                         {},
		"32K words of core memory\n":                     {}, // of how many bits?
		"Memory 65536 bytes\n":                           {"1 memory 65536 bytes"},
		"Memory 256K FAILED\n":                           {},
		"video memory 256K\n":                            {"1 picture-memory 256 KB"},
		"cache 8 KB\n":                                   {"1 cache 8 KB"},
		"Tidewater Monitor V2.3\n":                       {"1 firmware 2.3"},
		"Boot PROM rev C\n":                              {"1 firmware C"},
		"Video BIOS Version 1.04\n":                      {"1 firmware of video 1.04?"},
		"Harbour 1.2 Version 4\n":                        {"1 firmware 4?"},
		"Estuary operating system release 4.1\n":         {"1 operating-system Estuary operating system 4.1"},
		"TIDEDOS version 2\n":                            {"1 operating-system TIDEDOS 2"},
		"Plan V for the harbour\n":                       {},
		"CPU: HX9040 at 10 MHz\n":                        {"1 processor-clock 10 MHz", "1 processor HX9040"},
		"CPU test passed\n":                              {},
		"Math chip: not installed\n":                     {"1 coprocessor none"},
		"FPU: HX9087\n":                                  {"1 coprocessor HX9087"},
		"Ethernet address 2:1f:5e:1:2:3\n":               {"1 hardware-address 2:1f:5e:1:2:3"},
		"Ethernet address ff:ff:ff:ff:ff:ff\n":           {"1 hardware-address ff:ff:ff:ff:ff:ff?"},
		"Hard disk 0: 40 MB\n":                           {"1 disk-size of Hard disk 0 40 MB"},
		"Disk 0: 12 MB free\n":                           {},
		"sandpiper login: ":                              {"1 host-name sandpiper"},
		"Serial number: TW-20417\n":                      {"1 serial TW-20417"},
		"CLOCK NOT SET\n":                                {"1 clock-kept no"},
		"Enter new date (dd-mm-yy): ":                    {},
		"Date: 1980-01-01\n":                             {"1 clock-kept no?"},
		"Today is 30 Nov 2026\n":                         {"1 clock-kept yes?"},
		"Date 30-11-98\n":                                {}, // set to a year that it knows
		"Clock not set\nDate: 1980-01-01\n":              {"1 clock-kept no"},
		"Clock: 11/30/26\nBattery low\n":                 {"1 clock-kept yes?"},
		"Monitor V1.0 (C) 1984-01-02, date of release\n": {"1 firmware 1.0"},
		"note: nothing of it\n":                          {},
	} {
		require.Equal(t, want, said(read(text)), text)
	}
	late := read("064K OK\n128K OK\nMemory error at 1F3A0: expected 55 read 51\n")
	require.Equal(t, []string{"2 memory 128 KB?"}, said(late), "it had counted so far when it failed")
}

func TestWhatLinesComplainOf(t *testing.T) {
	for text, complains := range map[string]bool{
		"No errors": false, "0 parity errors found": false, "Errors: 0": false, "Disk not ready": true,
		"KEYBOARD ERROR": true, "Mouse not found": false, "Keyboard not found": true, "error correcting memory": false,
		"2 errors": true, "10 errors": true, "Memory test passed": false, "bad sectors: none": false,
		"FPU failed":    true,
		"System halted": true, "100 faults": true, "no faults, 1 error": true, "Default drive C": false,
	} {
		require.Equal(t, complains, len(read(text+"\n").Troubles) == 1, text)
	}
}

func TestPlacesOfMemoryThatFailed(t *testing.T) {
	place := func(f console.Failure) string {
		return fmt.Sprintf("%d %s %s %s %d %v", f.Line, f.Address, f.Expected, f.Actual, f.Radix, f.Bits)
	}
	for text, want := range map[string][]string{
		"ADDR 01F3A0 EXP FF ACT FB":                              {"1 01F3A0 FF FB 16 [2]"},
		"01F3A0: wrote 55 read 51\n01F3A2: wrote AA read AE":     {"1 01F3A0 55 51 16 [2]", "2 01F3A2 AA AE 16 [2]"},
		"at 0x2000 expected 0x00 got 0x80":                       {"1 0x2000 0x00 0x80 16 [7]"},
		"address 2000 expected 00 got 10":                        {"1 2000 00 10 0 []"}, // octal or hexadecimal?
		"octal dump\naddress 017400 expected 000377 read 000376": {"2 017400 000377 000376 8 [0]"},
		"address 2000 expected 55 read 55":                       {},
		"Parity error at 1F3A0":                                  {"1 1F3A0   16 []"},
		"Disk error at 1F3A0":                                    {},
		"Memory test at 1F3A0 passed":                            {},
		"1000:2000: expected 0F read 0E":                         {"1 1000:2000 0F 0E 16 [0]"},
	} {
		got := []string{}
		for _, f := range read(text + "\n").Failures {
			got = append(got, place(f))
		}
		require.Equal(t, want, got, text)
	}
}

func TestWhatIsNoTextIsNotRead(t *testing.T) {
	parity := []byte("TIDEWATER MONITOR V2.3\r\n64K OK\r\n>")
	for i, b := range parity {
		parity[i] = b | byte(bits.OnesCount8(b)%2)<<7
	}
	for _, c := range []struct {
		raw  string
		want console.Outcome
	}{
		{"", console.Silent}, {strings.Repeat("\x00", 40), console.Stuck}, {strings.Repeat("\xff", 40), console.Stuck},
		{strings.Repeat("\x8f\xf3\x03x\xe1", 9), console.Garbage}, {"~~{~}~|~{~}||~~{{", console.Garbage},
		{"64K OK\r\n", console.Text}, {"64K OK\r\n> ", console.Prompts}, {"64K OK\r\nLoading", console.Stopped},
		{string(parity), console.Prompts},
	} {
		r := read(c.raw)
		require.Equal(t, c.want, r.Outcome, "%q: %s", c.raw, r.Why)
		if c.want == console.Garbage || c.want == console.Stuck || c.want == console.Silent {
			require.Empty(t, r.Claims)
			require.NotEmpty(t, r.Next)
		}
	}
	require.Equal(t, []string{"1 firmware 2.3", "2 memory 64 KB"}, said(console.Read(parity, on)))
	require.Contains(t, console.Read(parity, on).Doubts[0], "even parity")
	long := read(strings.Repeat("A", 1<<20))
	require.Contains(t, long.Doubts[0], "did not end")
	screen := read("\x1b[2J\x1b[1;1HMonitor V2.3\x1b[3;1H64K OK\aabc\b\b\bDEF\n")
	require.Equal(t, "64K OKDEF", screen.Lines[1].Text, "what is written at another place of the screen is another line")
	require.Equal(t, 1, screen.Bells)
}

func TestTheReckoningNamesWhatAConsoleComplainsOf(t *testing.T) {
	v := console.VerdictOf(read("ADDR 01F3A0 EXP FF ACT F8\nDISK NOT READY\n"), "2026-11-30")
	require.Equal(t, "1 place of memory failed, 1 line complains", v.Value)
	require.Equal(t, "line 1 of 2026-11-30: memory failed at 01F3A0: FF expected, F8 read (bits 0, 1, 2)", v.Why[0].Text)
	require.Empty(t, console.VerdictOf(read("64K OK\n"), "2026-11-30").Value)
	require.Equal(t, "no text", console.VerdictOf(read(strings.Repeat("\xff", 9)), "2026-11-30").Value)
}

func FuzzRead(f *testing.F) {
	for _, seed := range []string{"64K OK\r640K OK\r\n>", "\x1b[", "\x1b(", "ADDR 0x1 EXP 1 ACT 0", "\xff\x00\r",
		"1:1-2-3"} {
		f.Add([]byte(seed))
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		r := console.Read(raw, on)
		for i, line := range r.Lines {
			require.Equal(t, i+1, line.Number)
			require.True(t, utf8.ValidString(line.Text))
			require.NotContains(t, line.Text, "\n")
		}
		isLine := func(n int) { require.True(t, n >= 1 && n <= len(r.Lines)) }
		for _, c := range r.Claims {
			isLine(c.Line)
			require.NotEmpty(t, c.Value)
		}
		for _, failed := range r.Failures {
			isLine(failed.Line)
			require.NotEmpty(t, failed.InWords())
		}
	})
}
