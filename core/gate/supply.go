package gate

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"frugalheron/core/calendar"
	"frugalheron/core/measure"
)

func (j *judgement) supplies() {
	if len(j.in.Supplies) == 0 {
		j.miss(Missing{ID: "supplies", Blocks: Hold, What: "nobody said what feeds it",
			Do: "say which supply feeds it, and what its plate says", next: Inspect, why: "no supply is known"})
	}
	for _, s := range j.in.Supplies {
		j.fed(s)
		since := j.inspected(s)
		j.rails(s, since)
		j.draw(s)
		if s.StartsWithMains {
			j.warn("%s starts the machine as soon as mains arrives: there is no switch to wait for", s.ID)
		}
	}
}

func (j *judgement) miss(m Missing) { j.missing = append(j.missing, m) }

func (j *judgement) warn(format string, about ...any) {
	j.warnings = append(j.warnings, fmt.Sprintf(format, about...))
}

// fed looks whether what feeds a supply is what its plate asks for.
func (j *judgement) fed(s Supply) {
	if s.Kind == Cells {
		return
	}
	m := Missing{ID: s.ID, Supply: s.ID, Blocks: Hold, next: Inspect}
	if s.Plate == nil {
		m.What, m.Do = s.ID+" has no plate that was read", "read the plate, and write down its volts and frequency"
		m.why = "its plate was not read"
		j.miss(m)
		return
	}
	if s.Kind == Mains {
		m.What = uncovered(s.Plate.Volts, s.Selector, j.in.Local.Volts, "the local mains is")
		m.Do = "do not connect it here as it is: read plate and selector again, or feed it as its plate asks"
		j.frequency(s)
	} else {
		m.What = uncoveredSource(s)
		m.Do = "measure volts and polarity of what is to feed it, and compare them with the plate"
	}
	if m.What != "" {
		m.why, m.What = m.What, s.ID+": "+m.What
		j.miss(m)
	}
}

func uncoveredSource(s Supply) string {
	if s.Source == nil {
		return "what feeds it was not measured"
	}
	switch volts := uncovered(s.Plate.Volts, s.Selector, s.Source.Volts, "what feeds it is"); {
	case volts != "":
		return volts
	case s.Plate.Polarity == "":
		return "the polarity that it asks for was not read"
	case s.Source.Polarity == "":
		return "the polarity of what feeds it was not read"
	case s.Plate.Polarity != s.Source.Polarity:
		return fmt.Sprintf("it asks for %s, and what feeds it has %s", polarity(s.Plate.Polarity),
			polarity(s.Source.Polarity))
	}
	return ""
}

func polarity(text string) string {
	if text == "none" {
		return "no polarity"
	}
	return text
}

func (j *judgement) frequency(s Supply) {
	if j.in.Local.Hz <= 0 {
		return
	}
	spans, ok := spansOf(s.Plate.Hz)
	switch {
	case strings.TrimSpace(s.Plate.Hz) == "":
		j.warn("%s: its plate says no frequency; here it is %g Hz", s.ID, j.in.Local.Hz)
	case !ok || !slices.ContainsFunc(spans, func(f span) bool { return f.names(j.in.Local.Hz) }):
		j.warn("%s: its plate says %s Hz, and here it is %g Hz: transformers run warmer, motors at another speed", s.ID,
			s.Plate.Hz, j.in.Local.Hz)
	}
}

// inspected looks for an inspection or a run that still counts, and returns the day from which readings do: the later of
// the inspection that counts and the last move.
func (j *judgement) inspected(s Supply) calendar.Date {
	months := defaultMonths
	if j.in.SupplyMonths != nil {
		months = *j.in.SupplyMonths
	}
	moved, changed := s.MovedOn.Date, j.in.ChangedOn.Date
	within := func(day calendar.Date) bool { return !day.IsZero() && !day.AddMonths(months).Before(j.now) }
	inspection := within(s.InspectedOn.Date) && !after(moved, s.InspectedOn.Date)
	run := within(s.RanOn.Date) && !after(moved, s.RanOn.Date) && !after(changed, s.RanOn.Date)
	if !inspection && !run {
		m := Missing{ID: s.ID, Supply: s.ID, Blocks: Hold, next: Inspect,
			Do: "have the supply inspected, the lead, the fuse and the insulation with it, by somebody competent"}
		m.why = uninspected(s, changed, months)
		m.What = s.ID + ": " + m.why
		j.miss(m)
	}
	since := moved
	if inspection && after(s.InspectedOn.Date, moved) {
		since = s.InspectedOn.Date
	}
	return since
}

func uninspected(s Supply, changed calendar.Date, months int) string {
	last := s.InspectedOn.Date
	if after(s.RanOn.Date, last) {
		last = s.RanOn.Date
	}
	switch {
	case last.IsZero():
		return "it was neither inspected nor seen running"
	case after(s.MovedOn.Date, last):
		return fmt.Sprintf("it was moved on %s, and not inspected since", s.MovedOn)
	case last == s.RanOn.Date && after(changed, last):
		return fmt.Sprintf("it ran on %s, something was changed on %s, and it was not inspected since", last, changed)
	}
	return fmt.Sprintf("it was inspected or ran last on %s, more than %d months ago", last, months)
}

