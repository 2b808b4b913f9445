package web_test

import (
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/accounts"
	"frugalheron/app/history"
	"frugalheron/demo"
	webaccounts "frugalheron/web/accounts"
)

// Somebody is invited, sets a password by the link, is given another role, locked out, and let in.
func TestAnAccountFromInvitationToTheEnd(t *testing.T) {
	s := newSite(t)
	curator := s.as(t, demo.Accounts[0])
	link := ask[accounts.Link](curator, "POST", "/api/accounts",
		map[string]string{"login": "Ida", "name": "Ida Reed", "role": "viewer"})
	refused := func(c *client, method, path string, body any, want int, field string) {
		status, text := c.send(method, path, body)
		require.Equal(t, want, status, text)
		if field != "" {
			require.Equal(t, "body."+field, problemOf(t, text).Errors[0].Location)
		}
	}
	refused(curator, "POST", "/api/accounts", map[string]string{"login": "ida", "name": "", "role": "viewer"}, 422,
		"login")
	refused(s.anybody(t), "POST", "/api/session", map[string]string{"login": "Ida", "password": "anything at all"}, 401,
		"")

	ida := s.anybody(t)
	require.Equal(t, webaccounts.Welcomed{Login: "Ida", Name: "Ida Reed"},
		ask[webaccounts.Welcomed](ida, "POST", "/api/welcome/check", map[string]string{"token": link.Token}))
	refused(ida, "POST", "/api/welcome", map[string]string{"token": link.Token, "password": "short"}, 422, "password")
	status, _ := ida.send("POST", "/api/welcome",
		map[string]string{"token": link.Token, "password": "a reed in the wind"})
	require.Equal(t, 200, status)
	refused(ida, "POST", "/api/welcome", map[string]string{"token": link.Token, "password": "a reed in the wind"}, 404,
		"")
	refused(ida, "PUT", s.path("/api/assemblies/{board}/sheet"), map[string]any{"base": 1, "body": ""}, 403, "")

	path := fmt.Sprintf("/api/accounts/%d", link.Account.ID)
	changed := ask[accounts.AccountView](curator, "PUT", path,
		map[string]any{"version": 1, "name": "Ida Reed", "role": "technician"})
	require.Equal(t, "technician", changed.Role)
	refused(curator, "PUT", path, map[string]any{"version": 1, "name": "Ida Reed", "role": "curator"}, 409, "")
	status, _ = ida.send("PUT", s.path("/api/assemblies/{board}/sheet"), map[string]any{"base": 1, "body": "U2 7400"})
	require.Equal(t, 200, status) // at once, in the session that is open

	ask[accounts.AccountView](curator, "PUT", path,
		map[string]any{"version": 2, "name": "Ida Reed", "role": "technician", "disabled": true})
	refused(ida, "GET", "/api/machines", nil, 401, "")
	refused(ida, "POST", "/api/session", map[string]string{"login": "Ida", "password": "a reed in the wind"}, 401, "")
	refused(curator, "POST", path+"/link", nil, 422, "id")
	ask[accounts.AccountView](curator, "PUT", path,
		map[string]any{"version": 3, "name": "Ida Reed", "role": "technician"})
	status, _ = ida.send("POST", "/api/session", map[string]string{"login": "Ida", "password": "a reed in the wind"})
	require.Equal(t, 200, status)

	// A reset replaces the password once it is set, and ends what was open with the old one.
	link = ask[accounts.Link](curator, "POST", path+"/link", nil)
	status, _ = s.anybody(t).send("POST", "/api/welcome",
		map[string]string{"token": link.Token, "password": "another reed"})
	require.Equal(t, 200, status)
	refused(ida, "GET", "/api/machines", nil, 401, "")

	// Curators cannot shut themselves out, and nobody else gets at accounts.
	listed := ask[[]accounts.ListedAccountView](curator, "GET", "/api/accounts", nil)
	require.Len(t, listed, 4)
	for _, account := range listed {
		if account.Login == demo.Accounts[0].Login {
			refused(curator, "PUT", fmt.Sprintf("/api/accounts/%d", account.ID),
				map[string]any{"version": 1, "name": "O", "role": "viewer"}, 422, "role")
		}
	}
	history := ask[history.EventPage](curator, "GET", "/api/history?limit=10", nil)
	told := []string{}
	for _, e := range history.Events {
		told = append(told, e.What)
	}
	require.Subset(t, told, []string{"invited Ida (viewer)", "changed the account Ida: role from viewer to technician",
		"changed the account Ida: may sign in from yes to no", "made a link to reset the password of Ida"})
}

func TestSessionsAreListedAndEnded(t *testing.T) {
	s := newSite(t)
	here, there, other := s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[1]), s.as(t, demo.Accounts[2])
	sessions := ask[[]webaccounts.Session](here, "GET", "/api/session/all", nil)
	require.Len(t, sessions, 2)
	for _, session := range sessions {
		require.Equal(t, "127.0.0.1", session.Address)
		require.False(t, session.Started.IsZero())
		if session.IsThis {
			continue
		}
		status, _ := other.send("DELETE", "/api/session/all/"+session.Key, nil)
		require.Equal(t, http.StatusNotFound, status) // it is not theirs
		status, _ = here.send("DELETE", "/api/session/all/"+session.Key, nil)
		require.Equal(t, http.StatusNoContent, status)
	}
	for c, want := range map[*client]int{here: 200, there: 401, other: 200} {
		status, _ := c.send("GET", "/api/machines", nil)
		require.Equal(t, want, status)
	}
}
