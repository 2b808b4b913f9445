package facts_test

import (
	"encoding/json"
	"fmt"
	"math/rand"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/facts"
)

// of reads statements, a line each: id | attribute, or attribute of subject | value | source | on | nature | form.
func of(lines ...string) facts.Input {
	in := facts.Input{Now: "2026-11-28"}
	for _, line := range lines {
		cells := strings.Split(line, "|")
		for len(cells) < 7 {
			cells = append(cells, "")
		}
		for i := range cells {
			cells[i] = strings.TrimSpace(cells[i])
		}
		s := facts.Statement{ID: cells[0], Value: cells[2], Source: facts.Source(cells[3])}
		s.Attribute, s.Subject, _ = strings.Cut(cells[1], " of ")
		if cells[4] != "" {
			s.On = &cells[4]
		}
		if cells[5] != "" {
			nature := facts.Nature(cells[5])
			s.Nature = &nature
		}
		if cells[6] != "" {
			form := facts.Form(cells[6])
			s.Form = &form
		}
		in.Statements = append(in.Statements, s)
	}
	return in
}

// told writes a fact in a line.
func told(f facts.Fact) string {
	words := []string{string(f.State)}
	if f.Now != nil {
		words = append(words, f.Now.Value+" ["+strings.Join(f.Now.IDs, " ")+"]")
	}
	for _, then := range f.Then {
		until := "?"
		if then.Until != nil {
			until = *then.Until
		}
		words = append(words, fmt.Sprintf("then %s [%s] until %s", then.Value, strings.Join(then.IDs, " "), until))
	}
	for _, d := range f.Differ {
		words = append(words, "differ "+strings.Join(d.IDs, " "))
	}
	for _, group := range f.Agree {
		words = append(words, "agree "+strings.Join(group, " "))
	}
	for _, e := range f.Explanations {
		limit := ""
		if e.Limit != nil {
			limit = " limit " + *e.Limit
		}
		words = append(words, "explain "+e.ID+": "+strings.Join(e.Blocks, " + ")+limit)
	}
	if f.LastGood != nil {
		words = append(words, "good "+*f.LastGood)
	}
	if f.FailedBetween != nil {
		words = append(words, "failed "+strings.Join(f.FailedBetween, ".."))
	}
	return strings.Join(words, "; ")
}

func judged(t *testing.T, in facts.Input) facts.Result {
	t.Helper()
	r, err := facts.Judge(in)
	require.NoError(t, err)
	return r
}

