package library

import (
	"context"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/people"
	"frugalheron/core/device"
	"frugalheron/core/pack"
	"frugalheron/core/table"
	"frugalheron/store/library"
)

// packColumns are the columns of a reference pack, in the order in which it is written; a pack that is read
// may have them in any order, and must have the first three.
var packColumns = []string{"number", "class", "function", "words", "bits", "package", "clock_mhz", "typical_ma",
	"maker", "currents", "ageing", "substitutes", "documents", "notes"}

// ExportPack writes the own types as CSV.
func (s *Service) ExportPack(ctx context.Context, actor action.Actor) (action.Content, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return action.Content{}, err
	}
	own, err := library.ListOwnTypes(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return action.Content{}, err
	}
	p, err := s.people.PrivacyIn(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return action.Content{}, err
	}
	rows := [][]string{}
	for _, t := range people.PublicOf(p, action.Views(own, ownTypeOf)) {
		rows = append(rows, t.cells())
	}
	return action.CsvOf("types.csv", table.Write(packColumns, rows)), nil
}

// cells are what a type says, in the order of the columns.
func (t OwnTypeInput) cells() []string {
	figure := func(f float64) string { return strconv.FormatFloat(f, 'f', -1, 64) }
	return []string{t.Number, t.Class, t.Function, strconv.Itoa(t.Words), strconv.Itoa(t.Bits), t.Package,
		figure(t.ClockMHz), figure(t.TypicalMA), t.Maker, t.Currents, t.Ageing, t.Substitutes, t.Documents, t.Notes}
}

// differences lists the columns in which a line of a pack says something else than the type here.
func (t OwnTypeInput) differences(other OwnTypeInput) []pack.Unlike {
	told, theirs := []pack.Unlike{}, other.cells()
	for i, ours := range t.cells() {
		if ours != theirs[i] {
			told = append(told, pack.Unlike{Field: packColumns[i], Here: ours, Pack: theirs[i]})
		}
	}
	return told
}

// PackRow is a line of a reference pack, and what becomes of it.
type PackRow struct {
	Line   int    `json:"line"`
	Number string `json:"number"`
	State  string `json:"state" enum:"new,changed,same,wrong"`
	Why    string `json:"why" says:"text" doc:"For a wrong line: what is wrong in it"`
	// Differences stand beside what is here, and are written over it only where that was asked for.
	Differences []pack.Unlike `json:"differences" doc:"For a changed line: in what it is not as the type here"`
}

// TakenPack is what a pack does, or would do.
type TakenPack struct {
	Rows       []PackRow `json:"rows"`
	Taken      bool      `json:"taken" doc:"It was taken over; never with a wrong line in it"`
	Recognised int       `json:"recognised" doc:"Parts on all sheets that are known by it now"`
}

// TakePack takes over a reference pack, all of it or nothing; dry says only what would be done. Lines that say something
// else than the types here stand beside those, and change them only where over asks for it.
func (s *Service) TakePack(ctx context.Context, actor action.Actor, text string, dry, over bool) (TakenPack, error) {
	taken := TakenPack{Rows: []PackRow{}}
	if err := actor.Must(action.MayKeepTheRecord); err != nil {
		return taken, err
	}
	fields, rows, err := readPack(text)
	if err != nil {
		return taken, err
	}
	own, err := library.ListOwnTypes(ctx, s.kernel.Reader(ctx))
	if err != nil {
		return taken, err
	}
	before := map[string]library.OwnType{}
	for _, t := range own {
		before[t.Number] = t
	}
	wrong := false
	for i := range rows {
		known, ok := before[fields[i].Number]
		switch {
		case rows[i].State == "wrong":
			wrong = true
		case !ok:
			rows[i].State = "new"
		case OwnTypeInput(known.OwnTypeFields) == fields[i]:
			rows[i].State = "same"
		default:
			rows[i].State = "changed"
			rows[i].Differences = OwnTypeInput(known.OwnTypeFields).differences(fields[i])
		}
	}
	taken.Rows = rows
	if dry || wrong {
		return taken, nil
	}
	// Each type is an action of its own, so that each can be taken back; all were checked before the first.
	for i, row := range rows {
		var named NamedType
		switch {
		case row.State == "new":
			named, err = s.NameType(ctx, actor, fields[i])
		case row.State == "changed" && over:
			named, err = s.ChangeType(ctx, actor, before[fields[i].Number].ID, before[fields[i].Number].Version,
				fields[i])
		}
		if err != nil {
			return taken, fmt.Errorf("line %d: %w", row.Line, err)
		}
		taken.Recognised += named.Recognised
	}
	taken.Taken = true
	return taken, nil
}

