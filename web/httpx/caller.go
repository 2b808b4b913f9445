package httpx

import (
	"context"
	"net/http"
	"net/netip"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5/middleware"
)

// TrustedProxies are the networks of proxies whose forwarding headers count.
type TrustedProxies []netip.Prefix

// ParseProxies reads addresses and networks with commas between, as 127.0.0.1, 10.0.0.0/8.
func ParseProxies(text string) (TrustedProxies, error) {
	proxies := TrustedProxies{}
	for part := range strings.SplitSeq(text, ",") {
		part = strings.TrimSpace(part)
		if part == "" {
			continue
		}
		prefix, err := netip.ParsePrefix(part)
		if err != nil {
			address, errAddress := netip.ParseAddr(part)
			if errAddress != nil {
				return nil, err
			}
			prefix = netip.PrefixFrom(address.Unmap(), address.Unmap().BitLen())
		}
		proxies = append(proxies, prefix.Masked())
	}
	return proxies, nil
}

// include reports whether a request came from one of them.
func (p TrustedProxies) include(r *http.Request) bool {
	peer, err := netip.ParseAddrPort(r.RemoteAddr)
	if err != nil {
		return false
	}
	for _, prefix := range p {
		if prefix.Contains(peer.Addr().Unmap().WithZone("")) {
			return true
		}
	}
	return false
}

type secureKey struct{}

// isSecure reports whether a request came encrypted, to us or to a proxy that we trust.
func isSecure(ctx context.Context) bool {
	secure, _ := ctx.Value(secureKey{}).(bool)
	return secure
}

// FindCaller finds out from where a request comes, and whether encrypted. Without trusted proxies, what a request
// says of that itself does not count.
func (p TrustedProxies) FindCaller(next http.Handler) http.Handler {
	told := http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		secure := r.TLS != nil || p.include(r) && strings.EqualFold(r.Header.Get("X-Forwarded-Proto"), "https")
		next.ServeHTTP(w, r.WithContext(context.WithValue(r.Context(), secureKey{}, secure)))
	})
	if len(p) == 0 {
		return middleware.ClientIPFromRemoteAddr(told)
	}
	networks := make([]string, len(p))
	for i, prefix := range p {
		networks[i] = prefix.String()
	}
	return middleware.ClientIPFromXFF(networks...)(told)
}

// OnlyFromHere answers callers on this machine; others get a 404, and so does whoever comes through a proxy that
// nobody told us of.
func (p TrustedProxies) OnlyFromHere(next http.Handler) http.HandlerFunc {
	return func(w http.ResponseWriter, r *http.Request) {
		isForwarded := r.Header.Get("X-Forwarded-For") != "" || r.Header.Get("Forwarded") != ""
		caller := middleware.GetClientIPAddr(r.Context())
		if !caller.IsLoopback() || isForwarded && !p.include(r) {
			http.NotFound(w, r)
			return
		}
		next.ServeHTTP(w, r)
	}
}

// SecureCookies marks all cookies of an answer that goes out encrypted, also where the server as a whole need not.
func SecureCookies(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if isSecure(r.Context()) {
			w = &cookieMarker{ResponseWriter: w}
		}
		next.ServeHTTP(w, r)
	})
}

type cookieMarker struct {
	http.ResponseWriter
	done bool
}

func (m *cookieMarker) mark() {
	if m.done {
		return
	}
	m.done = true
	cookies := m.Header()["Set-Cookie"]
	for i, cookie := range cookies {
		if !strings.Contains(cookie, "; Secure") {
			cookies[i] = cookie + "; Secure"
		}
	}
}

// WriteHeader marks the cookies before they leave.
func (m *cookieMarker) WriteHeader(status int) {
	m.mark()
	m.ResponseWriter.WriteHeader(status)
}

// Write does so as well.
func (m *cookieMarker) Write(data []byte) (int, error) {
	m.mark()
	return m.ResponseWriter.Write(data)
}

// Unwrap lets deadlines be set on the connection itself.
func (m *cookieMarker) Unwrap() http.ResponseWriter { return m.ResponseWriter }

// Caller is an input that knows the caller's address, by which failures are counted, and program.
type Caller struct{ Address, Agent string }

// Resolve notes them.
func (c *Caller) Resolve(ctx huma.Context) []error {
	c.Agent = ctx.Header("User-Agent")
	c.Address = middleware.GetClientIP(ctx.Context())
	return nil
}
