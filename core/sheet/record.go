package sheet

import (
	"fmt"
	"strings"
)

// Record is an entry as a row of a table: the same fields as the line, each as text. A table
// and the text are two views of one thing; Line turns a changed record back into text.
type Record struct {
	Line     int    `json:"line"`
	Parts    string `json:"parts" maxLength:"100000" doc:"Designators or count as written"`
	Marking  string `json:"marking" maxLength:"10000"`
	Purpose  string `json:"purpose" enum:",main,picture,cache,shared,card,parity"`
	Mount    string `json:"mount" enum:",socket,solder,empty"`
	New      string `json:"new" required:"false" maxLength:"40" doc:"Since when the part is new, in EDTF; empty when it came with the board"`
	Findings string `json:"findings" says:"text" maxLength:"10000" doc:"As written, each with its !"`
	Comment  string `json:"comment" says:"text" maxLength:"10000"`
}

// Records lists the entries of a sheet as rows.
func (s Sheet) Records() []Record {
	records := []Record{}
	for _, a := range s.Assemblies {
		for _, line := range a.Lines {
			if line.Entry != nil {
				records = append(records, line.Entry.record())
			}
		}
	}
	return records
}

func (e *Entry) record() Record {
	r := Record{Line: e.Line, Parts: e.Written, Marking: strings.Join(e.Words, " "), Purpose: string(e.Purpose),
		New: e.New, Comment: e.Comment}
	switch {
	case e.Empty:
		r.Mount = "empty"
	case e.Socketed:
		r.Mount = "socket"
	case e.Soldered:
		r.Mount = "solder"
	}
	findings := []string{}
	for _, f := range e.Findings {
		findings = append(findings, f.text())
	}
	r.Findings = strings.Join(findings, " ")
	return r
}

// Text writes a record as a line of a sheet. It returns an error when the fields do not give an
// entry with the same fields, as when a marking holds a mark, or a number in place of designators.
func (r Record) Text() (string, error) {
	mount := r.Mount
	if mount != "" {
		mount = "@" + mount
	}
	purpose := r.Purpose
	if purpose != "" {
		purpose = "for:" + purpose
	}
	comment := strings.TrimSpace(r.Comment)
	if comment != "" && !strings.HasPrefix(comment, "#") {
		comment = "# " + comment
	}
	since := strings.TrimSpace(r.New)
	if since != "" {
		since = newSince + since
	}
	line := strings.Join(strings.Fields(strings.Join([]string{r.Parts, r.Marking, purpose, mount, since}, " ")), " ")
	if findings := strings.TrimSpace(r.Findings); findings != "" {
		line += " " + findings
	}
	line = appendComment(line, comment)
	s, err := Parse([]byte(line), Body)
	switch {
	case err != nil:
		return "", err
	case len(s.Problems) > 0:
		return "", fmt.Errorf("%s", s.Problems[0].Message)
	case len(s.Assemblies) != 1 || len(s.Assemblies[0].Lines) != 1 || s.Assemblies[0].Lines[0].Entry == nil:
		return "", fmt.Errorf("%q names no part; write designators as U40, U40-U48 or U20,U22, or a count as 8x",
			r.Parts)
	}
	e := s.Assemblies[0].Lines[0].Entry
	if got := e.record(); got.Marking != strings.Join(strings.Fields(r.Marking), " ") || got.Mount != r.Mount ||
		got.Purpose != r.Purpose || got.New != strings.TrimSpace(r.New) || got.Comment != comment {
		return "", fmt.Errorf(
			"the fields do not stay apart in the line %q; a marking holds no @, ! or #, and a finding begins with a ! and says something", line)
	}
	return e.String(), nil
}
