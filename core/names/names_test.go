package names_test

import (
	"fmt"
	"regexp"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/names"
)

var pilot = names.Person{ID: 7, Name: "Jory Tamsin Penhallow", Spellings: []string{"Capt. Penhallow", "old Jory"},
	Role: "a former pilot"}

func redact(text string, persons ...names.Person) string {
	return names.New(persons).Redact(text, nil)
}

func ExampleMatcher_Redact() {
	m := names.New([]names.Person{{ID: 1, Name: "Jory Penhallow", Role: "a former pilot"}})
	fmt.Println(m.Redact("Bought from PENHALLOW, J. in 1986; Penhallow Street is another matter.", nil))
	// Output: Bought from a former pilot in 1986; Penhallow Street is another matter.
}

func TestEverySpellingOfAName(t *testing.T) {
	for _, written := range []string{
		"Jory Tamsin Penhallow", "jory tamsin penhallow", "JORY TAMSIN PENHALLOW", "Jory Penhallow", "Tamsin Penhallow",
		"Penhallow, Jory", "Penhallow Jory Tamsin", "Penhallow, Jory T.", "J. Penhallow", "J Penhallow",
		"J. T. Penhallow", "J.T. Penhallow",
		"JT Penhallow", "Penhallow, J.", "PENHALLOW J T", "Jory\nPenhallow", "Jory \r\n\t Penhallow",
		"Jory\u00a0Penhallow", "Jory-Penhallow",
		"Jory\u2011Tamsin Penhallow", "Jory Penhal-\nlow", "Jory Tam-\n  sin Pen\u00adhallow",
		"Jo\u200bry\u200d Pen\ufeffhallow", "\u202eJory Penhallow",
		"Ｊｏｒｙ　Ｐｅｎｈａｌｌｏｗ", "Jóry Pénhallow", "jory_penhallow", "jory.penhallow", "JoryPenhallow", "penhallowjory",
		"jpenhallow",
		"Penhallow (Jory)", "Jory “Tamsin” Penhallow", "Capt. Penhallow", "capt penhallow", "Old Jory", "Jory, old",
	} {
		for around, want := range map[string]string{"%s": "%s", "of %s.": "of %s.", "(%s)": "(%s)",
			"by %s's hand": "by %s's hand", "%s, 1986": "%s, 1986", "U14 %s": "U14 %s"} {
			if around == "of %s." && regexp.MustCompile(`\b[JT]\.?$`).MatchString(written) {
				continue // the point is the initial's
			}
			got := redact(fmt.Sprintf(around, written), pilot)
			plain := strings.NewReplacer("\u202e", "", "\u200d", "", "\n", "").Replace(got)
			require.Equal(t, fmt.Sprintf(want, "a former pilot"), plain, "%q", written)
		}
	}
}

func TestWhatIsNoSpellingStays(t *testing.T) {
	chip := names.Person{ID: 2, Name: "Will Chip", Role: "a donor"}
	short := names.Person{ID: 3, Name: "Al", Role: "somebody"}
	word := names.Person{ID: 4, Name: "Rose", Role: "a neighbour"}
	for _, text := range []string{
		"Penhallow Street", "Jory", "the Jorys of Penhallow", "Jory went to Penhallow", "XJory Penhallowx",
		"Jory2 Penhallow", "J7 Penhallow",
		"a chip will fail", "the chip, it will", "chips", "Al", "aluminium", "al", "primrose", "roses",
		"Jory | Penhallow", "Jory\x1fPenhallow",
		"Jory (who had been at sea) Penhallow", "", "x", "\xff\xfe",
	} {
		require.Equal(t, text, redact(text, pilot, short, names.Person{ID: 4, Name: "Rosey", Role: "x"}), "%q", text)
	}
	require.Equal(t, "27128 will hold; a donor", redact("27128 will hold; chip, will", chip))
	require.Equal(t, "the voltage a neighbour", redact("the voltage rose", word))
	require.Equal(t, "primrose a neighbour", redact("primrose Rose", word))
}

func TestMentionsCanBeKept(t *testing.T) {
	m := names.New([]names.Person{{ID: 4, Name: "Rose", Role: "a neighbour"}, pilot})
	found := m.Find("The voltage rose; J. Penhallow saw it.")
	require.Len(t, found, 2)
	require.Equal(t, []int64{4, 7}, []int64{found[0].Person, found[1].Person})
	kept := m.Redact("The voltage rose; J. Penhallow saw it.", func(mention names.Mention) bool {
		return mention.Person == 4
	})
	require.Equal(t, "The voltage rose; a former pilot saw it.", kept)
	require.True(t, names.New(nil).IsEmpty())
	require.True(t, (*names.Matcher)(nil).IsEmpty())
	require.Equal(t, "x", (*names.Matcher)(nil).Redact("x", nil))
}

