package browser

import (
	"net/http"
	"net/http/httptest"
	"net/http/httputil"
	"net/url"
	"sync/atomic"
)

// Line is a connection to a server that can be cut: requests get no answer then, as where a server is away or a phone
// leaves the network. Unlike what a browser emulates, it is cut for its service worker, too.
type Line struct {
	*httptest.Server
	cut atomic.Bool
}

// NewLine leads to a server on loopback. Close it at the end.
func NewLine(to string) (*Line, error) {
	address, err := url.Parse(to)
	if err != nil {
		return nil, err
	}
	line := &Line{}
	proxy := &httputil.ReverseProxy{Rewrite: func(r *httputil.ProxyRequest) {
		r.SetURL(address)
		r.Out.Host = r.In.Host
	}}
	line.Server = httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if !line.cut.Load() {
			proxy.ServeHTTP(w, r)
			return
		}
		if connection, _, err := http.NewResponseController(w).Hijack(); err == nil {
			connection.Close()
		}
	}))
	return line, nil
}

// Cut leaves requests without an answer.
func (l *Line) Cut() { l.cut.Store(true) }

// Mend lets requests through again.
func (l *Line) Mend() { l.cut.Store(false) }
