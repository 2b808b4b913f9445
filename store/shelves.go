package store

import (
	"context"
	"fmt"
	"strconv"
	"strings"
	"unicode/utf8"
)

// ListedMachine is a machine as lists show it: with the sums of the boards fitted today.
type ListedMachine struct {
	Machine
	Boards       int    `db:"boards" json:"boards"`
	Chips        int    `db:"chips" json:"chips"`
	Unidentified int    `db:"unidentified" json:"unidentified"`
	RAMBytes     int64  `db:"ram_bytes" json:"ramBytes" doc:"Data without parity"`
	ROMBytes     int64  `db:"rom_bytes" json:"romBytes"`
	Stage        string `db:"stage" json:"stage" enum:"untouched,in hand,needs attention,settled" doc:"How far taking stock has come"`
	Attention    int    `db:"attention" json:"attention" doc:"What needs attention: problems and unknown chips"`
	SortedBy     string `db:"sorted_by" json:"-"` // value of the column that the page is sorted by
}

// MachineFilter narrows a list of machines. What is empty does not narrow; of several values one
// has to fit.
type MachineFilter struct {
	Words  []string // each must occur in the machine's record or place
	Places []string
	Makers []string
	Years  []int // first years in which parts are expected
	Stages []string
	Type   string // number of a type that stands on one of its sheets
}

// MachineQuery selects a page of machines.
type MachineQuery struct {
	MachineFilter
	Sort       string // one of MachineSorts
	Descending bool
	After      *MachineKey // the last machine of the page before; nil for the first page
	Limit      int
}

// MachineKey is where a page ends: the value that it is sorted by, and the id for equal ones.
type MachineKey struct {
	Value string `json:"v"`
	ID    int64  `json:"i"`
}

type machineSort struct{ expression, kind string }

// Takes reports whether a value can be one that a page sorted this way ends with.
func (s machineSort) Takes(value string) bool {
	if s.kind == "bigint" {
		_, err := strconv.ParseInt(value, 10, 64)
		return err == nil
	}
	return utf8.ValidString(value) && !strings.Contains(value, "\x00")
}

// MachineSorts are the columns that lists can be sorted by.
var MachineSorts = map[string]machineSort{
	"accession": {"m.accession", "text"}, "name": {"lower(m.name)", "text"}, "maker": {"lower(m.maker || ' ' || m.model)", "text"},
	"place": {"lower(COALESCE(p.name, ''))", "text"}, "year": {"COALESCE(m.era_from, 9999)", "bigint"},
	"boards": {"s.boards", "bigint"}, "chips": {"s.chips", "bigint"}, "unidentified": {"s.unidentified", "bigint"},
	"ram": {"s.ram_bytes", "bigint"}, "rom": {"s.rom_bytes", "bigint"},
}

const machinesFrom = ` FROM machine m JOIN machine_sum s ON s.machine_id = m.id LEFT JOIN place p ON p.id = m.place_id `

// MachinesStatement writes the statement that reads a page, and its arguments.
func MachinesStatement(q MachineQuery) (string, []any) {
	where, args := q.condition()
	sort := MachineSorts[q.Sort]
	order, beyond := "ASC", ">"
	if q.Descending {
		order, beyond = "DESC", "<"
	}
	if q.After != nil {
		args = append(args, q.After.Value, q.After.ID)
		where += fmt.Sprintf(" AND (%s, m.id) %s (CAST($%d AS %s), $%d)", sort.expression, beyond, len(args)-1, sort.kind, len(args))
	}
	args = append(args, q.Limit)
	return fmt.Sprintf(`SELECT %s, s.boards, s.chips, s.unidentified, s.ram_bytes, s.rom_bytes, s.stage, s.attention, CAST(%s AS text) AS sorted_by`+
		machinesFrom+`WHERE %s ORDER BY %s %s, m.id %s LIMIT $%d`,
		machineColumns, sort.expression, where, sort.expression, order, order, len(args)), args
}

// ListMachines reads a page.
func ListMachines(ctx context.Context, h Handle, q MachineQuery) ([]ListedMachine, error) {
	statement, args := MachinesStatement(q)
	machines := []ListedMachine{}
	err := h.SelectContext(ctx, &machines, statement, args...)
	return machines, err
}

// CountStatement writes the statement that counts the machines a filter leaves.
func CountStatement(f MachineFilter) (string, []any) {
	where, args := f.condition()
	from := machinesFrom
	if len(f.Words)+len(f.Places)+len(f.Stages) == 0 {
		from = " FROM machine m "
	}
	return `SELECT count(*)` + from + `WHERE ` + where, args
}

// CountMachines counts the machines that a filter leaves.
func CountMachines(ctx context.Context, h Handle, f MachineFilter) (int, error) {
	statement, args := CountStatement(f)
	var n int
	err := h.GetContext(ctx, &n, statement, args...)
	return n, err
}

// FacetCount is how many machines have a value, with all filters but those on the same facet.
type FacetCount struct {
	Facet string `db:"facet" json:"-"`
	Value string `db:"value" json:"value" doc:"Empty for machines of which it is not known"`
	Count int    `db:"count" json:"count"`
}

