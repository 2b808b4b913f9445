package trials_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/trials"
)

func ExampleLastGood() {
	way := trials.LastGood(trials.Input{Factors: []trials.Factor{{Name: "cable"}, {Name: "disk"}, {Name: "ROM"}},
		Trials: []trials.Trial{{On: []string{"cable", "ROM"}, Result: trials.OK}, {Result: trials.Fail},
			{On: []string{"cable", "disk"}, Result: trials.Sometimes}}})
	fmt.Printf("to trial %d: take back %v, put in again %v", way.Trial, way.TakeBack, way.PutBack)
	// Output: to trial 1: take back [disk], put in again [ROM]
}

func TestTheWayBack(t *testing.T) {
	in := trials.Input{Factors: []trials.Factor{{Name: "a"}}, Trials: []trials.Trial{{Result: trials.Fail}}}
	require.Nil(t, trials.LastGood(trials.Input{}))
	require.Nil(t, trials.LastGood(in), "it never went well")
	in.Trials = append(in.Trials, trials.Trial{On: []string{"a"}, Result: trials.OK})
	require.Nil(t, trials.LastGood(in), "it goes well now")
	left, err := trials.Left(in)
	require.NoError(t, err)
	require.Equal(t, []int{0, 1}, left)
	in.Trials[1].On = []string{"b"}
	_, err = trials.Left(in)
	require.ErrorContains(t, err, "trials[1].on[0]")
}

func TestHowOftenItFailed(t *testing.T) {
	for counts, says := range map[[2]int]trials.Result{{1, 0}: trials.OK, {1, 1}: trials.Fail, {9, 0}: trials.OK,
		{9, 9}: trials.Fail, {9, 1}: trials.Sometimes, {9, 8}: trials.Sometimes} {
		require.Equal(t, says, trials.Counted(counts[0], counts[1]), counts)
	}
}

// A bad part fails wherever it is; one that goes well elsewhere does not go together with this machine.
func TestBadPartOrBadPairing(t *testing.T) {
	well, fails, swings := trials.Tried{OK: 2}, trials.Tried{Fails: 1}, trials.Tried{OK: 1, Fails: 1}
	for _, c := range []struct {
		says  trials.Pairing
		tried []trials.Tried
	}{
		{trials.NotTold, nil},
		{trials.NotTold, []trials.Tried{fails}},
		{trials.NotTold, []trials.Tried{well}},
		{trials.BadPart, []trials.Tried{fails, fails}},
		{trials.GoodPart, []trials.Tried{well, well}},
		{trials.BadPairing, []trials.Tried{well, fails, swings}},
		{trials.ComesGoes, []trials.Tried{swings}},
		{trials.ComesGoes, []trials.Tried{fails, fails, {Sometimes: 1}}},
	} {
		require.Equal(t, c.says, trials.PairingOf(c.tried), "%v", c.tried)
	}
}

func TestWhatTheReckoningSays(t *testing.T) {
	require.Empty(t, trials.VerdictOf(nil).Value)
	in := trials.Input{Factors: []trials.Factor{{Name: "a"}, {Name: "b"}}, Trials: []trials.Trial{{Result: trials.Fail},
		{On: []string{"a", "b"}, Result: trials.OK}}}
	out, err := trials.Judge(in)
	require.NoError(t, err)
	v := trials.VerdictOf([]trials.Case{{Symptom: "no picture", Output: out}, {Symptom: "hums"}})
	require.Equal(t, "2 symptoms", v.Value)
	require.Equal(t, []string{"no picture: 3 explanations are left", "next, with a on",
		"hums: nothing is explained yet"},
		[]string{v.Why[0].Text, v.Why[1].Text, v.Why[2].Text})
	in.Trials[1] = trials.Trial{On: []string{"a", "b"}, Result: trials.Fail}
	out, err = trials.Judge(in)
	require.NoError(t, err)
	require.Equal(t, "no explanation agrees with the trials", out.InShort())
}
