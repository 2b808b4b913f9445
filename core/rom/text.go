package rom

import (
	"bytes"
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// Text is a stretch that reads as text.
type Text struct {
	Offset int    `json:"offset"`
	Text   string `json:"text"`
}

// Rules of thumb: shorter stretches, or ones with few letters, are code that happens to look like text.
const (
	leastText = 6
	mostTexts = 2000
)

// printable are the bytes that texts are made of.
var printable = func() (table [256]bool) {
	for b := 0x20; b < 0x7f; b++ {
		table[b] = true
	}
	return table
}()

// textsIn finds the stretches that read as text.
func textsIn(data []byte, stretches [][2]int) []Text {
	texts := []Text{}
	for _, s := range stretches {
		// A stretch of text covers every place that is a multiple of its least length.
		for at := s[0] + leastText - 1; at < s[1]; at += leastText {
			if !printable[data[at]] {
				continue
			}
			from, to := at, at+1
			for from > s[0] && printable[data[from-1]] {
				from--
			}
			for to < s[1] && printable[data[to]] {
				to++
			}
			if to-from >= leastText && reads(data[from:to]) {
				texts = append(texts, Text{from, string(data[from:to])})
				if len(texts) == mostTexts {
					return texts
				}
			}
			at = to
		}
	}
	return texts
}

// reads reports whether most of a stretch is letters, figures and what stands between words, and a third
// letters; or whether somebody claims it.
func reads(stretch []byte) bool {
	letters, words := 0, 0
	for _, b := range stretch {
		switch {
		case 'a' <= b && b <= 'z' || 'A' <= b && b <= 'Z':
			letters++
			words++
		case '0' <= b && b <= '9' || b == ' ' || b == '.' || b == ',' || b == '-':
			words++
		}
	}
	return letters*3 >= len(stretch) && words*4 >= len(stretch)*3 || bytes.Contains(stretch, []byte("(C)")) ||
		bytes.Contains(stretch, []byte("(c)"))
}

// claim is what stands beside a year that tells of authorship.
var (
	claim = regexp.MustCompile(`(?i)\(c\)|\bcopyright|\bcopr\b|\bcopr\.`)
	// A year, and shorter ones behind it.
	yearAndMore = regexp.MustCompile(`\b(19[6-9]\d|200\d|2010)((?:\s*[-/,&]\s*\d\d\b)*)`)
	shortYear   = regexp.MustCompile(`\d\d`)
)

// Years lie in the time that machines of this kind were built in, as date codes do.
const firstYear, lastYear = 1965, 2010

// between is the largest number of bytes that may lie between the parts of a claim: ends of strings,
// lengths, cursor positions. A year alone is too short for a text: it is looked for so far behind.
const (
	between = 4
	behind  = 12
)

// isSigned reports whether a text that begins with a year has the sign of a copyright before it, one byte in Latin-1 and
// the last of two in UTF-8.
func isSigned(data []byte, from, to int) bool {
	return from > 0 && data[from-1] == 0xa9 && beginsWithYear.Match(data[from:to])
}

var beginsWithYear = regexp.MustCompile(`^\s?(?:19[6-9]\d|200\d|2010)\b`)

// yearsIn finds the years that stand in texts about authorship.
func yearsIn(data []byte, texts []Text) []int {
	years := []int{}
	for i := 0; i < len(texts); i++ {
		from, to := texts[i].Offset, texts[i].Offset+len(texts[i].Text)
		for i+1 < len(texts) && texts[i+1].Offset-to <= between {
			i++
			to = texts[i].Offset + len(texts[i].Text)
		}
		if mayClaim(data[from:to]) && claim.Match(data[from:to]) || isSigned(data, from, to) {
			years = append(years, yearsOf(data[from:min(to+behind, len(data))])...)
		}
	}
	slices.Sort(years)
	return slices.Compact(years)
}

// mayClaim looks for the start of a claim, which is faster than the pattern.
func mayClaim(stretch []byte) bool {
	lower := bytes.ToLower(stretch)
	return bytes.Contains(lower, []byte("(c)")) || bytes.Contains(lower, []byte("cop"))
}

func yearsOf(stretch []byte) []int {
	text := strings.Map(func(r rune) rune {
		if r < ' ' || r > '~' {
			return ' '
		}
		return r
	}, string(stretch))
	years := []int{}
	for _, match := range yearAndMore.FindAllStringSubmatch(text, -1) {
		year := number(match[1])
		years = append(years, year)
		for _, short := range shortYear.FindAllString(match[2], -1) {
			if later := year/100*100 + number(short); later > year {
				years = append(years, later)
			}
		}
	}
	return slices.DeleteFunc(years, func(year int) bool { return year < firstYear || year > lastYear })
}

func number(digits string) int {
	n, _ := strconv.Atoi(digits) // the pattern lets only figures through
	return n
}

// versionText is what a version is written like in a text or on a label.
var versionText = regexp.MustCompile(`(?i)\b(?:v|ver|version|rev|revision|release|rel)\.?\s*(\d+(?:\.\d+)*[a-z]?)\b`)

// VersionIn finds a version in a text, as "1.1" in "MONITOR V1.1"; empty for none.
func VersionIn(text string) string {
	match := versionText.FindStringSubmatch(text)
	if match == nil {
		return ""
	}
	return strings.ToLower(match[1])
}
