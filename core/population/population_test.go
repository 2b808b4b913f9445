package population_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/device/builtin"
	"frugalheron/core/population"
)

func judge(t require.TestingT, input string) population.Output {
	var in population.Input
	require.NoError(t, json.Unmarshal([]byte(input), &in))
	out, err := population.Judge(builtin.Library(), in)
	require.NoError(t, err)
	return out
}

const twoBanks = `{"banks":[{"id":"A","sockets":["M1","M2"],"after":null},{"id":"B","sockets":["M3","M4"],"after":"A"}],
	"sizes":["256Kx9","1Mx9"],`

// told is an output in short.
func told(out population.Output) (broken, plans []string) {
	for _, b := range out.Broken {
		broken = append(broken, fmt.Sprint(b.Rule, b.Sockets))
	}
	for _, p := range out.Plans {
		text := ""
		for _, socket := range []string{"M1", "M2", "M3", "M4"} {
			if one, known := p.Sockets[socket]; known && one != nil {
				text += *one + "/"
			} else {
				text += "-/"
			}
		}
		plans = append(plans, fmt.Sprint(text, " ", p.Bytes>>10, "K ", p.Changes, p.Buy))
	}
	return broken, plans
}

func TestPopulations(t *testing.T) {
	const usual = `"rules":{"full":true,"sameInBank":true,"parity":true,"maxNs":100},`
	for _, c := range []struct {
		about, in     string
		broken, plans []string
	}{
		{"the most, and the most with buying",
			twoBanks + usual + `"fitted":{"M1":"SIMM 30-pin 256Kx9 80ns","M2":"SIMM 30-pin 256Kx9 80ns"},
			"stock":[{"text":"SIMM 30-pin 1Mx9 70ns","count":2}],"want":"max"}`, nil,
			[]string{"SIMM 30-pin 256Kx9 80ns/SIMM 30-pin 256Kx9 80ns/SIMM 30-pin 1Mx9 70ns/SIMM 30-pin 1Mx9 70ns/ 2560K 2 []",
				"SIMM 30-pin 1Mx9 70ns/SIMM 30-pin 1Mx9 70ns/1Mx9/1Mx9/ 4096K 4 [{1Mx9 2}]"}},
		{"all that can be wrong in banks", twoBanks + usual + `"fitted":{"M3":"256Kx9","M4":"1Mx8 120ns","M1":null}}`,
			[]string{"order[M3 M4]", "mixed[M3 M4]", "size[M4]", "parity[M4]", "speed[M4]"}, nil},
		{"half a bank, and what is near", twoBanks + usual + `"fitted":{"M1":"1Mx9-70"},"stock":[{"text":"4MB",
			"count":1},{"text":"1MB","count":1}]}`,
			[]string{"full[M2]"}, []string{"1Mx9-70/1MB/-/-/ 2048K 1 []"}},
		{"a bank behind one that is not full", twoBanks + usual + `"fitted":{"M1":"1Mx9","M3":"1Mx9","M4":"1Mx9"}}`,
			[]string{"full[M2]", "order[M3 M4]"}, []string{"1Mx9/1Mx9/-/-/ 2048K 3 []"}},
		{"so much is wanted",
			twoBanks + usual + `"fitted":{},"stock":[{"text":"256Kx9 8x 256Kx1","count":4}],"want":1000000}`, nil,
			[]string{"256Kx9 8x 256Kx1/256Kx9 8x 256Kx1/256Kx9 8x 256Kx1/256Kx9 8x 256Kx1/ 1024K 4 []",
				"1Mx9/1Mx9/-/-/ 2048K 2 [{1Mx9 2}]",
				"1Mx9/1Mx9/256Kx9 8x 256Kx1/256Kx9 8x 256Kx1/ 2560K 4 [{1Mx9 2}]"}},
		{"deeper chips than the board addresses",
			twoBanks + `"rules":{"organisation":{"words":262144},"maxBytes":1048576},
			"fitted":{"M1":"256Kx9 2x 1Mx4","M2":"256Kx9 9x 41256","M3":"1Mx9 unknown"}}`,
			[]string{"organisation[M1]", "max[M1 M2 M3]"}, []string{"-/256Kx9 9x 41256/-/-/ 256K 2 []",
				"1Mx9 unknown/-/-/-/ 1024K 3 []"}},
		{"only what the maker allows", twoBanks + `"allowed":[{"fill":{"A":"1Mx9","B":null},"bytes":2097152,
			"jumpers":{"W1":"2-3"}},
			{"fill":{"A":"256Kx9","B":"256Kx9"},"bytes":1048576}],"rules":{"full":true},"fitted":{"M1":"256Kx9",
				"M2":"256Kx9"}}`,
			[]string{"not-allowed[M1 M2]"}, nil},
	} {
		out := judge(t, c.in)
		broken, plans := told(out)
		require.Equal(t, c.broken, broken, c.about)
		require.Equal(t, c.plans, plans, c.about)
		require.Equal(t, len(broken) == 0, out.Legal)
		require.Equal(t, len(plans) == 0, out.Why != "", "%s: %s", c.about, out.Why)
	}
	out := judge(t, twoBanks+`"allowed":[{"fill":{"A":"1Mx9"},"bytes":2097152,"jumpers":{"W1":"2-3"}}],"fitted":{},
		"want":1}`)
	require.Equal(t, map[string]any{"W1": "2-3"}, out.Plans[0].Jumpers)
	require.Equal(t, []population.Buy{{"1Mx9", 2}}, out.Plans[0].Buy)
}

