package web

import (
	"bytes"
	"crypto/rand"
	"embed"
	"io/fs"
	"net/http"
	"path"
	"strings"

	"frugalheron/web/httpx"
)

// static holds the built front end in dist, and a page that stands in for it in a build without.
//
//go:embed all:static
var static embed.FS

// nonceMark stands in the built page wherever this request's nonce goes.
const nonceMark = "__CSP_NONCE__"

// workerName is the file of the service worker.
const workerName = "sw.js"

// serveFrontEnd answers with a built file, or with the page for any other path: the page finds
// out itself what to show.
func serveFrontEnd() http.HandlerFunc {
	built, err := fs.Sub(static, "static/dist")
	if err != nil {
		panic(err) // the path is constant
	}
	page, err := fs.ReadFile(built, "index.html")
	if err != nil {
		page, err = static.ReadFile("static/placeholder.html")
		if err != nil {
			panic(err) // embedded above
		}
	}
	files := http.FileServerFS(built)
	return func(w http.ResponseWriter, r *http.Request) {
		if r.Method != http.MethodGet && r.Method != http.MethodHead {
			httpx.WriteProblem(w,
				&httpx.Problem{Title: "Not found", Status: http.StatusNotFound, Detail: "There is no such operation."})
			return
		}
		name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
		if info, err := fs.Stat(built, name); err == nil && !info.IsDir() && name != "index.html" {
			if strings.HasPrefix(name, "assets/") {
				// Names of assets change with their content.
				w.Header().Set("Cache-Control", "public, max-age=31536000, immutable")
			}
			if name == workerName {
				// What the service worker fetches is the application itself, by its own policy and not by the page's.
				w.Header().Set("Content-Security-Policy", "default-src 'none'; connect-src 'self'; script-src 'self'")
				w.Header().Set("Cache-Control", "no-cache")
			}
			files.ServeHTTP(w, r)
			return
		}
		if strings.HasPrefix(name, "assets/") {
			http.NotFound(w, r)
			return
		}
		servePage(w, page)
	}
}

func servePage(w http.ResponseWriter, page []byte) {
	nonce := rand.Text()
	h := w.Header()
	h.Set("Content-Type", "text/html; charset=utf-8")
	h.Set("Cache-Control", "no-store")
	h.Set("Content-Security-Policy", strings.Join([]string{
		"default-src 'none'", "script-src 'self'", "style-src 'self' 'nonce-" + nonce + "'", "img-src 'self' data:",
		"media-src 'self' blob:",
		"font-src 'self'", "connect-src 'self'", "manifest-src 'self'",
		"base-uri 'none'", "form-action 'none'", "frame-ancestors 'none'",
	}, "; "))
	w.Write(bytes.ReplaceAll(page, []byte(nonceMark), []byte(nonce)))
}