// The longest way to write a name wins, whoever comes first.
func TestTheWholeNameIsTaken(t *testing.T) {
	father := names.Person{ID: 1, Name: "Jory Penhallow", Role: "the father"}
	son := names.Person{ID: 2, Name: "Jory Penhallow Marsh", Role: "the son"}
	require.Equal(t, "the son and the father", redact("Jory Penhallow Marsh and Jory Penhallow", father, son))
}

// Whatever stands around a name, the name goes and all else stays.
func TestOnlyTheNameGoes(t *testing.T) {
	m := names.New([]names.Person{{ID: 1, Name: "Zennor Quillivan", Role: "[role]"}})
	rapid.Check(t, func(t *rapid.T) {
		other := rapid.StringMatching(`([a-y0-9 .,;:|\n-]|é|\x{200b}){0,20}`)
		before, after := other.Draw(t, "before"), other.Draw(t, "after")
		written := rapid.SampledFrom([]string{"Zennor Quillivan", "Quillivan, Zennor", "z. quillivan",
			"ZENNOR\nQUILLIVAN"}).Draw(t, "written")
		text := before + " | " + written + " | " + after
		if got, want := m.Redact(text, nil),
			before+" | [role]"+strings.Repeat("\n", strings.Count(written, "\n"))+" | "+after; got != want {
			t.Fatalf("%q became %q, want %q", text, got, want)
		}
	})
}

func FuzzRedact(f *testing.F) {
	m := names.New([]names.Person{pilot, {ID: 2, Name: "Æthel Þorn", Role: "x"}})
	for _, seed := range []string{"Jory Penhallow", "Jory-\n", "æthel thorn", "\u0301\u200b", "ﬁ ß İ ǅ"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		end := 0
		for _, mention := range m.Find(text) {
			if mention.Start < end || mention.End <= mention.Start || mention.End > len(text) {
				t.Fatalf("%q: %+v behind %d", text, mention, end)
			}
			end = mention.End
		}
		if clean := m.Redact(text, nil); utf8.ValidString(text) && !utf8.ValidString(clean) {
			t.Fatalf("%q became %q", text, clean)
		}
	})
}

type inner struct {
	Note  string   `says:"text"`
	Notes []string `says:"text"`
	Code  string
	Self  *inner
}

type outer struct {
	inner
	Title *string `says:"text"`
	Rows  []inner
	By    map[string]inner
	Any   any
	Body  string `says:"sheet"`
	n     int
}

func TestOnlyTypedTextsAreRewritten(t *testing.T) {
	title := "rose"
	one := inner{Note: "rose", Notes: []string{"rose", "x"}, Code: "rose", Self: &inner{Note: "rose", Code: "rose"}}
	value := outer{inner: one, Title: &title, Rows: []inner{one}, By: map[string]inner{"rose": one}, Any: &one,
		Body: "rose", n: 1}
	before := fmt.Sprintf("%+v %s %+v", value, *value.Title, *value.Self)
	var fields names.Fields
	loud := fields.Rewrite(value, names.Rewriting{"text": strings.ToUpper}).(outer)
	want := inner{Note: "ROSE", Notes: []string{"ROSE", "X"}, Code: "rose", Self: &inner{Note: "ROSE", Code: "rose"}}
	require.Equal(t, want, loud.Rows[0])
	require.Equal(t, want, loud.By["rose"])
	require.Equal(t, &want, loud.Any)
	require.Equal(t, "ROSE", *loud.Title)
	require.Equal(t, "rose", loud.Body)
	require.Equal(t, before, fmt.Sprintf("%+v %s %+v", value, *value.Title, *value.Self), "the value itself stays")
	said := map[string]int{}
	fields.Each(value, func(kind, text string) { said[kind+" "+text]++ })
	require.Equal(t, 1, said["sheet rose"])
	require.Nil(t, fields.Rewrite(nil, nil))
	plain := struct{ Code string }{"rose"}
	require.Equal(t, plain, fields.Rewrite(plain, names.Rewriting{"text": strings.ToUpper}))
}

func BenchmarkFind(b *testing.B) {
	persons := make([]names.Person, 200)
	for i := range persons {
		persons[i] = names.Person{ID: int64(i), Name: fmt.Sprintf("Given%d Middle%d Family%d", i, i, i), Role: "x"}
	}
	m := names.New(persons)
	text := strings.Repeat("The supply was opened and a capacitor found leaking; the rail stood at 4.93 V. ", 50)
	b.SetBytes(int64(len(text)))
	for b.Loop() {
		m.Find(text)
	}
}
