package configuration

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// element is how one of a block of switches stands.
type element byte

const (
	unseen element = '?'
	on     element = '1'
	off    element = '0'
)

// elementOf are the words for it. Up and down are none: which of them is on differs from switch to switch.
var elementOf = map[string]element{"on": on, "1": on, "closed": on, "off": off, "0": off, "open": off, "?": unseen,
	"x": unseen, "-": unseen, "unseen": unseen}

// MostOfBlock is how many switches a block has at most.
const MostOfBlock = 64

var (
	figures = regexp.MustCompile(`^[01?x]{2,}$`)
	inBlock = regexp.MustCompile(`^(.+?)\.(\d{1,2})(?:-(\d{1,2}))?$`)
	between = regexp.MustCompile(`[\s,;/|]+`)
)

// elementsOf reads a row of switches: on off on, or 101. What is none is not ok.
func elementsOf(text string) (row []element, ok bool) {
	words := between.Split(strings.ToLower(strings.TrimSpace(text)), -1)
	if len(words) == 1 && figures.MatchString(words[0]) {
		words = strings.Split(words[0], "")
	}
	for _, word := range words {
		one, known := elementOf[word]
		if !known {
			return nil, false
		}
		row = append(row, one)
	}
	return row, len(row) > 0 && len(row) <= MostOfBlock
}

// span is which switches of a block a name means: SW1.3, SW1.1-4, or SW1 for all of it.
type span struct {
	block    string // in upper case
	from, to int    // from 1; 0 for the whole block
}

func spanOf(name string) span {
	m := inBlock.FindStringSubmatch(name)
	if m == nil {
		return span{block: strings.ToUpper(name)}
	}
	from, _ := strconv.Atoi(m[2])
	to := from
	if m[3] != "" {
		to, _ = strconv.Atoi(m[3])
	}
	if from < 1 || to < from || to > MostOfBlock {
		return span{block: strings.ToUpper(name)}
	}
	return span{strings.ToUpper(m[1]), from, to}
}

// folded writes where a jumper stands in one way: 2-1 is 1-2, and out is open.
func folded(at string) string {
	if row, ok := elementsOf(at); ok {
		return string(bytesOf(row))
	}
	pins := []string{}
	for _, word := range between.Split(strings.ToLower(strings.TrimSpace(at)), -1) {
		if first, second, ok := strings.Cut(word, "-"); ok {
			a, errA := strconv.Atoi(first)
			b, errB := strconv.Atoi(second)
			if errA == nil && errB == nil && b < a {
				word = second + "-" + first
			}
		}
		if same, known := sameWords[word]; known {
			word = same
		}
		if word != "" && !slices.Contains(pins, word) {
			pins = append(pins, word)
		}
	}
	slices.Sort(pins)
	return strings.Join(pins, " ")
}

// sameWords are words for a jumper that is there or is not.
var sameWords = map[string]string{"none": "0", "out": "0", "removed": "0", "unfitted": "0", "open": "0", "off": "0",
	"fitted": "1", "in": "1", "closed": "1", "on": "1", "shorted": "1"}

func bytesOf(row []element) []byte {
	bytes := make([]byte, len(row))
	for i, e := range row {
		bytes[i] = byte(e)
	}
	return bytes
}
