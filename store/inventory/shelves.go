package inventory

import (
	"cmp"
	"context"
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"frugalheron/store/people"
	"frugalheron/store/pg"
)

// ListedMachine is what lists show of a machine, with the sums of the boards fitted today.
type ListedMachine struct {
	ID             int64  `db:"id"`
	Accession      string `db:"accession"`
	Name           string `db:"name"`
	Maker          string `db:"maker"`
	Model          string `db:"model"`
	Place          string `db:"place"`
	EraFrom        *int   `db:"era_from"` // first year in which its parts are expected
	Boards         int    `db:"boards"`
	Chips          int    `db:"chips"`
	Unidentified   int    `db:"unidentified"`
	RAMBytes       int64  `db:"ram_bytes"` // data without parity
	ROMBytes       int64  `db:"rom_bytes"`
	Stage          string `db:"stage"`           // how far taking stock has come
	Attention      int    `db:"attention"`       // what needs attention: problems and unknown chips
	Disputed       int    `db:"disputed"`        // attributes about which equally strong sources differ
	MemoryDisputed bool   `db:"memory_disputed"` // how much memory it has is one of them
	PictureID      int64  `db:"picture_id"`      // the one by which it is known; 0 for none
	SortedBy       string `db:"sorted_by"`       // value of the column that the page is sorted by
}

// MachineFilter narrows a list of machines. What is empty does not narrow; of several values one
// has to fit.
type MachineFilter struct {
	IDs    []int64  // these alone, where some are given
	Words  []string // each must occur in the machine's record or place
	Places []string
	Makers []string
	Years  []int // first years in which parts are expected
	Stages []string
	Type   string // number of a type that stands on one of its sheets
	// Statements are "disputed" or "not disputed".
	Statements []string
	// Public looks at nothing that others than staff may not see: searches, values and the order of a list.
	Public bool
}

// disputedColumn says in words whether something about a machine is disputed.
const disputedColumn = `CASE WHEN %s THEN 'disputed' ELSE 'not disputed' END`

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

// MachineSorts are the columns that lists can be sorted by. Those of the machine's record come from
// its row, the others from the narrow row of its sums.
var MachineSorts = map[string]machineSort{
	"accession": {"m.accession", "text"}, "name": {"lower(m.name)", "text"},
	"maker": {"lower(m.maker || ' ' || m.model)", "text"},
	"place": {"lower(COALESCE(p.name, ''))", "text"}, "year": {"COALESCE(s.era_from, 9999)", "bigint"},
	"chips": {"s.chips", "bigint"}, "unidentified": {"s.unidentified", "bigint"}, "ram": {"s.ram_bytes", "bigint"},
	"rom": {"s.rom_bytes", "bigint"},
}

// publicSorts stand in the place of columns in which a private person may be named.
var publicSorts = map[string]machineSort{
	"name":  {"lower(" + people.PublicOr(people.PublicMachineName, "m.id", "m.name") + ")", "text"},
	"maker": {"lower(" + people.PublicOr(people.PublicMaker, "m.id", "m.maker") + " || ' ' || m.model)", "text"},
	"place": {"lower(COALESCE(" + people.PublicOr(people.PublicPlace, "p.id", "p.name") + ", ''))", "text"},
}

// from joins what the column needs, and names the id that stands in the same index.
func (s machineSort) from() (tables, id string) {
	switch {
	case strings.Contains(s.expression, "m."):
		return "machine_sum s JOIN machine m ON m.id = s.machine_id", "m.id"
	case strings.Contains(s.expression, "p."):
		return "machine_sum s LEFT JOIN place p ON p.id = s.place_id", "s.machine_id"
	}
	return "machine_sum s", "s.machine_id"
}

