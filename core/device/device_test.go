package device_test

import (
	"strings"
	"testing"

	"frugalheron/core/device"
	"frugalheron/core/device/builtin"
)

func TestRecognise(t *testing.T) {
	tests := []struct {
		word, number string
		class        device.Class
		words, bits  int
		speedNs      int
	}{
		{"41256-15", "41256", device.DRAM, 1 << 18, 1, 150},
		{"514256-80", "514256", device.DRAM, 1 << 18, 4, 80},
		{"4416-15", "4416", device.DRAM, 1 << 14, 4, 150},
		{"41464-12", "41464", device.DRAM, 1 << 16, 4, 120},
		{"KM44256AP-10", "44256", device.DRAM, 1 << 18, 4, 100},
		{"4116-2", "4116", device.DRAM, 1 << 14, 1, 150},
		{"27128-25", "27128", device.EPROM, 1 << 14, 8, 250},
		{"M5L2764K-2", "2764", device.EPROM, 1 << 13, 8, 200},
		{"27C010-12", "27C010", device.EPROM, 1 << 17, 8, 120},
		{"27256-250", "27256", device.EPROM, 1 << 15, 8, 250},
		{"28C010", "28C010", device.EEPROM, 1 << 17, 8, 0},
		{"23256", "23256", device.MaskROM, 1 << 15, 8, 0},
		{"6264LP-15", "6264", device.SRAM, 1 << 13, 8, 150},
		{"62256-90", "62256", device.SRAM, 1 << 15, 8, 90},
		{"2016", "6116", device.SRAM, 1 << 11, 8, 0},
		{"N82S129N", "82S129", device.PROM, 256, 4, 0},
		{"DM74S188", "74S188", device.PROM, 32, 8, 0},
		{"SN74LS245N", "74LS245", device.Logic, 0, 0, 0},
		{"7404", "7404", device.Logic, 0, 0, 0},
		{"54ls00", "54LS00", device.Logic, 0, 0, 0},
		{"MC14011B", "4011", device.Logic, 0, 0, 0},
		{"D8255A-5", "8255", device.Support, 0, 0, 0},
		{"µPD765AC", "765", device.Support, 0, 0, 0}, // micro sign
		{"μPD765AC", "765", device.Support, 0, 0, 0}, // Greek mu
	}
	library := builtin.Library()
	for _, test := range tests {
		found, ok := library.Recognise(test.word)
		if !ok || found.Number != test.number || found.Class != test.class || found.Words != test.words ||
			found.Bits != test.bits {
			t.Errorf("Recognise(%q) = %+v, %v; want %s", test.word, found.Type, ok, test.number)
			continue
		}
		if got := library.ReadSuffix(found.Type, found.Suffix).SpeedNs; got != test.speedNs {
			t.Errorf("%q: %d ns, want %d", test.word, got, test.speedNs)
		}
	}
	for _, word := range []string{"HX9040-2", "8533", "41256?", "74LS", "74LS999", "271280", "4125", "", "-15",
		"ABCDE2764", "ÿ"} {
		if found, ok := library.Recognise(word); ok {
			t.Errorf("Recognise(%q) = %s, want nothing", word, found.Number)
		}
	}
}

func TestEveryRowIsRecognisedAndSaysItsSource(t *testing.T) {
	library, classes, logic := builtin.Library(), map[device.Class]int{}, map[string]bool{}
	for _, start := range strings.Split("0123456789", "") {
		for _, row := range library.Completions(start, 100_000) {
			classes[row.Class]++
			found, ok := library.Recognise(row.Number)
			if !ok || found.Type.Number != row.Number || row.Source == "" || row.Function == "" {
				t.Errorf("%s: recognised %v, source %q", row.Number, ok, row.Source)
			}
			if row.Class.IsMemory() != (row.Words > 0 && row.Bits > 0) {
				t.Errorf("%s is %s but has %d x %d", row.Number, row.Class, row.Words, row.Bits)
			}
			if row.Class == device.Logic {
				logic[row.Function] = true
			}
		}
	}
	if len(logic) < 120 {
		t.Errorf("%d functions of logic, want 120 or more", len(logic))
	}
	for _, class := range []device.Class{device.DRAM, device.SRAM, device.EPROM, device.EEPROM, device.MaskROM,
		device.PROM, device.Support} {
		if classes[class] < 5 {
			t.Errorf("only %d types of class %s", classes[class], class)
		}
	}
}