// mostPackRows bounds a pack.
const mostPackRows = 5000

func readPack(text string) ([]OwnTypeInput, []PackRow, error) {
	r := csv.NewReader(strings.NewReader(strings.TrimPrefix(text, "\ufeff")))
	r.FieldsPerRecord = -1
	head, err := r.Read()
	if err != nil {
		return nil, nil, action.Reject("text", "holds no line that names the columns: "+strings.Join(packColumns, ","))
	}
	columns := map[string]int{}
	for i, name := range head {
		name = strings.ToLower(strings.TrimSpace(name))
		if !slices.Contains(packColumns, name) {
			return nil, nil,
				action.Reject("text",
					fmt.Sprintf("the column %q is not known; there are %s", name, strings.Join(packColumns, ", ")))
		}
		columns[name] = i
	}
	for _, name := range packColumns[:3] {
		if _, ok := columns[name]; !ok {
			return nil, nil, action.Reject("text", "the column "+name+" is missing")
		}
	}
	fields, rows := []OwnTypeInput{}, []PackRow{}
	seen := map[string]int{}
	for {
		cells, err := r.Read()
		if errors.Is(err, io.EOF) {
			return fields, rows, nil
		}
		if err != nil {
			return nil, nil, action.Reject("text", err.Error()) // it names the line
		}
		line, _ := r.FieldPos(0)
		if len(rows) == mostPackRows {
			return nil, nil, action.Reject("text", fmt.Sprintf("a pack has at most %d types", mostPackRows))
		}
		one, row := packRow(columns, cells, line)
		if at, twice := seen[one.Number]; twice && row.State != "wrong" {
			row.State, row.Why = "wrong", fmt.Sprintf("%s stands in line %d already", one.Number, at)
		}
		seen[one.Number] = line
		fields, rows = append(fields, one), append(rows, row)
	}
}

func packRow(columns map[string]int, cells []string, line int) (OwnTypeInput, PackRow) {
	cell := func(name string) string {
		if i, ok := columns[name]; ok && i < len(cells) {
			return table.Text(strings.TrimSpace(cells[i]))
		}
		return ""
	}
	wrong := ""
	figure := func(name string) float64 {
		text := cell(name)
		if text == "" {
			return 0
		}
		f, err := strconv.ParseFloat(text, 64)
		if err != nil || f < 0 || f > 1<<30 {
			wrong = fmt.Sprintf("%s: %q is no number that can be", name, text)
		}
		return f
	}
	f := OwnTypeInput{
		Number: cell("number"), Class: cell("class"), Function: cell("function"), Words: int(figure("words")),
		Bits: int(figure("bits")), Package: cell("package"),
		ClockMHz: figure("clock_mhz"), TypicalMA: figure("typical_ma"), Maker: cell("maker"),
		Currents: cell("currents"), Ageing: cell("ageing"),
		Substitutes: cell("substitutes"), Documents: cell("documents"), Notes: cell("notes"),
	}
	row := PackRow{Line: line, Number: f.Number, Differences: []pack.Unlike{}}
	if err := checkOwnType(&f); wrong == "" && err != nil {
		wrong = err.Error()
	}
	if !slices.Contains(device.Classes(), device.Class(f.Class)) && wrong == "" {
		wrong = fmt.Sprintf("class: %q is not known", f.Class)
	}
	if wrong != "" {
		row.State, row.Why = "wrong", wrong
	}
	row.Number = f.Number
	return f, row
}
