package web_test

import (
	"os"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/core/names"
)

// Every text of an answer that viewers may get either is typed as one, and names in it give way, or stands in the list
// of those that hold none: keys, numbers, markings, words of a list, names of staff. A new field has to be in one of
// both.
func TestEveryTextOfAnAnswerIsTypedOrKnownToBeNone(t *testing.T) {
	listed, err := os.ReadFile("testdata/no-texts.txt")
	require.NoError(t, err)
	known := strings.Fields(string(listed))
	document := described
	fields := answerFields{document: document, found: map[string]bool{}, looked: map[reflect.Type]bool{}}
	for _, op := range newSite(t).server.Operations() {
		if op.Roles != nil && !op.Roles.Include(action.Viewer) {
			continue
		}
		for _, response := range describedAs(op.OperationID).Responses {
			for _, media := range response.Content {
				fields.schema(media.Schema)
			}
		}
	}
	missing := []string{}
	for field := range fields.found {
		if !slices.Contains(known, field) {
			missing = append(missing, field)
		}
	}
	slices.Sort(missing)
	require.Empty(t, missing,
		`give each a tag says:"text", or put it into testdata/no-texts.txt if nobody can be named in it`)
	for _, field := range known {
		require.True(t, fields.found[field], "%s is no field without text any more", field)
	}
	require.True(t, slices.IsSorted(known))
}

// answerFields collects the fields of answers that are texts and not typed as such, as package.Type.field.
type answerFields struct {
	document *huma.OpenAPI
	found    map[string]bool
	looked   map[reflect.Type]bool
}

func (f *answerFields) schema(s *huma.Schema) {
	if s == nil {
		return
	}
	if s.Ref != "" {
		f.of(f.document.Components.Schemas.TypeFromRef(s.Ref))
	}
	f.schema(s.Items)
}

func (f *answerFields) of(t reflect.Type) {
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice || t.Kind() == reflect.Map {
		t = t.Elem()
	}
	if t.Kind() != reflect.Struct || t == reflect.TypeFor[time.Time]() || f.looked[t] {
		return
	}
	f.looked[t] = true
	for i := range t.NumField() {
		field := t.Field(i)
		key, _, _ := strings.Cut(field.Tag.Get("json"), ",")
		if key == "-" || !field.IsExported() && !field.Anonymous {
			continue
		}
		inner := field.Type
		for inner.Kind() == reflect.Pointer || inner.Kind() == reflect.Slice || inner.Kind() == reflect.Map {
			inner = inner.Elem()
		}
		if inner.Kind() == reflect.Struct {
			f.of(inner)
			continue
		}
		if inner == reflect.TypeFor[string]() && field.Tag.Get("enum") == "" && field.Tag.Get(names.Tag) == "" {
			f.found[strings.TrimPrefix(t.PkgPath(), "frugalheron/")+"."+t.Name()+"."+key] = true
		}
	}
}
