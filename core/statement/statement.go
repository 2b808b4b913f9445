// Package statement answers: what does a line mean that somebody says about the machine on the
// bench, and where does it go? "U14 27128-25 8533" is a line of a sheet, "BT1 removed" is something that happened, "note
// hinge cracked" is a note. What is none of these is not a statement, but something to look for.
//
// What can happen is a table, and is looked for before anything is taken as a marking.
package statement

import (
	"slices"
	"strings"

	"frugalheron/core/sheet"
)

// Statement is what was said: a note, something that happened, or an entry with its line as sheets write it.
type Statement struct {
	Note  string
	Board string       // the board that was named, as it is called; empty for none
	Entry *sheet.Entry // the parts that it is about, and what would stand on their line
	Line  string
	// Happened is what happened, to the parts of the entry, or without one to the machine or board as a whole.
	Happened *Happened
}

// Read reads one line; boards are the names of those that can be named before a designator. It reports false when the line
// states nothing: then it is looked for.
func Read(text string, boards ...string) (Statement, bool) {
	text = strings.TrimSpace(text)
	if word, rest, found := strings.Cut(text, " "); found && strings.EqualFold(word, "note") &&
		strings.TrimSpace(rest) != "" {
		return Statement{Note: strings.TrimSpace(rest)}, true
	}
	if strings.ContainsAny(text, "\n\r") {
		return Statement{}, false
	}
	if board, rest := cutBoard(text, boards); board != "" {
		if said, ok := readOf(board, rest); ok {
			return said, true
		}
		// A board may be called by a word that means something else here, as memory.
	}
	return readOf("", text)
}

// readOf reads what is said of a board that was named, or of the machine.
func readOf(board, text string) (Statement, bool) {
	if said, ok := readEntry(text); ok {
		said.Board = board
		return said, true
	}
	words := strings.Fields(text)
	if len(words) > 0 && sheet.IsDesignator(words[0]) {
		return Statement{}, false // of a part, in words that cannot be read
	}
	if happened := ofThing(words, board != ""); happened != nil {
		return Statement{Board: board, Happened: happened}, true
	}
	return Statement{}, false
}

// cutBoard takes the name of a board off the front, the longest that fits.
func cutBoard(text string, boards []string) (board, rest string) {
	rest = text
	for _, name := range boards {
		if len(name) <= len(board) || len(text) <= len(name) || !strings.EqualFold(text[:len(name)], name) {
			continue
		}
		if behind := strings.TrimLeft(text[len(name):], ":,"); strings.HasPrefix(behind, " ") {
			board, rest = name, strings.TrimSpace(behind)
		}
	}
	return board, rest
}

// readEntry reads what is said of designators.
func readEntry(text string) (Statement, bool) {
	parsed, err := sheet.Parse([]byte(text), sheet.Body)
	if err != nil || len(parsed.Problems) > 0 || len(parsed.Assemblies) != 1 || len(parsed.Assemblies[0].Lines) != 1 {
		return Statement{}, false
	}
	entry := parsed.Assemblies[0].Lines[0].Entry
	if entry == nil || len(entry.Words) == 0 && !entry.Empty && len(entry.Findings) == 0 && entry.New == "" {
		return Statement{}, false // a designator alone is looked for
	}
	// Designators are written in capitals; who says them in passing need not hold the key down.
	if len(entry.Designators) > 0 {
		entry.Written = strings.ToUpper(entry.Written)
		for i := range entry.Designators {
			entry.Designators[i] = strings.ToUpper(entry.Designators[i])
		}
	}
	if len(entry.Designators) > 0 && isSet(entry.Designators[0]) {
		entry.Words = cutSet(entry.Words)
	}
	said := Statement{Entry: entry, Line: entry.String()}
	if len(entry.Designators) > 0 && len(entry.Words) > 0 {
		said.Happened = ofParts(entry.Designators[0], entry.Words)
	}
	if said.Happened != nil || len(entry.Designators) == 0 {
		return said, true
	}
	if marking, mark, ok := cutFinding(entry.Designators[0], entry.Words); ok && isPlaceOn(marking[0]) {
		mark.Note = strings.Join(marking, " ")
		said.Happened = &Happened{Deed: Found, Found: append(entry.Findings, mark)}
		return said, true
	} else if ok {
		entry.Words, entry.Findings = marking, append(entry.Findings, mark)
		said.Line = entry.String()
	}
	// Marks alone are said of what is there: BT1 @empty takes it out, C5 !cracked is found.
	if len(entry.Words) == 0 {
		switch {
		case entry.Empty:
			said.Happened = &Happened{Deed: TakenOut, New: entry.New}
		case entry.New != "":
			said.Happened = &Happened{Deed: Replaced, New: entry.New}
		case len(entry.Findings) > 0:
			said.Happened = &Happened{Deed: Found, Found: entry.Findings}
		}
	}
	return said, true
}

// Parts are the designators that it is about.
func (s Statement) Parts() []string {
	if s.Entry == nil {
		return nil
	}
	return slices.Clone(s.Entry.Designators)
}
