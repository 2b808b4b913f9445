package web_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"sync/atomic"
	"testing"

	"github.com/danielgtaylor/huma/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sync/errgroup"

	"frugalheron/demo"
	"frugalheron/web"
	"frugalheron/web/httpx"
)

var badTexts = []struct{ name, json, query string }{
	{"zero byte", `a\u0000b`, "a%00b"},
	{"no UTF-8", "a\xff\xfeb", "a%ff%feb"},
}

var badNumbers = []string{"9223372036854775808", "-9223372036854775809", "2147483648", "-2147483649", "4294967296",
	"1e300", "-1e300", "1e999"}

// Whatever is sent in whichever place, the server answers that it is wrong and never that it failed itself.
func TestBadInputIsRefusedInEveryPlace(t *testing.T) {
	s := newSite(t)
	clients := map[string]*client{}
	for _, account := range demo.Accounts {
		clients[string(account.Role)] = s.as(t, account)
	}
	var tried atomic.Int64
	var all errgroup.Group
	all.SetLimit(8)
	for _, op := range s.server.Operations() {
		if op.OperationID == "sign-out" {
			continue
		}
		op.Operation = *describedAs(op.OperationID)
		by := clients[string(demo.Accounts[0].Role)]
		if op.Roles != nil && !op.Roles.Include(demo.Accounts[0].Role) {
			by = clients[string(op.Roles[0])]
		}
		probe := func(what, path, body string, mustRefuse bool) {
			all.Go(func() error {
				tried.Add(1)
				status, err := by.raw(op.Method, path, body)
				assert.NoError(t, err)
				assert.Less(t, status, 500, "%s %s: %s", op.Method, path, what)
				if mustRefuse {
					assert.GreaterOrEqual(t, status, 400, "%s %s: %s in %s", op.Method, path, what, body)
				}
				return nil
			})
		}
		for _, p := range op.Parameters {
			for _, bad := range badTexts {
				probe(bad.name+" in "+p.Name, address(op, p.Name, bad.query), sampleBody(op), true)
			}
			for _, number := range badNumbers {
				probe(number+" in "+p.Name, address(op, p.Name, url.QueryEscape(number)), sampleBody(op), false)
			}
		}
		eachLeaf(op, func(at, kind string, with func(literal string) string) {
			switch kind {
			case "string":
				for _, bad := range badTexts {
					probe(bad.name+" at "+at, address(op, "", ""), with(`"`+bad.json+`"`), true)
				}
			case "number", "integer":
				for _, number := range badNumbers {
					probe(number+" at "+at, address(op, "", ""), with(number), false)
				}
			}
		})
	}
	require.NoError(t, all.Wait())
	require.Greater(t, tried.Load(), int64(2500))
}

// raw sends a body as it is and returns the status.
func (c *client) raw(method, path, body string) (int, error) {
	request, err := http.NewRequestWithContext(c.t.Context(), method, c.site.URL+path, strings.NewReader(body))
	if err != nil {
		return 0, err
	}
	if body != "" {
		request.Header.Set("Content-Type", "application/json")
	}
	response, err := c.http.Do(request)
	if err != nil {
		return 0, err
	}
	return response.StatusCode, response.Body.Close()
}

// address fills in the parameters of an operation; one of them with a value of its own.
func address(op httpx.Operation, name, value string) string {
	path, query := op.Path, []string{}
	for _, p := range op.Parameters {
		filled := value
		if p.Name != name {
			filled = strings.Trim(string(literalOf(p.Schema)), `"`)
			if p.In == "query" && !p.Required {
				continue
			}
		}
		switch p.In {
		case "path":
			path = strings.ReplaceAll(path, "{"+p.Name+"}", filled)
		case "query":
			query = append(query, p.Name+"="+filled)
		}
	}
	if len(query) > 0 {
		path += "?" + strings.Join(query, "&")
	}
	return path
}

var described = web.Describe()

// describedAs finds an operation in the document: parameters and body stand only there.
func describedAs(id string) *huma.Operation {
	for _, path := range described.Paths {
		for _, op := range []*huma.Operation{path.Get, path.Post, path.Put, path.Delete} {
			if op != nil && op.OperationID == id {
				return op
			}
		}
	}
	return nil
}

// resolve follows references of a schema.
func resolve(s *huma.Schema) *huma.Schema {
	for s != nil && s.Ref != "" {
		s = described.Components.Schemas.SchemaFromRef(s.Ref)
	}
	return s
}

func bodySchema(op httpx.Operation) *huma.Schema {
	if op.RequestBody == nil || op.RequestBody.Content["application/json"] == nil {
		return nil
	}
	return op.RequestBody.Content["application/json"].Schema
}

// literalOf writes a plain value of a schema as JSON.
func literalOf(s *huma.Schema) json.RawMessage {
	s = resolve(s)
	switch {
	case s == nil:
		return json.RawMessage(`null`)
	case len(s.Enum) > 0:
		encoded, _ := json.Marshal(s.Enum[0])
		return encoded
	case s.Type == "object":
		fields := map[string]json.RawMessage{}
		for name, property := range s.Properties {
			fields[name] = literalOf(property)
		}
		encoded, _ := json.Marshal(fields)
		return encoded
	case s.Type == "array":
		return json.RawMessage("[" + string(literalOf(s.Items)) + "]")
	case s.Type == "integer" || s.Type == "number":
		if s.Minimum != nil && *s.Minimum > 1 {
			return json.RawMessage(fmt.Sprint(*s.Minimum))
		}
		return json.RawMessage(`1`)
	case s.Type == "boolean":
		return json.RawMessage(`false`)
	case s.Pattern != "":
		return json.RawMessage(`"` + strings.Repeat("a", 64) + `"`)
	}
	return json.RawMessage(`"2020-01-01"`)
}

func sampleBody(op httpx.Operation) string {
	if s := bodySchema(op); s != nil {
		return string(literalOf(s))
	}
	return ""
}

// eachLeaf visits the texts and numbers of an operation's body; with writes the body with another literal there.
func eachLeaf(op httpx.Operation, visit func(at, kind string, with func(literal string) string)) {
	s := bodySchema(op)
	if s == nil {
		return
	}
	leaves(s, "body", 0, func(inner string) string { return inner }, visit)
}

func leaves(s *huma.Schema, at string, depth int, around func(inner string) string,
	visit func(at, kind string, with func(literal string) string)) {
	s = resolve(s)
	if s == nil || depth > 6 {
		return
	}
	switch s.Type {
	case "object":
		for _, name := range slices.Sorted(maps.Keys(s.Properties)) {
			leaves(s.Properties[name], at+"."+name, depth+1, func(inner string) string {
				fields := []string{fmt.Sprintf("%q:%s", name, inner)}
				for _, other := range slices.Sorted(maps.Keys(s.Properties)) {
					if other != name {
						fields = append(fields, fmt.Sprintf("%q:%s", other, literalOf(s.Properties[other])))
					}
				}
				return around("{" + strings.Join(fields, ",") + "}")
			}, visit)
		}
	case "array":
		leaves(s.Items, at+"[0]", depth+1, func(inner string) string { return around("[" + inner + "]") }, visit)
	default:
		visit(at, s.Type, around)
	}
}
