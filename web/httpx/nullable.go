package httpx

import (
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"
)

// AllowNull lets the document say null wherever an answer may hold it: for fields that point to a
// record and are always present. huma does so itself only for fields of plain values.
func AllowNull(document *huma.OpenAPI) {
	schemas := document.Components.Schemas
	for name, schema := range schemas.Map() {
		t := schemas.TypeFromRef("#/components/schemas/" + name)
		for t != nil && t.Kind() == reflect.Pointer {
			t = t.Elem()
		}
		if t == nil || t.Kind() != reflect.Struct {
			continue
		}
		for _, field := range reflect.VisibleFields(t) {
			tag, options, _ := strings.Cut(field.Tag.Get("json"), ",")
			property := schema.Properties[tag]
			isRecord := field.Type.Kind() == reflect.Pointer && field.Type.Elem().Kind() == reflect.Struct
			if !isRecord || property == nil || property.Ref == "" || strings.Contains(options, "omitempty") {
				continue
			}
			schema.Properties[tag] = &huma.Schema{
				OneOf: []*huma.Schema{{Ref: property.Ref}, {Type: "null"}}, Description: property.Description,
			}
		}
	}
}
