package memfault_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/memfault"
)

const twoBanks = `{"banks":[
	{"id":"low","base":"0x0","size":"0x10000","chips":{"0":"U40","1":"U41","2":"U42","3":"U43"}},
	{"id":"high","base":65536,"size":"0x10000","chips":{"0":"U50","1":"U51","2":"U52","3":"U53"}}],`

func judge(t require.TestingT, input string) memfault.Output {
	var in memfault.Input
	require.NoError(t, json.Unmarshal([]byte(input), &in))
	out, err := memfault.Judge(in)
	require.NoError(t, err)
	return out
}

// told is a suspect in short.
func told(out memfault.Output) []string {
	list := []string{}
	for _, s := range out.Suspects {
		list = append(list, fmt.Sprintf("%s%s %s %.2f", s.Designator, s.Group, s.Kind, s.Share))
	}
	return list
}

func TestWhichChipIsThatError(t *testing.T) {
	const oneBank = `{"banks":[{"id":"only","base":0,"size":4096,"chips":{"0":"U1","1":"U2"}}],`
	for _, c := range []struct {
		about, in string
		says      []string
	}{
		{"one bit in one bank", twoBanks + `"failures":[{"address":"0x10234","expected":"0xF","actual":"0xB"}]}`,
			[]string{"U52 chip 1.00"}},
		{"the same bit in every bank", twoBanks + `"failures":[{"address":"0x10234","expected":15,"actual":11},
			{"address":"0x0A001","expected":"0x04","actual":"0x00"}]}`,
			[]string{"D2 data-line 1.00", "U42 chip 0.50", "U52 chip 0.50"}},
		{"all bits of one bank", twoBanks + `"failures":[{"address":"0x10234","expected":15,"actual":0},
			{"address":1,"expected":1,
				"actual":0}]}`, []string{"high bank-select 0.80", "D0 data-line 0.40", "U40 chip 0.20",
			"U50 chip 0.20", "U51 chip 0.20", "U52 chip 0.20", "U53 chip 0.20"}},
		{"one bit of the only bank", oneBank + `"failures":[{"address":1,"expected":1,"actual":0}]}`,
			[]string{"U1 chip 1.00", "D0 data-line 1.00"}},
		{"all bits of the only bank", oneBank + `"failures":[{"address":1,"expected":1,"actual":2}]}`,
			[]string{"common common 1.00", "U1 chip 0.50", "U2 chip 0.50"}},
		{"syndromes",
			twoBanks + `"syndromes":{"0b":3},"failures":[{"address":0,"syndrome":"0x0B"},{"address":0,"syndrome":"7"},
			{"address":"0x20000","syndrome":"b"},{"address":3,"expected":1,"actual":1},{"address":3},
			{"address":3,"syndrome":"xyz"}]}`, []string{"U43 chip 1.00"}},
		{"a chip of several bits", `{"banks":[{"id":"a","base":0,"size":16,"chips":{"0":"U1","1":"U1","2":"U2"}},
			{"id":"b","base":16,"size":16,"chips":{}}],"failures":[{"address":1,"expected":3,"actual":0}]}`,
			[]string{"U1 chip 1.00"}},
	} {
		require.Equal(t, c.says, told(judge(t, c.in)), c.about)
	}
	out := judge(t,
		twoBanks+`"syndromes":{"0b":3},"failures":[{"address":0,"syndrome":"7"},{"address":"0x20000","syndrome":"b"},
		{"address":3,"expected":1,"actual":1},{"address":3,"expected":16,"actual":0}]}`)
	require.Equal(t, 1, out.Unplaced)
	require.Equal(t, []memfault.Useless{{2, "0x20000 lies in no bank"}, {3, "at 0x3 what was there is what was expected"},
		{4, "no chip is named for bit 4 of the bank low"}}, out.Problems)
}

