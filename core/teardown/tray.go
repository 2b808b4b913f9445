package teardown

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"
)

// Tray is a grid of cells, rows by letters and columns by numbers; each cell holds the fasteners of one step.
type Tray struct {
	Rows    int `json:"rows" minimum:"1" maximum:"12"`
	Columns int `json:"columns" minimum:"1" maximum:"12"`
}

var cellName = regexp.MustCompile(`^[A-La-l](?:[1-9]|1[0-2])$`)

func (t Tray) place(cell string) (row, column int, ok bool) {
	if !cellName.MatchString(cell) {
		return 0, 0, false
	}
	row = int(strings.ToUpper(cell)[0] - 'A')
	column, _ = strconv.Atoi(cell[1:]) // figures, by the pattern
	return row, column - 1, row < t.Rows && column <= t.Columns
}

// Holds reports whether the tray has a cell.
func (t Tray) Holds(cell string) bool {
	_, _, ok := t.place(cell)
	return ok
}

// Last names the last cell.
func (t Tray) Last() string { return cellAt(t.Rows-1, t.Columns-1) }

func cellAt(row, column int) string { return fmt.Sprintf("%c%d", 'A'+row, column+1) }

// Cell is a cell of the tray as it is now.
type Cell struct {
	Name  string   `json:"name"`
	Step  int      `json:"step" doc:"Number of the step whose fasteners lie in it; 0 when it is free"`
	Off   string   `json:"off" says:"text" doc:"What that step took off"`
	Holds []string `json:"holds" says:"text" doc:"Fasteners in it, in words"`
	Count int      `json:"count" doc:"Pieces in it"`
	Mixed string   `json:"mixed" says:"text" doc:"What is wrong when two steps lie in it, else empty"`
}

// Filled says what lies in each cell, row by row. What went back is out of it; what was left over lies in it
// still.
func (t Tray) Filled(steps []Logged) []Cell {
	cells := make([]Cell, t.Rows*t.Columns)
	for i := range cells {
		cells[i] = Cell{Name: cellAt(i/t.Columns, i%t.Columns), Holds: []string{}}
	}
	for _, s := range steps {
		for i, f := range s.Fasteners {
			row, column, ok := t.place(f.Cell)
			left := s.stillOff(i)
			if f.Keeping != InCell || !ok || left == 0 {
				continue
			}
			cell := &cells[row*t.Columns+column]
			if cell.Step != 0 && cell.Step != s.N {
				cell.Mixed = fmt.Sprintf("steps %d and %d share the cell %s; move one, or they get mixed up", cell.Step,
					s.N, cell.Name)
			} else {
				cell.Step, cell.Off = s.N, s.Off
			}
			if other := s.otherLengthIn(i); other != nil && cell.Mixed == "" {
				cell.Mixed = fmt.Sprintf("%s and %s lie in the cell %s; say which hole takes which, or lay one of them elsewhere",
					other.name(), f.name(), cell.Name)
			}
			cell.Holds = append(cell.Holds, fmt.Sprintf("%d %s", left, f.name()))
			cell.Count += left
		}
	}
	return cells
}

// Free is the first cell that no step lies in; empty when the tray is full.
func (t Tray) Free(steps []Logged) string {
	for _, cell := range t.Filled(steps) {
		if cell.Step == 0 {
			return cell.Name
		}
	}
	return ""
}

// stillOff is how many of a fastener of the step are not back.
func (s Logged) stillOff(fastener int) int {
	if s.State != Back {
		return s.Fasteners[fastener].Count
	}
	for _, l := range s.Left {
		if l.Fastener == fastener {
			return l.Count
		}
	}
	return 0
}

// otherLengthIn is a fastener of the step in the same cell that differs in length alone: by the eye it is the same.
func (s Logged) otherLengthIn(fastener int) *Fastener {
	f := s.Fasteners[fastener]
	for i, other := range s.Fasteners[:fastener] {
		if other.Keeping == InCell && strings.EqualFold(other.Cell, f.Cell) && key(other.Kind) == key(f.Kind) &&
			other.LengthMm != f.LengthMm && s.stillOff(i) > 0 {
			return &s.Fasteners[i]
		}
	}
	return nil
}
