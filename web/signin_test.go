package web_test

import (
	"crypto/sha256"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"runtime"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/action"
	"frugalheron/demo"
	"frugalheron/web"
	"frugalheron/web/accounts"
	"frugalheron/web/httpx"
)

// Guesses at once are no more guesses than one after the other, and cost no more memory than a few of them.
func TestGuessesAtOnceAreCountedBeforeTheyAreLookedAt(t *testing.T) {
	s := newSite(t)
	var before, most runtime.MemStats
	runtime.ReadMemStats(&before)
	statuses := make([]int, 60)
	var all sync.WaitGroup
	for i := range statuses {
		all.Go(func() {
			statuses[i], _ = s.anybody(t).send("POST", "/api/session",
				map[string]string{"login": "ottilie", "password": fmt.Sprintf("guess number %d", i)})
		})
	}
	all.Wait()
	runtime.ReadMemStats(&most)
	looked := 0
	for _, status := range statuses {
		require.Contains(t, []int{401, 429}, status)
		if status == 401 {
			looked++
		}
	}
	require.Equal(t, 5, looked)
	require.Less(t, most.TotalAlloc-before.TotalAlloc, uint64(400<<20), "19 MiB for each password that is looked at")
}

// A stranger who guesses closes the door for strangers, not for a browser from which its owner signed in before.
func TestNobodyIsLockedOutByStrangers(t *testing.T) {
	s := newSite(t)
	owner := s.as(t, demo.Accounts[0])
	status, _ := owner.send("DELETE", "/api/session", nil)
	require.Equal(t, 204, status)
	// Somebody else signs in on the same device: both are known there from now on.
	status, _ = owner.send("POST", "/api/session",
		map[string]string{"login": demo.Accounts[2].Login, "password": demo.Accounts[2].Password})
	require.Equal(t, 200, status)
	right := map[string]string{"login": demo.Accounts[0].Login, "password": demo.Accounts[0].Password}
	wrong := map[string]string{"login": demo.Accounts[0].Login, "password": "a wrong guess of mine"}
	stranger := s.anybody(t)
	for i := range 40 {
		stranger.send("POST", "/api/session", wrong)
		stranger.send("POST", "/api/session",
			map[string]string{"login": fmt.Sprint("nobody ", i), "password": "a wrong guess of mine"})
	}
	status, _ = stranger.send("POST", "/api/session", right)
	require.Equal(t, 429, status)
	status, _ = owner.send("POST", "/api/session", right)
	require.Equal(t, 200, status)

	// The known browser has a limit of its own, and is known for this account only.
	status, _ = owner.send("POST", "/api/session",
		map[string]string{"login": demo.Accounts[1].Login, "password": demo.Accounts[1].Password})
	require.Equal(t, 429, status, "the address has used its guesses up")
	for range 10 {
		status, _ = owner.send("POST", "/api/session", wrong)
		require.Equal(t, 401, status)
	}
	status, _ = owner.send("POST", "/api/session", right)
	require.Equal(t, 429, status)
}