func TestFacts(t *testing.T) {
	for name, test := range map[string]struct {
		said []string
		want string
		next string // a word of it
	}{
		"one alone":          {[]string{"a|maker|Tarn & Vole|label"}, "settled; Tarn & Vole [a]", ""},
		"hearsay":            {[]string{"a|maker|Tarn & Vole|hearsay"}, "open; Tarn & Vole [a]", "plate"},
		"hearsay of a state": {[]string{"a|worked|yes|hearsay|2016"}, "open; yes [a]; good 2016", ""},
		"spelling": {[]string{"a|maker|Tarn  &  Vole|label", "b|maker|tarn & vole|document"},
			"settled; Tarn  &  Vole [a b]; agree a b", ""},
		"one rank apart": {[]string{"a|maker|Tarn|label", "b|maker|Vole|document"}, "disputed; differ a b", "plate"},
		"two ranks apart": {[]string{"b|maker|Vole|document", "a|maker|Tarn|firmware"},
			"settled; Tarn [a]; differ a b", "plate"},
		"weak ones that differ beside a strong one": {[]string{"a|maker|Tarn|seen", "b|maker|Vole|seller",
			"c|maker|Dune|recalled"}, "settled; Tarn [a]; differ a b; differ a c", "plate"},
		"two documents": {[]string{"a|built|1984|document", "b|built|1986|document"}, "disputed; differ a b",
			"dated nearer"},
		"a month in a year": {[]string{"a|built|1984|document", "b|built|1984-03|document"},
			"settled; 1984-03 [b a]; agree a b", ""},
		"a year and two of its months": {[]string{"a|built|1984|seen", "b|built|1984-03|document",
			"c|built|1984-07|document"}, "settled; 1984 [a b c]; agree a b; agree a c", ""},
		"about is no wider": {[]string{"a|built|1984~|document", "b|built|1985|document"}, "disputed; differ a b", ""},

		"an upgrade": {[]string{"a|memory|64 MB|firmware|2011", "b|memory|128 MB|counted|2026-11-20"},
			"settled; 128 MB [b]; then 64 MB [a] until 2026-11-20", ""},
		"the same since long": {[]string{"a|memory|64 MB|firmware|2011", "b|memory|65536K|counted|2026-11-20"},
			"settled; 65536K [b a]; agree a b", ""},
		"there and back": {[]string{"c|worked|yes|tested|2026", "a|worked|yes|tested|2010", "b|worked|no|tested|2018"},
			"settled; yes [c]; then yes [a] until 2018; then no [b] until 2026; agree c a; good 2026", ""},
		"a disk that died": {[]string{"a|worked|yes|seller|2016", "b|worked|no: disk silent|tested|2026-11-20"},
			"settled; no: disk silent [b]; then yes [a] until 2026-11-20; good 2016; failed 2016..2026-11-20", ""},
		"the first no counts": {[]string{"a|worked|yes|tested|2016", "b|worked|no|tested|2020",
			"c|worked|no|tested|2026"},
			"settled; no [c b]; then yes [a] until 2020; agree b c; good 2016; failed 2016..2020", ""},
		"intermittent": {[]string{"a|worked|yes|tested|2026-11-20", "b|worked|no|tested|2026-11-20"},
			"open; intermittent [a b]; differ a b; good 2026-11-20", "several times"},
		"unlike on one day": {[]string{"a|memory|64K|firmware|2026-11-20", "b|memory|72K|counted|2026-11-20"},
			"disputed; differ a b", "reseat"},
		"newer and too weak": {[]string{"a|memory|64K|counted|2020", "b|memory|72K|seller|2026"},
			"settled; 64K [a]; differ a b", ""},
		"older and weak": {[]string{"a|memory|72K|seller|2016", "b|memory|64K|counted|2020"},
			"settled; 64K [b]; then 72K [a] until 2020", ""},
		"only weak ones": {[]string{"a|worked|yes|recalled|1999", "b|worked|no|seller|2016",
			"c|worked|yes|hearsay|2020"},
			"settled; no [b]; then yes [a] until 2016; differ b c; agree a c; good 2020", ""},
		"no day": {[]string{"a|worked|yes|tested"}, "open; yes [a]", "when"},
		"no day against a day": {[]string{"a|worked|yes|tested", "b|worked|no|tested|2020"},
			"open; no [b]; differ b a", "when"},
		"no days that differ": {[]string{"a|worked|yes|tested", "b|worked|no|tested"}, "open; differ a b", ""},

		"of two parts": {[]string{"a|disk-size of HD1|20 MB|label", "b|disk-size of HD1|40 MB|label"},
			"disputed; differ a b", ""},
		"as exact as the coarser": {[]string{"a|disk-size|43 MB|label", "b|disk-size|42.8 MB|measured"},
			"settled; 42.8 MB [b a]; agree a b", ""},
		"further off than that": {[]string{"a|disk-size|43 MB|label", "b|disk-size|42.4 MB|measured"},
			"settled; 42.4 MB [b]; differ b a", ""},
		"memory is exact": {[]string{"a|memory|640K|counted|2026", "b|memory|639K|counted|2026"},
			"disputed; differ a b", "count again"},
		"K of a disk and of memory": {[]string{"a|rom|64K|counted", "b|rom|65,536|document", "c|rom|64 KiB|document"},
			"settled; 64K [a b c]; agree a b c", ""},
		"mains": {[]string{"a|mains-voltage|220-240 V|label", "b|mains-voltage|220 V~|document"},
			"settled; 220-240 V [a b]; agree a b", ""},
		"mains of another land": {[]string{"a|mains-voltage|220-240 V|label", "b|mains-voltage|110 V|document"},
			"disputed; differ a b", ""},
		"one of several": {[]string{"a|mains-frequency|50/60 Hz|label", "b|mains-frequency|50 Hz|document"},
			"settled; 50/60 Hz [a b]; agree a b", ""},
		"a V before it": {[]string{"a|firmware|V1.1|label|2026", "b|firmware|1.1|firmware|2026"},
			"settled; 1.1 [b a]; agree a b", ""},
		"octets": {[]string{"a|hardware-address|2:60:8c:1:a:ff|label", "b|hardware-address|02608C010AFF|document"},
			"settled; 2:60:8c:1:a:ff [a b]; agree a b", ""},
		"an own name": {[]string{"a|colour of lid|beige|seen", "b|colour of lid|BEIGE|recalled"},
			"settled; beige [a b]; agree a b", ""},
		"an own name with a form": {[]string{"a|cable|2 m|seen|||quantity", "b|cable|200 cm|seen|||quantity"},
			"disputed; differ a b", ""},
		"strokes of a serial": {[]string{"a|serial|TV1-00417|label", "b|serial|tv1 00417|document"},
			"settled; TV1-00417 [a b]; agree a b", ""},

		"what firmware shows": {[]string{"a|disk-size of HD1|1080 MB|label",
			"b|disk-size of HD1|1080 MB|firmware||seen-by"},
			"settled; 1080 MB [a]; agree a b", ""},
		"what firmware shows otherwise": {[]string{"a|disk-size of HD1|1080 MB|label",
			"b|disk-size of HD1|720 MB|firmware||seen-by"}, "settled; 1080 MB [a]; differ a b", "limit"},
	} {
		r := judged(t, of(test.said...))
		require.Empty(t, r.Problems, name)
		got := told(r.Facts[0])
		require.Equal(t, test.want, got, name)
		require.Contains(t, r.Facts[0].Next, test.next, name)
		isDone := r.Facts[0].State == facts.Settled && len(r.Facts[0].Differ) == 0
		require.Equal(t, isDone, r.Facts[0].Next == "", "%s: %s", name, r.Facts[0].Next)
	}
}

