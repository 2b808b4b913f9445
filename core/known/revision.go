package known

import (
	"fmt"
	"slices"
	"strings"
)

// Revisions are those that a record speaks of; none for every one.
type Revisions []span

type span struct{ from, to revision }

// revision is one, taken apart: runs of letters and figures in turn, as 1.10 is 1 and 10.
type revision struct {
	written string
	runs    []string
}

// ParseRevisions reads revisions as "A, B" or "C-E" or "1.2". An error says which cannot be read.
func ParseRevisions(text string) (Revisions, error) {
	read := Revisions{}
	for part := range strings.SplitSeq(text, ",") {
		if part = strings.TrimSpace(part); part == "" {
			continue
		}
		from, to, isRange := strings.Cut(part, "-")
		one := span{readRevision(from), readRevision(from)}
		if isRange {
			one.to = readRevision(to)
		}
		switch {
		case len(one.from.runs) == 0 || len(one.to.runs) == 0:
			return nil, fmt.Errorf("%q is no revision; write C, or C-E for all from C to E", part)
		case isRange && isFigure(one.from.runs[0]) != isFigure(one.to.runs[0]):
			return nil, fmt.Errorf("%q: between %s and %s there is no order", part, one.from.written, one.to.written)
		case compare(one.from, one.to) > 0:
			return nil, fmt.Errorf("%q ends before it begins", part)
		}
		read = append(read, one)
	}
	return read, nil
}

// readRevision takes away words as rev. before a revision, and divides it.
func readRevision(text string) revision {
	text = strings.ToUpper(strings.TrimSpace(text))
	for _, word := range []string{"REVISION", "REV.", "REV", "VERSION", "ISSUE"} {
		if rest, ok := strings.CutPrefix(text, word); ok && rest != "" {
			text = strings.TrimSpace(rest)
			break
		}
	}
	r := revision{written: text}
	for _, sign := range text {
		at := len(r.runs) - 1
		switch isDigit, isLetter := '0' <= sign && sign <= '9', 'A' <= sign && sign <= 'Z'; {
		case !isDigit && !isLetter:
			r.runs = append(r.runs, "")
		case at < 0 || r.runs[at] == "" || isFigure(r.runs[at]) == isDigit:
			if at < 0 {
				r.runs, at = append(r.runs, ""), 0
			}
			r.runs[at] += string(sign)
		default:
			r.runs = append(r.runs, string(sign))
		}
	}
	r.runs = slices.DeleteFunc(r.runs, func(run string) bool { return run == "" })
	return r
}

func isFigure(run string) bool { return run != "" && '0' <= run[0] && run[0] <= '9' }

// compare orders revisions: figures by value, letters as A, B .. Z, AA.
func compare(a, b revision) int {
	for i := range min(len(a.runs), len(b.runs)) {
		x, y := a.runs[i], b.runs[i]
		if isFigure(x) && isFigure(y) {
			x, y = strings.TrimLeft(x, "0"), strings.TrimLeft(y, "0")
		}
		if len(x) != len(y) && isFigure(a.runs[i]) == isFigure(b.runs[i]) {
			return len(x) - len(y)
		}
		if c := strings.Compare(x, y); c != 0 {
			return c
		}
	}
	return len(a.runs) - len(b.runs)
}

// Hold reports whether a revision is one of them.
func (r Revisions) Hold(one string) bool {
	of := readRevision(one)
	return slices.ContainsFunc(r, func(s span) bool { return compare(s.from, of) <= 0 && compare(of, s.to) <= 0 })
}

// Overlap tells which revisions two records both speak of, in words; empty for none.
func (r Revisions) Overlap(other Revisions) string {
	if len(r) == 0 && len(other) == 0 {
		return "every revision"
	}
	if len(r) == 0 {
		return other.String()
	}
	if len(other) == 0 {
		return r.String()
	}
	both := Revisions{}
	for _, a := range r {
		for _, b := range other {
			shared := span{a.from, a.to}
			if compare(b.from, shared.from) > 0 {
				shared.from = b.from
			}
			if compare(b.to, shared.to) < 0 {
				shared.to = b.to
			}
			if compare(shared.from, shared.to) <= 0 {
				both = append(both, shared)
			}
		}
	}
	return both.String()
}

// String writes them as they are read.
func (r Revisions) String() string {
	words := make([]string, len(r))
	for i, s := range r {
		words[i] = s.from.written
		if compare(s.from, s.to) != 0 {
			words[i] += "-" + s.to.written
		}
	}
	return strings.Join(words, ", ")
}
