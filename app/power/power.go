package power

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strconv"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/teardown"
	"frugalheron/core/calendar"
	"frugalheron/core/caution"
	corecondition "frugalheron/core/condition"
	"frugalheron/core/gate"
	"frugalheron/core/ladder"
	"frugalheron/core/lives"
	"frugalheron/core/measure"
	"frugalheron/core/quantity"
	"frugalheron/core/reckoning"
	"frugalheron/core/verdict"
	"frugalheron/store/inventory"
	"frugalheron/store/pg"
	"frugalheron/store/power"
	"frugalheron/store/sheets"
)

// MissingPoint is a point that keeps power away, with where it is put right.
type MissingPoint struct {
	ID     string     `json:"id" says:"text"`
	Blocks gate.State `json:"blocks" enum:"hold,supply-only,staged" doc:"The state in which it keeps the machine"`
	What   string     `json:"what" says:"text"`
	Do     string     `json:"do" says:"text"`
	Supply string     `json:"supply" says:"text" doc:"The supply that it is about; empty for none"`
	Path   string     `json:"path" doc:"Where on the bench of the machine it is put right, as judge?finding=..."`
}

// NextPoint is what comes next.
type NextPoint struct {
	Kind gate.NextKind `json:"kind" enum:"inspect,measure,remove,minimum,add,none"`
	Step string        `json:"step" says:"text"`
	Why  string        `json:"why" says:"text"`
}

// RailReading is a rail of a supply as it was measured, with what it should be.
type RailReading struct {
	SupplyID int64    `json:"supplyId"`
	Rail     string   `json:"rail"`
	Needed   bool     `json:"needed"`
	Volts    *float64 `json:"volts" doc:"The newest under load; null while there is none"`
	On       string   `json:"on"`
	Load     string   `json:"load" enum:",dummy,machine,none"`
	Low      *float64 `json:"low" doc:"null where nobody knows"`
	High     *float64 `json:"high"`
	Rating   *float64 `json:"rating" doc:"Amperes that it can give; null where nobody said"`
	Draw     *float64 `json:"draw" doc:"Amperes that the boards draw by their sheets, a rule of thumb; null where nothing is known"`
}

// Power is all that is known of applying power to a machine.
type Power struct {
	Stage    reckoning.Stage   `json:"stage"`
	State    gate.State        `json:"state" enum:"hold,supply-only,staged,cleared" doc:"How far it has come by what is recorded; never a permission"`
	Danger   bool              `json:"danger" doc:"Power is kept away by danger that somebody found"`
	Missing  []MissingPoint    `json:"missing" doc:"The strictest first"`
	Next     NextPoint         `json:"next"`
	Warnings []string          `json:"warnings" says:"text"`
	Supplies []Supply          `json:"supplies"`
	Rails    []RailReading     `json:"rails"`
	Parts    []PowerPart       `json:"parts" doc:"Cells and fans, by the sheets"`
	Rungs    []RungView        `json:"rungs" doc:"From the lowest"`
	Proposed []ladder.Rung     `json:"proposed" doc:"Rungs that are worked out from what is fitted, while there is no ladder"`
	Ups      []PowerUpView     `json:"ups" doc:"Each time that power was applied, the newest first"`
	Worked   string            `json:"worked" doc:"The last day on which all was as expected, where something was not since; else empty"`
	Changed  []string          `json:"changed" says:"text" doc:"What was changed since it last worked"`
	NoMains  bool              `json:"noMains" doc:"A supply is fed by mains, and nobody said what comes out of the wall here"`
	Cautions []caution.Caution `json:"cautions"`
	Before   []string          `json:"before" says:"text" doc:"What is said before each step: what starts by itself, what may be charged, how the heat leaves"`
	Running  []caution.Caution `json:"running" doc:"What stays in sight while a rung is tried"`
}

// reading is what the gate is worked out from, and what it amounts to.
type reading struct {
	in       gate.Input
	out      gate.Output
	supplies []Supply
	parts    []PowerPart
	rungs    []RungView
	ups      []PowerUpView
	paths    map[string]string // where a missing point is put right, by its id
}

