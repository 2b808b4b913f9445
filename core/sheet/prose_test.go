package sheet_test

import (
	"strings"
	"testing"

	"frugalheron/core/sheet"
)

func TestOnlyProseOfASheetIsRewritten(t *testing.T) {
	text := "== rose | part rose\nU1 rose-27128 8533 # rose\r\nU2,U3 rose @socket !leaking:rose, rose\nrose wrote\n# rose\nU4 ? !rose\nU4 rose twice\n"
	want := "== ROSE | PART ROSE\nU1 rose-27128 8533 # ROSE\r\nU2,U3 rose @socket !leaking:ROSE, ROSE\nROSE WROTE\n# ROSE\nU4 ? !ROSE\nU4 ROSE TWICE\n"
	if got := sheet.RewriteProse(text, strings.ToUpper); got != want {
		t.Errorf("got\n%s\nwant\n%s", got, want)
	}
	chunks := []string{}
	sheet.RewriteProse("# of Jory\n# Penhallow\nU1 7400\n\nlast", func(prose string) string {
		chunks = append(chunks, prose)
		return prose
	})
	if strings.Join(chunks, "|") != "# of Jory\n# Penhallow\n|\nlast" {
		t.Errorf("%q", chunks)
	}
}

func FuzzProseKeepsTheRest(f *testing.F) {
	f.Add("U1 7400 # x\rU2 ?\r\n\ufeffU3 !a:b\n")
	f.Fuzz(func(t *testing.T, text string) {
		if same := sheet.RewriteProse(text, func(prose string) string { return prose }); same != text {
			t.Errorf("%q became %q", text, same)
		}
	})
}
