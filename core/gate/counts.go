package gate

import (
	_ "embed"
	"regexp"
	"sync"

	"frugalheron/core/table"
)

//go:embed counts.tsv
var countsTable string

type countsRow struct {
	subsystem string
	words     *regexp.Regexp
	counts    string
}

var countsRows = sync.OnceValue(func() (rows []countsRow) {
	for _, cells := range table.Reference("counts", countsTable, "subsystem", "words", "counts", "source") {
		row := countsRow{subsystem: cells[0], counts: cells[2]}
		if cells[1] != "" {
			row.words = regexp.MustCompile(`(?i)` + cells[1])
		}
		rows = append(rows, row)
	}
	return rows
})

// CountsAs says as what a finding of a condition check counts at the gate, by its subsystem and by what is said of it, of
// the part and of the board that it is on.
func CountsAs(subsystem, words string) string {
	for _, row := range countsRows() {
		if (row.subsystem == "*" || row.subsystem == subsystem) && (row.words == nil || row.words.MatchString(words)) {
			return row.counts
		}
	}
	return "other"
}