// Power reads it.
func (s *Service) Power(ctx context.Context, actor action.Actor, machineID int64) (Power, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Power, error) {
		if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
			return Power{}, err
		}
		h := s.kernel.Reader(ctx)
		r, err := s.read(ctx, h, actor, machineID)
		if err != nil {
			return Power{}, err
		}
		p := Power{State: r.out.State, Danger: r.out.IsDangerous(), Missing: []MissingPoint{},
			Next:     NextPoint(r.out.Next),
			Warnings: r.out.Warnings, Supplies: r.supplies, Rails: r.rails(), Parts: r.parts, Rungs: r.rungs,
			Proposed: []ladder.Rung{}, Ups: r.ups, Stage: r.stage(), Changed: []string{}, NoMains: r.lacksMains()}
		for _, m := range r.out.Missing {
			p.Missing = append(p.Missing, MissingPoint{ID: m.ID, Blocks: m.Blocks, What: m.What, Do: m.Do,
				Supply: m.Supply,
				Path:   r.pathOf(m)})
		}
		if len(r.rungs) == 0 {
			if p.Proposed, err = proposal(ctx, h, machineID); err != nil {
				return p, err
			}
		}
		if err := p.sinceItWorked(ctx, h, machineID); err != nil {
			return p, err
		}
		held, err := condition.HoldingsIn(ctx, h, machineID)
		if err != nil {
			return p, err
		}
		p.Cautions = caution.All(caution.DueIn(said(r), held))
		p.Before = gate.Before(r.in)
		if err := s.signsAt(ctx, h, machineID, p.Rungs); err != nil {
			return p, err
		}
		p.Running = caution.All([]caution.Key{caution.Live, caution.Loose})
		slices.Reverse(p.Ups)
		return p, nil
	})
}

// lacksMains reports whether a supply waits for what only the settings of the collection tell.
func (r *reading) lacksMains() bool {
	return r.in.Local.Volts == 0 && slices.ContainsFunc(r.supplies, func(s Supply) bool { return s.Kind == gate.Mains })
}

// said is the work of the stage in words, by which its cautions are told.
func said(r reading) string {
	words := "probe rails while it runs; nothing loose inside"
	for _, s := range r.in.Supplies {
		if s.Kind == gate.Mains {
			words += "; mains supply, on a dummy load"
		}
		if s.StartsWithMains {
			words += "; starts with mains"
		}
	}
	return words
}

// read works the gate out from the one record of a machine.
func (s *Service) read(ctx context.Context, h pg.Handle, actor action.Actor, machineID int64) (reading, error) {
	r := reading{paths: map[string]string{}}
	collection, err := inventory.ReadCollection(ctx, h)
	if err != nil {
		return r, err
	}
	months := collection.SupplyMonths
	r.in = gate.Input{Now: calendar.On(actor.Day()), SupplyMonths: &months,
		Local: gate.Local{Volts: collection.MainsVolts, Hz: collection.MainsHz}}
	open, err := s.findings(ctx, actor, machineID, &r)
	if err != nil {
		return r, err
	}
	if r.parts, err = partsOf(ctx, h, machineID, open); err != nil {
		return r, err
	}
	r.takeParts()
	if err := s.connectors(ctx, actor, machineID, &r); err != nil {
		return r, err
	}
	if err := s.feed(ctx, h, actor, machineID, &r); err != nil {
		return r, err
	}
	if err := r.climb(ctx, h, machineID); err != nil {
		return r, err
	}
	r.out, err = gate.Judge(r.in)
	return r, err
}

