package bench

import (
	"strings"

	"frugalheron/core/verdict"
)

// stages are where lines of the reckoning are worked on; others are about what is fitted.
var stages = map[string]string{"personal-data": "arrive", "custody": "arrive", "evidence": "look-over",
	"exterior-damage": "look-over", "exterior-missing": "look-over", "ports": "look-over", "outside-twins": "look-over",
	"heavy": "look-over", "open-connectors": "open-up", "built": "identify", "fading": "identify",
	"condition": "judge", "measured": "judge", "looks-due": "judge", "signs": "judge",
	"gate": "power-up", "console": "power-up", "jobs": "make-good", "trials": "set-up", "set-up": "set-up",
	"slots": "set-up"}

func stageOf(key string) string {
	switch stage := stages[key]; {
	case stage != "":
		return stage
	case strings.HasPrefix(key, "mains-lead-"), strings.HasPrefix(key, "tube-"):
		return "look-over"
	}
	return "take-stock"
}

// worked says of each line where it is worked on.
func worked(verdicts []verdict.Verdict) []verdict.Verdict {
	for i := range verdicts {
		verdicts[i].Stage = stageOf(verdicts[i].Key)
	}
	return verdicts
}