func TestPopulationsThatCannotBe(t *testing.T) {
	for place, in := range map[string]string{
		"banks[1].id":         `{"banks":[{"id":"A"},{"id":"A"}]}`,
		"banks[1].sockets[0]": `{"banks":[{"id":"A","sockets":["M1"]},{"id":"B","sockets":["M1"]}]}`,
		"banks[0].after":      `{"banks":[{"id":"A","after":"A"}]}`,
		"sizes[0]":            `{"sizes":["large"]}`,
		"fitted":              `{"fitted":{"M9":"1Mx9"}}`,
		"stock[0].count":      `{"stock":[{"text":"1Mx9","count":-1}]}`,
		"allowed[0].fill":     `{"allowed":[{"fill":{"Z":"1Mx9"}}]}`,
	} {
		var one population.Input
		require.NoError(t, json.Unmarshal([]byte(in), &one))
		_, err := population.Judge(builtin.Library(), one)
		require.ErrorContains(t, err, place)
	}
	var in population.Input
	require.ErrorContains(t, json.Unmarshal([]byte(`{"want":"most"}`), &in), "max")
	require.Error(t, json.Unmarshal([]byte(`{"want":-1}`), &in))
}

// Every plan may stand, holds what is wanted, and none that may stand is cheaper; all ways to fill four sockets are tried.
func TestPlansAreTheBest(t *testing.T) {
	modules := []string{"", "256Kx9 70ns", "1Mx9 70ns", "1Mx8", "1Mx9 150ns"}
	rapid.Check(t, func(t *rapid.T) {
		behind, ns := "A", 100
		in := population.Input{Banks: []population.Bank{{ID: "A", Sockets: []string{"M1", "M2"}}, {ID: "B",
			Sockets: []string{"M3"}}},
			Sizes: []string{"256Kx9", "1Mx9"}, Fitted: map[string]*string{}, Rules: population.Rules{Full: rapid.Bool().Draw(t, "full"),
				SameInBank: rapid.Bool().Draw(t, "same"), Parity: rapid.Bool().Draw(t, "parity"), MaxNs: &ns},
			Want: &population.Want{Bytes: int64(rapid.IntRange(0, 3).Draw(t, "want")) << 20}}
		if rapid.Bool().Draw(t, "after") {
			in.Banks[1].After = &behind
		}
		for _, socket := range []string{"M1", "M2", "M3"} {
			if text := rapid.SampledFrom(modules).Draw(t, socket); text != "" {
				in.Fitted[socket] = &text
			}
		}
		for _, text := range modules[1:3] {
			in.Stock = append(in.Stock, population.Stock{Text: text, Count: rapid.IntRange(0, 2).Draw(t, "count")})
		}
		out, err := population.Judge(builtin.Library(), in)
		require.NoError(t, err)
		stands := func(sockets map[string]*string) population.Output {
			told := in
			told.Fitted, told.Want = sockets, nil
			out, err := population.Judge(builtin.Library(), told)
			require.NoError(t, err)
			return out
		}
		has := map[string]int{}
		for _, s := range in.Stock {
			has[s.Text] += s.Count
		}
		for _, text := range in.Fitted {
			has[*text]++
		}
		bestBuy, bestChanges, found := 0, 0, false
		for n := range 27 {
			sockets, changes, used := map[string]*string{}, 0, map[string]int{}
			for i, socket := range []string{"M1", "M2", "M3"} {
				text := modules[[]int{n % 3, n / 3 % 3, n / 9}[i]]
				now := ""
				if in.Fitted[socket] != nil {
					now = *in.Fitted[socket]
				}
				if text != "" {
					sockets[socket] = &text
					used[text]++
				}
				if now != text {
					changes++
				}
			}
			buy := 0
			for text, count := range used {
				buy += max(0, count-has[text])
			}
			one := stands(sockets)
			if len(used) == 0 || !one.Legal || one.Bytes < in.Want.Bytes {
				continue
			}
			if !found || buy < bestBuy || buy == bestBuy && changes < bestChanges {
				bestBuy, bestChanges, found = buy, changes, true
			}
		}
		require.Equal(t, found, len(out.Plans) > 0)
		for i, p := range out.Plans {
			one := stands(p.Sockets)
			require.True(t, one.Legal, "%v", one.Broken)
			require.Equal(t, p.Bytes, one.Bytes)
			require.GreaterOrEqual(t, p.Bytes, in.Want.Bytes)
			buy := 0
			for _, b := range p.Buy {
				buy += b.Count
			}
			if i == 0 {
				require.Equal(t, []int{bestBuy, bestChanges}, []int{buy, p.Changes})
			}
		}
	})
}

