package web_test

import (
	"bytes"
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"os/exec"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/app"
	"frugalheron/app/inventory"
	"frugalheron/core/device/builtin"
	"frugalheron/demo"
	storeinventory "frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/storetest"
	"frugalheron/web"
)

// BenchmarkShelves answers lists, facets and searches over 20,000 machines with 1,000,000 entries.
// Each figure stands beside that of the same statements in psql on the same data, those that find out
// who is asking, and what is kept from them, among them: p95 of both in milliseconds, and the ratio of the medians.
// HERON_BENCH_MACHINES takes another number of machines.
func BenchmarkShelves(b *testing.B) {
	size := 20_000
	if text := os.Getenv("HERON_BENCH_MACHINES"); text != "" {
		var err error
		size, err = strconv.Atoi(text)
		require.NoError(b, err)
	}
	address := storetest.URL(b)
	db, err := pg.Open(b.Context(), address)
	require.NoError(b, err)
	b.Cleanup(func() { db.Close() })
	actions := app.New(db)
	require.NoError(b, demo.Seed(b.Context(), actions, func(string) {}))
	start := time.Now()
	require.NoError(b, demo.Generate(b.Context(), actions, size, func(string) {}))
	b.Logf("%d machines generated in %s", size, time.Since(start).Round(time.Second))
	_, err = db.Exec(`VACUUM ANALYZE`)
	require.NoError(b, err)

	server := web.New(db, actions, web.Config{})
	cookie := signedIn(b, server)
	who := []statement{
		of(`SELECT data FROM sessions WHERE token = $1 AND current_timestamp < expiry`, []any{cookie.Value}),
		of(`SELECT id, login, name, role, password_hash, created_at FROM account WHERE id = $1`, []any{3}),
		of(`SELECT n FROM privacy_state`, nil),
		of(`SELECT EXISTS (SELECT 1 FROM public_text)`, nil),
	}
	numbers := []string{}
	for _, t := range builtin.Library().Completions("74LS", 12) {
		numbers = append(numbers, t.Number)
	}
	middle := storeinventory.MachineQuery{Sort: "chips", Descending: true,
		After: &storeinventory.MachineKey{Value: "70", ID: 1 << 40}, Limit: 51}
	for _, c := range []struct {
		name, path string
		statements []statement
	}{
		page("first page", "", storeinventory.MachineQuery{Sort: "accession"}),
		page("most RAM first", "sort=ram&down=true", storeinventory.MachineQuery{Sort: "ram", Descending: true}),
		page("by maker", "sort=maker", storeinventory.MachineQuery{Sort: "maker"}),
		page("by place", "sort=place&down=true", storeinventory.MachineQuery{Sort: "place", Descending: true}),
		{"a page in the middle", "/api/machines?sort=chips&down=true&after=" + nextOf(middle.After),
			[]statement{of(storeinventory.MachinesStatement(middle))}},
		page("search for a word", "search=curlew",
			storeinventory.MachineQuery{Sort: "accession",
				MachineFilter: storeinventory.MachineFilter{Words: []string{"curlew"}}}),
		page("search for three words", "search=tarn+kiln+ferry",
			storeinventory.MachineQuery{Sort: "accession",
				MachineFilter: storeinventory.MachineFilter{Words: []string{"tarn", "kiln", "ferry"}}}),
		page("search for two letters", "search=e2",
			storeinventory.MachineQuery{Sort: "accession",
				MachineFilter: storeinventory.MachineFilter{Words: []string{"e2"}}}),
		page("two places", "place=Seed+loft,+bay+1&place=Net+store,+bay+2",
			storeinventory.MachineQuery{Sort: "accession",
				MachineFilter: storeinventory.MachineFilter{Places: []string{"Seed loft, bay 1", "Net store, bay 2"}}}),
		page("maker, year and state",
			"maker=Hollin+Electronics&year=1984&stage=needs+attention&sort=unidentified&down=true",
			storeinventory.MachineQuery{Sort: "unidentified", Descending: true,
				MachineFilter: storeinventory.MachineFilter{Makers: []string{"Hollin Electronics"}, Years: []int{1984},
					Stages: []string{"needs attention"}}}),
		page("holds a type", "type=41256&sort=name",
			storeinventory.MachineQuery{Sort: "name", MachineFilter: storeinventory.MachineFilter{Type: "41256"}}),
		{"facets of all", "/api/machines/facets",
			[]statement{of(storeinventory.FacetsStatement(storeinventory.MachineFilter{}))}},
		{"facets of some", "/api/machines/facets?maker=Hollin+Electronics&search=ferry",
			[]statement{
				of(storeinventory.FacetsStatement(storeinventory.MachineFilter{Makers: []string{"Hollin Electronics"},
					Words: []string{"ferry"}})),
			}},
		{"types offered", "/api/machines/holding?start=74LS",
			[]statement{of(storeinventory.HoldingStatement(storeinventory.MachineFilter{}, numbers))}},
	} {
		b.Run(strings.ReplaceAll(c.name, " ", "-"), func(b *testing.B) {
			took, inPsql := []float64{}, []float64{}
			statements := slices.Concat(who, c.statements)
			for b.Loop() {
				// In turns, so that whatever else the machine does slows both.
				if len(took)%inTurn == 0 && len(took) < mostInPsql {
					b.StopTimer()
					inPsql = append(inPsql, timeInPsql(b, address, statements, inTurn)...)
					b.StartTimer()
				}
				request := httptest.NewRequest(http.MethodGet, c.path, nil)
				request.AddCookie(cookie)
				answer := httptest.NewRecorder()
				start := time.Now()
				server.ServeHTTP(answer, request)
				took = append(took, float64(time.Since(start).Microseconds())/1000)
				require.Equal(b, http.StatusOK, answer.Code, answer.Body)
			}
			b.ReportMetric(quantile(took, 0.95), "p95-ms")
			b.ReportMetric(quantile(inPsql, 0.95), "psql-p95-ms")
			b.ReportMetric(quantile(took, 0.5)/quantile(inPsql, 0.5), "x-psql")
		})
	}
}

