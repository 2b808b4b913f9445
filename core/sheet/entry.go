package sheet

import (
	"strconv"
	"strings"
	"unicode"

	"frugalheron/core/edtf"
)

// token is a word of a line and where it starts, in bytes.
type token struct {
	text   string
	offset int
}

// tokens cuts a line into words, on top of a buffer that the next line may use again.
func tokens(content string, found []token) []token {
	found = found[:0]
	start := -1
	for i, r := range content {
		switch space := unicode.IsSpace(r); {
		case space && start >= 0:
			found = append(found, token{content[start:i], start})
			start = -1
		case !space && start < 0:
			start = i
		}
	}
	if start >= 0 {
		found = append(found, token{content[start:], start})
	}
	return found
}

// entry reads a line as an entry. It returns nil, with a problem noted, when something on the
// line is wrong; and nil without a problem when the line names no part.
func (p *parser) entry(number int, line string) *Entry {
	content, comment := cutComment(line)
	p.buffer = tokens(content, p.buffer)
	words := p.buffer
	e := &Entry{Line: number, Comment: comment, Designators: []string{}, Findings: []Mark{}}
	subject, rest := cutSubject(words)
	if len(subject) == 0 {
		return nil
	}
	if !p.subject(number, line, subject, e) || !p.words(number, line, content, rest, e) {
		return nil
	}
	return p.register(number, line, subject, e)
}

// cutSubject takes the words that say which parts the line is about: a count, or designators,
// which may be spread over words as long as a comma connects them.
func cutSubject(words []token) (subject, rest []token) {
	if len(words) == 0 {
		return nil, nil
	}
	words = joinRuns(words)
	if isCount(words[0].text) {
		return words[:1], words[1:]
	}
	if len(words) > 1 && isDigits(words[0].text) && isTimes(words[1].text) {
		return []token{{words[0].text + "x", words[0].offset}}, words[2:]
	}
	if !allDesignators(words[0].text) {
		return nil, words
	}
	end := 1
	for end < len(words) && allDesignators(words[end].text) &&
		(strings.HasSuffix(words[end-1].text, ",") || strings.HasPrefix(words[end].text, ",")) {
		end++
	}
	return words[:end], words[end:]
}

// joinRuns makes one word of U1 - U8, and of a word and the comma that stands alone behind it. Only the words that can
// be the subject are looked at.
func joinRuns(words []token) []token {
	kept := 0 // words that stand, in the same place
	for i := 0; i < len(words); kept++ {
		word := words[i]
		if !allDesignators(word.text) {
			return append(words[:kept], words[i:]...)
		}
		i++
		if i+1 < len(words) && isDash(words[i].text) && isSameLetters(word.text, words[i+1].text) {
			word.text += words[i].text + words[i+1].text
			i += 2
		}
		for ; i < len(words) && words[i].text == ","; i++ {
			if !strings.HasSuffix(word.text, ",") {
				word.text += ","
			}
		}
		words[kept] = word
	}
	return words[:kept]
}

func isDash(word string) bool { return word == "-" || word == "–" || word == "—" || word == ".." }

// isSameLetters reports whether two words can be the ends of a run. C5 - CR2032 is no run of anything.
func isSameLetters(from, to string) bool {
	first, ok := cut(from[strings.LastIndexByte(from, ',')+1:])
	end, _, _ := strings.Cut(to, ",")
	last, okLast := cut(end)
	return ok && okLast && strings.EqualFold(first.letters, last.letters)
}

// allDesignators reports whether a word is designators and runs, with commas between them.
func allDesignators(word string) bool {
	some := false
	for item := range strings.SplitSeq(word, ",") {
		if item == "" {
			continue
		}
		if !looksLikeDesignators(item) {
			return false
		}
		some = true
	}
	return some
}

func isTimes(word string) bool { return word == "x" || word == "X" || word == "×" }

func isCount(word string) bool {
	digits := 0
	for digits < len(word) && isDigit(word[digits]) {
		digits++
	}
	return digits > 0 && isTimes(word[digits:])
}

func isDigits(word string) bool {
	for i := range len(word) {
		if !isDigit(word[i]) {
			return false
		}
	}
	return word != ""
}