func TestOwnTypesGoFirst(t *testing.T) {
	built := builtin.Library()
	own := built.With([]device.Type{{Number: "HX9040", Class: device.Own, Function: "processor"},
		{Number: "2716", Class: device.Own, Function: "gate array"}})
	for word, function := range map[string]string{"HX9040-2": "processor", "hx9040": "processor",
		"2716": "gate array"} {
		if found, ok := own.Recognise(word); !ok || found.Function != function {
			t.Errorf("Recognise(%q) = %+v, %v", word, found.Type, ok)
		}
	}
	if _, ok := built.Recognise("HX9040-2"); ok {
		t.Error("With changed the library it was called on")
	}
}

func TestReadNamesTheBadLine(t *testing.T) {
	_, err := device.Read(device.Data{
		Types: [][]byte{
			[]byte("number\tclass\twords\tbits\tpackage\ttypical_ma\tspeeds\tfunction\talso\tages\tsource\n27128\teprom\tmany\t8\tDIP-28\t70\t\tEPROM\t\t\tbook\n"),
		},
	})
	if err == nil || !strings.Contains(err.Error(), "line 2") {
		t.Errorf("Read: %v, want line 2 named", err)
	}
}

func TestReadSuffix(t *testing.T) {
	library := builtin.Library()
	for word, want := range map[string]device.Suffix{
		"27128":        {},
		"27128-25":     {SpeedNs: 250},
		"27C256-120":   {SpeedNs: 120},
		"2716-1":       {SpeedNs: 350},
		"6264LP-15":    {SpeedNs: 150, Grade: "low power, plastic DIP"},
		"6264LP15":     {SpeedNs: 150, Grade: "low power, plastic DIP"},
		"41256AP-12":   {SpeedNs: 120, Grade: "die revision A, plastic DIP"},
		"41256-99":     {Grade: "99"}, // no speed of the family: kept as it stands
		"74LS245N":     {Grade: "plastic DIP"},
		"54LS00J":      {Grade: "-55 to 125 °C, ceramic DIP"},
		"CD4011UBE":    {Grade: "UBE"},
		"27128A-25/BX": {SpeedNs: 250, Grade: "die revision A, BX"},
	} {
		found, ok := library.Recognise(word)
		if !ok {
			t.Errorf("%q is not recognised", word)
			continue
		}
		if got := library.ReadSuffix(found.Type, found.Suffix); got != want {
			t.Errorf("%q: %+v, want %+v", word, got, want)
		}
	}
}

func TestCompletions(t *testing.T) {
	library := builtin.Library()
	numbers := func(start string, limit int) string {
		all := []string{}
		for _, found := range library.Completions(start, limit) {
			all = append(all, found.Number)
		}
		return strings.Join(all, " ")
	}
	for start, want := range map[string]string{"27c12": "27C128", "74ls24": "74LS240 74LS241 74LS242", "QQ": "",
		"2016": ""} {
		if got := numbers(start, 3); got != want {
			t.Errorf("Completions(%q) = %q, want %q", start, got, want)
		}
	}
	if one, all := numbers("", 1), library.Completions("", 1<<20); one == "" || len(all) < 3000 {
		t.Errorf("%q first of %d", one, len(all))
	}
	if found, ok := library.Lookup("74ls245"); !ok || found.Number != "74LS245" {
		t.Errorf("Lookup: %v %v", found, ok)
	}
	if _, ok := library.Lookup("SN74LS245"); ok {
		t.Error("Lookup takes a maker's prefix")
	}
}

// The grade stands in the suffix, in the number, or nowhere; one that nobody knows is no grade of another.
func TestClocksOfProcessors(t *testing.T) {
	own := builtin.Library().With([]device.Type{{Number: "HX9040", Class: device.Own, ClockMHz: 4}})
	for word, mhz := range map[string]float64{"8088-2": 8, "D8088": 5, "8086-9": 0, "Z80B": 6, "Z8400A": 4, "6502AP": 2,
		"R6502P": 1, "MC68B09EP": 2, "MC68000P10": 10, "68000": 0, "68020RC16": 16.67, "P8048AH": 11,
		"8749H": 11, "HX9040": 4, "HX9040-2": 0, "74LS245": 0, "8080A-1": 3.125} {
		found, ok := own.Recognise(word)
		if !ok || found.MaxMHz() != mhz {
			t.Errorf("%s: %v MHz, want %v", word, found.MaxMHz(), mhz)
		}
	}
	multi, _ := own.Lookup("8080")
	if multi.Supply != "+5 -5 +12" {
		t.Errorf("8080: supply %q", multi.Supply)
	}
}
