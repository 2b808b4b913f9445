package web_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"strings"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/action"
	"frugalheron/app/inventory"
	"frugalheron/demo"
	"frugalheron/store/blobs"
	"frugalheron/store/storetest"
	"frugalheron/web"
	"frugalheron/web/httpx"
)

func TestMain(m *testing.M) { storetest.Main(m) }

// site is a served application with an account of each role, a machine and a board.
type site struct {
	*httptest.Server
	server  *web.Server
	db      *sqlx.DB
	actions *app.App
	board   inventory.Assembly
	files   string // folder of the store of files
}

func newSite(t testing.TB) *site {
	s := emptySite(t)
	for _, account := range demo.Accounts {
		_, err := s.actions.Accounts.AddAccount(t.Context(), account.Login, account.Name, account.Role,
			account.Password)
		require.NoError(t, err)
	}
	machine, err := s.actions.Inventory.CreateMachine(t.Context(), action.Actor{Role: action.Curator},
		inventory.MachineInput{Accession: "EH-0142", Name: "Meridian 2"})
	require.NoError(t, err)
	added, err := s.actions.Sheets.TakeOverSheet(t.Context(), action.Actor{Role: action.Curator}, machine.ID,
		"== Main board\nU1 74LS00 8501")
	require.NoError(t, err)
	s.board = added[0]
	return s
}

// emptySite is a served application on an empty database.
func emptySite(t testing.TB) *site {
	db := storetest.New(t)
	files := t.TempDir()
	kept, err := blobs.Open(t.Context(), files)
	require.NoError(t, err)
	actions := app.New(db).WithBlobs(kept)
	s := &site{db: db, files: files, actions: actions, server: web.New(db, actions, web.Config{})}
	s.Server = httptest.NewServer(s.server)
	t.Cleanup(s.Close)
	return s
}

// client speaks to a site as a browser does, with the cookies of one person.
type client struct {
	t    testing.TB
	site *site
	http http.Client
}

func (s *site) anybody(t testing.TB) *client {
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return &client{t, s, http.Client{Jar: jar}}
}

func (s *site) as(t testing.TB, account demo.Account) *client {
	c := s.anybody(t)
	status, _ := c.send("POST", "/api/session", map[string]string{"login": account.Login, "password": account.Password})
	require.Equal(t, 200, status)
	return c
}

// send makes a request and returns status and body.
func (c *client) send(method, path string, body any) (int, string) {
	response := c.do(method, path, body, nil)
	defer response.Body.Close()
	text, err := io.ReadAll(response.Body)
	require.NoError(c.t, err)
	return response.StatusCode, string(text)
}

func (c *client) do(method, path string, body any, header http.Header) *http.Response {
	var reader io.Reader
	if body != nil {
		encoded, err := json.Marshal(body)
		require.NoError(c.t, err)
		reader = bytes.NewReader(encoded)
	}
	request, err := http.NewRequest(method, c.site.URL+path, reader)
	require.NoError(c.t, err)
	request.Header.Set("Content-Type", "application/json")
	for name, values := range header {
		request.Header[name] = values
	}
	response, err := c.http.Do(request)
	require.NoError(c.t, err)
	return response
}

// upload sends a file as it is and returns status and body.
func (c *client) upload(path, name string, data []byte) (int, string) {
	response, err := c.http.Post(c.site.URL+path+"?name="+url.QueryEscape(name), "application/octet-stream",
		bytes.NewReader(data))
	require.NoError(c.t, err)
	defer response.Body.Close()
	text, err := io.ReadAll(response.Body)
	require.NoError(c.t, err)
	return response.StatusCode, string(text)
}

// problemOf decodes problem details.
func problemOf(t testing.TB, body string) httpx.Problem {
	var p httpx.Problem
	require.NoError(t, json.Unmarshal([]byte(body), &p), body)
	require.NotEmpty(t, p.Title)
	require.NotEmpty(t, p.Detail)
	return p
}

func (s *site) path(format string) string {
	return strings.NewReplacer("{machine}", fmt.Sprint(*s.board.MachineID), "{board}",
		fmt.Sprint(s.board.ID)).Replace(format)
}
