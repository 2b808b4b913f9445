package store_test

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/jmoiron/sqlx"
	"github.com/stretchr/testify/require"

	"frugalheron/store/inventory"
	"frugalheron/store/storetest"
)

var (
	shelfPlaces = []string{"", "Loft", "Rope walk, bay 1", "Rope walk, bay 2"}
	shelfMakers = []string{"", "Tarn & Vole", "Hollin Electronics"}
	shelfStages = []string{"untouched", "settled", "needs attention"}
	shelfTypes  = []string{"", "4164", "27128"}
)

// shelf fills a database with machines whose values repeat, so that order among equals counts.
func shelf(t *testing.T) (*sqlx.DB, []inventory.ListedMachine) {
	db := storetest.New(t)
	machines := []inventory.ListedMachine{}
	for i := range 61 {
		m := inventory.ListedMachine{
			Accession: fmt.Sprintf("EH-%04d", (i*37)%61), Name: fmt.Sprintf("Machine %d", i%5), Maker: shelfMakers[i%3],
			Place: shelfPlaces[(i/2)%4],
		}
		if year := 1980 + i%6; year != 1985 {
			m.EraFrom = &year
		}
		if i == 60 {
			m.Name = `100% _odd_ \ name`
		}
		m.Chips, m.RAMBytes, m.Stage = i%7*9, int64(i%4)<<40, shelfStages[i%3]
		m.Disputed = max(0, i%5-2)
		var err error
		m.ID, err = inventory.InsertMachine(ctx, db, inventory.MachineFields{
			Accession: m.Accession, Name: m.Name, Maker: m.Maker, Place: m.Place, EraFrom: m.EraFrom, EraTo: m.EraFrom,
		})
		require.NoError(t, err)
		require.NoError(t, inventory.InsertMachineSum(ctx, db, m.ID))
		_, err = db.Exec(
			`UPDATE machine_sum SET chips = $2, ram_bytes = $3, stage = $4, disputed = $5 WHERE machine_id = $1`, m.ID,
			m.Chips, m.RAMBytes, m.Stage, m.Disputed)
		require.NoError(t, err)
		if number := shelfTypes[i%len(shelfTypes)]; number != "" {
			_, err = db.Exec(`INSERT INTO machine_type (type_number, machine_id, parts) VALUES ($1, $2, 1)`, number,
				m.ID)
			require.NoError(t, err)
		}
		machines = append(machines, m)
	}
	return db, machines
}

// fits says the same as the statements, in Go.
func fits(m inventory.ListedMachine, i int, f inventory.MachineFilter) bool {
	text := strings.ToLower(strings.Join([]string{m.Accession, m.Name, m.Maker, m.Place}, " "))
	for _, word := range f.Words {
		if !strings.Contains(text, strings.ToLower(word)) {
			return false
		}
	}
	year := m.EraFrom != nil && slices.Contains(f.Years, *m.EraFrom)
	return (len(f.Places) == 0 || slices.Contains(f.Places, m.Place)) &&
		(len(f.Makers) == 0 || slices.Contains(f.Makers, m.Maker)) &&
		(len(f.Years) == 0 || year) && (len(f.Stages) == 0 || slices.Contains(f.Stages, m.Stage)) &&
		(len(f.Statements) == 0 || slices.Contains(f.Statements, statementOf(m))) &&
		(f.Type == "" || shelfTypes[i%len(shelfTypes)] == f.Type)
}

func statementOf(m inventory.ListedMachine) string {
	if m.Disputed > 0 {
		return "disputed"
	}
	return "not disputed"
}

