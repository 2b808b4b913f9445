package trials

import (
	"fmt"
	"math"
	"strings"

	"frugalheron/core/malformed"
)

// MostFactors is how many factors are taken: each is a bit of a state.
const MostFactors = 64

func (in *Input) check() error {
	if len(in.Factors) > MostFactors {
		return malformed.Named("factors", "%d of them; at most %d are taken", len(in.Factors), MostFactors)
	}
	known := map[string]bool{}
	for i, f := range in.Factors {
		at := fmt.Sprintf("factors[%d]", i)
		switch {
		case strings.TrimSpace(f.Name) == "":
			return malformed.Named(at, "a factor needs its name")
		case known[f.Name]:
			return malformed.Named(at, "%q is there twice", f.Name)
		case f.Effort < 0 || math.IsNaN(f.Effort) || math.IsInf(f.Effort, 0):
			return malformed.Named(at+".effort", "%v is no effort of 0 or more", f.Effort)
		}
		known[f.Name] = true
	}
	for i, t := range in.Trials {
		for j, name := range t.On {
			if !known[name] {
				return malformed.Named(fmt.Sprintf("trials[%d].on[%d]", i, j), "%q is none of the factors", name)
			}
		}
		if t.Result != OK && t.Result != Fail && t.Result != Sometimes {
			return malformed.Named(fmt.Sprintf("trials[%d].result", i), "%q is none of ok, fail, sometimes", t.Result)
		}
	}
	if in.Makes != nil && *in.Makes != OK && *in.Makes != Fail {
		return malformed.Named("makes", "%q is none of ok, fail, null", *in.Makes)
	}
	if in.MaxTogether != nil && (*in.MaxTogether < 1 || *in.MaxTogether > 2) {
		return malformed.Named("maxTogether", "%d is neither 1 nor 2", *in.MaxTogether)
	}
	return nil
}