// MachinesStatement writes the statement that reads a page, and its arguments. The page is found in
// narrow rows first; only its own machines are read in full.
func MachinesStatement(q MachineQuery) (string, []any) {
	where, args := q.condition("s")
	sort := MachineSorts[q.Sort]
	if public, ok := publicSorts[q.Sort]; ok && q.Public {
		sort = public
	}
	from, id := sort.from()
	order, beyond := "ASC", ">"
	if q.Descending {
		order, beyond = "DESC", "<"
	}
	if q.After != nil {
		args = append(args, q.After.Value, q.After.ID)
		where += fmt.Sprintf(" AND (%s, %s) %s (CAST($%d AS %s), $%d)", sort.expression, id, beyond, len(args)-1,
			sort.kind, len(args))
	}
	args = append(args, q.Limit)
	return fmt.Sprintf(`SELECT m.id, m.accession, m.name, m.maker, m.model, COALESCE(p.name, '') AS place, m.era_from,
		s.boards, s.chips, s.unidentified, s.ram_bytes, s.rom_bytes, s.stage, s.attention, s.disputed,
		s.memory_disputed, CAST(s.sorted_by AS text) AS sorted_by, COALESCE((SELECT t.id FROM attachment t
			WHERE t.machine_id = m.id AND t.kind = 'picture' AND NOT t.voided AND NOT t.staff_only
			ORDER BY t.portrait_since DESC NULLS LAST,
				array_position(ARRAY['front', 'top', 'left', 'right', 'rear'], t.view) NULLS LAST, t.id LIMIT 1), 0) AS picture_id
		FROM (SELECT s.*, %s AS sorted_by FROM %s WHERE %s ORDER BY %s %s, %s %s LIMIT $%d) s
		JOIN machine m ON m.id = s.machine_id LEFT JOIN place p ON p.id = m.place_id
		ORDER BY s.sorted_by %s, m.id %s`,
		sort.expression, from, where, sort.expression, order, id, order, len(args), order, order), args
}

// ListMachines reads a page.
func ListMachines(ctx context.Context, h pg.Handle, q MachineQuery) ([]ListedMachine, error) {
	statement, args := MachinesStatement(q)
	machines := []ListedMachine{}
	err := h.SelectContext(ctx, &machines, statement, args...)
	return machines, err
}

// CountStatement writes the statement that counts the machines a filter leaves.
func CountStatement(f MachineFilter) (string, []any) {
	where, args := f.condition("s")
	return `SELECT count(*) FROM machine_sum s WHERE ` + where, args
}

// CountMachines counts the machines that a filter leaves.
func CountMachines(ctx context.Context, h pg.Handle, f MachineFilter) (int, error) {
	statement, args := CountStatement(f)
	var n int
	err := h.GetContext(ctx, &n, statement, args...)
	return n, err
}

// FacetCount is how many machines have a value, with all filters but those on the same facet.
type FacetCount struct {
	Facet string `db:"facet"`
	Value string `db:"value"` // empty for machines of which it is not known
	Count int    `db:"count"`
}

type facet struct {
	name, column string
	value        string // how it is written, in SQL
	without      func(f MachineFilter) MachineFilter
}

// facets are what lists can be narrowed by, each with the filter without it.
var facets = []facet{
	{"place", "place_id", "(SELECT name FROM place WHERE id = c.value)", func(f MachineFilter) MachineFilter {
		f.Places = nil
		return f
	}},
	{"maker", "maker", "c.value", func(f MachineFilter) MachineFilter { f.Makers = nil; return f }},
	{"year", "COALESCE(era_from, 9999)", "NULLIF(CAST(c.value AS text), '9999')", func(f MachineFilter) MachineFilter {
		f.Years = nil
		return f
	}},
	{"stage", "stage", "c.value", func(f MachineFilter) MachineFilter { f.Stages = nil; return f }},
	{"statement", "disputed > 0", fmt.Sprintf(disputedColumn, "c.value"), func(f MachineFilter) MachineFilter {
		f.Statements = nil
		return f
	}},
}

// mostFacetValues bounds the values of one facet; those with most machines come first.
const mostFacetValues = 100

