package device

import (
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/table"
)

// Data is the reference data as tab-separated text. Lines that start with # are comments; the
// first other line names the columns. A second-source number may have speeds of its own: also is 7164:sram-fast.
type Data struct {
	Types         [][]byte // number, class, words, bits, package, typical_ma, speeds, function, also, ages, source
	Speeds        []byte   // group, suffixes, source
	LogicFamilies []byte   // family, name, gate_ma, function_ma, octal_ma, source
	LogicNumbers  []byte   // digits, size, package, function, source
	Suffixes      []byte   // applies_to, letters, meaning, source
	Companions    []byte   // number, word, means, source
	Ratings       []byte   // numbers, supply, clocks, source
	Prefixes      []byte   // numbers, class, letters, source
}

// Library knows types by number. It never changes; With returns a larger one.
type Library struct {
	types    map[string]*Type  // by number and by second-source number
	longest  int               // length of the longest number
	starts   [256]bool         // which bytes a number starts with
	suffixes map[string]string // by group, a slash and letters
	// companions are numbers by that of the processor beside which they work, a slash and what they are.
	companions map[string]string
}

// Read builds a library. An error names the table, the line and what is wrong in it.
func Read(data Data) (*Library, error) {
	l := &Library{types: map[string]*Type{}, suffixes: map[string]string{}}
	speeds, err := readSpeeds(data.Speeds)
	if err != nil {
		return nil, err
	}
	for _, table := range data.Types {
		if err := l.readTypes(table, speeds); err != nil {
			return nil, err
		}
	}
	if err := l.readLogic(data.LogicFamilies, data.LogicNumbers); err != nil {
		return nil, err
	}
	rows, err := table.ReadReference("suffixes", string(data.Suffixes), "applies_to", "letters", "meaning", "source")
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		l.suffixes[r.Cells[0]+"/"+r.Cells[1]] = r.Cells[2]
	}
	if err := l.readPrefixes(data.Prefixes); err != nil {
		return nil, err
	}
	if err := l.readCompanions(data.Companions); err != nil {
		return nil, err
	}
	return l, l.readRatings(data.Ratings)
}

func (l *Library) readCompanions(text []byte) error {
	rows, err := table.ReadReference("companions", string(text), "number", "word", "means", "source")
	if err != nil {
		return err
	}
	l.companions = map[string]string{}
	for _, r := range rows {
		if l.types[r.Cells[2]] == nil {
			return fmt.Errorf("companions, line %d: %s is no type", r.Line, r.Cells[2])
		}
		l.companions[r.Cells[0]+"/"+r.Cells[1]] = r.Cells[2]
	}
	return nil
}

// readPrefixes says of families with which letters their numbers are written.
func (l *Library) readPrefixes(text []byte) error {
	rows, err := table.ReadReference("prefixes", string(text), "numbers", "class", "letters", "source")
	if err != nil {
		return err
	}
	for _, r := range rows {
		numbers, err := regexp.Compile("^(?:" + r.Cells[0] + ")$")
		if err != nil {
			return fmt.Errorf("prefixes, line %d: %w", r.Line, err)
		}
		letters := map[string]bool{}
		for word := range strings.FieldsSeq(r.Cells[2]) {
			letters[word] = true
		}
		for number, t := range l.types {
			if numbers.MatchString(number) && t.Class == Class(r.Cells[1]) {
				t.letters = letters
			}
		}
	}
	return nil
}

// With returns a library that also knows the given types; they go before built-in ones of the
// same number. Numbers are compared without regard to case.
func (l *Library) With(own []Type) *Library {
	larger := *l
	larger.types = maps.Clone(l.types)
	for _, t := range own {
		larger.add(t.Number, &t)
	}
	return &larger
}

// Lookup finds a type by its exact number, in any case.
func (l *Library) Lookup(number string) (Type, bool) {
	found, ok := l.Recognise(number)
	if !ok || found.Prefix != "" || found.Suffix != "" {
		return Type{}, false
	}
	return *found.Type, true
}

// Completions lists at most limit types whose number starts with the text, shortest first.
func (l *Library) Completions(start string, limit int) []Type {
	start = strings.ToUpper(start)
	found := []Type{}
	for number, t := range l.types {
		if strings.HasPrefix(number, start) && number == strings.ToUpper(t.Number) {
			found = append(found, *t)
		}
	}
	slices.SortFunc(found, func(a, b Type) int {
		if len(a.Number) != len(b.Number) {
			return len(a.Number) - len(b.Number)
		}
		return strings.Compare(a.Number, b.Number)
	})
	return found[:min(limit, len(found))]
}

