package exterior_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"frugalheron/core/exterior"
	"frugalheron/core/reckoning"
	"frugalheron/core/verdict"
)

const meridian = `# looked over in the light of the rope walk
size      420 x 380 x 110 mm
== front
badge     model "Meridian 2"
door      drive door !cracked: left hinge
== Back
plate     220-240V 50Hz 0.6A earth
label     serial "TV2-00817"   # photographed
port      D-sub 25 female "SERIAL" use: printer
missing   blanking plate, slot 4
== underside
foot      3 of 4
weight    11400 g
sticker stuff
== left
nothing
`

func ExampleParse() {
	for _, said := range exterior.Parse(meridian).Statements() {
		fmt.Println(said.Line, said.Attribute, said.Kind, said.Value)
	}
	// Output:
	// 2 outer-size measured 420 x 380 x 110 mm
	// 4 model label Meridian 2
	// 7 mains-voltage label 220-240 V
	// 7 mains-frequency label 50 Hz
	// 7 mains-current label 0.6 A
	// 7 mains-earth label earth
	// 8 serial label TV2-00817
	// 13 weight measured 11.4 kg
}

func TestEntriesAreReadAndTheRestIsKept(t *testing.T) {
	s := exterior.Parse(meridian)
	assert.Empty(t, s.Problems)
	require.Len(t, s.Entries, 10)
	assert.Equal(t, exterior.Entry{
		Line: 9, Face: exterior.Rear, Thing: "port", Words: "D-sub 25 female", Reading: "SERIAL", Use: "printer",
		Findings: s.Entries[5].Findings,
	}, s.Entries[5])
	assert.Equal(t, "cracked", s.Entries[2].Findings[0].Kind)
	states := map[int]reckoning.LineState{}
	for _, l := range s.Lines() {
		states[l.Line] = l.State
	}
	assert.Equal(t, reckoning.TextLine, states[14])
	assert.Equal(t, reckoning.Recognised, states[7])
	assert.Equal(t, reckoning.PartLine, states[12])
}

func TestWhatIsWrongIsNamedWithTheRemedy(t *testing.T) {
	for text, message := range map[string]string{
		"== roof":                     "no side of a machine",
		"port D-sub 25 female":        "which side",
		"== rear\nport D-sub 25":      "which gender",
		"== rear\nport":               "D-sub 25 female",
		"== rear\nlabel serial \"TV2": "quote is not closed",
		"weight heavy":                "write it as 11.4 kg",
		"size 1 x 2 x 3 x 4":          "420 x 380 x 110 mm",
	} {
		s := exterior.Parse(text)
		require.Len(t, s.Problems, 1, text)
		assert.Contains(t, s.Problems[0].Message, message)
		assert.Equal(t, strings.Count(text, "\n")+1, s.Problems[0].Line)
	}
}

func TestWalkAndStage(t *testing.T) {
	nowhere := func(string) bool { return false }
	stage, missing := exterior.Parse("").StageOf(0, nowhere)
	assert.Equal(t, reckoning.Untouched, stage.State)
	assert.Len(t, missing, 5)

	s := exterior.Parse(meridian)
	stage, missing = s.StageOf(0, nowhere)
	assert.Equal(t, reckoning.InHand, stage.State)
	assert.Equal(t, []string{"not looked at: right, top"}, missing)
	seen := map[exterior.Face]bool{}
	for _, step := range s.Walk() {
		seen[step.Face] = step.LookedAt
	}
	assert.Equal(t, map[exterior.Face]bool{exterior.Front: true, exterior.Left: true, exterior.Rear: true,
		exterior.Right: false, exterior.Top: false, exterior.Underside: true}, seen)

	whole := exterior.Parse(meridian + "== right\nnothing\n== top\nresidue tape\n")
	stage, missing = whole.StageOf(0, nowhere)
	assert.Equal(t, reckoning.Settled, stage.State)
	assert.Empty(t, missing)
	stage, _ = whole.StageOf(2, nowhere)
	assert.Equal(t, reckoning.Stage{State: reckoning.NeedsAttention, Count: 2}, stage)

	stage, missing = exterior.Parse("== front\nnote plain").StageOf(0, func(a string) bool { return a != "weight" })
	assert.Equal(t, reckoning.InHand, stage.State)
	assert.Contains(t, missing, "the weight is not written down")
}

func TestVerdictsLeadToTheLine(t *testing.T) {
	verdicts := exterior.Parse(meridian).Verdicts(7)
	require.Len(t, verdicts, 3)
	assert.Equal(t, "Damage outside", verdicts[0].Label)
	assert.Contains(t, verdicts[0].Why[0].Text, "left hinge")
	assert.Equal(t, &verdict.Spot{Assembly: 7, Line: 10}, verdicts[1].Why[0].Spot)
}

func TestWhatMayHurtComesWithACaution(t *testing.T) {
	keys := []string{}
	for _, v := range exterior.Parse(
		"== rear\nlead mains, fixed !cracked: at the grip\nlead printer !cracked\nnote picture tube behind the glass\nweight 18 kg\nweight 17900 g").Verdicts(1) {
		if v.Caution != "" {
			keys = append(keys, v.Key+" "+v.Value)
		}
	}
	assert.Equal(t, []string{"mains-lead-2 cracked", "tube-4 inside", "heavy 18 kg"}, keys)
}

func FuzzParse(f *testing.F) {
	for _, seed := range []string{meridian, "== rear\nlabel serial \"#1\" # x", "port ! !:", "\"", "== \n==",
		"size x"} {
		f.Add(seed)
	}
	f.Fuzz(func(t *testing.T, text string) {
		s := exterior.Parse(text)
		lines := strings.Count(text, "\n") + strings.Count(text, "\r") + 1
		last := 0
		for _, l := range s.Lines() {
			assert.Greater(t, l.Line, last, "in order, none told twice")
			last = l.Line
			assert.LessOrEqual(t, l.Line, lines)
		}
		s.Statements()
		s.StageOf(0, func(string) bool { return false })
	})
}