// An address line is known by many places, and hinted at by some.
func TestAnAddressLine(t *testing.T) {
	failures := func(n int) string {
		list := ""
		for i := range n {
			list += fmt.Sprintf(`,{"address":%d,"expected":3,"actual":%d}`, (i*7919)&0xFFFF|1<<5, i%2+1)
		}
		return twoBanks + `"failures":[` + list[1:] + `]}`
	}
	require.Equal(t, []string{"A5 address-line 1.00", "U40 chip 0.50", "U41 chip 0.50"}, told(judge(t, failures(64))))
	require.Equal(t, "A5 address-line 0.46", told(judge(t,
		`{"banks":[{"id":"a","base":0,"size":64,"chips":{"0":"U1","1":"U2","2":"U3"}}],
		"failures":[{"address":32,"expected":3,"actual":1},{"address":33,"expected":3,"actual":2},{"address":34,
			"expected":3,"actual":2},
		{"address":36,"expected":3,"actual":2},{"address":40,"expected":3,"actual":2},{"address":48,"expected":3,
			"actual":2},
		{"address":49,"expected":3,"actual":2},{"address":50,"expected":3,"actual":2},{"address":51,"expected":3,
			"actual":2},
		{"address":52,"expected":3,"actual":2},{"address":53,"expected":3,"actual":2}]}`))[2])
}

func TestMemoryThatCannotBe(t *testing.T) {
	for place, in := range map[string]string{
		"banks[1].id":    `{"banks":[{"id":"a","base":0,"size":4},{"id":"a","base":4,"size":4}]}`,
		"banks[0].size":  `{"banks":[{"id":"a","base":0,"size":0}]}`,
		"banks[0].base":  `{"banks":[{"id":"a","base":3,"size":4},{"id":"b","base":0,"size":4}]}`,
		"banks[0].chips": `{"banks":[{"id":"a","base":0,"size":4,"chips":{"64":"U1"}}]}`,
		"syndromes":      `{"syndromes":{"zz":1}}`,
	} {
		var one memfault.Input
		require.NoError(t, json.Unmarshal([]byte(in), &one))
		_, err := memfault.Judge(one)
		require.ErrorContains(t, err, place)
	}
	var in memfault.Input
	require.ErrorContains(t, json.Unmarshal([]byte(`{"failures":[{"address":-1}]}`), &in), "whole number")
	require.Error(t, json.Unmarshal([]byte(`{"failures":[{"address":"0xQ"}]}`), &in))
}

// A fault that is made leads to itself, whatever the banks are.
func TestAFaultIsFound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		banks, width := rapid.IntRange(2, 4).Draw(t, "banks"), rapid.IntRange(2, 16).Draw(t, "bits")
		in := memfault.Input{}
		for b := range banks {
			chips := map[string]string{}
			for bit := range width {
				chips[fmt.Sprint(bit)] = fmt.Sprintf("U%d", b*100+bit)
			}
			in.Banks = append(in.Banks, memfault.Bank{ID: fmt.Sprint("bank ", b), Base: memfault.Figure(b * 1024), Size: 1024, Chips: chips})
		}
		bank, bit := rapid.IntRange(0, banks-1).Draw(t, "bank"), rapid.IntRange(0, width-1).Draw(t, "bit")
		what := rapid.SampledFrom([]memfault.Kind{memfault.Chip, memfault.DataLine, memfault.BankSelect,
			memfault.Common}).Draw(t, "kind")
		for b := range banks {
			if b != bank && (what == memfault.Chip || what == memfault.BankSelect) {
				continue
			}
			expected, actual := memfault.Figure(1<<width-1), memfault.Figure(0)
			if what == memfault.Chip || what == memfault.DataLine {
				actual = expected &^ (1 << bit)
			}
			for range 3 {
				at := memfault.Figure(b*1024 + rapid.IntRange(0, 7).Draw(t, "offset"))
				in.Failures = append(in.Failures, memfault.Failure{Address: at, Expected: &expected, Actual: &actual})
			}
		}
		out, err := memfault.Judge(in)
		require.NoError(t, err)
		first := out.Suspects[0]
		require.Equal(t, what, first.Kind)
		require.Equal(t, 1.0, first.Share)
		want := map[memfault.Kind]string{memfault.Chip: fmt.Sprintf("U%d", bank*100+bit), memfault.DataLine: fmt.Sprintf("D%d", bit),
			memfault.BankSelect: fmt.Sprint("bank ", bank), memfault.Common: "common"}[what]
		require.Equal(t, want, first.Designator+first.Group)
	})
}

func BenchmarkTenThousandFailures(b *testing.B) {
	var in memfault.Input
	require.NoError(b, json.Unmarshal([]byte(twoBanks+`"failures":[]}`), &in))
	expected, actual := memfault.Figure(15), memfault.Figure(0)
	for i := range 10_000 {
		in.Failures = append(in.Failures, memfault.Failure{Address: memfault.Figure(i * 13), Expected: &expected,
			Actual: &actual})
	}
	for b.Loop() {
		if _, err := memfault.Judge(in); err != nil {
			b.Fatal(err)
		}
	}
}
