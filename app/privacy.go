package app

import (
	"cmp"
	"context"
	"encoding/json"
	"regexp"
	"slices"
	"strings"

	"frugalheron/store"
)

// Privacy keeps the names of private persons out of what leaves for others than staff: each name, in
// every spelling and wherever it stands, gives way to what everybody may know of that person.
type Privacy struct {
	names *regexp.Regexp // nil when nobody is private
	roles map[string]string
}

// Privacy reads who is private today.
func (a *App) Privacy(ctx context.Context) (Privacy, error) {
	parties, err := store.PrivateParties(ctx, a.db)
	if err != nil {
		return Privacy{}, err
	}
	p := Privacy{roles: map[string]string{}}
	for _, party := range parties {
		for _, name := range append(spellingsOf(party.Spellings), party.Name) {
			p.roles[nameKey(name)] = party.Role
		}
	}
	if len(p.roles) == 0 {
		return p, nil
	}
	names := []string{}
	for name := range p.roles {
		words := strings.Fields(name)
		for i, word := range words {
			words[i] = regexp.QuoteMeta(word)
		}
		names = append(names, strings.Join(words, `[\s\x{a0}]+`))
	}
	// The longest first: of two names one of which starts with the other, the whole is taken.
	slices.SortFunc(names, func(a, b string) int { return cmp.Or(cmp.Compare(len(b), len(a)), cmp.Compare(a, b)) })
	p.names, err = regexp.Compile(`(?i)` + strings.Join(names, "|"))
	return p, err
}

// Text takes the names out of a text.
func (p Privacy) Text(text string) string {
	if p.names == nil {
		return text
	}
	return p.names.ReplaceAllStringFunc(text, func(found string) string { return p.roles[nameKey(found)] })
}

// JSON takes the names out of all strings of a JSON document, keys excepted.
func (p Privacy) JSON(document []byte) ([]byte, error) {
	if p.names == nil {
		return document, nil
	}
	decoder := json.NewDecoder(strings.NewReader(string(document)))
	decoder.UseNumber()
	var value any
	if err := decoder.Decode(&value); err != nil {
		return nil, err
	}
	return json.Marshal(p.value(value))
}

func (p Privacy) value(value any) any {
	switch v := value.(type) {
	case string:
		return p.Text(v)
	case []any:
		for i := range v {
			v[i] = p.value(v[i])
		}
	case map[string]any:
		for key := range v {
			v[key] = p.value(v[key])
		}
	}
	return value
}

// Hides reports whether names are kept from an actor.
func (a Actor) Hides() bool { return !MayWriteSheets.Include(a.Role) }

func nameKey(name string) string { return strings.ToLower(strings.Join(strings.Fields(name), " ")) }