// FacetsStatement writes the statement that counts machines by the values of each facet.
func FacetsStatement(f MachineFilter) (string, []any) {
	// What no facet is about is looked for once.
	where, args := MachineFilter{Words: f.Words, Type: f.Type, Public: f.Public}.condition("s")
	with, from := "", "machine_sum"
	if where != "true" {
		with, from = "WITH hit AS MATERIALIZED (SELECT s.* FROM machine_sum s WHERE "+where+") ", "hit"
	}
	ticked := f
	ticked.Words, ticked.Type = nil, ""
	parts := []string{}
	for _, together := range facetsTogether(ticked) {
		var narrowed string
		narrowed, args = together[0].without(ticked).conditionAfter("h", args)
		if f.Public {
			together = publicFacets(together)
		}
		parts = append(parts, countTogether(together, from, narrowed))
	}
	return with + strings.Join(parts, " UNION ALL "), args
}

// facetsTogether puts facets together that can be counted in one go: those that nothing is ticked of are
// narrowed by the same filter.
func facetsTogether(f MachineFilter) [][]facet {
	groups := [][]facet{}
	unticked := []facet{}
	for _, one := range facets {
		if reflect.DeepEqual(one.without(f), f) {
			unticked = append(unticked, one)
		} else {
			groups = append(groups, []facet{one})
		}
	}
	if len(unticked) > 0 {
		groups = append(groups, unticked)
	}
	return groups
}

// publicFacets call places and makers as others than staff may know them.
func publicFacets(together []facet) []facet {
	public := slices.Clone(together)
	for i := range public {
		switch public[i].name {
		case "place":
			public[i].value = "(SELECT " + people.PublicOr(people.PublicPlace, "p.id", "p.name") +
				" FROM place p WHERE p.id = c.value)"
		case "maker":
			public[i].value = fmt.Sprintf(`COALESCE((SELECT x.body FROM public_text x JOIN machine m ON m.id = x.id
				WHERE x.kind = '%s' AND m.maker = c.value LIMIT 1), c.value)`, people.PublicMaker)
		}
	}
	return public
}

func countTogether(together []facet, from, where string) string {
	columns, sets := make([]string, len(together)), make([]string, len(together))
	names, values := "", ""
	for i, one := range together {
		columns[i], sets[i] = one.column, "("+one.column+")"
		// GROUPING has a bit for each column, the first the highest; the one that is grouped by has none.
		mask := 1<<len(together) - 1 - 1<<(len(together)-1-i)
		names += fmt.Sprintf(" WHEN %d THEN '%s'", mask, one.name)
		values += fmt.Sprintf(" WHEN %d THEN COALESCE(%s, '')", mask,
			strings.ReplaceAll(one.value, "c.value", fmt.Sprintf("c.v%d", i)))
	}
	list := ""
	for i, column := range columns {
		list += fmt.Sprintf(", %s AS v%d", column, i)
	}
	return fmt.Sprintf(`SELECT CASE g%s END AS facet, CASE g%s END AS value, c.count
		FROM (SELECT GROUPING(%s) AS g%s, count(*) AS count FROM %s h WHERE %s GROUP BY GROUPING SETS (%s)) c`,
		names, values, strings.Join(columns, ", "), list, from, where, strings.Join(sets, ", "))
}

// CountFacets counts machines by the values of each facet, those with most machines first.
func CountFacets(ctx context.Context, h pg.Handle, f MachineFilter) ([]FacetCount, error) {
	statement, args := FacetsStatement(f)
	counts := []FacetCount{}
	if err := h.SelectContext(ctx, &counts, statement, args...); err != nil {
		return nil, err
	}
	counts = mergeEqual(counts)
	slices.SortFunc(counts, func(a, b FacetCount) int {
		return cmp.Or(cmp.Compare(b.Count, a.Count), cmp.Compare(a.Value, b.Value))
	})
	of := map[string]int{}
	return slices.DeleteFunc(counts, func(c FacetCount) bool {
		of[c.Facet]++
		return of[c.Facet] > mostFacetValues
	}), nil
}