func TestForwardingHeadersCountOnlyFromTrustedProxies(t *testing.T) {
	s := newSite(t)
	proxies, err := httpx.ParseProxies("127.0.0.1, 10.0.0.0/8,::1")
	require.NoError(t, err)
	_, err = httpx.ParseProxies("10.0.0.0/99")
	require.Error(t, err)
	behind := web.New(s.db, s.actions, web.Config{TrustedProxies: proxies})
	alone := web.New(s.db, s.actions, web.Config{})
	ask := func(server *web.Server, peer, method, path, body string, headers ...string) *httptest.ResponseRecorder {
		r := httptest.NewRequest(method, path, strings.NewReader(body))
		r.RemoteAddr = peer + ":1234"
		r.Header.Set("Content-Type", "application/json")
		for i := 0; i < len(headers); i += 2 {
			r.Header.Add(headers[i], headers[i+1])
		}
		w := httptest.NewRecorder()
		server.ServeHTTP(w, r)
		return w
	}
	// Who reads measurements sits on this machine, whatever a proxy nobody told us of passes on.
	for _, test := range []struct {
		server *web.Server
		peer   string
		header []string
		status int
	}{
		{alone, "127.0.0.1", nil, 200},
		{alone, "192.0.2.9", nil, 404},
		{alone, "192.0.2.9", []string{"X-Forwarded-For", "127.0.0.1"}, 404},
		{alone, "127.0.0.1", []string{"X-Forwarded-For", "192.0.2.9"}, 404},
		{behind, "127.0.0.1", []string{"X-Forwarded-For", "192.0.2.9"}, 404},
		{behind, "10.1.1.1", []string{"X-Forwarded-For", "127.0.0.1, 192.0.2.9, 10.2.2.2"}, 404},
		{behind, "192.0.2.9", []string{"X-Forwarded-For", "127.0.0.1"}, 404},
	} {
		require.Equal(t, test.status, ask(test.server, test.peer, "GET", "/metrics", "", test.header...).Code, "%v",
			test)
	}
	signIn := fmt.Sprintf(`{"login":%q,"password":%q}`, demo.Accounts[2].Login, demo.Accounts[2].Password)
	for _, test := range []struct {
		server *web.Server
		peer   string
		secure bool
	}{{behind, "10.1.1.1", true}, {behind, "192.0.2.9", false}, {alone, "10.1.1.1", false}} {
		w := ask(test.server, test.peer, "POST", "/api/session", signIn, "X-Forwarded-Proto", "https",
			"X-Forwarded-For", "198.51.100.7")
		require.Equal(t, 200, w.Code)
		cookies := w.Result().Cookies()
		require.Len(t, cookies, 2)
		for _, cookie := range cookies {
			require.Equal(t, test.secure, cookie.Secure, "%v", cookie)
			require.True(t, cookie.HttpOnly)
		}
		require.Equal(t, test.secure, w.Header().Get("Strict-Transport-Security") != "")
		all := ask(test.server, test.peer, "GET", "/api/session/all", "", "Cookie", "heron_session="+sessionIn(cookies))
		var found []accounts.Session
		require.NoError(t, json.Unmarshal(all.Body.Bytes(), &found))
		for _, one := range found {
			if one.IsThis {
				require.Equal(t, map[bool]string{true: "198.51.100.7", false: test.peer}[test.secure], one.Address)
			}
		}
	}
	// Failures behind a proxy are the caller's, not the proxy's.
	for i := range 30 {
		wrong := fmt.Sprintf(`{"login":"nobody-%d","password":"wrong wrong wrong"}`, i)
		ask(behind, "10.1.1.1", "POST", "/api/session", wrong, "X-Forwarded-For", "2001:db8::"+fmt.Sprint(i))
	}
	require.Equal(t, 429,
		ask(behind, "10.1.1.1", "POST", "/api/session", signIn, "X-Forwarded-For", "2001:db8::ffff").Code,
		"of the same network")
	require.Equal(t, 200,
		ask(behind, "10.1.1.1", "POST", "/api/session", signIn, "X-Forwarded-For", "2001:db8:1::1").Code)
}

// Who reads the database gets in with nothing that stands there; a link ends with the password it would have set.
func TestWhatIsKeptOfSecretsOpensNothing(t *testing.T) {
	s := newSite(t)
	c := s.anybody(t)
	response := c.do("POST", "/api/session",
		map[string]string{"login": demo.Accounts[0].Login, "password": demo.Accounts[0].Password}, nil)
	response.Body.Close()
	var kept []string
	require.NoError(t, s.db.Select(&kept,
		`SELECT token FROM sessions UNION ALL SELECT token_hash FROM known_browser UNION ALL SELECT token_hash
			FROM account_link`))
	require.Len(t, kept, 2)
	for _, cookie := range response.Cookies() {
		require.NotContains(t, kept, cookie.Value)
	}
	sum := sha256.Sum256([]byte(sessionIn(response.Cookies())))
	require.Contains(t, kept, base64.RawURLEncoding.EncodeToString(sum[:]))
	thief := s.anybody(t)
	stolen := thief.do("GET", "/api/machines", nil, http.Header{"Cookie": {"heron_session=" + kept[0]}})
	stolen.Body.Close()
	require.Equal(t, 401, stolen.StatusCode)

	link, err := s.actions.Accounts.ResetAccount(t.Context(), action.Actor{Role: action.Curator}, 3)
	require.NoError(t, err)
	viewer := s.as(t, demo.Accounts[2])
	status, body := viewer.send("PUT", "/api/session/password",
		map[string]string{"current": demo.Accounts[2].Password, "wanted": "tide gauge under glass"})
	require.Equal(t, 204, status, body)
	status, _ = s.anybody(t).send("POST", "/api/welcome",
		map[string]string{"token": link.Token, "password": "tide gauge over glass"})
	require.Equal(t, 404, status)
	for _, common := range []string{"password123", "qwertyuiop", "1234567890", "fenna loach", "Password1!",
		"frugalheron", "aaaaaaaaaaaaaaa"} {
		status, body := viewer.send("PUT", "/api/session/password",
			map[string]string{"current": "tide gauge under glass", "wanted": common})
		require.Equal(t, 422, status, common)
		require.Contains(t, problemOf(t, body).Detail, "first that somebody tries", common)
	}
}

func sessionIn(cookies []*http.Cookie) string {
	for _, cookie := range cookies {
		if cookie.Name == "heron_session" {
			return cookie.Value
		}
	}
	return ""
}
