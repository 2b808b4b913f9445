package job

import (
	"fmt"
	"strings"

	"frugalheron/core/sheet"
)

// PutInto writes into a sheet that another part is at a place since a day: the words of the part there give way to the new
// ones, and what was found on it goes with it. A place that stands on a line with others is for people to write.
func PutInto(body, place, words, day string) (string, error) {
	return rewrite(body, place, func(e *sheet.Entry) string {
		now := strings.Join(strings.Fields(words), " ")
		if e.Socketed {
			now += " @socket"
		}
		return now + " new:" + day
	})
}

// TakeOutOf writes into a sheet that a place is empty: what was there stays as what it is for.
func TakeOutOf(body, place string) (string, error) {
	return rewrite(body, place, func(e *sheet.Entry) string { return strings.Join(e.Words, " ") + " @empty" })
}

// WordsAt are the words of the part at a place of a sheet, as it stands there; empty where it does not.
func WordsAt(body, place string) string {
	words := ""
	_, err := rewrite(body, place, func(e *sheet.Entry) string { words = strings.Join(e.Words, " "); return "" })
	if err != nil {
		return ""
	}
	return words
}

// rewrite writes the one line of a place anew, with the comment that it has.
func rewrite(body, place string, now func(e *sheet.Entry) string) (string, error) {
	parsed, err := sheet.Parse([]byte(body), sheet.Body)
	if err != nil {
		return body, err
	}
	for _, assembly := range parsed.Assemblies {
		for _, line := range assembly.Lines {
			e := line.Entry
			if e == nil || !containsFold(e.Designators, place) {
				continue
			}
			if len(e.Designators) != 1 {
				return body, fmt.Errorf("%s stands on line %d together with others: write the new part on the sheet", place,
					e.Line)
			}
			lines := strings.Split(body, "\n")
			lines[e.Line-1] = strings.TrimRight(fmt.Sprintf("%-10s %s %s", e.Designators[0], strings.TrimSpace(now(e)), e.Comment),
				" ")
			return strings.Join(lines, "\n"), nil
		}
	}
	return body, fmt.Errorf("%s does not stand on the sheet: write the new part there", place)
}

func containsFold(all []string, one string) bool {
	for _, s := range all {
		if strings.EqualFold(s, one) {
			return true
		}
	}
	return false
}