func signedIn(b *testing.B, server *web.Server) *http.Cookie {
	request := httptest.NewRequest(http.MethodPost, "/api/session",
		strings.NewReader(fmt.Sprintf(`{"login":%q,"password":%q}`, demo.Accounts[2].Login, demo.Accounts[2].Password)))
	request.Header.Set("Content-Type", "application/json")
	answer := httptest.NewRecorder()
	server.ServeHTTP(answer, request)
	require.Equal(b, http.StatusOK, answer.Code)
	return &http.Cookie{Name: "heron_session", Value: sessionIn(answer.Result().Cookies())}
}

type statement struct {
	text string
	args []any
}

func of(text string, args []any) statement { return statement{text, args} }

// page is a case that reads a first page: its rows, and how many there are.
func page(name, query string, q storeinventory.MachineQuery) struct {
	name, path string
	statements []statement
} {
	q.Limit = 51
	return struct {
		name, path string
		statements []statement
	}{name, "/api/machines?" + query,
		[]statement{of(storeinventory.CountStatement(q.MachineFilter)), of(storeinventory.MachinesStatement(q))}}
}

func nextOf(key *storeinventory.MachineKey) string { return url.QueryEscape(inventory.NextOf(*key)) }

// inTurn is how many rounds of one side are measured before the other, and mostInPsql how many in all.
const inTurn, mostInPsql = 10, 100

var timing = regexp.MustCompile(`(?m)^Time: ([0-9.]+) ms`)

// timeInPsql runs statements so many times in one psql and returns what psql says each round took.
func timeInPsql(b *testing.B, address string, statements []statement, times int) []float64 {
	script := &bytes.Buffer{}
	once := ""
	for _, s := range statements {
		once += s.literal() + ";\n"
	}
	// A first round without a clock fills the caches of the session.
	script.WriteString("\\o /dev/null\n" + once + "\\timing on\n" + strings.Repeat(once, times))
	psql := exec.Command("psql", "-X", "-q", "-v", "ON_ERROR_STOP=1", address)
	psql.Stdin = script
	said, err := psql.CombinedOutput()
	require.NoError(b, err, string(said))
	found := timing.FindAllSubmatch(said, -1)
	require.Len(b, found, times*len(statements))
	took := make([]float64, times)
	for i, match := range found {
		ms, err := strconv.ParseFloat(string(match[1]), 64)
		require.NoError(b, err)
		took[i/len(statements)] += ms
	}
	return took
}

// literal writes the statement with its arguments in it, the last first: $1 begins $10.
func (s statement) literal() string {
	text := strings.Join(strings.Fields(s.text), " ")
	for i, arg := range slices.Backward(s.args) {
		literal := fmt.Sprint(arg)
		switch value := arg.(type) {
		case string:
			literal = quoted(value)
		case []string:
			members := []string{}
			for _, member := range value {
				members = append(members, strconv.Quote(member))
			}
			literal = quoted("{" + strings.Join(members, ",") + "}")
		case []int:
			literal = quoted("{" + strings.Trim(strings.ReplaceAll(fmt.Sprint(value), " ", ","), "[]") + "}")
		}
		text = strings.ReplaceAll(text, fmt.Sprintf("$%d", i+1), literal)
	}
	return text
}

func quoted(text string) string { return "'" + strings.ReplaceAll(text, "'", "''") + "'" }

func quantile(values []float64, q float64) float64 {
	sorted := slices.Sorted(slices.Values(values))
	return sorted[int(q*float64(len(sorted)-1))]
}