func TestTheWorkedExample(t *testing.T) {
	text, err := os.ReadFile("testdata/example.json")
	require.NoError(t, err)
	var example struct {
		In  facts.Input
		Out facts.Result
	}
	require.NoError(t, json.Unmarshal(text, &example))
	r := judged(t, example.In)
	for i := range r.Facts {
		for n := range r.Facts[i].Explanations {
			require.NotEmpty(t, r.Facts[i].Explanations[n].Text)
			r.Facts[i].Explanations[n].Text = example.Out.Facts[i].Explanations[n].Text
		}
	}
	require.Equal(t, example.Out, r)
}

// What cannot be taken is told with its id, and the rest is judged.
func TestWhatCannotBeTaken(t *testing.T) {
	for line, why := range map[string]string{
		"x|memory|64K|guess":                        "no source",
		"x|memory|lots|seller":                      "an amount of memory as",
		"x|memory|64K|counted|2027":                 "after today",
		"x|memory|64K|counted|1985-13":              "on:",
		"x|built|2031|document":                     "after today",
		"x|built|spring|document":                   "",
		"x|hardware-address|00:60:8C|label":         "six octets",
		"x|hardware-address|00-00-00-00-00-00|seen": "lost",
		"x|hardware-address|ffffffffffff|firmware":  "lost",
		"x|hardware-address|03:60:8C:01:02:03|seen": "group",
		"x|worked|perhaps|tested|2026":              "yes or no",
		"x|mains-voltage|a lot|label":               "220-240 V",
		"x|memory||counted":                         "nothing is said",
		"x|colour|beige|seen||sometimes":            "nature",
		"x|colour|beige|seen|||roman":               "form",
		"x||beige|seen":                             "no attribute",
		"a|maker|Vole|seen":                         "another statement",
	} {
		r := judged(t, of("a|maker|Tarn|label", line))
		require.Len(t, r.Problems, 1, line)
		require.Equal(t, strings.SplitN(line, "|", 2)[0], r.Problems[0].ID)
		require.Contains(t, r.Problems[0].Why, why, line)
		require.Equal(t, "settled; Tarn [a]", told(r.Facts[0]), line)
	}
	_, err := facts.Judge(facts.Input{Now: "today"})
	require.ErrorContains(t, err, "now")
	lost := judged(t, of("x|hardware-address|0:0:0:0:0:0|seen"))
	require.Equal(t, "open", told(lost.Facts[0]), "there is no value, and no silence either")
}

func block(id, attribute string, bytes int64, what string, also ...string) facts.Block {
	b := facts.Block{ID: id, Attribute: attribute, Bytes: bytes, What: what}
	if len(also) > 0 {
		b.AlsoReadAs = &also[0]
	}
	return b
}

