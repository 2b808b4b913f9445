package wiring

import (
	"regexp"
	"strconv"
	"strings"
)

// Plug is a shape of connector by which one can tell whether a plug goes in.
type Plug struct {
	Family    string // as D-sub, round, phono
	Positions int    // 0 where it is not told
	Gender    string // female or male; empty where it is not told
	Detail    string // that makes it another one: high density, the angle of a round one, the size of a jack
}

// shapes recognise families by what people and catalogues call them. The first group is the number of positions, the
// second what makes it another one.
var shapes = []struct {
	family string
	is     *regexp.Regexp
}{
	{"D-sub", regexp.MustCompile(`(?i)\bd[- ]?sub(?:miniature)?[- ]?(\d{1,2})\b`)},
	{"D-sub", regexp.MustCompile(`(?i)\b(\d{1,2})(?:[- ]?(?:pin|way|pole))?[- ]d[- ]?sub`)},
	{"D-sub", regexp.MustCompile(`(?i)\bd[a-e][- ]?(\d{1,2})[psmf]?\b`)},
	{"D-sub", regexp.MustCompile(`(?i)\b(?:hd|vga)[- ]?(15)[psmf]?\b`)},
	{"small round", regexp.MustCompile(`(?i)\bmini[- ]?din[- ]?(\d{1,2})\b`)},
	{"small round", regexp.MustCompile(`(?i)\b(\d{1,2})[- ]?pin[- ]mini[- ]?din\b`)},
	{"round", regexp.MustCompile(`(?i)\bdin[- ]?(\d{1,2})\b`)},
	{"round", regexp.MustCompile(`(?i)\b(\d{1,2})[- ]?(?:pin|way|pole)[- ](?:din|round)\b`)},
	{"ribbon", regexp.MustCompile(`(?i)\b(?:centronics|ribbon)[- ]?(\d{2})\b`)},
	{"ribbon", regexp.MustCompile(`(?i)\b(\d{2})[- ]?(?:pin|way)[- ](?:centronics|ribbon)\b`)},
	{"modular", regexp.MustCompile(`(?i)\brj[- ]?(\d{2})\b`)},
	{"barrel", regexp.MustCompile(`(?i)\b(?:barrel|dc (?:jack|inlet|socket))\b()(?:.*?(\d[.,]\d)\s*(?:/|x|mm))?`)},
	{"jack", regexp.MustCompile(`(?i)\b()(\d[.,]\d)\s*mm\s+(?:\w+\s+)?jack\b`)},
	{"jack", regexp.MustCompile(`(?i)\bjack\b()(?:\s+(\d[.,]\d)\s*mm)?`)},
	{"phono", regexp.MustCompile(`(?i)\b(?:phono|rca|cinch)\b`)},
	{"coaxial", regexp.MustCompile(`(?i)\bbnc\b`)},
	{"edge", regexp.MustCompile(`(?i)\bedge[- ]?(\d{1,3})\b`)},
	{"edge", regexp.MustCompile(`(?i)\b(\d{1,3})[- ]?(?:pin|way|contact)s?[- ]edge\b`)},
}

var (
	female  = regexp.MustCompile(`(?i)\b(?:female|socket|receptacle|f)\b|\bd[a-e][- ]?\d{1,2}[sf]\b`)
	male    = regexp.MustCompile(`(?i)\b(?:male|plug|pins|m)\b|\bd[a-e][- ]?\d{1,2}[pm]\b`)
	density = regexp.MustCompile(`(?i)\bhd[- ]?\d|high[- ]density|\bde[- ]?15|\bvga`)
	angle   = regexp.MustCompile(`(?i)\b(180|216|240|262|270|360)\s*(?:°|deg)`)
)

// PlugOf tells which shape of connector words name; ok is false where they name none that is known.
func PlugOf(words string) (p Plug, ok bool) {
	for _, s := range shapes {
		m := s.is.FindStringSubmatch(words)
		if m == nil {
			continue
		}
		p.Family = s.family
		if len(m) > 1 && m[1] != "" {
			p.Positions, _ = strconv.Atoi(m[1]) //nolint:errcheck // figures only
		}
		if len(m) > 2 {
			p.Detail = strings.ReplaceAll(m[2], ",", ".")
		}
		break
	}
	if p.Family == "" {
		return p, false
	}
	switch isFemale, isMale := female.MatchString(words), male.MatchString(words); {
	case isFemale && !isMale:
		p.Gender = "female"
	case isMale && !isFemale:
		p.Gender = "male"
	}
	if p.Family == "D-sub" && density.MatchString(words) {
		p.Detail = "high density"
	}
	if m := angle.FindStringSubmatch(words); m != nil && p.Family == "round" {
		p.Detail = m[1]
	}
	return p, true
}

// Takes tells whether what takes the one plug takes the other, too; perhaps where something is not told.
func (p Plug) Takes(other Plug) (takes, perhaps bool) {
	if p.Family != other.Family {
		return false, false
	}
	differ := func(a, b string) bool { return a != b && a != "" && b != "" }
	if p.Positions != other.Positions && p.Positions != 0 && other.Positions != 0 || differ(p.Gender, other.Gender) {
		return false, false
	}
	// Of a D-sub the ordinary one is not told; of others nothing is known where nothing is told.
	if differ(p.Detail, other.Detail) || p.Family == "D-sub" && p.Detail != other.Detail {
		return false, false
	}
	return true, p.Positions != other.Positions || p.Gender == "" || other.Gender == "" || p.Detail != other.Detail
}
