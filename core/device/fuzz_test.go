package device_test

import (
	"strings"
	"testing"

	"frugalheron/core/device"
	"frugalheron/core/device/builtin"
)

// What is recognised in a word can be put together again to the word: nothing of it is lost or
// invented, and no digit follows the number.
func FuzzRecognise(f *testing.F) {
	for _, seed := range []string{"KM41256AP-15", "µPD765AC", "74LS245", "M5L2764K-2", "2016", "54HCT00J", "74",
		"\xff27128", "27C0101", "ß27C64", "ſ2764"} {
		f.Add(seed)
	}
	library := builtin.Library().With([]device.Type{{Number: "HX9040", Class: device.Own, Function: "processor"}})
	f.Fuzz(func(t *testing.T, word string) {
		found, ok := library.Recognise(word)
		if !ok {
			if found.Type != nil {
				t.Errorf("%q: not recognised, but %s", word, found.Number)
			}
			return
		}
		normal := device.Normal(word)
		number := strings.TrimSuffix(strings.TrimPrefix(normal, found.Prefix), found.Suffix)
		if found.Prefix+number+found.Suffix != normal {
			t.Fatalf("%q: %q + %q + %q", word, found.Prefix, number, found.Suffix)
		}
		if again, ok := library.Lookup(number); !ok || again.Number != found.Number {
			t.Errorf("%q: %q does not lead to %s by itself", word, number, found.Number)
		}
		if found.Suffix != "" && found.Suffix[0] >= '0' && found.Suffix[0] <= '9' {
			t.Errorf("%q: a digit follows %q", word, number)
		}
		if s := library.ReadSuffix(found.Type, found.Suffix); s.SpeedNs < 0 || s.SpeedNs > 1000 {
			t.Errorf("%q: %d ns", word, s.SpeedNs)
		}
	})
}