func BenchmarkSixteenSocketsAndSixtyModules(b *testing.B) {
	in := population.Input{Sizes: []string{"256Kx9", "1Mx9", "4Mx9", "16Mx9"}, Fitted: map[string]*string{},
		Want: &population.Want{IsMax: true}}
	text := "256Kx9 80ns"
	for i := range 4 {
		bank := population.Bank{ID: fmt.Sprint(i)}
		for n := range 4 {
			bank.Sockets = append(bank.Sockets, fmt.Sprint("M", i, n))
			in.Fitted[bank.Sockets[n]] = &text
		}
		in.Banks = append(in.Banks, bank)
	}
	for _, size := range in.Sizes {
		in.Stock = append(in.Stock, population.Stock{Text: "SIMM 30-pin " + size + " 70ns", Count: 15})
	}
	for _, rules := range []population.Rules{{Full: true, SameInBank: true}, {}} {
		in.Rules = rules
		b.Run(fmt.Sprint("full ", rules.Full), func(b *testing.B) {
			for b.Loop() {
				if _, err := population.Judge(builtin.Library(), in); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}

// Modules as people write them: the size is the first word that is one, chips stand behind it, and what is told in bytes is
// the size of the machine with as much data.
func TestModulesAsTheyAreWritten(t *testing.T) {
	for text, says := range map[string]string{
		"SIMM 30-pin 1Mx9 70ns":   "[]",
		"1Mx9-70":                 "[]",
		"1mX9, -70ns":             "[]",
		"1MB":                     "[]",
		"1Mx9-120":                "[speed[M1]]",
		"SIMM 1Mx9 120 ns":        "[speed[M1]]",
		"SIMM 1Mx9 120":           "[]", // the figure stands by itself: nobody knows of what
		"1Mx8 70ns":               "[size[M1] parity[M1]]",
		"unmarked":                "[size[M1] parity[M1]]",
		"1Mx9 70ns 9x 411000":     "[organisation[M1]]",
		"1Mx9 70ns (2x 1Mx4)":     "[organisation[M1]]",
		"1Mx9 70ns 36x 41256":     "[]",
		"1Mx9 70ns nobody's chip": "[]",
	} {
		text := text
		words, ns := "M1", 100
		out, err := population.Judge(builtin.Library(), population.Input{Banks: []population.Bank{{ID: "A",
			Sockets: []string{words}}}, Sizes: []string{"1Mx9"}, Fitted: map[string]*string{"M1": &text},
			Rules: population.Rules{Parity: true, MaxNs: &ns, Organisation: &population.Depth{Words: 262144}}})
		require.NoError(t, err)
		broken, _ := told(out)
		require.Equal(t, says, fmt.Sprint(append([]string{}, broken...)), text)
	}
}