func TestClaimsAreExplained(t *testing.T) {
	const k = 1024
	for name, test := range map[string]struct {
		said   []string
		blocks []facts.Block
		limits []facts.Limit
		want   string
	}{
		"two ways settle nothing": {[]string{"a|rom|48K|counted", "b|rom|32K|document"},
			[]facts.Block{block("U1", "rom", 16*k, "data"), block("U2", "rom", 16*k, "data"),
				block("U3", "rom", 16*k, "data")},
			nil, "settled; 48K [a]; differ a b; explain b: U1; explain b: U2; explain b: U3"},
		"what is odd goes first": {[]string{"a|rom|48K|counted", "b|rom|32K|document"},
			[]facts.Block{block("U1", "rom", 16*k, "data"), block("U2", "rom", 16*k, "blank"),
				block("U3", "rom", 16*k, "data")},
			nil, "settled; 48K [a]; agree a b; explain b: U2"},
		"plain ones only when nothing odd fits": {[]string{"a|rom|24K|counted", "b|rom|16K|document"},
			[]facts.Block{block("U1", "rom", 16*k, "repeat"), block("U2", "rom", 8*k, "data")},
			nil, "settled; 24K [a]; agree a b; explain b: U2"},
		"counted elsewhere": {[]string{"a|memory|64K|counted|2026-11-20", "b|memory|80K|firmware|2026-11-20"},
			[]facts.Block{block("main", "memory", 64*k, "data"),
				block("video", "picture-memory", 16*k, "data", "memory")},
			nil, "settled; 64K [a]; agree a b; explain b: video"},
		"a newer report that is explained is no news": {[]string{"a|memory|80K|counted|2026-01",
			"b|memory|64K|firmware|2026-11-20"},
			[]facts.Block{block("main", "memory", 64*k, "data"),
				block("video", "memory", 16*k, "data", "picture-memory")},
			nil, "settled; 80K [a]; agree a b; explain b: video"},
		"an upgrade stays one": {[]string{"a|memory|64K|document|1986", "b|memory|128K|counted|2026"},
			[]facts.Block{block("M1", "memory", 64*k, "data"), block("M2", "memory", 60*k, "data"),
				block("M3", "memory", 4*k, "data")},
			nil, "settled; 128K [b]; then 64K [a] until 2026; explain a: M1; explain a: M2 + M3"},
		"the blocks are the count": {[]string{"b|rom|32K|document"},
			[]facts.Block{block("U1", "rom", 32*k, "data"), block("U2", "rom", 16*k, "other-processor")},
			nil, "settled; 32K [b]; explain b: U2"},
		"five at most, the smallest first": {[]string{"a|rom|10K|counted", "b|rom|8K|document"},
			slices.Concat([]facts.Block{block("big", "rom", 2*k, "data")},
				[]facts.Block{block("s1", "rom", k, "data"), block("s2", "rom", k, "data"),
					block("s3", "rom", k, "data"),
					block("s4", "rom", k, "data")}), nil,
			"settled; 10K [a]; differ a b; explain b: big; explain b: s1 + s2; explain b: s1 + s3; explain b: s1 + s4; explain b: s2 + s3"},
		"a limit": {[]string{"a|disk-size of HD1|1080 MB|label", "b|disk-size of HD1|504 MB|firmware||seen-by"}, nil,
			[]facts.Limit{{Name: "the old firmware", Bytes: 528_482_304}},
			"settled; 1080 MB [a]; explain b:  limit the old firmware"},
		"a limit explains nothing of what holds less": {[]string{"a|disk-size of HD1|420 MB|label",
			"b|disk-size of HD1|504 MB|firmware||seen-by"}, nil,
			[]facts.Limit{{Name: "the old firmware", Bytes: 528_482_304}},
			"settled; 420 MB [a]; differ a b"},
		"a limit of something else": {[]string{"a|disk-size|8 MB|label", "b|disk-size|1 MB|firmware||seen-by"}, nil,
			facts.CommonLimits(), "settled; 8 MB [a]; differ a b"},
		"a common limit": {[]string{"a|memory|64 MB|counted|2026", "b|memory|16 MB|firmware|2026|seen-by"}, nil,
			facts.CommonLimits(), "settled; 64 MB [a]; explain b:  limit a processor with 24 address lines"},
	} {
		in := of(test.said...)
		in.Blocks, in.Limits = test.blocks, test.limits
		require.Equal(t, test.want, told(judged(t, in).Facts[0]), name)
	}
	many := of("a|rom|48K|counted", "b|rom|32K|document")
	for i := range 41 {
		many.Blocks = append(many.Blocks, block(fmt.Sprint(i), "rom", k, "data"))
	}
	r := judged(t, many)
	require.Equal(t, "settled; 48K [a]; differ a b", told(r.Facts[0]))
	require.Equal(t, "b", r.Problems[0].ID)
	require.Contains(t, r.Problems[0].Why, "41 blocks")
}

