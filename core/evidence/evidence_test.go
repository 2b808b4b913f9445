package evidence_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/evidence"
)

func ExampleJudge() {
	j := evidence.Judge(evidence.AttributeOf("memory"), []evidence.Statement{
		{Kind: evidence.Seller, Value: "128K"}, {Kind: evidence.Counted, Value: "64K"},
		{Kind: evidence.Firmware, Value: "65536"},
	})
	fmt.Println(j.State, j.Value)
	for _, why := range j.Why {
		fmt.Println(why)
	}
	// Output:
	// settled 64 KB
	// 64 KB, by the count and the firmware
	// the seller says 128 KB, which is contradicted
}

func TestWhatIsKnown(t *testing.T) {
	said := func(pairs ...string) []evidence.Statement {
		statements := []evidence.Statement{}
		for i := 0; i < len(pairs); i += 2 {
			statements = append(statements,
				evidence.Statement{ID: int64(i), Kind: evidence.Kind(pairs[i]), Value: pairs[i+1]})
		}
		return statements
	}
	for _, c := range []struct {
		name, attribute string
		said            []evidence.Statement
		state           evidence.State
		value, why      string
	}{
		{"nothing said", "memory", nil, evidence.Open, "", "nothing is said"},
		{"a chip row less than the firmware reports", "memory",
			said("seller", "128K", "counted", "32K", "firmware", "64K"), evidence.Disputed, "", "equally strong"},
		{"the seller alone", "memory", said("seller", "128K"), evidence.Open, "128 KB", "only the seller says 128 KB"},
		{"two sellers", "memory", said("seller", "128K", "recalled", "64K"), evidence.Disputed, "",
			"what somebody recalls says 64 KB"},
		{"a document against people", "memory", said("document", "96K", "hearsay", "64K"), evidence.Open, "96 KB",
			"hearsay says 64 KB, which is contradicted"},
		{"a plate", "serial", said("label", "tv2-00817"), evidence.Settled, "tv2-00817", "by the label"},
		{"spellings of one number", "serial", said("label", "TV2-00817", "document", "TV2 00817"), evidence.Settled,
			"TV2-00817", "the label and a document"},
		{"two plates", "serial", said("label", "TV2-00817", "label", "TV2-00818"), evidence.Disputed, "", "differ"},
		{"scales and catalogue", "weight", said("measured", "11.4 kg", "document", "11500 g"), evidence.Settled,
			"11.4 kg", "the measurement and a document"},
		{"another weight", "weight", said("measured", "11.4", "document", "13 kg"), evidence.Settled, "11.4 kg",
			"13 kg, which is contradicted"},
		{"words are compared as words", "maker", said("label", "Tarn & Vole", "seen", "tarn  & vole"), evidence.Settled,
			"tarn  & vole", "what was seen and the label"},
		{"a name of its own", "colour", said("seen", "sand"), evidence.Settled, "sand", "what was seen"},
		{"not in the form", "memory", said("label", "lots", "seller", "Lots"), evidence.Settled, "lots",
			"the label and the seller"},
	} {
		j := evidence.Judge(evidence.AttributeOf(c.attribute), c.said)
		assert.Equal(t, c.state, j.State, c.name)
		assert.Equal(t, c.value, j.Value, c.name)
		assert.Contains(t, fmt.Sprint(j.Why), c.why, c.name)
		assert.Equal(t, c.state == evidence.Settled, j.Next == "", c.name)
	}
}

func TestFormsOfValues(t *testing.T) {
	for _, c := range []struct{ attribute, value, normal string }{
		{"memory", "65536", "64 KB"}, {"mains-voltage", "220-240V", "220-240 V"}, {"mains-frequency", "50Hz", "50 Hz"},
		{"mains-frequency", "50 / 60 Hz", "50/60 Hz"},
		{"mains-current", "600 mA", "0.6 A"}, {"weight", "11400g", "11.4 kg"},
		{"outer-size", "42 x 38 x 11 cm", "420 x 380 x 110 mm"},
	} {
		normal, err := evidence.AttributeOf(c.attribute).Normal(c.value)
		require.NoError(t, err, c.value)
		assert.Equal(t, c.normal, normal)
		again, err := evidence.AttributeOf(c.attribute).Normal(normal)
		require.NoError(t, err, normal)
		assert.Equal(t, normal, again)
	}
	for attribute, value := range map[string]string{
		"memory": "much", "mains-voltage": "high", "weight": "1 x 2", "outer-size": "1x2x3x4", "serial": "---",
		"mains-current": "0.6 V",
	} {
		_, err := evidence.AttributeOf(attribute).Normal(value)
		assert.Error(t, err, value)
	}
}

