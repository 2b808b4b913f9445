package main

import (
	_ "embed"
	"fmt"
	"slices"
	"strings"
)

//go:embed arrows.txt
var arrowsTable string

// table says which subjects a subject may use, and which others' records it may read.
type table struct{ uses, reads map[string][]string }

var arrows = readArrows(arrowsTable)

// readArrows reads the table. A line that is none stops the program: nothing would be checked.
func readArrows(text string) table {
	t := table{uses: map[string][]string{}, reads: map[string][]string{}}
	for n, line := range strings.Split(text, "\n") {
		if line = strings.TrimSpace(line); line == "" || strings.HasPrefix(line, "#") {
			continue
		}
		to := t.uses
		from, others, ok := strings.Cut(line, ":")
		if subject, reads := strings.CutPrefix(from, "read "); reads {
			from, to = subject, t.reads
		}
		if !ok || to[from] != nil {
			panic(fmt.Sprintf("arrows.txt, line %d: write each subject once, as app/sheets: inventory library", n+1))
		}
		to[from] = strings.Fields(others)
	}
	return t
}

// divided are the layers that have a folder for each subject.
var divided = []string{"store", "app", "web"}

// common are the packages of each layer that all its subjects use.
var common = map[string][]string{"store": {"pg", "migrations"}, "app": {"action", "input"}, "web": {"httpx"}}

// subjectOf is the folder of a layer that a path lies in, as app/sheets; empty for what lies in no such folder.
func subjectOf(path string) string {
	parts := strings.Split(path, "/")
	if len(parts) < 3 || parts[1] == "" || !slices.Contains(divided, parts[0]) {
		return ""
	}
	return parts[0] + "/" + parts[1]
}

// allow reports whether one subject may use another.
func (t table) allow(from, to string) bool {
	if from == "" || to == "" || from == to {
		return true
	}
	layer, subject, _ := strings.Cut(from, "/")
	otherLayer, other, _ := strings.Cut(to, "/")
	switch {
	case layer == otherLayer:
		return slices.Contains(common[layer], other) || slices.Contains(t.uses[from], other)
	case layer == "app" && otherLayer == "store":
		return other == subject || other == "pg" || other == "history" || slices.Contains(t.uses[from], other) ||
			slices.Contains(t.reads[from], other)
	case layer == "web" && otherLayer == "store":
		return slices.Contains(t.reads[from], other)
	}
	return true
}
