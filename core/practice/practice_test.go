package practice_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"frugalheron/core/calendar"
	"frugalheron/core/gate"
	"frugalheron/core/practice"
)

var today = calendar.Date{Year: 2026, Month: 11, Day: 30}

// done does deeds one behind the other; a figure behind a point is what the meter read.
func done(t *testing.T, s *practice.Exercise, acts ...any) {
	for _, one := range acts {
		switch one := one.(type) {
		case practice.ActKind:
			require.NoError(t, s.Do(practice.Act{Kind: one}, practice.Observed{}, today))
		case practice.Act:
			require.NoError(t, s.Do(one, practice.Observed{}, today))
		case reading:
			volts := one.volts
			require.NoError(t, s.Do(practice.Act{Kind: practice.Measure, What: one.point},
				practice.Observed{Volts: &volts}, today))
		}
	}
}

type reading struct {
	point string
	volts float64
}

func fit(unit string) practice.Act { return practice.Act{Kind: practice.Fit, What: unit} }

var (
	onMachine  = practice.Act{Kind: practice.Connect, What: practice.Machine}
	asExpected = practice.Act{Kind: practice.Judge, What: "as-expected"}
	notSo      = practice.Act{Kind: practice.Judge, What: "not"}
	sound      = []any{practice.Inspect, practice.SwitchOn, reading{"+5", 5.05}, reading{"+12", 12}, reading{"-12",
		-12},
		practice.SwitchOff, onMachine, practice.SwitchOn, reading{"+5", 5.02}}
)

func slips(s practice.Exercise) []string {
	told := []string{}
	for _, one := range s.Log {
		if one.Slip != "" {
			told = append(told, one.Slip)
		}
	}
	return told
}

func TestTheGateOfThePracticeMachineGoesUpWithWhatIsDone(t *testing.T) {
	s := practice.Begin(7)
	require.Equal(t, gate.Hold, s.Gate(today).State)
	done(t, &s, practice.Inspect)
	require.Equal(t, gate.SupplyOnly, s.Gate(today).State)
	done(t, &s, practice.SwitchOn, reading{"+5", 5.05}, reading{"+12", 12}, reading{"-12", -12}, practice.SwitchOff)
	require.Equal(t, gate.Staged, s.Gate(today).State)
	done(t, &s, onMachine)
	for i, step := range s.Ladder {
		if i > 0 {
			done(t, &s, practice.SwitchOff, fit(step.Step))
		}
		done(t, &s, practice.SwitchOn, reading{"+5", 5}, asExpected)
	}
	require.Equal(t, gate.Cleared, s.Gate(today).State)
	require.Empty(t, slips(s))
	off := practice.Begin(7)
	done(t, &off, practice.Inspect, reading{"+5", 0}, reading{"+12", 0}, reading{"-12", 0})
	require.Equal(t, gate.SupplyOnly, off.Gate(today).State, "what is read while it is off is not under load")
}

func TestWhatWouldBeWrongOnARealMachineIsTold(t *testing.T) {
	for name, c := range map[string]struct {
		acts []any
		want string
	}{
		"power against hold":        {[]any{practice.SwitchOn}, "the gate stood at hold: Supply"},
		"the machine before rails":  {[]any{practice.Inspect, onMachine, practice.SwitchOn}, "tried alone, on a dummy load"},
		"a card while it is on":     {append(slices.Clone(sound), fit(practice.DiskCard)), "it was on: off, lead out, lamps dark"},
		"connecting while it is on": {[]any{practice.Inspect, practice.SwitchOn, onMachine}, "it was on"},
		"two new at once":           {append(slices.Clone(sound), practice.SwitchOff, fit("Memory board 1")), "was not tried yet"},
		"on after what was not so": {append(slices.Clone(sound), notSo, practice.SwitchOff, fit("Memory board 1")),
			"was not as expected: what is wrong there"},
		"a rail outside":        {append(slices.Clone(sound), reading{"+5", 4.6}, asExpected), "+5 was read as 4.60 V"},
		"nothing measured then": {append(slices.Clone(sound[:len(sound)-1]), asExpected), "no rail was measured"},
	} {
		s := practice.Begin(1)
		done(t, &s, c.acts...)
		told := slips(s)
		require.Len(t, told, 1, "%s: %v", name, told)
		require.Contains(t, told[0], c.want, name)
	}
	s := practice.Begin(1)
	done(t, &s, sound...)
	require.NoError(t, s.Do(practice.Act{Kind: practice.Listen}, practice.Observed{Text: "MEMORY TEST FAILED\r\n"},
		today))
	done(t, &s, asExpected)
	require.Equal(t, []string{"the console says: MEMORY TEST FAILED"}, slips(s))
	done(t, &s, practice.SwitchOff, practice.SwitchOn, reading{"+5", 5}, asExpected)
	require.Len(t, slips(s), 1, "what it said before it was switched off is past")
}

func TestADiagnosisEndsIt(t *testing.T) {
	s := practice.Begin(1)
	require.Nil(t, s.Debrief())
	is := practice.NamedFault{Fault: practice.Shorted, Place: practice.DiskCard}
	require.ErrorContains(t, s.Say(practice.NamedFault{Fault: "ghost"}, is), "no fault is called")
	require.ErrorContains(t, s.Say(practice.NamedFault{Fault: practice.Shorted, Place: "Supply"}, is), "no place")
	done(t, &s, practice.SwitchOn)
	require.NoError(t, s.Say(practice.NamedFault{Fault: practice.Shorted, Place: "Memory board 1"}, is))
	told := s.Debrief()
	require.False(t, told.Right)
	require.Contains(t, told.Why, "but elsewhere")
	require.Len(t, told.Slips, 1)
	require.ErrorContains(t, s.Say(is, is), "over")
	require.ErrorContains(t, s.Do(practice.Act{Kind: practice.SwitchOff}, practice.Observed{}, today), "over")
}

// Whatever is done in whatever order: the gate can be told, what is refused changes nothing, and nobody is told of a slip
// for switching off, measuring, listening or looking.
func TestWhateverIsDoneIsTold(t *testing.T) {
	kinds := []practice.ActKind{practice.Inspect, practice.Connect, practice.Fit, practice.TakeOut, practice.SwitchOn,
		practice.SwitchOff, practice.Measure, practice.Listen, practice.Look, practice.Judge, "kick"}
	whats := slices.Concat(practice.Units(), practice.Points(), []string{practice.Dummy, practice.Machine,
		"as-expected",
		"not", ""})
	rapid.Check(t, func(t *rapid.T) {
		s := practice.Begin(rapid.Int().Draw(t, "seed"))
		for range rapid.IntRange(0, 40).Draw(t, "deeds") {
			act := practice.Act{Kind: rapid.SampledFrom(kinds).Draw(t, "kind"), What: rapid.SampledFrom(whats).Draw(t, "what")}
			volts := rapid.Float64Range(-15, 15).Draw(t, "volts")
			before := len(s.Log)
			err := s.Do(act, practice.Observed{Volts: &volts, Text: "64K OK"}, today)
			if err != nil {
				require.Len(t, s.Log, before)
				continue
			}
			require.Len(t, s.Log, before+1)
			if isHarmless := act.Needs() || act.Kind == practice.SwitchOff || act.Kind == practice.Inspect; isHarmless {
				require.Empty(t, s.Log[before].Slip)
			}
			out := s.Gate(today)
			require.Contains(t, gate.States(), out.State)
			require.Len(t, s.Rails(today), 3)
			if !s.Inspected {
				require.Equal(t, gate.Hold, out.State)
			}
		}
	})
}
