package configuration

import (
	"fmt"
	"strings"
)

// Setting is a jumper or a switch as it was found.
type Setting struct {
	Line int    `json:"line" doc:"Of the text, from 1"`
	Name string `json:"name"`
	At   string `json:"at" says:"text"`
}

// BrokenLine is a line that cannot be read.
type BrokenLine struct {
	Line    int    `json:"line" doc:"From 1"`
	Message string `json:"message"`
}

// ParseSettings reads settings, a line each: the name of the jumper or switch, then where it stands.
//
//	JP3 1-2
//	SW1 on on off off
//	SW2.3 off
//	SW3 1011     # four of them, 1 is on
//
// Empty lines and comments behind a # are skipped. A name may stand there once.
func ParseSettings(text string) ([]Setting, []BrokenLine) {
	settings, problems, seen, told := []Setting{}, []BrokenLine{}, map[string]int{}, map[string]int{}
	for i, line := range strings.Split(text, "\n") {
		if line = bare(line); line == "" {
			continue
		}
		name, at, _ := strings.Cut(line, " ")
		name, at = strings.TrimRight(name, ":="), strings.Join(strings.Fields(strings.TrimLeft(at, ":= ")), " ")
		before := seen[strings.ToUpper(name)]
		switch {
		case name == "" || at == "":
			problems = append(problems, BrokenLine{i + 1, "does not say where it stands; write it as JP3 1-2 or SW1 on off on"})
		case before > 0:
			problems = append(problems, BrokenLine{i + 1, fmt.Sprintf("names %s again, as line %d does", name, before)})
		default:
			seen[strings.ToUpper(name)] = i + 1
			if why := clash(name, at, i+1, told); why != "" {
				problems = append(problems, BrokenLine{i + 1, why})
				continue
			}
			settings = append(settings, Setting{i + 1, name, at})
		}
	}
	return settings, problems
}

// clash says what is wrong with a row of switches: another number of them than its name says, or one that stands elsewhere, too.
// told are the lines of those that were told before.
func clash(name, at string, line int, told map[string]int) string {
	row, isRow := elementsOf(at)
	if !isRow {
		return ""
	}
	where := spanOf(name)
	if n := where.to - where.from + 1; where.from > 0 && len(row) != n {
		return fmt.Sprintf("says how %s stand; %s names %d", switches(len(row)), name, n)
	}
	names := []string{}
	for i := range row {
		one := fmt.Sprintf("%s.%d", where.block, max(where.from, 1)+i)
		if before := told[one]; before > 0 {
			return fmt.Sprintf("says how %s stands, as line %d does", one, before)
		}
		names = append(names, one)
	}
	for _, one := range names {
		told[one] = line
	}
	return ""
}

// bare is a line without its comment and the spaces around.
func bare(line string) string {
	if before, _, isNoted := strings.Cut(" "+line, " #"); isNoted {
		line = before
	}
	return strings.TrimSpace(strings.ReplaceAll(line, "\t", " "))
}

// Entry is a setting that firmware keeps in a chip.
type Entry struct {
	Name  string `json:"name" says:"text"`
	Value string `json:"value" says:"text"`
}

// ParseFirmware reads what firmware keeps, a line each: drive C = type 17. A name may stand there once.
func ParseFirmware(text string) ([]Entry, []BrokenLine) {
	entries, problems, seen := []Entry{}, []BrokenLine{}, map[string]int{}
	for i, line := range strings.Split(text, "\n") {
		if line = bare(line); line == "" {
			continue
		}
		name, value, ok := strings.Cut(line, "=")
		if !ok {
			name, value, ok = strings.Cut(line, ":")
		}
		name, value = strings.Join(strings.Fields(name), " "), strings.TrimSpace(value)
		before := seen[strings.ToLower(name)]
		switch {
		case !ok || name == "":
			problems = append(problems, BrokenLine{i + 1, "is no setting; write it as drive C = type 17"})
		case before > 0:
			problems = append(problems, BrokenLine{i + 1, fmt.Sprintf("names %s again, as line %d does", name, before)})
		default:
			seen[strings.ToLower(name)] = i + 1
			entries = append(entries, Entry{name, value})
		}
	}
	return entries, problems
}

// ParseMedia reads what is in the drives, a line each: drive A = starter disk.
func ParseMedia(text string) []string {
	media := []string{}
	for line := range strings.SplitSeq(text, "\n") {
		if line = strings.Join(strings.Fields(bare(line)), " "); line != "" {
			media = append(media, line)
		}
	}
	return media
}
