package app

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"math"
	"regexp"
	"slices"
	"strings"
	"sync/atomic"
	"unicode/utf8"

	"frugalheron/store"
)

// Privacy keeps the names of private persons out of what leaves for others than staff: each name, in
// every spelling and wherever it stands, gives way to what everybody may know of that person.
type Privacy struct {
	of       []store.PrivatePerson
	names    *regexp.Regexp // nil when nobody is private
	shortest int            // bytes that the shortest name has at least, however it is written
	starts   startsOf
	roles    map[string]string
}

// privacyCache keeps the last Privacy made. The persons are read each time: a process never works
// with names that another has changed.
type privacyCache struct{ last atomic.Pointer[Privacy] }

// Privacy reads who is private today.
func (a *App) Privacy(ctx context.Context) (*Privacy, error) {
	persons, err := store.PrivatePersons(ctx, a.db)
	if err != nil {
		return nil, err
	}
	if last := a.privacy.last.Load(); last != nil && slices.Equal(last.of, persons) {
		return last, nil
	}
	made, err := privacyOf(persons)
	if err == nil {
		a.privacy.last.Store(made)
	}
	return made, err
}

func privacyOf(persons []store.PrivatePerson) (*Privacy, error) {
	p := &Privacy{of: persons, roles: map[string]string{}}
	for _, person := range persons {
		for _, name := range append(filledLines(person.Spellings), person.Name) {
			p.roles[nameKey(name)] = person.Role
		}
	}
	if len(p.roles) == 0 {
		return p, nil
	}
	names := []string{}
	p.shortest = math.MaxInt
	for name := range p.roles {
		// Letters that are the same in another case may take fewer bytes, but one each.
		p.shortest = min(p.shortest, utf8.RuneCountInString(name))
		words := strings.Fields(name)
		for i, word := range words {
			words[i] = regexp.QuoteMeta(word)
		}
		p.starts.add(name)
		names = append(names, strings.Join(words, `[\s\x{a0}]+`))
	}
	// The longest first: of two names one of which starts with the other, the whole is taken.
	slices.SortFunc(names, func(a, b string) int { return cmp.Or(cmp.Compare(len(b), len(a)), cmp.Compare(a, b)) })
	var err error
	p.names, err = regexp.Compile(`(?i)` + strings.Join(names, "|"))
	return p, err
}

// Text takes the names out of a text.
func (p *Privacy) Text(text string) string {
	if p.names == nil || len(text) < p.shortest || !p.starts.mayBeIn(text) {
		return text
	}
	return p.names.ReplaceAllStringFunc(text, func(found string) string { return p.roles[nameKey(found)] })
}

// JSON takes the names out of all strings of a JSON document, keys excepted. All else stays as it is,
// byte for byte.
func (p *Privacy) JSON(document []byte) ([]byte, error) {
	if p.names == nil {
		return document, nil
	}
	clean := make([]byte, 0, len(document))
	for {
		start := bytes.IndexByte(document, '"')
		if start < 0 {
			return append(clean, document...), nil
		}
		clean, document = append(clean, document[:start]...), document[start:]
		length := lengthOfString(document)
		if length == 0 {
			return nil, errors.New("a string of a JSON document has no end")
		}
		literal, behind := document[:length], document[length:]
		document = behind
		if bytes.HasPrefix(bytes.TrimLeft(behind, " \t\r\n"), []byte(":")) {
			clean = append(clean, literal...)
			continue
		}
		said, err := p.literal(literal)
		if err != nil {
			return nil, err
		}
		clean = append(clean, said...)
	}
}

// lengthOfString measures the string that a document starts with, quotes included; 0 when it has no end.
func lengthOfString(document []byte) int {
	for i := 1; i < len(document); i++ {
		switch document[i] {
		case '\\':
			i++
		case '"':
			return i + 1
		}
	}
	return 0
}

// startsOf are the first two bytes of names, in lower case: they are looked for before the names
// themselves, since nearly every text holds none.
type startsOf struct {
	pairs    [1 << 16]bool
	anything bool // a name starts with something else than two bytes of ASCII
}

func (s *startsOf) add(name string) {
	if len(name) < 2 || name[0] >= utf8.RuneSelf || name[1] >= utf8.RuneSelf || name[1] == ' ' {
		s.anything = true
		return
	}
	s.pairs[int(name[0])<<8|int(name[1])] = true
}

// mayBeIn reports whether a name may stand in a text. Beyond ASCII there are letters that are the same as
// an ASCII one in another case: such texts may hold anything.
func (s *startsOf) mayBeIn(text string) bool {
	if s.anything {
		return true
	}
	before := byte(0)
	for i := range len(text) {
		b := text[i]
		if 'A' <= b && b <= 'Z' {
			b += 'a' - 'A'
		}
		if b >= utf8.RuneSelf || s.pairs[int(before)<<8|int(b)] {
			return true
		}
		before = b
	}
	return false
}

// literal takes the names out of a string as JSON writes it.
func (p *Privacy) literal(literal []byte) ([]byte, error) {
	if len(literal)-2 < p.shortest {
		return literal, nil
	}
	text := string(literal[1 : len(literal)-1])
	if strings.Contains(text, `\`) {
		if err := json.Unmarshal(literal, &text); err != nil {
			return nil, err
		}
	}
	if clean := p.Text(text); clean != text {
		return json.Marshal(clean)
	}
	return literal, nil
}

// Hides reports whether names are kept from an actor.
func (a Actor) Hides() bool { return !MayWriteSheets.Include(a.Role) }

func nameKey(name string) string { return strings.ToLower(strings.Join(strings.Fields(name), " ")) }
