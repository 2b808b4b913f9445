package web_test

import (
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/demo"
	"frugalheron/web"
)

// Every operation is tried by everybody: who may not call it is refused before the body is read.
func TestEveryOperationAsEveryRole(t *testing.T) {
	s := newSite(t)
	clients := map[action.Role]*client{"": s.anybody(t)}
	for _, account := range demo.Accounts {
		clients[account.Role] = s.as(t, account)
	}
	operations := s.server.Operations()
	require.NotEmpty(t, operations)
	for _, op := range operations {
		if op.OperationID == "sign-out" { // would end the sessions of the walk
			continue
		}
		path := strings.ReplaceAll(op.Path, "{id}", "999999")
		for role, c := range clients {
			status, body := c.send(op.Method, path, map[string]string{})
			name := op.OperationID + " as " + string(role)
			switch {
			case op.Roles == nil:
				require.NotContains(t, []int{403, 404, 405, 500}, status, name)
			case role == "":
				require.Equal(t, 401, status, name)
			case !op.Roles.Include(role):
				require.Equal(t, 403, status, name)
				require.Contains(t, problemOf(t, body).Detail, "role", name)
			default:
				require.NotContains(t, []int{401, 403, 405, 500}, status, name)
			}
		}
	}
}

func TestSignInIsLimitedAndSaysNothingOfAccounts(t *testing.T) {
	s := newSite(t)
	c := s.anybody(t)
	attempt := func(login, password string) (int, string) {
		return c.send("POST", "/api/session", map[string]string{"login": login, "password": password})
	}
	status, known := attempt(demo.Accounts[0].Login, "not the password")
	require.Equal(t, 401, status)
	status, unknown := attempt("nobody", "not the password")
	require.Equal(t, 401, status)
	require.Equal(t, known, unknown)
	for range 4 {
		attempt(demo.Accounts[0].Login, "not the password")
	}
	response := c.do("POST", "/api/session",
		map[string]string{"login": strings.ToUpper(demo.Accounts[0].Login), "password": demo.Accounts[0].Password}, nil)
	response.Body.Close()
	require.Equal(t, 429, response.StatusCode)
	require.NotEmpty(t, response.Header.Get("Retry-After"))
	// Others are not locked out by it.
	s.as(t, demo.Accounts[1])
}

func TestSessions(t *testing.T) {
	s := newSite(t)
	c := s.anybody(t)
	response := c.do("POST", "/api/session",
		map[string]string{"login": demo.Accounts[0].Login, "password": demo.Accounts[0].Password}, nil)
	response.Body.Close()
	cookie := response.Cookies()[0]
	require.True(t, cookie.HttpOnly)
	require.Equal(t, http.SameSiteLaxMode, cookie.SameSite)

	// Kept in the database: another process of the application knows it as well.
	other := newProcess(t, s)
	status, body := (&client{t, other, c.http}).send("GET", "/api/session", nil)
	require.Equal(t, 200, status)
	require.NotContains(t, body, `"account":null`)

	status, _ = c.send("DELETE", "/api/session", nil)
	require.Equal(t, 204, status)
	stolen := s.anybody(t)
	reply := stolen.do("GET", "/api/machines", nil, http.Header{"Cookie": {cookie.Name + "=" + cookie.Value}})
	reply.Body.Close()
	require.Equal(t, 401, reply.StatusCode)
}

func TestRequestsFromOtherSitesAreRefused(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	for _, header := range []http.Header{{"Sec-Fetch-Site": {"cross-site"}},
		{"Origin": {"https://elsewhere.example"}}} {
		response := c.do("POST", "/api/machines", map[string]string{"accession": "EH-2", "name": "planted"}, header)
		response.Body.Close()
		require.Equal(t, 403, response.StatusCode)
	}
}

func TestHeaders(t *testing.T) {
	s := newSite(t)
	c := s.anybody(t)
	nonces := map[string]bool{}
	for _, path := range []string{"/", "/bench/1/take-stock", "/api/session", "/healthz"} {
		response := c.do("GET", path, nil, nil)
		response.Body.Close()
		policy := response.Header.Get("Content-Security-Policy")
		require.Contains(t, policy, "default-src 'none'", path)
		require.Contains(t, policy, "frame-ancestors 'none'", path)
		require.NotContains(t, policy, "unsafe", path)
		require.Equal(t, "nosniff", response.Header.Get("X-Content-Type-Options"), path)
		nonces[policy] = true
	}
	secure := httptest.NewRecorder()
	web.New(s.db, s.actions, web.Config{SecureCookies: true}).ServeHTTP(secure,
		httptest.NewRequest("GET", "/healthz", nil))
	require.NotEmpty(t, secure.Header().Get("Strict-Transport-Security"))
	require.Len(t, nonces, 3) // each page has its own, what is no page has none
	for path, want := range map[string]int{"/readyz": 200, "/metrics": 200, "/assets/none.js": 404, "/api/none": 404,
		"/api/openapi.json": 200} {
		status, _ := c.send("GET", path, nil)
		require.Equal(t, want, status, path)
	}
}

// Requests under way while somebody signs out must not bring the session back.
func TestSignOutEndsTheSessionForGood(t *testing.T) {
	s := newSite(t)
	for range 5 {
		c := s.as(t, demo.Accounts[0])
		var wait sync.WaitGroup
		for range 8 {
			wait.Go(func() { c.send("GET", "/api/machines", nil) })
		}
		status, _ := c.send("DELETE", "/api/session", nil)
		require.Equal(t, 204, status)
		wait.Wait()
	}
	var sessions int
	require.NoError(t, s.db.Get(&sessions, `SELECT count(*) FROM sessions`))
	require.Zero(t, sessions)
}

func TestChangingThePasswordEndsOtherSessions(t *testing.T) {
	s := newSite(t)
	account := demo.Accounts[2]
	own, other, bystander := s.as(t, account), s.as(t, account), s.as(t, demo.Accounts[0])
	change := func(current, wanted string) (int, string) {
		return own.send("PUT", "/api/session/password", map[string]string{"current": current, "wanted": wanted})
	}
	status, body := change("not the password", "a new one, long enough")
	require.Equal(t, 422, status)
	require.Equal(t, "body.current", problemOf(t, body).Errors[0].Location)
	status, body = change(account.Password, "short")
	require.Equal(t, 422, status)
	require.Equal(t, "body.wanted", problemOf(t, body).Errors[0].Location)
	require.NotContains(t, body, "short\"")
	status, body = change(account.Password, "a new one, long enough")
	require.Equal(t, 204, status, body)
	for c, want := range map[*client]int{own: 200, other: 401, bystander: 200} {
		status, _ := c.send("GET", "/api/machines", nil)
		require.Equal(t, want, status)
	}
	status, _ = s.anybody(t).send("POST", "/api/session",
		map[string]string{"login": account.Login, "password": account.Password})
	require.Equal(t, 401, status)
	account.Password = "a new one, long enough"
	s.as(t, account)
}
