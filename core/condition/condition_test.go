package condition_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/caution"
	"frugalheron/core/condition"
	"frugalheron/core/device/builtin"
	"frugalheron/core/risk"
)

var guide = condition.Guide([]condition.Part{{Place: "BT1", Words: "NiCd 3.6V", Tells: "battery NiCd 3.6V"},
	{Place: "C5", Words: "0.1uF X2 275V", Tells: "safety capacitor"}})

func surveys(on ...string) []condition.Survey {
	made := []condition.Survey{}
	for i, day := range on {
		looks := map[string]condition.Coverage{}
		for _, item := range guide {
			looks[item.Subsystem] = condition.Inspected
		}
		made = append(made, condition.Survey{ID: int64(i + 1), On: day, Coverage: looks})
	}
	return made
}

func ExampleFinding_Tell() {
	leak := condition.Finding{ID: 1, Subsystem: "batteries", Kind: "leaking", Place: "BT1",
		Observations: []condition.Observation{
			{SurveyID: 1, On: "2021-05-01", Severity: condition.Watch},
			{SurveyID: 2, On: "2022-05-02", Severity: condition.Hazard},
			{On: "2022-06-10", Gone: true, Note: "cleaned"},
			{SurveyID: 4, On: "2024-05-01", Severity: condition.Repair},
		}}
	told := leak.Tell()
	fmt.Println(told.Open, told.Severity, told.State)
	fmt.Println(told.Words)
	// Output:
	// true repair back
	// first seen 2021-05-01, gone 2022-06-10, back 2024-05-01
}

func TestFindingsAreComparedFromSurveyToSurvey(t *testing.T) {
	made := surveys("2021-05-01", "2022-05-02", "2023-05-03", "2024-05-01", "2025-05-01")
	delete(made[2].Coverage, "batteries")
	leak := condition.Finding{ID: 1, Subsystem: "batteries", Kind: "leaking", Observations: []condition.Observation{
		{SurveyID: 1, On: "2021-05-01", Severity: condition.Watch},
		{SurveyID: 2, On: "2022-05-02", Severity: condition.Hazard},
		{SurveyID: 4, On: "2024-05-01", Gone: true}, {SurveyID: 5, On: "2025-05-01", Severity: condition.Repair}}}
	lid := condition.Finding{ID: 2, Subsystem: "plastics", Kind: "cracked", Observations: []condition.Observation{
		{SurveyID: 2, On: "2022-05-02", Severity: condition.Repair},
		{SurveyID: 3, On: "2023-05-03", Severity: condition.Repair, Trend: "worse"},
		{SurveyID: 4, On: "2024-05-01", Severity: condition.Watch},
		{SurveyID: 5, On: "2025-05-01", Severity: condition.Watch}}}
	scratch := condition.Finding{ID: 3, Subsystem: "plastics", Kind: "scratched",
		Observations: []condition.Observation{{SurveyID: 1, On: "2021-05-01", Severity: condition.Cosmetic},
			{On: "2021-07-01", Gone: true}}}
	all := []condition.Finding{scratch, lid, leak}
	rows := condition.CompareSurveys(made, all)
	require.Equal(t, []int64{1, 2, 3}, []int64{rows[0].FindingID, rows[1].FindingID, rows[2].FindingID})
	require.Equal(t, []condition.State{"new", "worse", "no look", "gone", "back"}, rows[0].States)
	require.Equal(t, []condition.State{"", "new", "worse", "better", "same"}, rows[1].States)
	require.Equal(t, []condition.State{"new", "", "", "", ""}, rows[2].States, "gone between surveys")
	require.Equal(t, "first seen 2022-05-02, same 2025-05-01", rows[1].Story.Words)
	require.Equal(t, []condition.Severity{"watch", "hazard", "", "", "repair"}, rows[0].Severity)

	strip := condition.StripOf(guide, made, all)
	grades := func(subsystem string) []condition.Grade {
		found := []condition.Grade{}
		for _, row := range strip.Rows {
			for _, s := range row.Squares {
				if row.Subsystem == subsystem {
					found = append(found, s.Grade)
				}
			}
		}
		return found
	}
	require.Equal(t, []condition.Grade{"watch", "hazard", "hazard", "good", "repair"}, grades("batteries"))
	require.Equal(t, []condition.Grade{"cosmetic", "repair", "repair", "watch", "watch"}, grades("plastics"))
	require.Equal(t, condition.Square{SurveyID: 4, Grade: "watch", Findings: 1}, strip.Technical[3])
	grade, why := condition.Technical(guide, made, all)
	require.Equal(t, condition.Grade("repair"), grade)
	require.Equal(t, "leaking", why)
	grade, why = condition.Technical(guide, made, []condition.Finding{scratch})
	require.Equal(t, condition.Good, grade)
	require.Contains(t, why, "2025-05-01")
}

