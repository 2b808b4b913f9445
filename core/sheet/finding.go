package sheet

import (
	"cmp"
	_ "embed"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"frugalheron/core/table"
)

//go:embed findings.tsv
var findingTable string

// findingKinds are the kinds that are known by name, each as its words in lower case, under their first word; and what
// is known of each.
var findingKinds, kindsByName = func() (map[string][][]string, map[string]Kind) {
	kinds, byName := map[string][][]string{}, map[string]Kind{}
	for _, cells := range table.Reference("findings", findingTable, "kind", "meaning", "same as", "severity",
		"source") {
		words := strings.Fields(cells[0])
		kinds[words[0]] = append(kinds[words[0]], words)
		byName[cells[0]] = Kind{Same: cmp.Or(cells[2], cells[0]), Severity: cells[3]}
	}
	return kinds, byName
}()

// Kind is what is known of a kind of finding.
type Kind struct {
	Same     string // the kind that says the same, by which findings are told apart: leaked is leaking
	Severity string // cosmetic, watch, repair or hazard, by rule of thumb; empty for a kind that is not known by name
}

// KindOf looks a kind of finding up, in any case; a word of one's own is a kind of itself.
func KindOf(kind string) Kind {
	name := strings.ToLower(strings.Join(strings.Fields(kind), " "))
	if known, ok := kindsByName[name]; ok {
		return known
	}
	return Kind{Same: name}
}

// opensFinding reports whether a word starts a finding: a ! with something to say behind it. A lone ! is text.
func opensFinding(word string) bool {
	return strings.HasPrefix(word, "!") && strings.IndexFunc(word, isLetterOrDigit) >= 0
}

func isLetterOrDigit(r rune) bool { return unicode.IsLetter(r) || unicode.IsDigit(r) }

// endOfFinding is where the finding that starts in a line without its comment ends: before the blank that the next
// finding, a mark or new: follows, or with the line.
func endOfFinding(content string, start int) int {
	for at, r := range content[start:] {
		if !unicode.IsSpace(r) {
			continue
		}
		next := content[start+at+utf8.RuneLen(r):]
		for _, opener := range []string{"!", "@", newSince} {
			behind, found := strings.CutPrefix(next, opener)
			first, _ := utf8.DecodeRuneInString(behind)
			if found && isLetterOrDigit(first) {
				return start + at
			}
		}
	}
	return len(content)
}

// CutFindings takes the findings out of a line; rest is what else it says.
func CutFindings(line string) (rest string, findings []Mark) {
	findings, end := []Mark{}, 0
	for _, word := range tokens(line, nil) {
		if word.offset < end || !opensFinding(word.text) {
			continue
		}
		rest += line[end:word.offset]
		end = endOfFinding(line, word.offset)
		findings = append(findings, readFinding(line[word.offset+1:end]))
	}
	return rest + line[end:], findings
}

// ReadMark reads a finding as it is written behind its !.
func ReadMark(text string) Mark { return readFinding(text) }

// readFinding takes a finding without its ! apart: the longest known kind that it begins with, else the words up to a
// colon, else its first word. The note is what stands behind.
func readFinding(text string) Mark {
	text = strings.TrimFunc(text, func(r rune) bool { return unicode.IsSpace(r) })
	text = strings.TrimLeftFunc(text, func(r rune) bool { return !isLetterOrDigit(r) })
	if kind, end := knownKind(text); kind != "" {
		return Mark{Kind: kind, Note: noteBehind(text[end:])}
	}
	if colon := colonOf(text); colon > 0 {
		return Mark{Kind: strings.Join(strings.Fields(text[:colon]), " "), Note: strings.TrimSpace(text[colon+1:])}
	}
	end := strings.IndexFunc(text, unicode.IsSpace)
	if end < 0 {
		end = len(text)
	}
	return Mark{Kind: strings.TrimRight(text[:end], ",;.)"), Note: noteBehind(text[end:])}
}

func noteBehind(text string) string {
	return strings.TrimSpace(strings.TrimPrefix(strings.TrimLeft(strings.TrimSpace(text), ",;"), ":"))
}

// IsKnownFinding reports whether a kind is one of those that are known by name.
func IsKnownFinding(kind string) bool {
	known, _ := knownKind(kind)
	return known != "" && known == kind
}

// knownKind returns the longest known kind that a text begins with, and where it ends.
func knownKind(text string) (kind string, end int) {
	words := tokens(text, nil)
	if len(words) == 0 {
		return "", 0
	}
	longest := 0
	for _, known := range findingKinds[bareWord(words[0].text)] {
		if len(known) <= longest || len(known) > len(words) {
			continue
		}
		if behind, ok := beginsWith(words, known); ok {
			longest, kind, end = len(known), strings.Join(known, " "), behind
		}
	}
	return kind, end
}

// beginsWith compares word by word; only the last may have something but letters and digits behind it.
func beginsWith(words []token, known []string) (end int, ok bool) {
	for i, want := range known {
		got := words[i].text
		if i == len(known)-1 {
			got = got[:len(got)-len(strings.TrimLeftFunc(got, isLetterOrDigit))]
		}
		if strings.ToLower(got) != want {
			return 0, false
		}
		end = words[i].offset + len(got)
	}
	return end, true
}

func bareWord(word string) string {
	return strings.ToLower(word[:len(word)-len(strings.TrimLeftFunc(word, isLetterOrDigit))])
}

// colonOf finds the first colon that ends a kind: not the one of a time of day or of an address.
func colonOf(text string) int {
	for at := range len(text) {
		if text[at] != ':' {
			continue
		}
		isTime := at > 0 && isDigit(text[at-1]) && at+1 < len(text) && isDigit(text[at+1])
		if !isTime && !strings.HasPrefix(text[at:], "://") {
			return at
		}
	}
	return -1
}

// Lent is the kind of mark by which an empty position says that its part comes back: U14 27128 @empty !lent: to a museum.
const Lent = "lent"

// IsLent reports whether one of the marks of an empty position says that its part is lent.
func IsLent(marks []Mark) bool {
	return slices.ContainsFunc(marks, func(m Mark) bool { return KindOf(m.Kind).Same == Lent })
}