// mergeEqual adds values up that are called the same: two places may be, to others than staff.
func mergeEqual(counts []FacetCount) []FacetCount {
	at := map[FacetCount]int{}
	merged := counts[:0]
	for _, c := range counts {
		key := FacetCount{Facet: c.Facet, Value: c.Value}
		if i, ok := at[key]; ok {
			merged[i].Count += c.Count
			continue
		}
		at[key] = len(merged)
		merged = append(merged, c)
	}
	return merged
}

// HoldingStatement writes the statement that counts, for each type number, the machines that hold
// it, among those that a filter leaves, apart from its own type.
func HoldingStatement(f MachineFilter, numbers []string) (string, []any) {
	f.Type = ""
	where, args := f.condition("s")
	from := `machine_type t`
	if where != "true" {
		from += ` JOIN machine_sum s ON s.machine_id = t.machine_id`
	}
	args = append(args, numbers)
	return fmt.Sprintf(`SELECT 'type' AS facet, t.type_number AS value, count(*) AS count FROM %s
		WHERE %s AND t.type_number = ANY (CAST($%d AS text[])) GROUP BY t.type_number ORDER BY count DESC, value`, from,
		where, len(args)), args
}

// CountHolding counts them. Numbers that no machine holds are missing.
func CountHolding(ctx context.Context, h pg.Handle, f MachineFilter, numbers []string) ([]FacetCount, error) {
	statement, args := HoldingStatement(f, numbers)
	counts := []FacetCount{}
	err := h.SelectContext(ctx, &counts, statement, args...)
	return counts, err
}

// condition writes the filter for rows of machine_sum under a name.
func (f MachineFilter) condition(name string) (string, []any) {
	return f.conditionAfter(name, []any{})
}

// conditionAfter does so behind other arguments of a statement.
func (f MachineFilter) conditionAfter(name string, args []any) (string, []any) {
	where := []string{}
	add := func(format string, arg any) {
		args = append(args, arg)
		format = strings.ReplaceAll(format, "s.", name+".")
		where = append(where, strings.ReplaceAll(format, "$", fmt.Sprintf("$%d", len(args))))
	}
	if len(f.Words) > 0 {
		var all string
		if f.Public {
			all, args = people.LikeAllPublic(people.PublicMachine, "id", "search", f.Words, args)
		} else {
			all, args = pg.LikeAll("search", f.Words, args)
		}
		where = append(where, name+".machine_id IN (SELECT id FROM machine WHERE "+all+")")
	}
	if len(f.Places) > 0 {
		name := "name"
		if f.Public {
			name = people.PublicOr(people.PublicPlace, "place.id", "name")
		}
		places := `s.place_id IN (SELECT id FROM place WHERE ` + name + ` = ANY (CAST($ AS text[])))`
		if slices.Contains(f.Places, "") {
			places = `(` + places + ` OR s.place_id IS NULL)`
		}
		add(places, f.Places)
	}
	if len(f.Makers) > 0 {
		maker := "s.maker"
		if f.Public {
			maker = people.PublicOr(people.PublicMaker, "s.machine_id", "s.maker")
		}
		add(maker+` = ANY (CAST($ AS text[]))`, f.Makers)
	}
	if len(f.Years) > 0 {
		add(`COALESCE(s.era_from, 9999) = ANY (CAST($ AS integer[]))`, f.Years)
	}
	if len(f.Stages) > 0 {
		add(`s.stage = ANY (CAST($ AS text[]))`, f.Stages)
	}
	if len(f.IDs) > 0 {
		add(`s.machine_id = ANY (CAST($ AS bigint[]))`, f.IDs)
	}
	if len(f.Statements) > 0 {
		add(fmt.Sprintf(disputedColumn, "s.disputed > 0")+` = ANY (CAST($ AS text[]))`, f.Statements)
	}
	if f.Type != "" {
		add(`s.machine_id IN (SELECT machine_id FROM machine_type WHERE type_number = $)`, f.Type)
	}
	if len(where) == 0 {
		return "true", args
	}
	return strings.Join(where, " AND "), args
}
