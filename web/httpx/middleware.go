package httpx

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"
	"runtime/debug"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5/middleware"
)

// LogRequests writes one line per request, without query or body: both may hold private text.
func LogRequests(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		start := time.Now()
		wrapped := middleware.NewWrapResponseWriter(w, r.ProtoMajor)
		next.ServeHTTP(wrapped, r)
		level := slog.LevelDebug
		if wrapped.Status() >= http.StatusInternalServerError {
			level = slog.LevelError
		}
		slog.Log(r.Context(), level, "request", "id", middleware.GetReqID(r.Context()), "method", r.Method,
			"path", loggedPath(r.URL.Path), "status", wrapped.Status(), "bytes", wrapped.BytesWritten(), "took",
			time.Since(start))
	})
}

// secretPaths are those whose next part is a secret that opens what lies there.
const secretPaths = "/api/calendar/"

// loggedPath is a path without the secret that it may hold.
func loggedPath(path string) string {
	if strings.HasPrefix(path, secretPaths) {
		return secretPaths + "..."
	}
	return path
}

// RecoverPanics answers a request whose handler panicked, and logs why.
func RecoverPanics(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		defer func() {
			cause := recover()
			if cause == nil {
				return
			}
			if cause == http.ErrAbortHandler {
				panic(cause)
			}
			slog.Error("panic", "id", middleware.GetReqID(r.Context()), "path", loggedPath(r.URL.Path), "cause",
				cause, "stack",
				string(debug.Stack()))
			WriteProblem(w, &Problem{Title: "Server error", Status: http.StatusInternalServerError,
				Detail: serverFailed})
		}()
		next.ServeHTTP(w, r)
	})
}

// SecureHeaders tell browsers what they may do with answers; always, where all connections are encrypted.
func SecureHeaders(always bool) func(next http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			h := w.Header()
			h.Set("X-Content-Type-Options", "nosniff")
			h.Set("X-Frame-Options", "DENY")
			h.Set("Referrer-Policy", "same-origin")
			h.Set("Cross-Origin-Opener-Policy", "same-origin")
			h.Set("Cross-Origin-Resource-Policy", "same-origin")
			h.Set("Permissions-Policy", "geolocation=(), microphone=(), payment=(), usb=()")
			h.Set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'")
			if always || isSecure(r.Context()) {
				h.Set("Strict-Transport-Security", "max-age=31536000")
			}
			next.ServeHTTP(w, r)
		})
	}
}

// requestLasts is how long a request may take, its database included. The server's own limit lies above it, so
// that the client is told.
const requestLasts = 40 * time.Second

// LimitTime ends what takes too long: a database that stands still must not hold requests for ever. A file may
// take longer to arrive.
func LimitTime(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		ctx, stop := context.WithTimeout(r.Context(), lastsOf(r))
		defer stop()
		next.ServeHTTP(w, r.WithContext(ctx))
	})
}

// isFile reports whether a request brings a file.
func isFile(r *http.Request) bool {
	return r.Header.Get("Content-Type") == "application/octet-stream"
}

// lastsOf is how long a request may take.
func lastsOf(r *http.Request) time.Duration {
	if isFile(r) {
		return requestLasts + uploadLasts
	}
	return requestLasts
}

// NoStore keeps answers out of caches.
func NoStore(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Cache-Control", "no-store")
		next.ServeHTTP(w, r)
	})
}

// WriteError answers with an error that came up before an operation was reached.
func WriteError(w http.ResponseWriter, r *http.Request, err error) {
	told := problem(r.Context(), err)
	var headed huma.HeadersError
	if errors.As(told, &headed) {
		for name, values := range headed.GetHeaders() {
			w.Header()[name] = values
		}
	}
	var p *Problem
	if !errors.As(told, &p) {
		p = &Problem{Title: "Server error", Status: http.StatusInternalServerError, Detail: serverFailed}
	}
	WriteProblem(w, p)
}

// WriteProblem answers with what is wrong.
func WriteProblem(w http.ResponseWriter, p *Problem) {
	w.Header().Set("Content-Type", p.ContentType(""))
	w.WriteHeader(p.Status)
	json.NewEncoder(w).Encode(p) //nolint:errcheck // nobody is left to tell
}
