// Package web serves the application over HTTP: the API under /api, typed and described as
// OpenAPI 3.1, and the front end for every other path. Handlers decode, call one action, encode.
package web

import (
	"context"
	"net/http"
	"reflect"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"
	"github.com/jmoiron/sqlx"
	"github.com/prometheus/client_golang/prometheus/promhttp"

	"frugalheron/app"
	"frugalheron/core/annotation"
	"frugalheron/core/condition"
	"frugalheron/core/custody"
	"frugalheron/core/facts"
	"frugalheron/core/fit"
	"frugalheron/core/identification"
	"frugalheron/core/linediff"
	"frugalheron/core/lot"
	"frugalheron/core/measure"
	"frugalheron/core/reckoning"
	"frugalheron/core/risk"
	"frugalheron/core/sheet"
	"frugalheron/core/teardown"
	"frugalheron/core/verdict"
	"frugalheron/core/wiring"
	"frugalheron/web/accounts"
	"frugalheron/web/httpx"
)

// Config is how the server is set up.
type Config struct {
	// SecureCookies keeps session cookies off unencrypted connections.
	SecureCookies bool
	// TrustedProxies are those whose forwarding headers count: from where a request comes, and whether encrypted.
	TrustedProxies httpx.TrustedProxies
}

// Server is the HTTP interface of the application.
type Server struct {
	app      *app.App
	sessions *accounts.Sessions
	router   chi.Router
	api      *httpx.API
}

// New builds the server on a migrated database.
func New(db *sqlx.DB, actions *app.App, config Config) *Server {
	s := newServer(db, actions, config)
	s.router.Get("/readyz", func(w http.ResponseWriter, r *http.Request) {
		ctx, cancel := context.WithTimeout(r.Context(), 2*time.Second)
		defer cancel()
		if err := db.PingContext(ctx); err != nil {
			http.Error(w, "the database does not answer", http.StatusServiceUnavailable)
			return
		}
		w.Write([]byte("ready\n"))
	})
	return s
}

// Describe builds a server for its OpenAPI document only; it has no database.
func Describe() *huma.OpenAPI { return newServer(nil, app.New(nil), Config{}).api.OpenAPI() }

func newServer(db *sqlx.DB, actions *app.App, config Config) *Server {
	s := &Server{app: actions, sessions: accounts.NewSessions(db, config.SecureCookies), router: chi.NewRouter()}
	r := s.router
	r.Use(middleware.RequestID, httpx.LogRequests, httpx.RecoverPanics, config.TrustedProxies.FindCaller,
		httpx.SecureHeaders(config.SecureCookies), httpx.SecureCookies)
	r.Use(http.NewCrossOriginProtection().Handler)
	r.Use(middleware.Compress(1, "application/json", "application/problem+json", "text/html", "text/css",
		"text/javascript", "image/svg+xml"))
	r.Get("/healthz", func(w http.ResponseWriter, _ *http.Request) { w.Write([]byte("alive\n")) })
	r.Get("/metrics", config.TrustedProxies.OnlyFromHere(promhttp.Handler()))
	r.Group(func(r chi.Router) {
		r.Use(httpx.NoStore, httpx.LimitTime, s.sessions.LoadAndSave, s.sessions.Identify(actions))
		s.api = httpx.NewAPI(humachi.New(r, apiConfig()), actions.Kernel, actions.People)
		registerAll(s.api, actions, s.sessions)
		httpx.AllowNull(s.api.OpenAPI())
		r.HandleFunc("/api/*", func(w http.ResponseWriter, _ *http.Request) {
			httpx.WriteProblem(w,
				&httpx.Problem{Title: "Not found", Status: http.StatusNotFound, Detail: "There is no such operation."})
		})
	})
	r.NotFound(serveFrontEnd())
	return s
}

func apiConfig() huma.Config {
	huma.DefaultArrayNullable = false
	huma.NewError = httpx.NewProblem
	config := huma.DefaultConfig("Frugal Heron", "1")
	config.Info.Description = "Catalogue of vintage computers: machines, boards, sheets and what they amount to."
	config.CreateHooks = nil // no $schema links in answers
	config.Transformers = []huma.Transformer{httpx.PublicAnswer}
	config.DocsPath, config.SchemasPath = "", ""
	config.OpenAPIPath = "/api/openapi"
	config.Formats = map[string]huma.Format{"application/json": httpx.JsonFormat(), "json": httpx.JsonFormat()}
	config.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	config.Components.SecuritySchemes = map[string]*huma.SecurityScheme{
		"session": {Type: "apiKey", In: "cookie", Name: "heron_session"},
	}
	return config
}

// schemaName names a type in the document. Types of the core share names with
// records, so they carry their package's.
func schemaName(t reflect.Type, hint string) string {
	name := huma.DefaultSchemaNamer(t, hint)
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
		t = t.Elem()
	}
	return prefixes[t.PkgPath()] + name
}

// prefixes are what the names of a package's types start with in the document.
var prefixes = map[string]string{
	reflect.TypeFor[reckoning.Result]().PkgPath():        "Reckoned",
	reflect.TypeFor[verdict.Verdict]().PkgPath():         "Reckoned",
	reflect.TypeFor[sheet.Problem]().PkgPath():           "Sheet",
	reflect.TypeFor[linediff.Line]().PkgPath():           "Difference",
	reflect.TypeFor[facts.Statement]().PkgPath():         "Fact",
	reflect.TypeFor[custody.Role]().PkgPath():            "Custody",
	reflect.TypeFor[lot.Worth]().PkgPath():               "Lot",
	reflect.TypeFor[identification.Weighing]().PkgPath(): "Weighed",
	reflect.TypeFor[annotation.Annotation]().PkgPath():   "Board",
	reflect.TypeFor[teardown.Step]().PkgPath():           "Teardown",
	reflect.TypeFor[wiring.Connector]().PkgPath():        "Wiring",
	reflect.TypeFor[condition.Item]().PkgPath():          "Condition",
	reflect.TypeFor[measure.Judged]().PkgPath():          "Measure",
	reflect.TypeFor[risk.Class]().PkgPath():              "Ageing",
	reflect.TypeFor[fit.Result]().PkgPath():              "Fit",
}

// Operations lists all operations with their roles.
func (s *Server) Operations() []httpx.Operation { return s.api.Operations() }

// ServeHTTP answers a request.
func (s *Server) ServeHTTP(w http.ResponseWriter, r *http.Request) { s.router.ServeHTTP(w, r) }