// facets are what lists can be narrowed by, each with its value in the statement below.
var facets = []struct{ name, value string }{
	{"place", "place"}, {"maker", "maker"}, {"year", "CAST(year AS text)"}, {"stage", "stage"},
}

// mostFacetValues bounds the values of one facet; those with most machines come first.
const mostFacetValues = 100

// FacetsStatement writes the statement that counts machines by the values of each facet.
func FacetsStatement(f MachineFilter) (string, []any) {
	common := f
	common.Places, common.Makers, common.Years, common.Stages = nil, nil, nil, nil
	where, args := common.condition()
	parts := []string{}
	for _, facet := range facets {
		own := MachineFilter{Places: f.Places, Makers: f.Makers, Years: f.Years, Stages: f.Stages}
		narrowed, more := own.hitCondition(facet.name, len(args))
		args = append(args, more...)
		parts = append(parts, fmt.Sprintf(`(SELECT '%s' AS facet, COALESCE(%s, '') AS value, count(*) AS count FROM hit WHERE %s
			GROUP BY 2 ORDER BY 3 DESC, 2 LIMIT %d)`, facet.name, facet.value, narrowed, mostFacetValues))
	}
	return `WITH hit AS MATERIALIZED (SELECT COALESCE(p.name, '') AS place, m.maker, m.era_from AS year, s.stage` + machinesFrom +
		`WHERE ` + where + `) ` + strings.Join(parts, " UNION ALL "), args
}

// CountFacets counts machines by the values of each facet.
func CountFacets(ctx context.Context, h Handle, f MachineFilter) ([]FacetCount, error) {
	statement, args := FacetsStatement(f)
	counts := []FacetCount{}
	err := h.SelectContext(ctx, &counts, statement, args...)
	return counts, err
}

// HoldingStatement writes the statement that counts, for each type number, the machines that hold
// it, among those that a filter leaves, apart from its own type.
func HoldingStatement(f MachineFilter, numbers []string) (string, []any) {
	f.Type = ""
	where, args := f.condition()
	from := ` FROM machine_type t `
	if where != "true" {
		from = machinesFrom + `JOIN machine_type t ON t.machine_id = m.id `
	}
	args = append(args, numbers)
	return fmt.Sprintf(`SELECT 'type' AS facet, t.type_number AS value, count(*) AS count`+from+
		`WHERE %s AND t.type_number = ANY (CAST($%d AS text[])) GROUP BY t.type_number ORDER BY count DESC, value`, where, len(args)), args
}

// CountHolding counts them. Numbers that no machine holds are missing.
func CountHolding(ctx context.Context, h Handle, f MachineFilter, numbers []string) ([]FacetCount, error) {
	statement, args := HoldingStatement(f, numbers)
	counts := []FacetCount{}
	err := h.SelectContext(ctx, &counts, statement, args...)
	return counts, err
}

// condition writes the filter for machines m, their sums s and places p.
func (f MachineFilter) condition() (string, []any) {
	where, args := []string{"true"}, []any{}
	add := func(format string, arg any) {
		args = append(args, arg)
		where = append(where, strings.ReplaceAll(format, "$", fmt.Sprintf("$%d", len(args))))
	}
	for _, word := range f.Words {
		add(`(m.search LIKE $ OR m.place_id IN (SELECT id FROM place WHERE lower(name) LIKE $))`, "%"+likeEscaper.Replace(strings.ToLower(word))+"%")
	}
	if len(f.Places) > 0 {
		add(`COALESCE(p.name, '') = ANY (CAST($ AS text[]))`, f.Places)
	}
	if len(f.Makers) > 0 {
		add(`m.maker = ANY (CAST($ AS text[]))`, f.Makers)
	}
	if len(f.Years) > 0 {
		add(`m.era_from = ANY (CAST($ AS integer[]))`, f.Years)
	}
	if len(f.Stages) > 0 {
		add(`s.stage = ANY (CAST($ AS text[]))`, f.Stages)
	}
	if f.Type != "" {
		add(`m.id IN (SELECT machine_id FROM machine_type WHERE type_number = $)`, f.Type)
	}
	return strings.Join(where, " AND "), args
}

// hitCondition writes the filters on facets other than one, for the rows that FacetsStatement
// counts; offset arguments come before its own.
func (f MachineFilter) hitCondition(except string, offset int) (string, []any) {
	where, args := []string{"true"}, []any{}
	add := func(facet, format string, given bool, arg any) {
		if given && facet != except {
			args = append(args, arg)
			where = append(where, fmt.Sprintf(format, offset+len(args)))
		}
	}
	add("place", `place = ANY (CAST($%d AS text[]))`, len(f.Places) > 0, f.Places)
	add("maker", `maker = ANY (CAST($%d AS text[]))`, len(f.Makers) > 0, f.Makers)
	add("year", `year = ANY (CAST($%d AS integer[]))`, len(f.Years) > 0, f.Years)
	add("stage", `stage = ANY (CAST($%d AS text[]))`, len(f.Stages) > 0, f.Stages)
	return strings.Join(where, " AND "), args
}
