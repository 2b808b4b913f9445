package memory_test

import (
	"errors"
	"fmt"
	"testing"

	"pgregory.net/rapid"

	"frugalheron/core/device"
	"frugalheron/core/memory"
)

func TestOf(t *testing.T) {
	const k = 1024
	tests := []struct {
		rule                 string
		words, bits, count   int
		allParity, ambiguous bool
		dataBytes, parityBit int64
	}{
		{"eight chips are data", 64 * k, 1, 8, false, false, 64 * k, 0},
		{"nine chips are data and parity", 256 * k, 1, 9, false, false, 256 * k, 256 * k},
		{"36 chips are four bytes wide", 256 * k, 1, 36, false, false, 1024 * k, 1024 * k},
		{"72 chips are ambiguous", 64 * k, 1, 72, false, true, 576 * k, 0},
		{"parity by word of the sheet", 256 * k, 1, 1, true, false, 0, 256 * k},
		{"nine chips four bits wide are data", 16 * k, 4, 9, false, false, 72 * k, 0},
		{"module of nine bits", 1024 * k, 9, 2, false, false, 2048 * k, 2048 * k},
		{"module of 36 bits", 1024 * k, 36, 1, false, false, 4096 * k, 4096 * k},
		{"bytes", 2 * k, 8, 3, false, false, 6 * k, 0},
	}
	for _, test := range tests {
		c := memory.Of(memory.Bank{Organisation: device.Organisation{Words: test.words, Bits: test.bits},
			Count: test.count, AllParity: test.allParity})
		if c.DataBits/8 != test.dataBytes || c.ParityBits != test.parityBit || (c.Note != "") != test.ambiguous {
			t.Errorf("%s: %+v", test.rule, c)
		}
	}
}

// No bit is lost or invented: data and parity together are all the bits there are.
func TestBitsAddUp(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		b := memory.Bank{
			Organisation: device.Organisation{Words: 1 << rapid.IntRange(4, 22).Draw(t, "words"),
				Bits: rapid.SampledFrom([]int{1, 4, 8, 9, 16, 18, 32, 36}).Draw(t, "bits")},
			Count: rapid.IntRange(1, 4096).Draw(t, "count"), AllParity: rapid.Bool().Draw(t, "parity"),
		}
		if c := memory.Of(b); c.DataBits+c.ParityBits != b.TotalBits()*int64(b.Count) {
			t.Fatalf("%+v holds %+v", b, c)
		}
	})
}

func TestParse(t *testing.T) {
	for text, want := range map[string]int64{"640K": 640 << 10, "4MB": 4 << 20, "512KiB": 512 << 10, "16384": 16384,
		"1.5M": 3 << 19, "48.125 KB": 49280, " 1 m ": 1 << 20, "0": 0} {
		if got, err := memory.ParseSize(text); err != nil || got != want {
			t.Errorf("ParseSize(%q) = %d, %v", text, got, err)
		}
	}
	for _, text := range []string{"", "K", "-1K", "1.0001K", "0.5", "4G", "12345678901"} {
		if got, err := memory.ParseSize(text); !errors.Is(err, memory.ErrNotASize) {
			t.Errorf("ParseSize(%q) = %d, %v", text, got, err)
		}
	}
	for text, want := range map[string]device.Organisation{"1Mx9": {Words: 1 << 20, Bits: 9},
		"256kx36": {Words: 256 << 10, Bits: 36}, "4MB": {Words: 4 << 20, Bits: 8}} {
		if got, ok := memory.ParseModule(text); !ok || got != want {
			t.Errorf("ParseModule(%q) = %v, %v", text, got, ok)
		}
	}
	for _, text := range []string{"30-pin", "70ns", "0Mx9", "16", "9999999M"} {
		if got, ok := memory.ParseModule(text); ok {
			t.Errorf("ParseModule(%q) = %v", text, got)
		}
	}
}

func TestVideo(t *testing.T) {
	tests := []struct {
		screen  memory.Screen
		fitted  int64
		verdict string
		left    int64
	}{
		{memory.Screen{Width: 640, Height: 400, BitsPerPixel: 4}, 128 << 10, "enough", 3072},
		{memory.Screen{Width: 640, Height: 400, BitsPerPixel: 4}, 64 << 10, "short", -62464},
		{memory.Screen{Width: 3, Height: 1, BitsPerPixel: 1}, 0, "unknown", 0},
		{memory.Screen{Columns: 80, Rows: 25, CellBytes: 2, Glyphs: 256, GlyphBytes: 14}, 4096, "enough", 96},
	}
	for _, test := range tests {
		if d, err := memory.Video(test.screen, test.fitted); err != nil || d.Verdict != test.verdict ||
			d.LeftBytes != test.left {
			t.Errorf("Video(%+v) = %+v, %v", test.screen, d, err)
		}
	}
	for _, screen := range []memory.Screen{{}, {Width: 640, Height: 400}, {Width: 1 << 20, Height: 1, BitsPerPixel: 1},
		{Width: 8, Height: 8, BitsPerPixel: 1, Columns: 1, Rows: 1, CellBytes: 1}} {
		if _, err := memory.Video(screen, 0); !errors.Is(err, memory.ErrScreen) {
			t.Errorf("Video(%+v): %v", screen, err)
		}
	}
}

func ExampleOf() {
	c := memory.Of(memory.Bank{Organisation: device.Organisation{Words: 256 << 10, Bits: 1}, Count: 9})
	fmt.Println(memory.Format(c.DataBits/8), "and", c.ParityBits, "bits of parity")
	// Output: 256 KB and 262144 bits of parity
}
