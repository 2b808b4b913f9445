package condition_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"frugalheron/core/condition"
	"frugalheron/core/lives"
	"frugalheron/core/quantity"
	"frugalheron/core/sheet"
)

// said is what a source says: seen on a day, or gone.
func said(id int64, source condition.Source, parts, kind string, days ...string) condition.Said {
	one := condition.Said{ID: id, Subsystem: "batteries", Kind: kind, Assembly: 1, Board: "Main board", Parts: parts}
	for _, day := range days {
		o := condition.Observation{On: day[:10], At: at(day[:10]), Source: source, Gone: len(day) > 10}
		one.Observations = append(one.Observations, o)
	}
	return one
}

func at(day string) time.Time {
	moment, _ := time.Parse(time.DateOnly, day)
	return moment.Add(12 * time.Hour)
}

func TestOneFindingOfWhatSeveralSourcesSay(t *testing.T) {
	mark := said(0, condition.FromSheet, "BT1", "leaked", "2024-03-01")
	mark.Standing, mark.Line = true, 4
	survey := said(7, condition.FromSurvey, "bt1", "leaking", "2021-05-01", "2022-05-01 gone")
	survey.Observations[0].Severity = condition.Watch
	other := said(0, condition.FromSheet, "BT2", "leaking", "2024-03-01")
	run := said(0, condition.FromSheet, "C1-C9", "bulged", "2024-03-01")
	one := said(8, condition.FromNote, "C4", "bulging", "2024-03-02")
	list := condition.OneList([]condition.Said{survey, one, mark, other, run}, nil)
	require.Len(t, list, 3)
	leak := list[0]
	require.Equal(t, []any{int64(7), "leaking", "Main board, BT1", 4},
		[]any{leak.ID, leak.Kind, leak.Place, leak.Line})
	require.Equal(t, "first seen 2021-05-01, gone 2022-05-01, back 2024-03-01", leak.Tell().Words)
	require.Equal(t, condition.Watch, leak.Tell().Severity, "a mark says no more than the survey before it")
	require.Equal(t, "C1-C9", list[1].Parts, "the most parts are named")
	require.Equal(t, condition.Hazard, list[2].Tell().Severity, "what nobody graded is graded by rule of thumb")

	// Said to be gone after it was marked, it is gone, whatever the sheet still says.
	survey.Observations = append(survey.Observations, condition.Observation{On: "2025-01-01", Gone: true})
	story := condition.OneList([]condition.Said{survey, mark}, nil)[0].Tell()
	require.False(t, story.Open)
	require.Contains(t, story.Words, "though the sheet still says it")

	// A mark that was taken off ends what only the sheet said, not what somebody saw.
	off := said(0, condition.FromSheet, "BT1", "leaking", "2024-03-01", "2025-01-01 gone")
	require.False(t, condition.OneList([]condition.Said{off}, nil)[0].Tell().Open)
	seen := said(7, condition.FromSurvey, "BT1", "leaking", "2024-05-01")
	require.True(t, condition.OneList([]condition.Said{seen, off}, nil)[0].Tell().Open)

	// Without a part, the same place is the same finding; without either, nobody knows.
	lid := condition.Said{Kind: "cracked", Place: "lid", Observations: off.Observations[:1]}
	nowhere := condition.Said{Kind: "cracked", Observations: off.Observations[:1]}
	require.Len(t, condition.OneList([]condition.Said{lid, lid, nowhere, nowhere}, nil), 3)
}

func TestFindingsEndWithTheirPart(t *testing.T) {
	var story lives.Story
	before := []lives.Written{{Line: 1, Parts: "BT1", Designators: []string{"BT1"}, Words: "NiCd 3.6V",
		Marks: []sheet.Mark{{Kind: "leaking"}}}}
	after := []lives.Written{{Line: 1, Parts: "BT1", Designators: []string{"BT1"}, Words: "CR2032", New: "2025-02"}}
	story.Apply(nil, lives.Revision{Lines: before, On: "2024-03-01", At: at("2024-03-01")})
	story.Apply(before, lives.Revision{Lines: after, On: "2025-03-01", At: at("2025-03-01")})
	marks := []condition.Said{}
	for _, m := range story.Marks {
		marks = append(marks, condition.OnSheet(m, condition.Sheet{Assembly: 1, Title: "Main board"}))
	}
	old := said(7, condition.FromSurvey, "BT1", "leaking", "2024-05-01")
	late := said(8, condition.FromSurvey, "BT1", "leaking", "2026-01-01")
	list := condition.OneList(append(marks, old, late), map[int64]lives.Story{1: story})
	require.Len(t, list, 2)
	ended := list[0].Tell()
	require.False(t, ended.Open)
	require.Equal(t, "2025-02-01", ended.GoneOn)
	require.Contains(t, list[0].Observations[len(list[0].Observations)-1].Note, "replaced, 2025-02")
	require.Equal(t, int64(7), list[0].ID)
	require.True(t, list[1].Tell().Open, "the new one leaks, too")
	require.NotEqual(t, list[0].Key, list[1].Key)

	open := condition.Unanswered(condition.Survey{ID: 1, On: "2026-06-01"}, "batteries", list)
	require.Len(t, open, 1)
	require.Empty(t, condition.Unanswered(condition.Survey{ID: 1, On: "2025-06-01"}, "batteries", list),
		"what was seen since needs no answer")
}

func TestHowGraveAndWhere(t *testing.T) {
	for _, c := range []struct {
		tells, kind, subsystem string
		severity               condition.Severity
	}{
		{"battery NiCd 3.6V", "leaked", "batteries", condition.Hazard},
		{"battery Li-ion 7.2V pack", "swollen", "batteries", condition.Hazard},
		{"battery NiCd 3.6V", "swollen", "batteries", condition.Repair},
		{"battery CR2032", "low voltage", "batteries", condition.Watch},
		{"capacitor safety capacitor 0.1uF X2", "hairline crack", "safety-capacitors", condition.Repair},
		{"capacitor safety capacitor 0.1uF X2", "burst", "safety-capacitors", condition.Hazard},
		{"chip eprom socketed 27128", "window uncovered", "roms", condition.Watch},
		{"chip eprom socketed 27128", "bent pins", "sockets", condition.Repair},
		{"chip 74LS00", "burned", "boards", condition.Repair},
		{"connector 25 pin", "bent", "connectors", condition.Repair},
		{"", "odd noise", "other", condition.Watch},
		{"switch 10110000", "stuck", "switches", condition.Repair},
		{"module clock module", "flat", "clock-modules", condition.Watch},
		{"fan 80 mm", "does not turn", "cooling", condition.Repair},
	} {
		require.Equal(t, c.subsystem, condition.SubsystemFor(c.tells, c.kind), c)
		require.Equal(t, c.severity, condition.SeverityOf(c.subsystem, c.kind, c.tells), c)
	}
	for place, subsystem := range map[string]string{"left hinge": "plastics", "mains lead": "cables",
		"drive guide":        "drives",
		"rear, upper corner": "other", "serial label": "labels", "fan": "cooling"} {
		require.Equal(t, subsystem, condition.SubsystemOfPlace(place, "cracked"), place)
	}
	require.Equal(t, condition.Hazard, condition.SeverityOf("cables", "cracked", "mains lead"))
	require.Equal(t, "low voltage", condition.FailureKind(quantity.Volts, true))
	require.Equal(t, "high esr", condition.FailureKind(quantity.ESR, false))
	require.Equal(t, "out of tolerance", condition.FailureKind(quantity.Ohms, false))
}
