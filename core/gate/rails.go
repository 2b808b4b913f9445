package gate

import (
	"maps"
	"slices"

	"frugalheron/core/calendar"
	"frugalheron/core/measure"
)

// Rail is a rail of a supply as it stands: what was measured last under load, its limits, and what is drawn from it.
type Rail struct {
	Name   string        `json:"name"`
	Needed bool          `json:"needed"`
	Volts  *float64      `json:"volts"` // nil while it was not measured
	On     calendar.Date `json:"on"`
	Load   string        `json:"load"`
	Low    *float64      `json:"low"` // nil where nobody knows
	High   *float64      `json:"high"`
	Rating *float64      `json:"rating"`
	Draw   *float64      `json:"draw"`
}

// RailsOf lists the rails of a supply: those that are needed, then the others that were measured, rated or drawn from.
func RailsOf(s Supply) []Rail {
	rails, met := []Rail{}, map[string]bool{}
	add := func(name string, needed bool) {
		key := railKey(name)
		if met[key] {
			return
		}
		met[key] = true
		rail := Rail{Name: name, Needed: needed}
		newest, ok := newestOf(s, key, func(r Reading) bool { return r.Load != "none" })
		if !ok {
			newest, ok = newestOf(s, key, func(Reading) bool { return true })
		}
		if ok {
			rail.Volts, rail.On, rail.Load = newest.Volts, newest.On.Date, newest.Load
		}
		if low, high, known := limits(newest); ok && known {
			rail.Low, rail.High = &low, &high
		} else if e, named := measure.Rail(key); named {
			rail.Low, rail.High = e.Low, e.High
		}
		rail.Rating, rail.Draw = amperesOf(s.Rating, key), amperesOf(s.Draw, key)
		rails = append(rails, rail)
	}
	for _, name := range s.Needs {
		add(name, true)
	}
	for _, r := range s.Rails {
		add(r.Rail, false)
	}
	for _, by := range []map[string]float64{s.Rating, s.Draw} {
		for _, name := range slices.Sorted(maps.Keys(by)) {
			add(name, false)
		}
	}
	return rails
}

func amperesOf(by map[string]float64, key string) *float64 {
	for name, amperes := range by {
		if railKey(name) == key {
			return &amperes
		}
	}
	return nil
}
