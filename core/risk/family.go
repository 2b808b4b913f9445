package risk

import (
	"slices"
	"strings"
)

// Families are kinds of parts that several classes tell apart, as a task of upkeep is one of all of them. The key of each
// class begins with that of its family.
func Families() []Class { return []Class{{Key: "battery", Name: "Batteries and cells of every kind"}} }

// Covers reports whether a class is the one that a key names, or of the family that it names.
func Covers(key, class string) bool {
	return class == key || strings.HasPrefix(class, key+"-") &&
		slices.ContainsFunc(Families(), func(f Class) bool { return f.Key == key })
}

// NameOf is what a class or a family of the table is called; it reports false for a key that is none.
func (t Table) NameOf(key string) (name string, known bool) {
	if at := slices.IndexFunc(Families(), func(f Class) bool { return f.Key == key }); at >= 0 {
		return Families()[at].Name, true
	}
	class, known := t[key]
	return class.Name, known
}
