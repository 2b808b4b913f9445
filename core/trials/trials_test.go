package trials_test

import (
	"encoding/json"
	"fmt"
	"math/bits"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/trials"
)

func judge(t require.TestingT, input string) trials.Output {
	var in trials.Input
	require.NoError(t, json.Unmarshal([]byte(input), &in))
	out, err := trials.Judge(in)
	require.NoError(t, err)
	return out
}

func ExampleJudge() {
	out, _ := trials.Judge(trials.Input{Factors: []trials.Factor{{Name: "cable"}, {Name: "terminator"}, {Name: "disk"}},
		Trials: []trials.Trial{{Result: trials.Fail}, {On: []string{"cable", "terminator"}, Result: trials.OK}}})
	for _, e := range out.Explanations {
		fmt.Printf("%v makes it %s: %.2f\n", e.Factors, e.Makes, e.Probability)
	}
	fmt.Println("refuted", out.Refuted, "confounded", out.Confounded, "next", out.Next.On)
	// Output:
	// [cable] makes it ok: 0.48
	// [terminator] makes it ok: 0.48
	// [cable terminator] makes it ok: 0.05
	// refuted [disk] confounded [[cable terminator]] next [cable]
}

// Three changes at once are untangled, and what was taken back counts.
func TestThreeChangesAtOnce(t *testing.T) {
	const factors = `{"factors":["roms","cell","cable"],"trials":[{"on":[],"result":"fail"},{"on":["roms","cell",
		"cable"],"result":"ok"}`
	first := judge(t, factors+`]}`)
	require.Len(t, first.Explanations, 6)
	require.Equal(t, [][]string{{"roms", "cell", "cable"}}, first.Confounded)
	require.Equal(t, []string{"roms", "cell"}, first.Next.On, "half of what is left, by one change")
	second := judge(t, factors+`,{"on":["roms","cell"],"result":"fail"},{"on":["cable"],"result":"ok"}]}`)
	require.True(t, second.Settled)
	require.Equal(t, []string{"cable"}, second.Explanations[0].Factors)
	require.Equal(t, []string{"roms", "cell"}, second.Refuted)
	require.Nil(t, second.Next)
}

func TestWhatTrialsTell(t *testing.T) {
	for _, c := range []struct {
		about, in, says string
	}{
		{"nothing was tried", `{"factors":["a"],"makes":"ok"}`,
			`{"explanations":[],"refuted":[],"confounded":[],"next":null,
			"settled":false,"notes":[]}`},
		{"nothing is explained yet",
			`{"factors":["a","b","c"],"trials":[{"on":[],"result":"fail"},{"on":["a"],"result":"fail"}],
			"maxTogether":1}`, `{"explanations":[],"refuted":["a"],"confounded":[["b","c"]],"next":{"on":["a","b"],
			"why":"nothing is explained yet, as no trial had that result; of 2 explanations 1 says that it goes well then, 1 that it fails; against the last trial on b"},
			"settled":false,"notes":[]}`},
		{"what may hurt is left alone",
			`{"factors":[{"name":"a","danger":true},"b"],"trials":[{"on":[],"result":"fail"},
			{"on":["a","b"],"result":"ok"}],"maxTogether":1}`, `{"explanations":[{"factors":["a"],"makes":"ok",
				"probability":0.5},
			{"factors":["b"],"makes":"ok","probability":0.5}],"refuted":[],"confounded":[["a","b"]],"next":{"on":["b"],
			"why":"of 2 explanations 1 says that it goes well then, 1 that it fails; against the last trial off a"},"settled":false,"notes":[]}`},
		{"it comes and goes", `{"factors":["a","b"],"trials":[{"on":[],"result":"fail"},{"on":["a"],"result":"ok"},
			{"on":["a"],"result":"fail"},{"on":["a","b"],"result":"ok"}],"maxTogether":1}`,
			`{"explanations":[{"factors":["a"],"makes":"ok","probability":0.9615384615384615},
			{"factors":["b"],"makes":"ok","probability":0.03846153846153847}],"refuted":[],"confounded":[],
			"next":{"on":["a"],"why":"of 2 explanations 1 says that it goes well then, 1 that it fails; against the last trial off b"},"settled":false,
			"notes":["a: ok and fail with the same factors in 2 trials; intermittent, each counts as sometimes"]}`},
		{"nobody knows which way", `{"factors":["a"],"trials":[{"on":["a"],"result":"ok"}]}`,
			`{"explanations":[{"factors":["a"],"makes":"ok","probability":1}],"refuted":[],
			"confounded":[],"next":null,"settled":true,
			"notes":["nobody tried it with nothing changed; such a trial says what there is to explain"]}`},
		{"either way", `{"factors":["a","b"],"trials":[{"on":["a"],"result":"ok"},{"on":["b"],"result":"fail"}],
			"maxTogether":1}`,
			`{"explanations":[{"factors":["a"],"makes":"ok","probability":0.5},
			{"factors":["b"],"makes":"fail","probability":0.5}],"refuted":[],"confounded":[],"next":{"on":[],
			"why":"of 2 explanations 1 says that it goes well then, 1 that it fails; against the last trial off b"},
			"settled":false,"notes":["nobody tried it with nothing changed; such a trial says what there is to explain"]}`},
	} {
		told, err := json.Marshal(judge(t, c.in))
		require.NoError(t, err)
		require.JSONEq(t, c.says, string(told), c.about)
	}
}

