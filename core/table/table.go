// Package table answers: how is a table written so that every program shows what stands in it? Tables are CSV
// (RFC 4180). A cell that a spreadsheet would take for a formula gets an apostrophe before it, by which
// spreadsheets know text; reading such a cell back takes it away again.
package table

import (
	"encoding/csv"
	"regexp"
	"strconv"
	"strings"
)

// Write writes a head and rows as CSV.
func Write(head []string, rows [][]string) string {
	var out strings.Builder
	w := csv.NewWriter(&out)
	w.UseCRLF = true
	for i := -1; i < len(rows); i++ {
		row := head
		if i >= 0 {
			row = rows[i]
		}
		cells := make([]string, len(row))
		for j, cell := range row {
			cells[j] = Cell(cell)
		}
		w.Write(cells) //nolint:errcheck // a builder takes everything
	}
	w.Flush()
	return out.String()
}

// formula is how a cell begins that a spreadsheet computes: a sign, whatever white space stands before it. The
// apostrophes are those of cells that look as if they were written by us.
var formula = regexp.MustCompile(`^'*[\s\x{a0}\x{feff}]*[=+\-@＝＋－＠]|^'*[\t\r\n]`)

// Cell writes a text so that it is shown as it is. A plain number stays one.
func Cell(text string) string {
	if !formula.MatchString(text) || isNumber(text) {
		return text
	}
	return "'" + text
}

// Text reads what Cell wrote.
func Text(cell string) string {
	if rest, ok := strings.CutPrefix(cell, "'"); ok && formula.MatchString(rest) && !isNumber(rest) {
		return rest
	}
	return cell
}

var number = regexp.MustCompile(`^[+-]?\d+(\.\d+)?$`)

func isNumber(text string) bool {
	if !number.MatchString(text) {
		return false
	}
	_, err := strconv.ParseFloat(text, 64)
	return err == nil
}