// findings takes in the open findings of the machine.
func (s *Service) findings(ctx context.Context, actor action.Actor, machineID int64, r *reading) ([]openFinding,
	error) {
	how, err := s.condition.Condition(ctx, actor, machineID)
	if err != nil {
		return nil, err
	}
	open := []openFinding{}
	for _, f := range how.Findings {
		if !f.Story.Open || isRailFailure(f) {
			continue
		}
		one := openFinding{designator: f.Designator, kind: f.Kind}
		if f.AssemblyID != nil {
			one.assembly = *f.AssemblyID
		}
		open = append(open, one)
		id := fmt.Sprintf("%s, %s", f.Where, f.Kind)
		r.paths[id] = "judge?finding=" + f.Key
		r.in.Findings = append(r.in.Findings, gate.Finding{ID: id, Severity: string(f.Story.Severity),
			Subsystem: gate.CountsAs(f.Subsystem, f.Where+" "+f.Kind+" "+f.Assembly)})
	}
	return open, nil
}

// isRailFailure reports whether a finding is known from a measured rail alone: the gate judges the reading itself.
func isRailFailure(f condition.FindingView) bool {
	_, isRail := measure.Rail(f.Where)
	return isRail && !slices.ContainsFunc(f.Sources, func(s condition.FindingSource) bool {
		return s.Source != corecondition.FromMeasurement
	})
}

func (r *reading) takeParts() {
	for _, p := range r.parts {
		id := p.name()
		r.paths[id] = "power-up#cells-and-fans"
		if p.IsFan {
			r.in.Cooling = append(r.in.Cooling, gate.Cooling{ID: id, State: p.State, Needed: !p.Spared})
			continue
		}
		r.in.Batteries = append(r.in.Batteries, gate.Battery{ID: id, State: p.State, NeededToStart: p.NeededToStart,
			Primary: p.Primary, Unknown: p.Unknown, Charged: p.Charged})
	}
}

func (s *Service) connectors(ctx context.Context, actor action.Actor, machineID int64, r *reading) error {
	wired, err := s.teardown.Wiring(ctx, actor, machineID)
	if err != nil {
		return err
	}
	for _, c := range wired.Connectors {
		if free, counts := standing(c); counts {
			r.paths[c.Name] = "open-up"
			r.in.Connectors = append(r.in.Connectors, gate.Connector{ID: c.Name, Open: c.Open, MustStayFree: free})
		}
	}
	return nil
}

// standing says whether a connector must stay free, and whether it counts at all: into a bare socket nothing goes.
func standing(c teardown.ConnectorView) (mustStayFree, counts bool) {
	if c.SocketOnly {
		return false, false
	}
	return c.Never != "" || c.FoundOpen, true
}

// feed takes in what feeds the machine, with the rails as they were measured and what is drawn from them.
func (s *Service) feed(ctx context.Context, h pg.Handle, actor action.Actor, machineID int64, r *reading) error {
	var err error
	if r.supplies, err = suppliesOf(ctx, h, machineID); err != nil {
		return err
	}
	measured, err := s.condition.Measurements(ctx, actor, machineID)
	if err != nil {
		return err
	}
	drawn, err := drawOf(ctx, h, machineID)
	if err != nil {
		return err
	}
	names := map[string]int{}
	for _, one := range r.supplies {
		name := one.Name
		if names[name]++; names[name] > 1 {
			name += " " + strconv.Itoa(names[one.Name]) // two of one name are told apart
		}
		supply := one.atTheGate(name)
		r.paths[name] = "power-up#supplies"
		for _, m := range slices.Backward(measured) {
			if reading, isRail := railOf(m); isRail && isOf(m, one, r.supplies) {
				supply.Rails = append(supply.Rails, reading)
			}
		}
		if len(r.supplies) == 1 {
			supply.Draw = drawn
		}
		r.in.Supplies = append(r.in.Supplies, supply)
	}
	r.paths["supplies"] = "power-up#supplies"
	return nil
}

