package web_test

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/app/accounts"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/demo"
)

// keyed sends a request with a key.
func (c *client) keyed(key, method, path string, body any) (int, string, http.Header) {
	response := c.do(method, path, body, http.Header{"Idempotency-Key": {key}})
	defer response.Body.Close()
	text, err := io.ReadAll(response.Body)
	require.NoError(c.t, err)
	return response.StatusCode, string(text), response.Header
}

func TestARequestSentAgainIsAnsweredAgain(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	machine := func(n int) map[string]string {
		return map[string]string{"accession": fmt.Sprintf("EH-%d", n), "name": "Sorter"}
	}
	// Many at once, as a phone that found its network again.
	answers := make([]string, 12)
	var all sync.WaitGroup
	for i := range answers {
		all.Go(func() {
			status, body, _ := c.keyed("one", "POST", "/api/machines", machine(7))
			answers[i] = fmt.Sprint(status, body)
		})
	}
	all.Wait()
	for _, answer := range answers {
		require.Equal(t, answers[0], answer)
	}
	require.True(t, strings.HasPrefix(answers[0], "201"), answers[0])
	_, _, header := c.keyed("one", "POST", "/api/machines", machine(7))
	require.Equal(t, "true", header.Get("Idempotency-Replayed"))
	events, err := s.actions.History.History(t.Context(), action.Actor{Role: action.Curator}, 0, 0, 50)
	require.NoError(t, err)
	entered := 0
	for _, e := range events.Events {
		if e.Accession == "EH-7" {
			entered++
		}
	}
	require.Equal(t, 1, entered)

	status, body, _ := c.keyed("one", "POST", "/api/machines", machine(8))
	require.Equal(t, 422, status)
	require.Contains(t, problemOf(t, body).Detail, "another request")
	// Another person's key is another key; what was refused may be sent again once it can be taken.
	status, body, _ = s.as(t, demo.Accounts[1]).keyed("one", "POST", s.path("/api/machines/{machine}/assemblies"),
		map[string]string{"title": "Card"})
	require.Equal(t, 201, status, body)
	status, _, _ = c.keyed("two", "POST", "/api/machines", machine(7))
	require.Equal(t, 422, status)
	status, _, _ = c.keyed("two", "POST", "/api/machines", machine(9))
	require.Equal(t, 201, status)
	status, _, _ = c.keyed("no spaces", "POST", "/api/machines", machine(10))
	require.Equal(t, 400, status)

	// What is shown once is kept nowhere: who asks again is told that it was done.
	status, body, _ = c.keyed("three", "POST", "/api/accounts",
		map[string]string{"login": "ida", "name": "Ida", "role": "viewer"})
	require.Equal(t, 201, status, body)
	var link accounts.Link
	require.NoError(t, json.Unmarshal([]byte(body), &link))
	var kept int
	require.NoError(t, s.db.Get(&kept,
		`SELECT count(*) FROM request_key WHERE position(convert_to($1, 'UTF8') IN body) > 0`, link.Token))
	require.Zero(t, kept)
	status, body, _ = c.keyed("three", "POST", "/api/accounts",
		map[string]string{"login": "ida", "name": "Ida", "role": "viewer"})
	require.Equal(t, 409, status)
	require.Contains(t, problemOf(t, body).Detail, "shown once")
}

// The server dies between the action and its answer, or before the action: the action is done once in either case.
func TestADeedWhoseAnswerWasLostIsNotDoneTwice(t *testing.T) {
	s := newSite(t)
	curator := action.Actor{AccountID: 1, Role: action.Curator}
	request := action.Request{Key: "k", Fingerprint: "f", GivenUp: 0}
	_, before, err := s.actions.Kernel.Begin(t.Context(), curator, request)
	require.NoError(t, err)
	require.Nil(t, before)
	// It died before it did anything: whoever asks again begins anew.
	begun, before, err := s.actions.Kernel.Begin(t.Context(), curator, request)
	require.NoError(t, err)
	require.Nil(t, before)
	_, err = s.actions.Inventory.CreateMachine(begun, curator,
		inventory.MachineInput{Accession: "EH-8", Name: "Sorter"})
	require.NoError(t, err)
	_, _, err = s.actions.Kernel.Begin(t.Context(), curator, request)
	require.ErrorIs(t, err, action.ErrAnswerLost)
	// A action that failed marks nothing.
	request.Key = "other"
	begun, _, err = s.actions.Kernel.Begin(t.Context(), curator, request)
	require.NoError(t, err)
	_, err = s.actions.Inventory.CreateMachine(begun, curator,
		inventory.MachineInput{Accession: "EH-8", Name: "Twice"})
	require.Error(t, err)
	_, before, err = s.actions.Kernel.Begin(context.Background(), curator, request)
	require.NoError(t, err)
	require.Nil(t, before)
}

// A page of somebody in whose browser somebody else has signed in since: what it sends is nobody's, and so nothing.
func TestAChangeOfSomebodyElseIsNotMine(t *testing.T) {
	s := newSite(t)
	c := s.as(t, demo.Accounts[0])
	mine := ask[struct{ Account struct{ ID int64 } }](c, "GET", "/api/session", nil).Account.ID
	send := func(of string) int {
		response := c.do("POST", "/api/machines", map[string]string{"accession": "EH-9" + of, "name": "Sorter"},
			http.Header{"Heron-Account": {of}})
		response.Body.Close()
		return response.StatusCode
	}
	for _, of := range []string{fmt.Sprint(mine + 1), "0", "-1", "x", fmt.Sprintf("0%d", mine)} {
		require.Equal(t, http.StatusUnauthorized, send(of), of)
	}
	require.Equal(t, http.StatusCreated, send(fmt.Sprint(mine)))
}

// The service worker fetches by its own policy, and is asked for anew each time.
func TestTheServiceWorkerMayFetch(t *testing.T) {
	s := newSite(t)
	response := s.anybody(t).do("GET", "/sw.js", nil, nil)
	response.Body.Close()
	if response.Header.Get("Content-Type") != "text/javascript; charset=utf-8" {
		t.Skip("the front end is not built")
	}
	require.Contains(t, response.Header.Get("Content-Security-Policy"), "connect-src 'self'")
	require.Equal(t, "no-cache", response.Header.Get("Cache-Control"))
}
