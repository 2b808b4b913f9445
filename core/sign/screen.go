package sign

import (
	"fmt"
	"regexp"
	"strings"
)

// pattern is a text with wildcards.
type pattern struct {
	whole *regexp.Regexp
	has   string // the longest part without a wildcard, which is looked for first
	wild  int    // characters that are wildcards
}

// patternOf reads a text with wildcards: ? for one character, * for any; \ before one means the character itself.
func patternOf(text string) pattern {
	p, out, part, runes := pattern{}, strings.Builder{}, []rune{}, []rune(folded(text))
	literally := func(r rune) {
		out.WriteString(regexp.QuoteMeta(string(r)))
		if part = append(part, r); len(string(part)) > len(p.has) {
			p.has = string(part)
		}
	}
	for i := 0; i < len(runes); i++ {
		switch r := runes[i]; {
		case r == '\\' && i+1 < len(runes):
			i++
			literally(runes[i])
		case r == '?':
			n := 1
			part = part[:0]
			for ; i+1 < len(runes) && runes[i+1] == '?'; i++ {
				n++
			}
			p.wild += n
			fmt.Fprintf(&out, `(.{%d})`, min(n, mostWild))
		case r == '*':
			p.wild++
			part = part[:0]
			out.WriteString(`(.*?)`)
		default:
			literally(r)
		}
	}
	p.whole = regexp.MustCompile(`^(?s:` + out.String() + `)$`)
	return p
}

// mostWild bounds a run of question marks, as an expression that repeats may not be longer.
const mostWild = 1000

// in tells what stands at the wildcards of a text, if all of it agrees.
func (p pattern) in(text string) (at []string, agrees bool) {
	if !strings.Contains(text, p.has) {
		return nil, false
	}
	found := p.whole.FindStringSubmatch(text)
	if found == nil {
		return nil, false
	}
	for _, one := range found[1:] {
		at = append(at, strings.TrimSpace(one))
	}
	return at, true
}

// folded is a text without regard to case and to how wide its blanks are.
func folded(text string) string {
	return strings.ToUpper(strings.Join(strings.Fields(text), " "))
}

// misread makes characters equal that are taken for each other.
var misread = strings.NewReplacer("O", "0", "I", "1", "L", "1")

// compareScreen tells how a text that was seen stands to a sign: all of it, or a line of it.
func compareScreen(s Sign, seen seenText) compared {
	c := compared{isAlike: true, wild: s.text.wild}
	for _, text := range seen.texts {
		if at, agrees := s.text.in(text); agrees {
			c.agrees, c.at = true, at
			return c
		}
	}
	for _, text := range seen.alike {
		if at, agrees := s.alike.in(text); agrees {
			c.agrees, c.at = true, at
			c.doubts = append(c.doubts, "it agrees only if an O is a 0, or an I or an L a 1")
			return c
		}
	}
	return nearText(c, s.words, seen.words)
}

// seenText is a text that was seen: all of it and each line, as such and with those characters equal that are taken for
// each other, and its words.
type seenText struct {
	texts, alike []string
	words        map[string]bool
}

func seenTextOf(text string) seenText {
	s := seenText{texts: append([]string{folded(text)}, linesOf(text)...), words: map[string]bool{}}
	for _, one := range s.texts {
		s.alike = append(s.alike, misread.Replace(one))
	}
	for word := range strings.FieldsSeq(s.texts[0]) {
		s.words[word] = true
	}
	return s
}

// wordsOf are the words of a text that hold no wildcard.
func wordsOf(shown string) []string {
	return strings.Fields(strings.NewReplacer("?", " ", "*", " ").Replace(folded(shown)))
}

// nearText tells how many words of a text that does not agree are seen.
func nearText(c compared, words []string, seen map[string]bool) compared {
	lacks := []string{}
	for _, w := range words {
		if !seen[w] {
			lacks = append(lacks, w)
		}
	}
	c.apart = len(lacks)
	c.isAlike = len(words) > 0 && len(lacks)*2 < len(words)+1 && len(lacks) < len(words)
	switch {
	case len(lacks) > 0:
		c.missing = lacks
	default:
		c.other = []string{"the words are there, but not alone"}
	}
	return c
}

func linesOf(text string) []string {
	lines := []string{}
	for line := range strings.SplitSeq(text, "\n") {
		if line = folded(line); line != "" {
			lines = append(lines, line)
		}
	}
	return lines
}