func TestNotInspectedIsNotGood(t *testing.T) {
	made := surveys("2025-05-01")
	delete(made[0].Coverage, "supply")
	made[0].Coverage["safety-capacitors"] = condition.Absent
	strip := condition.StripOf(guide, made, nil)
	require.Equal(t, condition.NotInspected, strip.Rows[0].Squares[0].Grade)
	require.Equal(t, condition.NotInspected, strip.Technical[0].Grade)
	grade, why := condition.Technical(guide, made, nil)
	require.Equal(t, condition.NotInspected, grade)
	require.Equal(t, "not inspected: Power supply", why)
	grade, _ = condition.Technical(guide, nil, nil)
	require.Equal(t, condition.NotInspected, grade)
	require.Len(t, condition.Missing(guide, nil), len(guide)-1, "what fits nowhere else is not missed")
	require.Equal(t, "not seen yet", condition.Finding{}.Tell().Words)
}

func TestTheGuideFitsWhatTheMachineHolds(t *testing.T) {
	names, said := []string{}, map[caution.Key]int{}
	for _, item := range guide {
		names = append(names, item.Subsystem)
		require.NotEmpty(t, item.LookFor)
		require.NotEmpty(t, item.Grading)
		for _, c := range item.Cautions {
			said[c.Key]++
			require.NotEmpty(t, c.Text, c.Key)
		}
	}
	require.Equal(t, []string{"supply", "batteries", "safety-capacitors", "boards", "connectors", "plastics", "cables",
		"labels", "other"}, names)
	for key, times := range said {
		require.Equal(t, 1, times, key)
	}
	require.Equal(t, "BT1", guide[1].Parts[0].Place)
	many := []condition.Part{}
	for i := range 40 {
		many = append(many, condition.Part{Place: fmt.Sprint(i), Tells: "tantalum"})
	}
	for _, item := range condition.Guide(many) {
		if item.Subsystem == "tantalum" {
			require.Len(t, item.Parts, 24)
			require.Equal(t, 16, item.More)
		}
	}
	require.Equal(t, "odd", condition.NameOf("odd"))
}

// A finding is open today just when its last observation is not gone, and back only when it was gone before.
func TestAStoryAgreesWithItsSightings(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f, wasGone := condition.Finding{Subsystem: "boards"}, false
		for i := range rapid.IntRange(1, 9).Draw(t, "sightings") {
			s := condition.Observation{SurveyID: int64(i + 1), On: fmt.Sprintf("20%02d-01-01", 10+i),
				Gone:     i > 0 && rapid.Bool().Draw(t, "gone"),
				Severity: rapid.SampledFrom([]condition.Severity{"watch", "repair"}).Draw(t, "severity")}
			f.Observations = append(f.Observations, s)
		}
		told := f.Tell()
		last := f.Observations[len(f.Observations)-1]
		require.Equal(t, !last.Gone, told.Open)
		for _, s := range f.Observations[:len(f.Observations)-1] {
			wasGone = wasGone || s.Gone
		}
		if told.BackOn != "" {
			require.True(t, wasGone)
			require.Less(t, told.GoneOn, told.BackOn)
		}
		require.Equal(t, wasGone || last.Gone, told.GoneOn != "")
	})
}

func TestWhatPartsTell(t *testing.T) {
	for marking, want := range map[string]string{
		"0.1uF X2 275V": "capacitor safety capacitor 0.1uF X2 275V",
		"47uF 16V":      "capacitor electrolytic capacitor 47uF 16V", "10uF tantalum": "capacitor 10uF tantalum",
		"2.2uF film": "capacitor 2.2uF film", "0.1uF": "capacitor 0.1uF",
		"electrolytic": "capacitor electrolytic capacitor electrolytic",
	} {
		require.Equal(t, want, condition.Tells(condition.Words{Kind: "capacitor", Marking: marking}))
	}
	for words, class := range map[string]string{
		"chip 12887 8910": "clock-module", "DS12887A": "clock-module", "48T02": "clock-module", "chip 12885": "",
		"capacitor 0.22uF 250V~": "safety-capacitor", "capacitor 0.1uF 275 VAC": "safety-capacitor",
		"capacitor 0.1uF 100V~": "", "capacitor 4.7uF 250V": "electrolytic", "27128-25": "eprom-charge",
	} {
		require.Equal(t, class, risk.ClassOf(condition.TellsOf(builtin.Library(), words)), words)
	}
	require.Equal(t, "chip eprom socketed 27128",
		condition.Tells(condition.Words{Kind: "chip", Class: "eprom", Socketed: true, Marking: "27128"}))
}

