package main

import (
	"bytes"
	"fmt"
	"os"
	"regexp"
	"strings"
	"unicode/utf8"
)

// mostColumns is how long a line may be, a tab counting four.
const mostColumns = 120

// aText is what may make a line longer: one that reads worse when it is broken, a tag, a rule for strings.
var aText = regexp.MustCompile("[\"`'][^\"`]{40,}|//go:embed|`(json|db|query|path|header|cookie):|^\\s*// |</?[A-Za-z]|/\\\\")

// tooWide lists the lines of a file that should be broken.
func tooWide(path string) (problems []string, err error) {
	source, err := os.ReadFile(path)
	if err != nil || bytes.Contains(source, []byte("\n// Code generated")) {
		return nil, err
	}
	for n, line := range strings.Split(string(source), "\n") {
		columns := utf8.RuneCountInString(strings.ReplaceAll(line, "\t", "    "))
		if columns > mostColumns && !aText.MatchString(line) {
			problems = append(problems,
				fmt.Sprintf("%s:%d: %d columns; break it at %d", path, n+1, columns, mostColumns))
		}
	}
	return problems, nil
}
