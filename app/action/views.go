package action

import (
	"reflect"
	"strings"
	"sync"
)

// Views are what goes out of rows.
func Views[Row, View any](rows []Row, view func(Row) View) []View {
	views := make([]View, len(rows))
	for i, row := range rows {
		views[i] = view(row)
	}
	return views
}

// holding keeps of types whether they hold a row.
var holding sync.Map // reflect.Type -> bool

// HoldsRow reports whether a type is a row of the store, or holds one: by what names its fields go out, and which of them
// are texts that may name somebody, is said by views alone.
func HoldsRow(t reflect.Type) bool {
	for t != nil && (t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice || t.Kind() == reflect.Map) {
		t = t.Elem()
	}
	if t == nil || t.Kind() != reflect.Struct {
		return false
	}
	if known, ok := holding.Load(t); ok {
		return known.(bool)
	}
	holding.Store(t, false) // while it is looked at: a type may hold itself
	holds := strings.Contains(t.PkgPath(), "/store/")
	for i := 0; i < t.NumField() && !holds; i++ {
		holds = HoldsRow(t.Field(i).Type)
	}
	holding.Store(t, holds)
	return holds
}
