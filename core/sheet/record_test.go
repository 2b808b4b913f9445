package sheet_test

import (
	"strings"
	"testing"

	"frugalheron/core/sheet"
)

// Every entry of a sheet, turned into a row and back, is the same entry.
func TestRecordsRoundTrip(t *testing.T) {
	body := strings.Join([]string{
		"U1 HX9040-2 8431", "U40-U48  41256-15 8512 @socket", "U20,U22 27128 @empty # label gone", "8x 4164 for:parity",
		"BT1 NiCd 3.6V !leaking: pad #3 eaten", "C5 0.1uF !cracked !loose # both", "U30 ?", "J3 1-2 @solder", "U50",
		"C9 100uF new:2021-05 !high esr 12 ohm !does not fit !odd: at 12:30 # old", "U60 - U62, U70 7400 ! 8533",
	}, "\n")
	parsed, err := sheet.Parse([]byte(body), sheet.Body)
	records := parsed.Records()
	if err != nil || len(records) != 11 {
		t.Fatal(err, records)
	}
	for _, record := range records {
		text, err := record.Text()
		if err != nil {
			t.Errorf("%+v: %v", record, err)
			continue
		}
		reparsed, err := sheet.Parse([]byte(text), sheet.Body)
		again := reparsed.Records()
		if err != nil || len(again) != 1 {
			t.Errorf("%q: %v, %d records", text, err, len(again))
			continue
		}
		again[0].Line = record.Line
		if again[0] != record {
			t.Errorf("%+v\nbecame %+v", record, again[0])
		}
	}
}

func TestRecordTextRefusesWhatWouldNotStayApart(t *testing.T) {
	for _, test := range []struct {
		rule string
		row  sheet.Record
		says string
	}{
		{"no parts", sheet.Record{Marking: "74LS00"}, "names no part"},
		{"words as parts", sheet.Record{Parts: "the lid"}, "names no part"},
		{"run counting down", sheet.Record{Parts: "U9-U1"}, "counts down"},
		{"mark in the marking", sheet.Record{Parts: "U1", Marking: "7400 @socket"}, "do not stay apart"},
		{"comment in the marking", sheet.Record{Parts: "U1", Marking: "7400 # old"}, "do not stay apart"},
		{"line end in the marking", sheet.Record{Parts: "U1", Marking: "7400\nU2 7404"}, ""},
		{"finding without its mark", sheet.Record{Parts: "U1", Findings: "bent"}, "do not stay apart"},
		{"finding without a word", sheet.Record{Parts: "U1", Findings: "!"}, "do not stay apart"},
		{"new since no day", sheet.Record{Parts: "U1", New: "soon"}, "no date in new:soon"},
	} {
		text, err := test.row.Text()
		if test.says == "" {
			if err != nil || strings.Contains(text, "\n") {
				t.Errorf("%s: %q, %v", test.rule, text, err)
			}
			continue
		}
		if err == nil || !strings.Contains(err.Error(), test.says) {
			t.Errorf("%s: %q, %v; want %q", test.rule, text, err, test.says)
		}
	}
}

func TestRecordTextWritesComments(t *testing.T) {
	text, err := sheet.Record{Parts: "U1", Marking: "74LS00", Mount: "socket", Purpose: "cache", Findings: "!bent",
		Comment: "by hand"}.Text()
	if want := "U1         74LS00 for:cache @socket !bent  # by hand"; err != nil || text != want {
		t.Errorf("%q, %v; want %q", text, err, want)
	}
}