// after reports whether a day lies after another; no day lies before all, and after none.
func after(day, other calendar.Date) bool {
	return !day.IsZero() && (other.IsZero() || other.Before(day))
}

// rails looks at each rail that is needed, and warns of the others.
func (j *judgement) rails(s Supply, since calendar.Date) {
	needed := map[string]bool{}
	for _, rail := range s.Needs {
		if needed[railKey(rail)] {
			continue
		}
		needed[railKey(rail)] = true
		j.needed(s, rail, since)
	}
	told := map[string]bool{}
	for _, r := range s.Rails {
		if r.Load == "none" && !r.Regulated && !told[railKey(r.Rail)] {
			told[railKey(r.Rail)] = true
			j.warn("%s: %s is not regulated and was measured at no load, where it reads high", s.ID, r.Rail)
		}
	}
	for _, r := range s.Rails {
		key := railKey(r.Rail)
		if needed[key] {
			continue
		}
		needed[key] = true // once
		if newest, ok := newestOf(s, key, func(r Reading) bool { return r.Load != "none" || r.Regulated }); ok {
			if low, high, known := limits(newest); known && !inside(*newest.Volts, low, high) {
				j.warn("%s: %s is %s, outside %s, and nothing needs it", s.ID, r.Rail, say(*newest.Volts),
					between(low, high))
			}
		}
	}
}

func (j *judgement) needed(s Supply, rail string, since calendar.Date) {
	m := Missing{ID: rail, Supply: s.ID, Blocks: SupplyOnly, next: Measure}
	newest, ok := newestOf(s, railKey(rail), func(r Reading) bool {
		return r.Load != "none" && !r.On.Before(since)
	})
	if !ok {
		m.why = "not measured under load"
		m.What = railName(rail) + " was not measured under load"
		if !since.IsZero() {
			m.What += fmt.Sprintf(" since %s", since)
		}
		m.Do = "measure it with the supply alone, on a dummy load"
		j.miss(m)
		return
	}
	low, high, known := limits(newest)
	switch {
	case !known:
		m.why = "its limits are not known"
		m.What = fmt.Sprintf("%s is %s under load, and nobody said what it should be", railName(rail), say(*newest.Volts))
		m.Do = "write down its lower and its upper limit"
	case !inside(*newest.Volts, low, high):
		m.why, m.danger = "outside its limits", true
		m.What = fmt.Sprintf("%s is %s under load, outside %s", railName(rail), say(*newest.Volts), between(low, high))
		m.Do = "find out why before anything else is connected"
	default:
		return
	}
	j.miss(m)
}

// newestOf is the newest reading of a rail that counts; of one day, the one that was written down last.
func newestOf(s Supply, key string, counts func(Reading) bool) (newest Reading, ok bool) {
	for _, r := range s.Rails {
		if railKey(r.Rail) == key && counts(r) && (!ok || !r.On.Before(newest.On.Date)) {
			newest, ok = r, true
		}
	}
	return newest, ok
}

// limits are those of a reading itself; a missing one follows from the name of the rail.
func limits(r Reading) (low, high float64, known bool) {
	e, named := measure.Rail(railKey(r.Rail))
	if r.Low == nil && r.High == nil && !named {
		return 0, 0, false
	}
	switch {
	case r.Low != nil:
		low = *r.Low
	case named:
		low = *e.Low
	default:
		return 0, 0, false
	}
	switch {
	case r.High != nil:
		high = *r.High
	case named:
		high = *e.High
	default:
		return 0, 0, false
	}
	return low, high, true
}

func inside(volts, low, high float64) bool { return volts >= low-epsilon && volts <= high+epsilon }

func between(low, high float64) string {
	return strings.TrimSuffix(say(low), " V") + " to " + say(high)
}

// railKey is how a rail is told from others: +5 V, +5V and 5 are one.
func railKey(name string) string {
	key := strings.ToUpper(strings.Join(strings.Fields(strings.ReplaceAll(name, "−", "-")), ""))
	bare := strings.TrimSuffix(key, "V")
	if bare != "" && bare[0] >= '0' && bare[0] <= '9' {
		bare, key = "+"+bare, "+"+key
	}
	if _, isRail := measure.Rail(bare); isRail {
		return bare
	}
	return key
}

func railName(rail string) string {
	if key := railKey(rail); strings.Trim(key, "+-.0123456789") == "" {
		return key + " V"
	}
	return rail
}

// draw compares what is drawn from each rail with what it can give.
func (j *judgement) draw(s Supply) {
	ratings := map[string]float64{}
	for rail, amperes := range s.Rating {
		ratings[railKey(rail)] = amperes
	}
	for _, rail := range slices.Sorted(maps.Keys(s.Draw)) {
		rating, known := ratings[railKey(rail)]
		switch draw := s.Draw[rail]; {
		case !known:
			j.warn("%s: %g A are drawn from %s, and what it can give is not known", s.ID, draw, rail)
		case draw > rating+epsilon:
			j.miss(Missing{ID: rail, Supply: s.ID, Blocks: SupplyOnly, next: Remove,
				why:  "more is drawn than it can give",
				What: fmt.Sprintf("%g A are drawn from %s, which can give %g A", draw, railName(rail), rating),
				Do:   "take out what is not needed, or use a supply that can give more"})
		}
	}
}
