package reckoning_test

import (
	"fmt"
	"strings"
	"testing"

	"frugalheron/core/device/builtin"
	"frugalheron/core/reckoning"
)

// threeHundredLines is a sheet as a large board gives it: three chips in four of known types.
func threeHundredLines() []byte {
	var b strings.Builder
	b.WriteString("== Main board | part 4410-2 | rev C\n")
	markings := []string{"SN74LS245N 8533", "41256-15 8512", "HX9040-2 8431", "27128-25 8533 @socket", "74LS04 8440",
		"? 28-pin", "8255A-5 8401", "6264LP-15 8641 for:picture"}
	for i := range 299 {
		fmt.Fprintf(&b, "U%-9d %s\n", i+1, markings[i%len(markings)])
	}
	return []byte(b.String())
}

func BenchmarkSheetOf300Lines(b *testing.B) {
	text, library := threeHundredLines(), builtin.Library()
	b.SetBytes(int64(len(text)))
	for b.Loop() {
		if _, err := reckoning.Of(library, text, reckoning.Options{}); err != nil {
			b.Fatal(err)
		}
	}
}