// subject reads which parts the line is about, and counts them.
func (p *parser) subject(number int, line string, subject []token, e *Entry) bool {
	p.runs = p.runs[:0]
	if isCount(subject[0].text) {
		digits := strings.TrimRight(subject[0].text, "xX×")
		count, err := strconv.Atoi(digits)
		if err != nil || count < 1 || count > MaxRun {
			p.problem(number, line, subject[0].offset, "a count of %s; it must lie between 1 and %d", digits, MaxRun)
			return false
		}
		e.Written, e.Count = digits+"x", count
		return true
	}
	written := []string{}
	for _, word := range subject {
		offset := word.offset
		for item := range strings.SplitSeq(word.text, ",") {
			if item != "" {
				r, why := readRun(item)
				if why != "" {
					p.problem(number, line, offset, "%s", why)
					return false
				}
				e.Count += r.count()
				p.runs, written = append(p.runs, r), append(written, item)
			}
			offset += len(item) + 1
		}
	}
	if e.Count > MaxRun {
		p.problem(number, line, subject[0].offset, "%d parts on one line; at most %d", e.Count, MaxRun)
		return false
	}
	e.Written = strings.Join(written, ",")
	return true
}

// register notes the designators as taken, unless one is taken already. Only what is noted is listed one by one.
func (p *parser) register(number int, line string, subject []token, e *Entry) *Entry {
	if p.parts+e.Count > MaxSheetParts {
		p.problem(number, line, subject[0].offset, "with this line the sheet holds more than %d parts; split it",
			MaxSheetParts)
		return nil
	}
	for i, r := range p.runs {
		d, earlier := p.taken.find(r)
		if d == "" {
			p.taken.add(r, number)
			continue
		}
		if earlier == number {
			p.problem(number, line, offsetOf(subject, d), "%s stands twice on this line", d)
		} else {
			p.problem(number, line, offsetOf(subject, d),
				"%s stands on line %d already; each designator once in an assembly", d, earlier)
		}
		// The line is kept as text, so what it named before the clash is free again.
		for _, own := range p.runs[:i] {
			p.taken.remove(own)
		}
		return nil
	}
	for _, r := range p.runs {
		e.Designators = r.designators(e.Designators)
	}
	p.parts += e.Count
	return e
}

// offsetOf finds the last item of the subject that names a designator.
func offsetOf(subject []token, designator string) int {
	last := subject[0].offset
	for _, word := range subject {
		offset := word.offset
		for item := range strings.SplitSeq(word.text, ",") {
			if r, why := readRun(item); item != "" && why == "" && r.holds(designator) {
				last = offset
			}
			offset += len(item) + 1
		}
	}
	return last
}

// newSince opens the word that says when a part was put in as a replacement.
const newSince = "new:"

// words reads what follows the designators: marks, purpose, findings, since when it is new, and plain words.
func (p *parser) words(number int, line, content string, rest []token, e *Entry) bool {
	e.Words = make([]string, 0, len(rest))
	end := 0 // of the finding met last
	for _, word := range rest {
		switch {
		case word.offset < end:
		case strings.HasPrefix(word.text, "@"):
			switch word.text {
			case "@socket":
				e.Socketed = true
			case "@solder":
				e.Soldered = true
			case "@empty":
				e.Empty = true
			default:
				p.problem(number, line, word.offset, "%s is no mark; use @socket, @solder or @empty", word.text)
				return false
			}
		case strings.HasPrefix(word.text, "for:"):
			purpose, ok := purposeOf(word.text[len("for:"):])
			if !ok {
				p.problem(number, line, word.offset,
					"%s is none of for:main, for:picture, for:cache, for:shared, for:card, for:parity", word.text)
				return false
			}
			e.Purpose = purpose
		case strings.HasPrefix(word.text, newSince):
			since := word.text[len(newSince):]
			if e.New != "" {
				p.problem(number, line, word.offset, "it says twice since when the part is new; keep the one that holds")
				return false
			}
			if _, err := edtf.Parse(since); err != nil {
				p.problem(number, line, word.offset, "there is no date in %s; write new:2021, new:2026-05 or new:2026-05-17",
					word.text)
				return false
			}
			e.New = since
		case opensFinding(word.text):
			end = endOfFinding(content, word.offset)
			e.Findings = append(e.Findings, readFinding(content[word.offset+1:end]))
		default:
			if word.text == "?" {
				e.Unknown = true
			} else if strings.Contains(word.text, "?") {
				e.Doubtful = true
			}
			e.Words = append(e.Words, word.text)
		}
	}
	return true
}
