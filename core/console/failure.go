package console

import (
	"regexp"
	"strconv"
	"strings"
)

// Failure is a place of memory that failed a test.
type Failure struct {
	Line     int    `json:"line"`
	Address  string `json:"address" doc:"As it is shown"`
	Expected string `json:"expected" doc:"As it is shown; empty where that is not told"`
	Actual   string `json:"actual"`
	Radix    int    `json:"radix" doc:"16 or 8; 0 where the text does not tell it: then no bit is named"`
	Bits     []int  `json:"bits" nullable:"true" doc:"That differ, from 0 for the lowest; null where that is not known"`
}

const number = `(0x[0-9a-f]+|\$[0-9a-f]+|[0-9a-f]+h?)\b`

var (
	aboutMemory = regexp.MustCompile(`(?i)\b(mem(ory)?|ram|parity|bank|core|address|addr|adr|loc(ation)?|data)\b`)
	addressIn   = regexp.MustCompile(`(?i)\b(?:address|addr|adr|loc(?:ation)?|at|@)[ \t]*[:=]?[ \t]*` + number)
	addressHead = regexp.MustCompile(`(?i)^[ \t*]*([0-9a-f]{2,4}:[0-9a-f]{4}|[0-9a-f]{4,8})[ \t]*[:=]`)
	expectedIn  = regexp.MustCompile(`(?i)\b(?:expect(?:ed)?|exp|wrote|written|write|should be|s/b|good|data out|w)` +
		`[ \t]*[:=]?[ \t]*` + number)
	actualIn = regexp.MustCompile(`(?i)\b(?:actual(?:ly)?|act|read(?: back)?|got|received|found|was|is|bad|data in|r)` +
		`[ \t]*[:=]?[ \t]*` + number)
	isMarked  = regexp.MustCompile(`(?i)^(0x|\$)|h$`)
	hexOnly   = regexp.MustCompile(`(?i)[a-f]`)
	notOctal  = regexp.MustCompile(`[89]`)
	saysOctal = regexp.MustCompile(`(?i)\boctal\b`)
	saysHex   = regexp.MustCompile(`(?i)\b(hex|hexadecimal)\b`)
)

// failuresIn finds the places of memory that failed. The radix of bare figures is that of the whole text: with letters or a
// mark it is hexadecimal; where nothing tells it, no bit is named.
func failuresIn(lines []TextLine) []Failure {
	found := []Failure{}
	bare, said := "", 0
	for _, line := range lines {
		switch {
		case saysOctal.MatchString(line.Text):
			said = 8
		case saysHex.MatchString(line.Text):
			said = 16
		}
		f, ok := failureIn(line)
		if !ok {
			continue
		}
		found = append(found, f)
		bare += " " + f.Address + " " + f.Expected + " " + f.Actual
	}
	radix := said
	if radix == 0 && hexOnly.MatchString(strings.ReplaceAll(bare, "0x", "")) {
		radix = 16
	}
	if radix == 8 && (notOctal.MatchString(bare) || hexOnly.MatchString(bare)) {
		radix = 0 // it says so, and cannot be
	}
	for i := range found {
		found[i].decide(radix)
	}
	return found
}

func failureIn(line TextLine) (Failure, bool) {
	f := Failure{Line: line.Number}
	if !strings.ContainsAny(line.Text, "0123456789") {
		return f, false
	}
	expected, actual := expectedIn.FindStringSubmatch(line.Text), actualIn.FindStringSubmatch(line.Text)
	if expected != nil && actual != nil {
		f.Expected, f.Actual = expected[1], actual[1]
	}
	if at := addressHead.FindStringSubmatch(line.Text); at != nil {
		f.Address = at[1]
	} else if at := addressIn.FindStringSubmatch(line.Text); at != nil {
		f.Address = at[1]
	}
	switch {
	case f.Address == "", !strings.ContainsAny(f.Address, "0123456789"):
		return f, false
	case f.Expected != "":
		return f, !sameFigure(f.Expected, f.Actual)
	}
	return f, aboutMemory.MatchString(line.Text) && troubleIn(line) != nil
}

func sameFigure(a, b string) bool {
	bare := func(text string) string {
		text = strings.ToLower(strings.TrimLeft(text, "$"))
		return strings.TrimLeft(strings.TrimSuffix(strings.TrimPrefix(text, "0x"), "h"), "0")
	}
	return bare(a) == bare(b)
}

// decide names the bits that differ, where the radix of the figures is known.
func (f *Failure) decide(radix int) {
	if isMarked.MatchString(f.Expected) || isMarked.MatchString(f.Address) {
		radix = 16
	}
	f.Radix = radix
	if radix == 0 || f.Expected == "" {
		return
	}
	expected, ok := figure(f.Expected, radix)
	actual, isFigure := figure(f.Actual, radix)
	if !ok || !isFigure {
		return
	}
	f.Bits = []int{}
	for bit := range 64 {
		if (expected^actual)>>bit&1 == 1 {
			f.Bits = append(f.Bits, bit)
		}
	}
}

func figure(text string, radix int) (uint64, bool) {
	text = strings.ToLower(strings.TrimLeft(text, "$"))
	text = strings.TrimSuffix(strings.TrimPrefix(text, "0x"), "h")
	n, err := strconv.ParseUint(text, radix, 64)
	return n, err == nil
}