var shelfFilters = []inventory.MachineFilter{
	{}, {Words: []string{"machine", "3"}}, {Words: []string{"MACHINE", "eh-0003"}}, {Words: []string{"%"}},
	{Words: []string{`\`}}, {Words: []string{"'; drop"}},
	{Words: []string{"bay"}}, {Places: []string{"Loft", ""}},
	{Makers: []string{"Tarn & Vole"}, Stages: []string{"untouched", "settled"}},
	{Years: []int{1981, 1984}}, {Type: "4164", Places: []string{"Loft"}},
	{Words: []string{"machine"}, Years: []int{1982}, Type: "27128"},
	{Statements: []string{"disputed"}, Makers: []string{"Tarn & Vole"}},
}

// Pages of any size, sorted by any column either way, hold every machine that fits once, in order.
func TestMachinesPageInEveryOrder(t *testing.T) {
	db, machines := shelf(t)
	less := map[string]func(a, b inventory.ListedMachine) int{
		"accession": func(a, b inventory.ListedMachine) int { return cmp.Compare(a.Accession, b.Accession) },
		"name": func(a, b inventory.ListedMachine) int {
			return cmp.Compare(strings.ToLower(a.Name), strings.ToLower(b.Name))
		},
		"maker": func(a, b inventory.ListedMachine) int {
			return cmp.Compare(strings.ToLower(a.Maker), strings.ToLower(b.Maker))
		},
		"place": func(a, b inventory.ListedMachine) int {
			return cmp.Compare(strings.ToLower(a.Place), strings.ToLower(b.Place))
		},
		"year":  func(a, b inventory.ListedMachine) int { return cmp.Compare(yearOf(a), yearOf(b)) },
		"chips": func(a, b inventory.ListedMachine) int { return cmp.Compare(a.Chips, b.Chips) },
		"ram":   func(a, b inventory.ListedMachine) int { return cmp.Compare(a.RAMBytes, b.RAMBytes) },
	}
	for n, filter := range shelfFilters {
		fitting := []inventory.ListedMachine{}
		for i, m := range machines {
			if fits(m, i, filter) {
				fitting = append(fitting, m)
			}
		}
		count, err := inventory.CountMachines(ctx, db, filter)
		require.NoError(t, err)
		require.Equal(t, len(fitting), count, filter)
		for sort, compare := range less {
			for _, down := range []bool{false, true} {
				slices.SortFunc(fitting, func(a, b inventory.ListedMachine) int {
					order := cmp.Or(compare(a, b), cmp.Compare(a.ID, b.ID))
					if down {
						return -order
					}
					return order
				})
				q := inventory.MachineQuery{MachineFilter: filter, Sort: sort, Descending: down,
					Limit: 1 + (n*7+len(sort))%23}
				require.Equal(t, accessions(fitting), accessions(allPages(t, db, q)), "%v", q)
			}
		}
	}
}

func allPages(t *testing.T, db *sqlx.DB, q inventory.MachineQuery) []inventory.ListedMachine {
	all := []inventory.ListedMachine{}
	for {
		page, err := inventory.ListMachines(ctx, db, q)
		require.NoError(t, err)
		all = append(all, page...)
		if len(page) < q.Limit {
			return all
		}
		last := page[len(page)-1]
		q.After = &inventory.MachineKey{Value: last.SortedBy, ID: last.ID}
	}
}

func yearOf(m inventory.ListedMachine) int {
	if m.EraFrom == nil {
		return 9999
	}
	return *m.EraFrom
}

func accessions(machines []inventory.ListedMachine) []string {
	names := []string{}
	for _, m := range machines {
		names = append(names, m.Accession)
	}
	return names
}

// Each facet counts with all filters but its own.
func TestFacetsCountWithoutTheirOwnFilter(t *testing.T) {
	db, machines := shelf(t)
	for _, filter := range shelfFilters {
		want := map[string]int{}
		for i, m := range machines {
			for facet, except := range map[string]func(f *inventory.MachineFilter){
				"place " + m.Place:            func(f *inventory.MachineFilter) { f.Places = nil },
				"maker " + m.Maker:            func(f *inventory.MachineFilter) { f.Makers = nil },
				"stage " + m.Stage:            func(f *inventory.MachineFilter) { f.Stages = nil },
				"statement " + statementOf(m): func(f *inventory.MachineFilter) { f.Statements = nil },
			} {
				others := filter
				except(&others)
				if fits(m, i, others) {
					want[facet]++
				}
			}
		}
		counts, err := inventory.CountFacets(ctx, db, filter)
		require.NoError(t, err)
		got := map[string]int{}
		for _, c := range counts {
			if c.Facet != "year" {
				got[c.Facet+" "+c.Value] = c.Count
			}
		}
		require.Equal(t, want, got, "%v", filter)
	}
	holding, err := inventory.CountHolding(ctx, db, inventory.MachineFilter{Places: []string{"Loft"}, Type: "ignored"},
		[]string{"4164", "9999"})
	require.NoError(t, err)
	n, err := inventory.CountMachines(ctx, db, inventory.MachineFilter{Places: []string{"Loft"}, Type: "4164"})
	require.NoError(t, err)
	require.Equal(t, []inventory.FacetCount{{Facet: "type", Value: "4164", Count: n}}, holding)
}
