package sign

import (
	"errors"
	"fmt"
	"slices"
	"strings"
)

// mostLamps bounds a row.
const mostLamps = 128

// A row of lamps is written with a character for each: 0 dark, 1 lit, * blinking; ? stands for any in a table, and
// for one nobody looked at in what was seen.
const lampSigns = "01*?"

func isBits(text string) bool {
	return text != "" && strings.Trim(text, lampSigns) == ""
}

// lamps reads a row, by a character each or by the names of those that are lit. Names that the row does not have are
// told.
func (t *Table) lamps(text string) (row []byte, unlisted []string, err error) {
	together := strings.ReplaceAll(text, " ", "")
	switch {
	case isBits(together):
		row = []byte(together)
		if n := len(t.Row); n > 0 && n != len(row) {
			err = fmt.Errorf("%s are %d lamps, the row has %d: %s", text, len(row), n, strings.Join(t.Row, ", "))
		} else if len(row) > mostLamps {
			err = fmt.Errorf("%d lamps are too many; a row has at most %d", len(row), mostLamps)
		}
		return row, []string{}, err
	case len(t.Row) == 0 && !isAll(text) && !isNone(text):
		return nil, listOf(text), nil
	case len(t.Row) == 0:
		return nil, nil, errors.New("says all or none of a row that is not named; write row power, ready first")
	}
	row = slices.Repeat([]byte{'0'}, len(t.Row))
	switch {
	case isAll(text):
		return slices.Repeat([]byte{'1'}, len(t.Row)), []string{}, nil
	case isNone(text):
		return row, []string{}, nil
	}
	for _, name := range listOf(text) {
		bare, isBlinking := strings.CutSuffix(name, "*")
		bare = strings.TrimSpace(bare)
		at := slices.IndexFunc(t.Row, func(n string) bool { return strings.EqualFold(n, bare) })
		switch {
		case at < 0:
			unlisted = append(unlisted, bare)
		case isBlinking:
			row[at] = '*'
		default:
			row[at] = '1'
		}
	}
	return row, unlisted, nil
}

func isAll(text string) bool { return strings.EqualFold(strings.TrimSpace(text), "all") }

func isNone(text string) bool {
	text = strings.ToLower(strings.TrimSpace(text))
	return text == "none" || text == "nothing" || text == "dark"
}

// lampName is what the lamp at a place is called.
func (t *Table) lampName(at int) string {
	if at < len(t.Row) {
		return t.Row[at]
	}
	return fmt.Sprintf("lamp %d", at+1)
}

// compareLamps tells how what was seen stands to a row of the table.
func (t *Table) compareLamps(shown, seen string) compared {
	want, _, err := t.lamps(shown)
	if err != nil || want == nil {
		return compared{}
	}
	got, unlisted, err := t.lamps(seen)
	switch {
	case err != nil:
		return compared{why: err.Error()}
	case got != nil && len(unlisted) > 0 && !strings.ContainsAny(string(got), "1*"):
		return compared{unlisted: unlisted, why: "its row has no lamp " + strings.Join(unlisted, ", ")}
	case got == nil:
		return compared{unlisted: unlisted, why: "its row of lamps has no names; tell them as 0 and 1"}
	case len(want) != len(got):
		return compared{why: fmt.Sprintf("%d lamps were seen, the list tells of %d", len(got), len(want))}
	}
	c := compared{isAlike: true, unlisted: unlisted, wild: strings.Count(string(want), "?")}
	notSeen := []string{}
	for i := range want {
		name := t.lampName(i)
		switch {
		case want[i] == '?' || want[i] == got[i]:
		case got[i] == '?':
			notSeen = append(notSeen, name)
		case got[i] == '0':
			c.missing = append(c.missing, name)
		case want[i] == '0':
			c.extra = append(c.extra, name)
		case want[i] == '*':
			c.other = append(c.other, name+" is lit instead of blinking")
		default:
			c.other = append(c.other, name+" blinks instead of being lit")
		}
	}
	c.apart = len(c.missing) + len(c.extra) + len(c.other)
	c.agrees = c.apart == 0
	if len(notSeen) > 0 {
		c.doubts = append(c.doubts, "nobody looked at "+strings.Join(notSeen, ", "))
	}
	if len(unlisted) > 0 {
		c.doubts = append(c.doubts, "its row has no lamp "+strings.Join(unlisted, ", "))
	}
	return c
}
