package console_test

import (
	"strings"
	"testing"

	"frugalheron/core/console"
)

// A capture of the most that is kept, every line of which says something or complains.
func BenchmarkReadTheMost(b *testing.B) {
	lines := "MONITOR V2.3\r\n064K\r128K OK\r\nADDR 1A2 EXP FF ACT FE\r\nDISK 0: 10 MB\r\nCLOCK NOT SET\r\n"
	raw := []byte(strings.Repeat(lines, console.MostBytes/len(lines)))
	for b.Loop() {
		console.Read(raw, on)
	}
}
