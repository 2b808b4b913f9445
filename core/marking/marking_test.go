package marking_test

import (
	"fmt"
	"strings"
	"testing"

	"frugalheron/core/device/builtin"
	"frugalheron/core/marking"
)

func TestRead(t *testing.T) {
	tests := []struct{ rule, text, number, date, unread string }{
		{"type and date", "27128-25 8533", "27128", "1985-W33", ""},
		{"device first, then a date that looks like one", "6116 8031", "6116", "1980-W31", ""},
		{"attached letters make the device", "7404 SN7432N", "7432", "1974-W04", ""},
		{"unknown device keeps later numbers dates", "HX9040-2 8251", "", "1982-W51", "HX9040-2"},
		{"two letters make a device before a number that is a date as well", "HX9040 8251", "", "1982-W51", "HX9040"},
		{"letters before a number are no date", "HX9040 27128", "27128", "", "HX9040"},
		{"unknown device alone is no date", "HX9040", "", "", "HX9040"},
		{"doubtful device", "SC8720?P 8601", "", "1986-W01", "SC8720?P"},
		{"date between plant letters", "27128 A8533", "27128", "1985-W33", ""},
		{"letters without a device are no date", "A8533", "", "", "A8533"},
		{"a lot letter with a figure", "27128 8714K5", "27128", "1987-W14", ""},
		{"a date in brackets", "27128 (8533)", "27128", "1985-W33", ""},
		{"a date that is written out", "27128 1985-W12", "27128", "1985-W12", ""},
		{"a year of a copyright is no date", "27128 (c) 1983 8412", "27128", "1984-W12", ""},
		{"nor is it in one word", "(C)1983 27128", "27128", "", ""},
		{"CMOS logic by its letters", "CD4016BE 8412", "4016", "1984-W12", ""},
		{"CMOS logic without letters", "4016", "4016", "", ""},
		{"other letters make it something else", "AM4016 8412", "", "1984-W12", "AM4016"},
		{"and so they do of regulators", "MB7805 8412", "", "1984-W12", "MB7805"},
		{"letters of regulators", "LM7805", "7805", "", ""},
		{"a prefix makes no PROM", "XR7641 8412", "", "1984-W12", "XR7641"},
		{"a processor", "8086-2 8412", "8086", "1984-W12", ""},
		{"a suffix that belongs to it", "8749H", "8749", "", ""},
		{"the same before a date", "P8749H 8412", "8749", "1984-W12", ""},
		{"flash memory", "29F010-90", "29F010", "", ""},
		{"a number that goes on", "Z80A SIO/0 8312", "8440", "1983-W12", ""},
		{"behind a hyphen", "Z80A-PIO 8312", "8420", "1983-W12", ""},
		{"and one that does not", "Z80A CPU 8312", "Z80", "1983-W12", "CPU"},
		{"letters that tell two devices apart", "DAC0808LCN 8412", "DAC0808", "1984-W12", ""},
		{"letters that make it no memory", "YM2149F", "8910", "", ""},
		{"bare known device", "7404", "7404", "", ""},
		{"words nobody understands", "KM41256AP-15 8553 KESTREL", "41256", "1985-W53", "KESTREL"},
		{"capacitor: safety class is no date", "0.1uF X2 275V", "", "", "X2 275V"},
		{"resistor", "4k7 5%", "", "", "5%"},
		{"two dates stay open", "74LS245 8533 8601", "74LS245", "", ""},
		{"nothing readable", "???", "", "", "???"},
		{"nothing at all", "  ", "", "", ""},
	}
	for _, test := range tests {
		t.Run(test.rule, func(t *testing.T) {
			r := marking.Read(builtin.Library(), test.text, marking.Context{})
			number, date := "", ""
			if r.Type != nil {
				number = r.Type.Number
			}
			if r.Date != nil {
				date = r.Date.Text
			}
			if number != test.number || date != test.date || strings.Join(r.Unread, " ") != test.unread {
				t.Errorf("Read(%q) = type %q, date %q, unread %q", test.text, number, date, r.Unread)
			}
		})
	}
}

func TestNameable(t *testing.T) {
	for text, want := range map[string]string{
		"HX9040-2 8431": "HX9040", "µX771/B": "UX771", "8431 qn4410b": "QN4410B", "SC8720?P 8601": "", "41256-15": "",
		"?": "", "": "", "painted over": "", "DAC-08 8709": "DAC-08",
	} {
		if got := marking.Nameable(builtin.Library(), strings.Fields(text)); got != want {
			t.Errorf("Nameable(%q) = %q, want %q", text, got, want)
		}
	}
}

// Speeds are data of the family, or of the number; where neither settles one there is none.
func TestSpeeds(t *testing.T) {
	for text, ns := range map[string]int{
		"41256-15": 150, "514256-80": 80, "62256-70": 70, "6264LP-15": 150, "HM6116P-4": 200, "6116SA25": 25,
		"71256SA20": 20, "61C256AH-15": 15, "IDT7164S20": 20, "2716-1": 350, "27128A-1": 150, "27128-20": 200,
		"2732A-1": 0, "27256-1": 170, "27C010-12": 120, "39SF040-70": 70, "MK4116N-3": 200, "4164-3": 0, "27128": 0,
		"27128 70ns": 70,
	} {
		if r := marking.Read(builtin.Library(), text, marking.Context{}); r.Type == nil || r.SpeedNs != ns {
			t.Errorf("%s: %d ns, want %d (%v)", text, r.SpeedNs, ns, r.Type)
		}
	}
}

func FuzzRead(f *testing.F) {
	for _, seed := range []string{"41256-15 8512", "µPD765AC -2 533", "0.1uF X2 U6", "? 28-pin", "A8533", "\xff",
		"74LS245 70ns"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		r := marking.Read(builtin.Library(), text, marking.Context{})
		for _, word := range r.Unread {
			if !strings.Contains(text, word) {
				t.Errorf("unread %q does not stand in %q", word, text)
			}
		}
		if r.Date != nil && len(r.Candidates) == 0 {
			t.Errorf("%q: a date without candidate", text)
		}
	})
}

func ExampleRead() {
	r := marking.Read(builtin.Library(), "6264LP-15 8641", marking.Context{})
	fmt.Println(r.Type.Number, r.SpeedNs, "ns", r.Date.Text, r.Grade)
	// Output: 6264 150 ns 1986-W41 low power, plastic DIP
}
