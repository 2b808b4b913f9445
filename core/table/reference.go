package table

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
)

// Row is a row of a reference table, and the line that it stands on.
type Row struct {
	Line  int
	Cells []string
}

// Causes of errors about a table.
var (
	errNoHead   = errors.New("no line names the columns")
	errNoSource = errors.New("the last column says how one knows, and is empty")
)

// ReadReference reads a reference table: columns divided by tabs, a heading that names them, and lines that start with
// # and explain. The last column is the source. An error names the table and the line.
func ReadReference(name, text string, columns ...string) ([]Row, error) {
	r := csv.NewReader(strings.NewReader(text))
	r.Comma, r.Comment, r.LazyQuotes = '\t', '#', true // the heading says how many cells a row has
	wrong := func(line int, err error) error { return fmt.Errorf("table of %s, line %d: %w", name, line, err) }
	if columns[len(columns)-1] != "source" {
		return nil, wrong(1, errors.New("the last column is not the source"))
	}
	rows := []Row{}
	if text == "" {
		return rows, nil // a table that was left out
	}
	for hasHead := false; ; hasHead = true {
		cells, err := r.Read()
		if errors.Is(err, io.EOF) && hasHead {
			return rows, nil
		}
		if errors.Is(err, io.EOF) {
			err = errNoHead
		}
		if err != nil {
			return nil, fmt.Errorf("table of %s: %w", name, err) // it names the line itself
		}
		line, _ := r.FieldPos(0)
		switch {
		case !hasHead && !slices.Equal(cells, columns):
			return nil, wrong(line,
				fmt.Errorf("the columns are %s, and should be %s", strings.Join(cells, ", "),
					strings.Join(columns, ", ")))
		case hasHead && strings.TrimSpace(cells[len(cells)-1]) == "":
			return nil, wrong(line, errNoSource)
		case hasHead:
			rows = append(rows, Row{line, cells})
		}
	}
}

// Reference reads a table that ships with the core. A row that is wrong is our own mistake and cannot ship: it ends the
// program, saying where.
func Reference(name, text string, columns ...string) [][]string {
	rows, err := ReadReference(name, text, columns...)
	if err != nil {
		panic(err)
	}
	cells := make([][]string, len(rows))
	for i, row := range rows {
		cells[i] = row.Cells
	}
	return cells
}