// The order in which statements came, and how often one is repeated, decides nothing.
func TestOrderDecidesNothing(t *testing.T) {
	kinds := []evidence.Kind{evidence.Seen, evidence.Counted, evidence.Firmware, evidence.Label, evidence.Document,
		evidence.Seller, evidence.Hearsay}
	statement := rapid.Custom(func(t *rapid.T) evidence.Statement {
		return evidence.Statement{Kind: rapid.SampledFrom(kinds).Draw(t, "kind"),
			Value: rapid.SampledFrom([]string{"32K", "64K", "65536", "128K"}).Draw(t, "value")}
	})
	rapid.Check(t, func(t *rapid.T) {
		said := rapid.SliceOfN(statement, 1, 8).Draw(t, "said")
		a := evidence.Judge(evidence.AttributeOf("memory"), said)
		shuffled := rapid.Permutation(said).Draw(t, "shuffled")
		b := evidence.Judge(evidence.AttributeOf("memory"), append(shuffled, said[0]))
		assert.Equal(t, a.State, b.State)
		assert.Equal(t, a.Value, b.Value)
		assert.Equal(t, len(a.Groups), len(b.Groups))
	})
}

func TestWhatAsksForSomebodyComesFirst(t *testing.T) {
	judged := evidence.JudgeAll(map[string][]evidence.Statement{
		"serial": {{Kind: evidence.Label, Value: "TV2-1"}},
		"memory": {{Kind: evidence.Counted, Value: "32K"}, {Kind: evidence.Firmware, Value: "64K"}},
		"colour": {{Kind: evidence.Seller, Value: "sand"}},
	}, "weight")
	keys := []string{}
	for _, j := range judged {
		keys = append(keys, j.Attribute.Key)
	}
	assert.Equal(t, []string{"memory", "weight", "colour", "serial"}, keys)
	assert.Equal(t, 1, evidence.CountOf(judged, evidence.Settled))
	v := evidence.Verdict(judged)
	assert.Equal(t, "1 disputed, 1 open", v.Value) // nothing said of the weight is no statement
	assert.Equal(t, "attention", string(v.State))
	assert.Contains(t, v.Why[0].Text,
		"Memory is disputed: the count says 32 KB; the firmware says 64 KB; they are equally strong, and differ. To settle it: write the sheet of every board")
	assert.Empty(t, evidence.Verdict(nil).Value)
}

func TestTables(t *testing.T) {
	for _, a := range evidence.Attributes() {
		assert.NotEmpty(t, a.SettledBy, a.Key)
		assert.NotEmpty(t, a.Source, a.Key)
	}
	assert.True(t, evidence.Seen.IsKnown())
	assert.False(t, evidence.Kind("guessed").IsKnown())
	assert.Greater(t, evidence.Label.Strength(), evidence.Document.Strength())
}

// Written in its form, a value stays as it is, and agrees with what it was written from.
func FuzzNormal(f *testing.F) {
	for _, seed := range []string{"65536", "220-240V", "50 / 60 Hz", "0.6 A", "11400g", "42 x 38 x 11 cm", "TV2 00817",
		"1e9", "--", "9999999.999 kg"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, value string) {
		for _, a := range evidence.Attributes() {
			normal, err := a.Normal(value)
			if err != nil {
				continue
			}
			again, err := a.Normal(normal)
			require.NoError(t, err, "%s %q", a.Key, normal)
			require.Equal(t, normal, again, a.Key)
			j := evidence.Judge(a,
				[]evidence.Statement{{Kind: evidence.Label, Value: value}, {Kind: evidence.Label, Value: normal}})
			require.Equal(t, evidence.Settled, j.State, "%s %q %q", a.Key, value, normal)
		}
	})
}
