package web

import (
	"bytes"
	"net/http"
	"strings"

	"golang.org/x/sync/errgroup"

	"frugalheron/app"
)

// keepPrivate takes the names of private persons out of every answer to somebody who is not staff, and
// out of every export: those travel on, whoever asked for them. It stands before all handlers, so that
// none can forget it.
func (s *Server) keepPrivate(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		actor := actorOf(r.Context())
		if actor.AccountID == 0 || !actor.Hides() && !isExport(r.URL.Path) {
			next.ServeHTTP(w, r)
			return
		}
		// Who is private is read while the answer is made.
		var privacy *app.Privacy
		var reading errgroup.Group
		reading.Go(func() (err error) {
			privacy, err = s.app.Privacy(r.Context())
			return err
		})
		held := &heldAnswer{ResponseWriter: w}
		next.ServeHTTP(held, r)
		err := reading.Wait()
		if err != nil {
			writeError(w, r, err)
			return
		}
		body := held.body.Bytes()
		switch kind := w.Header().Get("Content-Type"); {
		case strings.Contains(kind, "json"):
			if body, err = privacy.JSON(body); err != nil {
				writeError(w, r, err)
				return
			}
		case strings.HasPrefix(kind, "text/"), strings.Contains(kind, "svg"):
			body = []byte(privacy.Text(string(body)))
		}
		w.Header().Del("Content-Length")
		if held.status != 0 {
			w.WriteHeader(held.status)
		}
		w.Write(body) //nolint:errcheck // nobody is left to tell
	})
}

// isExport reports whether an address answers with a file to be taken away.
func isExport(path string) bool {
	for _, ending := range []string{".txt", ".csv", ".json", ".svg"} {
		if strings.HasSuffix(path, ending) {
			return true
		}
	}
	return false
}

// heldAnswer holds an answer back until it is complete.
type heldAnswer struct {
	http.ResponseWriter
	status int
	body   bytes.Buffer
}

// WriteHeader keeps the first status.
func (h *heldAnswer) WriteHeader(status int) {
	if h.status == 0 {
		h.status = status
	}
}

// Write holds the bytes back.
func (h *heldAnswer) Write(data []byte) (int, error) { return h.body.Write(data) }

// Unwrap lets deadlines be set on the connection itself.
func (h *heldAnswer) Unwrap() http.ResponseWriter { return h.ResponseWriter }