func (l *Library) add(number string, t *Type) {
	number = Normal(number)
	if number == "" {
		return
	}
	l.types[number] = t
	l.longest = max(l.longest, len(number))
	l.starts[number[0]] = true
}

func (l *Library) readTypes(text []byte, speeds map[string]map[string]int) error {
	rows, err := table.ReadReference("types", string(text), "number", "class", "words", "bits", "package", "typical_ma",
		"speeds", "function", "also", "ages", "source")
	if err != nil {
		return err
	}
	for _, r := range rows {
		c := r.Cells
		words, errWords := strconv.Atoi(c[2])
		bits, errBits := strconv.Atoi(c[3])
		milliamps, errMilliamps := strconv.ParseFloat(c[5], 64)
		group, known := speeds[c[6]]
		if errWords != nil || errBits != nil || errMilliamps != nil || c[6] != "" && !known {
			return fmt.Errorf(
				"types, line %d: words, bits and typical_ma must be numbers and the speed group must exist", r.Line)
		}
		t := Type{Number: c[0], Class: Class(c[1]), Organisation: Organisation{words, bits}, Package: c[4],
			TypicalMilliamps: milliamps, speeds: group, Function: c[7], Ages: c[9], Source: c[10]}
		for number := range strings.SplitSeq(c[0]+","+c[8], ",") {
			if number == "" {
				continue
			}
			number, group, otherSpeeds := strings.Cut(number, ":")
			if _, taken := l.types[number]; taken {
				return fmt.Errorf("types, line %d: %s stands twice", r.Line, number)
			}
			one := t
			if otherSpeeds {
				if one.speeds, known = speeds[group]; !known {
					return fmt.Errorf("types, line %d: there is no group of speeds %s", r.Line, group)
				}
			}
			l.add(number, &one)
		}
	}
	return nil
}

// readLogic adds every number of the 54/74 series in every family: 54 or 74, the letters of
// the family, the digits of the function.
func (l *Library) readLogic(families, numbers []byte) error {
	familyRows, err := table.ReadReference("logic families", string(families), "family", "name", "gate_ma",
		"function_ma", "octal_ma", "source")
	if err != nil {
		return err
	}
	numberRows, err := table.ReadReference("logic numbers", string(numbers), "digits", "size", "package", "function",
		"source")
	if err != nil {
		return err
	}
	sizes := map[string]int{"gate": 2, "function": 3, "octal": 4} // columns of the family table
	for _, f := range familyRows {
		for _, n := range numberRows {
			milliamps, err := strconv.ParseFloat(f.Cells[sizes[n.Cells[1]]], 64)
			if err != nil {
				return fmt.Errorf("logic families, line %d: no current for size %q of line %d", f.Line, n.Cells[1],
					n.Line)
			}
			for _, series := range []string{"74", "54"} {
				number := series + f.Cells[0] + n.Cells[0]
				if _, taken := l.types[number]; taken {
					continue // a memory of the series, such as 74S188, is described better among the memories
				}
				l.add(number, &Type{
					Number: number, Class: Logic, Function: n.Cells[3], Family: f.Cells[1], Package: n.Cells[2],
					TypicalMilliamps: milliamps, Source: n.Cells[4] + "; current: " + f.Cells[5],
				})
			}
		}
	}
	return nil
}

func readSpeeds(text []byte) (map[string]map[string]int, error) {
	rows, err := table.ReadReference("speeds", string(text), "group", "suffixes", "source")
	if err != nil {
		return nil, err
	}
	groups := map[string]map[string]int{}
	for _, r := range rows {
		group := map[string]int{}
		for word := range strings.FieldsSeq(r.Cells[1]) {
			suffix, value, found := strings.Cut(word, ":")
			if !found {
				value = suffix
			}
			ns, err := strconv.Atoi(value)
			if err != nil {
				return nil, fmt.Errorf("speeds, line %d: %q is no number of nanoseconds", r.Line, word)
			}
			group[suffix] = ns
		}
		groups[r.Cells[0]] = group
	}
	return groups, nil
}
