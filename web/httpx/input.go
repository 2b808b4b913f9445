package httpx

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"reflect"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"
)

// unmarshalJSON reads a body. What is not UTF-8 is refused: reading it would put other characters in its place.
func unmarshalJSON(data []byte, v any) error {
	if !utf8.Valid(data) {
		return errors.New("the body is not UTF-8")
	}
	return json.Unmarshal(data, v)
}

// badInput lists what no operation can take: texts with a zero byte or not in UTF-8, and numbers that no column
// holds. It looks at every field of an input, so that no operation can forget to.
func badInput(in any) []FieldProblem {
	w := inputWalk{}
	w.value(reflect.ValueOf(in), "")
	return w.found
}

type inputWalk struct{ found []FieldProblem }

func (w *inputWalk) wrong(at, why string) {
	w.found = append(w.found, FieldProblem{at, why})
}

func (w *inputWalk) value(v reflect.Value, at string) {
	switch v.Kind() {
	case reflect.Pointer, reflect.Interface:
		if !v.IsNil() {
			w.value(v.Elem(), at)
		}
	case reflect.Struct:
		w.fields(v, at)
	case reflect.Slice, reflect.Array:
		if v.Type().Elem().Kind() == reflect.Uint8 {
			return // bytes may be anything
		}
		for i := range v.Len() {
			w.value(v.Index(i), at+"["+strconv.Itoa(i)+"]")
		}
	case reflect.Map:
		for entries := v.MapRange(); entries.Next(); {
			w.value(entries.Key(), at)
			w.value(entries.Value(), fmt.Sprintf("%s.%v", at, entries.Key()))
		}
	case reflect.String:
		w.text(v.String(), at)
	case reflect.Int:
		// Whole numbers that are no ids and no amounts of money are kept in 32 bits.
		if n := v.Int(); n < math.MinInt32 || n > math.MaxInt32 {
			w.wrong(at, fmt.Sprintf("%d is too large; at most %d can be kept.", n, math.MaxInt32))
		}
	case reflect.Float32, reflect.Float64:
		if f := v.Float(); math.IsNaN(f) || math.IsInf(f, 0) {
			w.wrong(at, "This is no number that can be kept.")
		}
	}
}

func (w *inputWalk) text(text, at string) {
	switch {
	case !utf8.ValidString(text):
		w.wrong(at, "This is not UTF-8; write it anew.")
	case strings.ContainsRune(text, 0):
		w.wrong(at, "A zero byte cannot be kept; take it out, or look whether this is a binary file.")
	}
}

// fields walks a struct. Its fields are called as clients call them: path.id, query.search, body.name.
func (w *inputWalk) fields(v reflect.Value, at string) {
	t := v.Type()
	for i := range t.NumField() {
		field := t.Field(i)
		if !field.IsExported() && !field.Anonymous {
			continue
		}
		name := ""
		for _, place := range []string{"path", "query", "header", "cookie"} {
			if tag := field.Tag.Get(place); tag != "" {
				parameter, _, _ := strings.Cut(tag, ",")
				name = place + "." + parameter
			}
		}
		switch {
		case name != "":
		case field.Name == "Body" && at == "":
			name = "body"
		case field.Anonymous:
			name = at
		default:
			key, _, _ := strings.Cut(field.Tag.Get("json"), ",")
			if key == "" {
				key = field.Name
			}
			name = strings.TrimPrefix(at+"."+key, ".")
		}
		if field.Anonymous && !field.IsExported() && field.Type.Kind() != reflect.Struct {
			continue
		}
		w.value(v.Field(i), name)
	}
}

// refuseBadInput turns what was found into an answer; nil when nothing was.
func refuseBadInput(found []FieldProblem) error {
	if len(found) == 0 {
		return nil
	}
	const most = 20
	return &Problem{Title: "Not acceptable as it is", Status: 422, Detail: found[0].Message,
		Errors: found[:min(most, len(found))]}
}

// JsonFormat reads and writes bodies.
func JsonFormat() huma.Format {
	format := huma.DefaultJSONFormat
	format.Unmarshal = unmarshalJSON
	return format
}