// Whatever is said in whichever order: every statement is judged or told as a problem, values come from statements,
// groups agree, and the order of weak claims about constants changes nothing.
func TestFactsOfAnything(t *testing.T) {
	random := rand.New(rand.NewSource(12)) //nolint:gosec // the same each time
	pick := func(of ...string) string { return of[random.Intn(len(of))] }
	for range 400 {
		lines := []string{}
		for i := range 1 + random.Intn(12) {
			attribute := pick("memory", "maker", "worked", "built", "mains-voltage", "rom", "firmware")
			value := map[string]string{"memory": pick("64K", "128K", "65536", "lots"),
				"maker":  pick("Tarn", "tarn", "Vole"),
				"worked": pick("yes", "no: silent", "no"), "built": pick("1984", "1984-03", "198X", "1990"),
				"mains-voltage": pick("220-240 V", "220 V", "110 V"), "rom": pick("16K", "32K"),
				"firmware": pick("V1.1", "1.1", "rev. C")}[attribute]
			lines = append(lines, fmt.Sprintf("s%d|%s|%s|%s|%s|%s", i, attribute, value,
				pick("counted", "tested", "firmware", "label", "document", "seller", "hearsay"),
				pick("", "2016", "2018-05", "2026-11-20", "1999/2003", "2031"), pick("", "", "", "seen-by")))
		}
		in := of(lines...)
		r := judged(t, in)
		refused := map[string]bool{}
		for _, p := range r.Problems {
			refused[p.ID] = true
		}
		values := map[string]string{}
		for _, s := range in.Statements {
			values[s.ID] = s.Value
		}
		for _, f := range r.Facts {
			require.Equal(t, f.State == facts.Disputed, f.State == facts.Disputed && f.Now == nil, lines)
			if f.Now != nil && f.Now.Value != facts.Intermittent {
				require.Equal(t, values[f.Now.IDs[0]], f.Now.Value, lines)
			}
			all := []string{}
			if f.Now != nil {
				all = append(all, f.Now.IDs...)
			}
			for _, then := range f.Then {
				all = append(all, then.IDs...)
			}
			for _, d := range f.Differ {
				require.Len(t, d.IDs, 2)
				all = append(all, d.IDs...)
			}
			for _, group := range f.Agree {
				require.Greater(t, len(group), 1)
			}
			for _, id := range all {
				require.False(t, refused[id], "%s is judged although it was refused: %v", id, lines)
			}
			require.NotNil(t, f.Agree)
			require.True(t, len(f.Differ) == 0 || f.Next != "", lines)
		}
	}
}

// Facts of a machine with 200 statements take 5 ms at most.
func BenchmarkFactsOf200Statements(b *testing.B) {
	lines := []string{}
	attributes := facts.Attributes()
	for i := range 200 {
		a := attributes[i%len(attributes)]
		value := map[facts.Form]string{facts.Quantity: fmt.Sprintf("%d K", 64+i%3), facts.Moment: "1984",
			facts.YesNo: "yes",
			facts.Range: "220-240 V", facts.List: "50/60 Hz", facts.Size: "420 x 380 mm",
			facts.Address: "02:60:8C:01:02:03"}[a.Form]
		if value == "" {
			value = fmt.Sprintf("value %d", i%4)
		}
		if a.Unit != "bytes" && a.Form == facts.Quantity {
			value = fmt.Sprint(i % 5)
		}
		lines = append(lines, fmt.Sprintf("s%d|%s|%s|%s|20%02d", i, a.Key, value,
			[]string{"counted", "label", "document", "seller"}[i%4], i%26))
	}
	in := of(lines...)
	for i := range 40 {
		in.Blocks = append(in.Blocks, block(fmt.Sprint("b", i), "memory", int64(1024*(i+3)), "data"))
	}
	for b.Loop() {
		if _, err := facts.Judge(in); err != nil {
			b.Fatal(err)
		}
	}
}