func TestTheStageFollowsFromSurveys(t *testing.T) {
	made := surveys("2025-05-01")
	leak := condition.Finding{Subsystem: "batteries",
		Observations: []condition.Observation{{On: "2025-05-01", Severity: condition.Hazard}}}
	low := condition.Finding{Subsystem: "batteries", Observations: []condition.Observation{{On: "2025-06-01",
		Severity: condition.Watch, Source: condition.FromMeasurement}}}
	for want, in := range map[string]condition.StageInput{
		"{untouched 0}":       {},
		"{in hand 0}":         {Running: true},
		"{settled 0}":         {Surveys: made},
		"{needs attention 2}": {Surveys: made, Findings: []condition.Finding{leak, low}},
	} {
		require.Equal(t, want, fmt.Sprint(condition.StageOf(in, guide)))
	}
	delete(made[0].Coverage, "labels")
	require.Equal(t, "{in hand 0}", fmt.Sprint(condition.StageOf(condition.StageInput{Surveys: made}, guide)))
}

// The strip and the comparison tell the same: a subsystem is as its gravest finding that is open then, and only
// what was looked at without any is good.
func TestTheStripAgreesWithTheFindings(t *testing.T) {
	severities := []condition.Severity{condition.Cosmetic, condition.Watch, condition.Repair, condition.Hazard}
	rapid.Check(t, func(t *rapid.T) {
		made := surveys("2021-01-01", "2022-01-01", "2023-01-01", "2024-01-01")
		for i := range made {
			for _, item := range guide {
				if rapid.IntRange(0, 3).Draw(t, "left out") == 0 {
					delete(made[i].Coverage, item.Subsystem)
				}
			}
		}
		findings := []condition.Finding{}
		for id := range rapid.IntRange(0, 5).Draw(t, "findings") {
			f := condition.Finding{ID: int64(id + 1),
				Subsystem: rapid.SampledFrom([]string{"batteries", "plastics"}).Draw(t, "subsystem"), Kind: "worn"}
			for i, s := range made {
				if _, looked := s.Coverage[f.Subsystem]; looked && rapid.Bool().Draw(t, "seen") {
					gone := len(f.Observations) > 0 && rapid.IntRange(0, 2).Draw(t, "gone") == 0
					f.Observations = append(f.Observations,
						condition.Observation{SurveyID: made[i].ID, On: made[i].On,
							Severity: rapid.SampledFrom(severities).Draw(t, "severity"), Gone: gone})
				}
			}
			if len(f.Observations) > 0 {
				findings = append(findings, f)
			}
		}
		strip, rows := condition.StripOf(guide, made, findings), condition.CompareSurveys(made, findings)
		for _, row := range strip.Rows {
			for i, square := range row.Squares {
				worst, open := condition.Severity(""), 0
				for _, f := range findings {
					if f.Subsystem != row.Subsystem {
						continue
					}
					last := condition.Observation{Gone: true}
					for _, s := range f.Observations {
						if s.On <= made[i].On {
							last = s
						}
					}
					if !last.Gone {
						open++
						if slices.Index(severities, last.Severity) > slices.Index(severities, worst) {
							worst = last.Severity
						}
					}
				}
				_, looked := made[i].Coverage[row.Subsystem]
				switch {
				case open > 0:
					require.Equal(t, condition.Grade(worst), square.Grade)
				case looked:
					require.Equal(t, condition.Good, square.Grade)
				default:
					require.Equal(t, condition.NotInspected, square.Grade)
				}
				require.Equal(t, open, square.Findings)
			}
		}
		// Nothing is new twice, nothing is back that was not gone, and what is closed stands below what is open.
		closed := false
		for _, row := range rows {
			news, gone := 0, false
			for _, state := range row.States {
				switch state {
				case condition.New:
					news++
				case condition.Gone:
					gone = true
				case condition.Back:
					require.True(t, gone)
				}
			}
			require.Equal(t, 1, news)
			require.False(t, closed && row.Story.Open)
			closed = closed || !row.Story.Open
		}
	})
}
