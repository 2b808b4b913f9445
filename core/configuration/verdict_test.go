package configuration_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"frugalheron/core/configuration"
	"frugalheron/core/verdict"
)

// What is written down, what changed since, and what a battery may keep that nobody wrote down.
func TestWhatTheReckoningSaysOfASetup(t *testing.T) {
	moved := configuration.Change{Of: configuration.OfCard, Card: "Modem", From: "", To: "slot 3"}
	for name, c := range map[string]struct {
		kept  configuration.Kept
		value string
		why   []string
	}{
		"nothing":             {configuration.Kept{}, "", nil},
		"noted":               {configuration.Kept{On: "2026-03-01"}, "noted on 2026-03-01", nil},
		"a battery":           {configuration.Kept{Batteries: []string{"BT1 on Main board"}}, "not written down", []string{"BT1 on Main board may keep settings; what the firmware shows is written down nowhere"}},
		"and it is down":      {configuration.Kept{On: "2026-03-01", HasFirmware: true, Batteries: []string{"BT1"}}, "noted on 2026-03-01", nil},
		"moved since":         {configuration.Kept{On: "2026-03-01", Since: []configuration.Change{moved}}, "noted on 2026-03-01; 1 change since", []string{"Modem: not there then, slot 3 now"}},
		"noted, with battery": {configuration.Kept{On: "2026-03-01", Batteries: []string{"BT1"}}, "noted on 2026-03-01", []string{"BT1 may keep settings; what the firmware shows is written down nowhere"}},
	} {
		v := configuration.VerdictOf(c.kept)
		told := []string{}
		for _, why := range v.Why {
			told = append(told, why.Text)
		}
		assert.Equal(t, c.value, v.Value, name)
		assert.ElementsMatch(t, c.why, told, name)
		assert.NotEqual(t, verdict.Attention, v.State, "%s is no alarm", name)
	}
	sure := []configuration.Meaning{{State: configuration.Known, Means: []string{"irq 3"}}, {State: configuration.Unknown, Why: "x"}}
	unsure := configuration.Unsure(sure, "Disk card")
	assert.Equal(t, configuration.Several, unsure[0].State)
	assert.Equal(t, "it is not sure that this is a Disk card", unsure[0].Why)
	assert.Equal(t, "x", unsure[1].Why)
}