// atTheGate is a supply as the gate asks for it.
func (s Supply) atTheGate(name string) gate.Supply {
	out := gate.Supply{ID: name, Kind: s.Kind, Selector: s.Selector, Needs: s.Needs, StartsWithMains: s.StartsWithMains,
		Rating: map[string]float64{}}
	if s.PlateVolts != "" || s.PlatePolarity != "" {
		out.Plate = &gate.Plate{Volts: s.PlateVolts, Hz: s.PlateHz, Polarity: s.PlatePolarity}
	}
	if s.SourceVolts != nil {
		out.Source = &gate.Source{Volts: *s.SourceVolts, Polarity: s.SourcePolarity}
	}
	for _, one := range s.Rating {
		out.Rating[one.Rail] = one.Amperes
	}
	out.InspectedOn, out.MovedOn, out.RanOn = calendar.Written(s.InspectedOn), calendar.Written(s.MovedOn),
		calendar.Written(s.RanOn)
	return out
}

// railOf is a measurement as a reading of a rail; of several readings the one that lies furthest off.
func railOf(m condition.Measurement) (gate.Reading, bool) {
	e, isRail := measure.Rail(m.Point)
	if !isRail || m.Quantity != quantity.Volts || len(m.Readings) == 0 {
		return gate.Reading{}, false
	}
	worst := m.Readings[0]
	for _, volts := range m.Readings[1:] {
		if math.Abs(volts-*e.Nominal) > math.Abs(worst-*e.Nominal) {
			worst = volts
		}
	}
	// Whoever did not say under which load it was measured did not measure it under load.
	out := gate.Reading{Rail: m.Point, Volts: &worst, Load: m.Load, Regulated: m.Load == ""}
	if m.Load == "" {
		out.Load = "none"
	}
	out.On = calendar.Written(m.On)
	if m.Expected != nil && m.Expected.Low != nil && m.Expected.High != nil {
		out.Low, out.High = m.Expected.Low, m.Expected.High
	}
	return out, true
}

// isOf reports whether something was measured on a supply: as it was said, or because there is no other, or no other that
// has the rail.
func isOf(m condition.Measurement, s Supply, all []Supply) bool {
	if m.SupplyID != nil {
		return *m.SupplyID == s.ID
	}
	with := []int64{}
	for _, one := range all {
		if len(all) == 1 || slices.Contains(one.Needs, m.Point) {
			with = append(with, one.ID)
		}
	}
	return len(with) == 1 && with[0] == s.ID
}

// drawOf sums what the boards of a machine draw by rail, by their sheets.
func drawOf(ctx context.Context, h pg.Handle, machineID int64) (map[string]float64, error) {
	rows, err := power.DrawOf(ctx, h, machineID)
	sums := map[string]float64{}
	for _, row := range rows {
		drawn, err := action.ReadKept[map[string]reckoning.Draw](row)
		if err != nil {
			return nil, err
		}
		for rail, draw := range drawn {
			if draw.Counted > 0 {
				sums[rail] += draw.TypicalA
			}
		}
	}
	return sums, err
}

// climb takes in the ladder, with what became of its rungs, and when something was changed.
func (r *reading) climb(ctx context.Context, h pg.Handle, machineID int64) error {
	rungRows, err := power.RungsOf(ctx, h, machineID)
	if err != nil {
		return err
	}
	upRows, err := power.UpsOf(ctx, h, machineID)
	if err != nil {
		return err
	}
	r.rungs, r.ups = action.Views(rungRows, tellRung), action.Views(upRows, tellUp)
	for i := range r.rungs {
		r.rungs[i].take(r.ups)
		one := r.rungs[i]
		step := gate.Step{Step: one.Step, Kind: string(one.Kind), Result: one.Result, On: calendar.Written(one.On)}
		r.paths[one.Step] = "power-up#ladder"
		r.in.Ladder = append(r.in.Ladder, step)
	}
	r.paths["ladder"] = "power-up#ladder"
	changed, err := changedOn(ctx, h, machineID)
	if err != nil {
		return err
	}
	r.in.ChangedOn = calendar.Written(min(changed, r.in.Now.Text))
	return nil
}

