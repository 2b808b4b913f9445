package sign

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
)

// pattern is a text with wildcards.
type pattern struct {
	whole *regexp.Regexp
	wild  int // characters that are wildcards
}

// patternOf reads a text with wildcards: ? for one character, * for any; \ before one means the character itself.
func patternOf(text string) pattern {
	p, out, runes := pattern{}, strings.Builder{}, []rune(folded(text))
	for i := 0; i < len(runes); i++ {
		switch r := runes[i]; {
		case r == '\\' && i+1 < len(runes):
			i++
			out.WriteString(regexp.QuoteMeta(string(runes[i])))
		case r == '?':
			n := 1
			for ; i+1 < len(runes) && runes[i+1] == '?'; i++ {
				n++
			}
			p.wild += n
			fmt.Fprintf(&out, `(.{%d})`, min(n, mostWild))
		case r == '*':
			p.wild++
			out.WriteString(`(.*?)`)
		default:
			out.WriteString(regexp.QuoteMeta(string(r)))
		}
	}
	p.whole = regexp.MustCompile(`^(?s:` + out.String() + `)$`)
	return p
}

// mostWild bounds a run of question marks, as an expression that repeats may not be longer.
const mostWild = 1000

// in tells what stands at the wildcards of a text, if all of it agrees.
func (p pattern) in(text string) (at []string, agrees bool) {
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

// compareScreen tells how a text that was seen stands to one of the table: all of it, or a line of it.
func compareScreen(shown, seen string) compared {
	p := patternOf(shown)
	c := compared{isAlike: true, wild: p.wild}
	texts := append([]string{folded(seen)}, linesOf(seen)...)
	for _, text := range texts {
		if at, agrees := p.in(text); agrees {
			c.agrees, c.at = true, at
			return c
		}
	}
	alike := patternOf(misread.Replace(folded(shown)))
	for _, text := range texts {
		if at, agrees := alike.in(misread.Replace(text)); agrees {
			c.agrees, c.at = true, at
			c.doubts = append(c.doubts, "it agrees only if an O is a 0, or an I or an L a 1")
			return c
		}
	}
	return nearText(c, folded(shown), texts)
}

// nearText tells how many words of a text that does not agree are seen.
func nearText(c compared, shown string, texts []string) compared {
	words := strings.Fields(strings.NewReplacer("?", " ", "*", " ").Replace(shown))
	seen := strings.Fields(texts[0])
	lacks := []string{}
	for _, w := range words {
		if !slices.Contains(seen, w) {
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
