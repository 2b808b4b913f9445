package names

import (
	"reflect"
	"sync"
)

// Tag is the struct tag that says what a text holds: says:"text" for what people write in their own words,
// says:"sheet" for a sheet, says:"finding" for the kind of a finding, which may be a known one. Fields without it
// (keys, numbers, markings) are never touched.
const Tag = "says"

// Rewriting says how the texts of each kind are rewritten.
type Rewriting map[string]func(text string) string

// Fields rewrites typed texts in values. It remembers which types hold any.
type Fields struct{ holding sync.Map } // reflect.Type -> bool

// Rewrite returns a copy of a value in which each typed text is rewritten by the function of its kind. What holds no
// such text is not copied.
func (f *Fields) Rewrite(value any, by Rewriting) any {
	if value == nil {
		return nil
	}
	return f.rewrite(reflect.ValueOf(value), "", by).Interface()
}

// Each visits the typed texts of a value.
func (f *Fields) Each(value any, visit func(kind, text string)) {
	visiting := Rewriting{}
	for _, kind := range []string{"text", "sheet", "finding"} {
		visiting[kind] = func(text string) string {
			visit(kind, text)
			return text
		}
	}
	f.Rewrite(value, visiting)
}

// rewrite copies a value; kind is that of the field that it stands in, or empty.
func (f *Fields) rewrite(v reflect.Value, kind string, by Rewriting) reflect.Value {
	t := v.Type()
	if kind == "" && !f.holds(t) {
		return v
	}
	switch t.Kind() {
	case reflect.String:
		if how := by[kind]; how != nil && v.Len() > 0 {
			return reflect.ValueOf(how(v.String())).Convert(t)
		}
	case reflect.Pointer:
		if !v.IsNil() {
			copied := reflect.New(t.Elem())
			copied.Elem().Set(f.rewrite(v.Elem(), kind, by))
			return copied
		}
	case reflect.Interface:
		if !v.IsNil() {
			return f.rewrite(v.Elem(), kind, by)
		}
	case reflect.Slice:
		if !v.IsNil() {
			copied := reflect.MakeSlice(t, v.Len(), v.Len())
			for i := range v.Len() {
				copied.Index(i).Set(f.rewrite(v.Index(i), kind, by))
			}
			return copied
		}
	case reflect.Map:
		if !v.IsNil() {
			copied := reflect.MakeMapWithSize(t, v.Len())
			for entries := v.MapRange(); entries.Next(); {
				copied.SetMapIndex(entries.Key(), f.rewrite(entries.Value(), kind, by))
			}
			return copied
		}
	case reflect.Struct:
		copied := reflect.New(t).Elem()
		copied.Set(v)
		for i := range t.NumField() {
			if field := copied.Field(i); field.CanSet() {
				field.Set(f.rewrite(v.Field(i), t.Field(i).Tag.Get(Tag), by))
			}
		}
		return copied
	}
	return v
}

// holds reports whether values of a type may hold a typed text.
func (f *Fields) holds(t reflect.Type) bool {
	if known, ok := f.holding.Load(t); ok {
		return known.(bool)
	}
	found := holdsText(t, map[reflect.Type]bool{})
	f.holding.Store(t, found)
	return found
}

func holdsText(t reflect.Type, looked map[reflect.Type]bool) bool {
	if looked[t] {
		return false
	}
	looked[t] = true
	switch t.Kind() {
	case reflect.Interface:
		return true // what it holds is known only by its value
	case reflect.Pointer, reflect.Slice, reflect.Map:
		return holdsText(t.Elem(), looked)
	case reflect.Struct:
		for i := range t.NumField() {
			field := t.Field(i)
			if field.Tag.Get(Tag) != "" || (field.IsExported() || field.Anonymous) && holdsText(field.Type, looked) {
				return true
			}
		}
	}
	return false
}