func TestTrialsThatCannotBe(t *testing.T) {
	for place, in := range map[string]string{
		"factors[1]: ":                        `{"factors":["a","a"]}`,
		"factors[0]: ":                        `{"factors":[" "]}`,
		"factors[0].effort":                   `{"factors":[{"name":"a","effort":-1}]}`,
		`trials[0].on[1]: "b" is none`:        `{"factors":["a"],"trials":[{"on":["a","b"],"result":"ok"}]}`,
		`trials[0].result: "perhaps" is none`: `{"factors":["a"],"trials":[{"on":[],"result":"perhaps"}]}`,
		"makes":                               `{"factors":["a"],"makes":"sometimes"}`,
		"maxTogether":                         `{"factors":["a"],"maxTogether":3}`,
	} {
		var in2 trials.Input
		require.NoError(t, json.Unmarshal([]byte(in), &in2))
		_, err := trials.Judge(in2)
		require.ErrorContains(t, err, place)
	}
}

var anyCase = rapid.Custom(func(t *rapid.T) trials.Input {
	in := trials.Input{}
	names := []string{"a", "b", "c", "d", "e"}[:rapid.IntRange(1, 5).Draw(t, "factors")]
	for _, name := range names {
		in.Factors = append(in.Factors, trials.Factor{Name: name, Effort: float64(rapid.IntRange(0, 2).Draw(t,
			"effort")),
			Danger: rapid.IntRange(0, 4).Draw(t, "danger") == 0})
	}
	for range rapid.IntRange(0, 7).Draw(t, "trials") {
		on := []string{}
		for _, name := range names {
			if rapid.Bool().Draw(t, name) {
				on = append(on, name)
			}
		}
		in.Trials = append(in.Trials, trials.Trial{On: on,
			Result: rapid.SampledFrom([]trials.Result{trials.OK, trials.Fail, trials.Fail, trials.Sometimes}).
				Draw(t, "result")})
	}
	return in
})

// What is told holds by its own words: no explanation is against a trial, the next trial splits as evenly as any could, and
// probabilities add up.
func TestWhatIsToldHolds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := anyCase.Draw(t, "in")
		out, err := trials.Judge(in)
		require.NoError(t, err)
		swings := func(on []string) bool {
			had := map[trials.Result]bool{}
			for _, one := range in.Trials {
				if slices.Equal(one.On, on) {
					had[one.Result] = true
				}
			}
			return had[trials.OK] && had[trials.Fail]
		}
		predicts := func(e trials.Explanation, on []string) trials.Result {
			isAll := !slices.ContainsFunc(e.Factors, func(f string) bool { return !slices.Contains(on, f) })
			if isAll == (e.Makes == trials.OK) {
				return trials.OK
			}
			return trials.Fail
		}
		sum := 0.0
		for i, e := range out.Explanations {
			sum += e.Probability
			require.False(t, i > 0 && e.Probability > out.Explanations[i-1].Probability, "the likeliest first")
			for _, one := range in.Trials {
				if one.Result != trials.Sometimes && !swings(one.On) {
					require.Equal(t, one.Result, predicts(e, one.On), "%v", e)
				}
			}
			for _, f := range e.Factors {
				require.NotContains(t, out.Refuted, f)
			}
		}
		require.Equal(t, len(out.Explanations) == 1, out.Settled)
		if len(out.Explanations) < 2 {
			return
		}
		require.InDelta(t, 1, sum, 1e-9)
		uneven := func(on []string) int {
			n := 0
			for _, e := range out.Explanations {
				if predicts(e, on) == trials.OK {
					n++
				}
			}
			return max(2*n-len(out.Explanations), len(out.Explanations)-2*n)
		}
		for set := range 1 << len(in.Factors) {
			on := []string{}
			for i, f := range in.Factors {
				if set>>i&1 == 1 {
					on = append(on, f.Name)
				}
			}
			require.LessOrEqual(t, uneven(out.Next.On), uneven(on))
		}
	})
}

// Many factors: the search is no full one then, and still splits what is left.
func TestManyFactors(t *testing.T) {
	in := trials.Input{Trials: []trials.Trial{{Result: trials.Fail}, {Result: trials.OK}}}
	for i := range 40 {
		in.Factors = append(in.Factors, trials.Factor{Name: fmt.Sprint("f", i)})
		in.Trials[1].On = append(in.Trials[1].On, fmt.Sprint("f", i))
	}
	out, err := trials.Judge(in)
	require.NoError(t, err)
	require.Len(t, out.Explanations, 40+40*39/2)
	require.InDelta(t, 28, len(out.Next.On), 2, "all of about half of what is left is on")
}

func BenchmarkTwelveFactorsAndFortyTrials(b *testing.B) {
	in := trials.Input{}
	for i := range 12 {
		in.Factors = append(in.Factors, trials.Factor{Name: fmt.Sprint("f", i), Effort: float64(i)})
	}
	for n := range 40 {
		one := trials.Trial{Result: trials.Sometimes}
		for i := range 12 {
			if bits.OnesCount(uint(n*37>>i&3))%2 == 1 {
				one.On = append(one.On, in.Factors[i].Name)
			}
		}
		in.Trials = append(in.Trials, one)
	}
	for b.Loop() {
		if _, err := trials.Judge(in); err != nil {
			b.Fatal(err)
		}
	}
}
