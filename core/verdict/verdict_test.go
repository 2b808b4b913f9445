package verdict_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"frugalheron/core/verdict"
)

func ExampleSentence() {
	unplugged := verdict.NewSentence("unplugged", "{name}, {pins} pins, is unplugged")
	reason := unplugged.Because("J5", 34).At(7, 12)
	fmt.Println(reason.Text)
	fmt.Println(reason.Code, reason.Args[0].Text, reason.Args[1].Value, reason.Spot.Line)
	// Output:
	// J5, 34 pins, is unplugged
	// unplugged J5 34 12
}

// What people wrote is text, which may name somebody; words and numbers of ours are values. A sentence has a place for
// each, and no other.
func TestSentencesHaveTheirPlaces(t *testing.T) {
	s := verdict.NewSentence("found", "{severity}: {words}")
	require.Equal(t, []verdict.Arg{{Name: "severity", Value: "hazard"}, {Name: "words", Text: "by {severity}"}},
		s.Because(verdict.Word("hazard"), "by {severity}").Args)
	require.Equal(t, "hazard: by {severity}", s.Because(verdict.Word("hazard"), "by {severity}").Text)
	require.Equal(t, "nothing", verdict.NewSentence("none", "nothing").Because().Text)
	require.Panics(t, func() { s.Because("one") })
	require.Panics(t, func() { s.Because("one", 2.5) })
}

// Verdicts that say nothing are left out, long whys end, and what must stop goes first.
func TestVerdictsAreToldInTheOrderOfWhatTheyMean(t *testing.T) {
	line := verdict.NewSentence("line", "line {n}")
	why := []verdict.Reason{}
	for n := range 62 {
		why = append(why, line.Because(n))
	}
	told := verdict.Telling(verdict.Verdict{Key: "long", Value: "62 lines", Why: why}, verdict.Verdict{Key: "empty"},
		verdict.Verdict{Key: "bare", Value: "1", State: verdict.Attention})
	require.Len(t, told, 2)
	require.Equal(t, []string{"line 59", "and 2 more"}, []string{told[0].Why[59].Text, told[0].Why[60].Text})
	require.Equal(t, verdict.Plain, told[0].State)
	require.NotNil(t, told[1].Why)

	keys := func(verdicts []verdict.Verdict) (keys []string) {
		for _, v := range verdicts {
			keys = append(keys, v.Key)
		}
		return keys
	}
	of := func(key string, state verdict.State) verdict.Verdict { return verdict.Verdict{Key: key, State: state} }
	require.Equal(t, []string{"b", "d", "a", "c", "e"}, keys(verdict.Together(
		[]verdict.Verdict{of("a", verdict.Attention), of("b", verdict.Stop), of("c", verdict.Plain)},
		[]verdict.Verdict{of("d", verdict.Stop), of("e", verdict.Plain)})))
	require.Equal(t, []string{"", "1 chip", "2 chips"}, []string{verdict.Counted(0, "chip", "chips"),
		verdict.Counted(1, "chip", "chips"), verdict.Counted(2, "chip", "chips")})
}