// take takes in what became of a rung when it was tried last.
func (r *RungView) take(all []PowerUpView) {
	for _, up := range all {
		if !slices.Contains(up.RungIDs, r.ID) {
			continue
		}
		r.Result, r.On, r.CannotTell = up.Result, up.On, ""
		if n := len(up.RungIDs); n > 1 {
			r.CannotTell = fmt.Sprintf("tried at once with %s", verdict.Counted(n-1, "other rung", "other rungs"))
			if up.Result == "not" {
				r.CannotTell += ": which of them was the cause is not told"
			} else {
				r.CannotTell += ": that each alone does what is expected is not told"
			}
		}
	}
}

// changedOn is the last day on which something in a machine was changed: an assembly, a part, an adjuster.
func changedOn(ctx context.Context, h pg.Handle, machineID int64) (string, error) {
	on, err := power.ChangedOn(ctx, h, machineID)
	if err != nil {
		return "", err
	}
	rows, err := sheets.StoriesIn(ctx, h, machineID)
	if err != nil {
		return "", err
	}
	for _, row := range rows {
		story, err := action.ReadKept[lives.Story](row.Story)
		if err != nil {
			return "", err
		}
		on = max(on, story.ChangedOn())
	}
	return on, nil
}

// sinceItWorked finds out what was changed since all was last as expected, where something was not since.
func (p *Power) sinceItWorked(ctx context.Context, h pg.Handle, machineID int64) error {
	if n := len(p.Ups); n == 0 || p.Ups[n-1].Result != "not" {
		return nil
	}
	for _, up := range p.Ups {
		if up.Result == "as-expected" {
			p.Worked = up.On
		}
	}
	if p.Worked == "" {
		return nil
	}
	moved, err := power.MovedSince(ctx, h, machineID, p.Worked)
	for _, m := range moved {
		how := "came in"
		if m.Left {
			how = "was taken out"
		}
		p.Changed = append(p.Changed, fmt.Sprintf("%s: %s %s", m.On, m.Title, how))
	}
	return err
}

// pathOf says where a point is put right: of a rail, where it is measured.
func (r *reading) pathOf(m gate.Missing) string {
	if path := r.paths[m.ID]; path != "" && m.ID != m.Supply {
		return path
	}
	if m.ID != m.Supply {
		return "power-up#rails"
	}
	return "power-up#supplies"
}

// rails lists the rails of all supplies with their newest readings, for bars to their limits.
func (r *reading) rails() []RailReading {
	rails := []RailReading{}
	for i, s := range r.in.Supplies {
		for _, rail := range gate.RailsOf(s) {
			one := RailReading{SupplyID: r.supplies[i].ID, Rail: rail.Name, Needed: rail.Needed, Volts: rail.Volts,
				Load: rail.Load, Low: rail.Low, High: rail.High, Rating: rail.Rating, Draw: rail.Draw}
			if rail.Volts != nil {
				one.On = rail.On.String()
			}
			rails = append(rails, one)
		}
	}
	return rails
}

// stage says how far first power has come.
func (r *reading) stage() reckoning.Stage {
	stage := reckoning.Stage{State: reckoning.Untouched}
	not := 0
	for _, one := range r.rungs {
		if one.Result == "not" {
			not++
		}
	}
	switch {
	case r.out.State == gate.Cleared:
		stage.State = reckoning.Settled
	case not > 0 && r.out.State != gate.Staged:
		stage = reckoning.Stage{State: reckoning.NeedsAttention, Count: not}
	case len(r.supplies) > 0 || len(r.rungs) > 0 || len(r.ups) > 0:
		stage.State = reckoning.InHand
	}
	return stage
}

// Verdicts are the lines of the reckoning that follow from the gate.
func (s *Service) Verdicts(ctx context.Context, actor action.Actor, machineID int64) ([]verdict.Verdict, error) {
	r, err := s.read(ctx, s.kernel.Reader(ctx), actor, machineID)
	if err != nil {
		return nil, err
	}
	return verdict.Telling(gate.VerdictOf(r.out)), nil
}
