package bench

import (
	"context"
	"slices"

	"frugalheron/app/action"
	"frugalheron/app/condition"
	"frugalheron/app/evidence"
	"frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/complement"
	corecondition "frugalheron/core/condition"
	"frugalheron/core/dating"
	"frugalheron/core/device"
	"frugalheron/core/facts"
	"frugalheron/core/known"
	"frugalheron/core/memory"
	"frugalheron/core/model"
	"frugalheron/core/verdict"
)

// Glance shows a machine on one page.
type Glance struct {
	Sentence string            `json:"sentence" says:"text" doc:"What it is, by what is known of it"`
	Layout   complement.Layout `json:"layout" doc:"How its boards and cards sit"`
	Units    []GlanceUnit      `json:"units" doc:"What is fitted, in order"`
	Figures  []GlanceFigure    `json:"figures"`
	Built    GlanceBuilt       `json:"built"`
	Urgent   []GlanceUrgent    `json:"urgent" doc:"What needs attention, the gravest first"`
}

// GlanceUnit is an assembly as a block.
type GlanceUnit struct {
	AssemblyID   int64                  `json:"assemblyId"`
	Title        string                 `json:"title" says:"text"`
	Kind         string                 `json:"kind"`
	Part         string                 `json:"part"`
	Known        string                 `json:"known" says:"text" doc:"What the library knows it as beyond doubt; empty for nothing"`
	KnownID      int64                  `json:"knownId"`
	Disputed     bool                   `json:"disputed" doc:"Two records say as firmly what it is"`
	Fit          string                 `json:"fit" doc:"When it came into the machine"`
	RAM          string                 `json:"ram" doc:"With its unit; empty for none"`
	ROM          string                 `json:"rom"`
	Chips        int                    `json:"chips"`
	Unidentified int                    `json:"unidentified"`
	Dates        *calendarRange         `json:"dates" doc:"Of its date codes; null where none is read"`
	Findings     int                    `json:"findings" doc:"Open ones"`
	Worst        corecondition.Severity `json:"worst" enum:",cosmetic,watch,repair,hazard" doc:"Of the open ones"`
}

type calendarRange struct {
	From string `json:"from"`
	To   string `json:"to"`
}

// GlanceFigure is a figure of the machine.
type GlanceFigure struct {
	Key   string `json:"key"`
	Label string `json:"label"`
	Value string `json:"value" says:"text"`
}

// GlanceBuilt is when it was built, beside the time in which its model was made.
type GlanceBuilt struct {
	Spans []dating.Span `json:"spans" doc:"All that it can be; empty where nothing tells"`
	Window
	Made   string       `json:"made" doc:"As the record of the model says it"`
	Placed model.Placed `json:"placed" enum:"within,before,after,partly,unknown"`
}

// GlanceUrgent is a line of the reckoning that needs attention.
type GlanceUrgent struct {
	Key   string        `json:"key"`
	Label string        `json:"label"`
	Value string        `json:"value" says:"text"`
	State verdict.State `json:"state" enum:"plain,attention,stop"`
	Stage string        `json:"stage" doc:"Where it is worked on"`
}

// shownFigures are the lines of the reckoning that are figures of a machine, in the order in which they are shown.
var shownFigures = []string{"ram", "rom", "parts", "unidentified", "draw", "dates"}

// Glance puts it together.
func (s *Service) Glance(ctx context.Context, actor action.Actor, machineID int64) (Glance, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Glance, error) {
		g := Glance{Figures: []GlanceFigure{}, Urgent: []GlanceUrgent{}, Units: []GlanceUnit{}}
		machine, err := s.subjects.Inventory.Machine(ctx, actor, machineID)
		if err != nil {
			return g, err
		}
		reckoned, err := s.ReckonMachine(ctx, actor, machineID, nil)
		if err != nil {
			return g, err
		}
		g.take(reckoned.Verdicts)
		holds, err := s.layOut(ctx, actor, machineID, reckoned, &g)
		if err != nil {
			return g, err
		}
		dossier, err := s.dossier(ctx, actor, machineID)
		if err != nil {
			return g, err
		}
		g.Sentence = facts.Sentence(machine.Name, evidence.FactsOf(dossier.Known), holds)
		g.Built, err = s.builtOf(ctx, actor, machine)
		return g, err
	})
}

// take divides the lines of the reckoning into figures and what needs attention.
func (g *Glance) take(verdicts []verdict.Verdict) {
	for _, key := range shownFigures {
		for _, v := range verdicts {
			if v.Key == key {
				g.Figures = append(g.Figures, GlanceFigure{v.Key, v.Label, v.Value})
			}
		}
	}
	for _, v := range verdicts {
		if v.State != verdict.Plain {
			g.Urgent = append(g.Urgent, GlanceUrgent{v.Key, v.Label, v.Value, v.State, v.Stage})
		}
	}
}

// layOut lays the assemblies of a machine out, and returns what they hold.
func (s *Service) layOut(ctx context.Context, actor action.Actor, machineID int64, reckoned ReckonedMachine,
	g *Glance) (holds facts.Holding, err error) {
	h := s.kernel.Reader(ctx)
	assemblies, err := inventory.AssembliesOf(ctx, h, machineID)
	if err != nil {
		return holds, err
	}
	ids := make([]int64, len(assemblies))
	for i, a := range assemblies {
		ids[i] = a.ID
	}
	recognised, err := s.subjects.Library.RecognisedIn(ctx, h, ids)
	if err != nil {
		return holds, err
	}
	how, err := s.subjects.Condition.Condition(ctx, actor, machineID)
	if err != nil {
		return holds, err
	}
	units, rom := []complement.Unit{}, int64(0)
	for _, a := range assemblies {
		unit := complement.Unit{ID: a.ID, Title: a.Title, Kind: a.Kind, Slot: a.Slot}
		block := GlanceUnit{AssemblyID: a.ID, Title: a.Title, Kind: a.Kind, Part: a.Part, Fit: a.Fit}
		block.know(a.ID, recognised, &unit)
		for _, b := range reckoned.Boards {
			if b.AssemblyID == a.ID {
				block.count(b)
				rom += b.Totals.ROMBytes
				holds.Processors = append(holds.Processors, processorsOn(b)...)
			}
		}
		block.find(how.Findings)
		g.Units, units = append(g.Units, block), append(units, unit)
	}
	if rom > 0 {
		holds.ROM = memory.Format(rom)
	}
	slices.Sort(holds.Processors)
	holds.Processors = slices.Compact(holds.Processors)
	g.Layout = complement.Lay(units)
	return holds, nil
}

// know takes in what the library knows an assembly as.
func (u *GlanceUnit) know(id int64, recognised []library.Recognised, unit *complement.Unit) {
	for _, r := range recognised {
		if r.AssemblyID != id || len(r.Claims) == 0 {
			continue
		}
		u.Disputed = r.IsDisputed
		if best := r.Claims[0]; best.Sure && !r.IsDisputed {
			u.Known, u.KnownID = best.Name, best.ID
			unit.Covers = best.Details.Covers
			unit.Gives = action.Views(best.Details.Gives, func(g known.Gift) complement.Slots {
				return complement.Slots(g)
			})
		}
	}
}

// count takes in what an assembly holds by its sheet.
func (u *GlanceUnit) count(b ReckonedBoard) {
	t := b.Totals
	u.Chips, u.Unidentified = t.Chips, t.Unidentified
	if t.RAMBytes > 0 {
		u.RAM = memory.Format(t.RAMBytes)
	}
	if t.ROMBytes > 0 {
		u.ROM = memory.Format(t.ROMBytes)
	}
	if t.Dates != nil {
		u.Dates = &calendarRange{t.Dates.Earliest.Text, t.Dates.Latest.Text}
	}
}

func processorsOn(b ReckonedBoard) (numbers []string) {
	for _, e := range b.Entries {
		if e.Type != nil && e.Type.Class == device.Processor && !e.Empty && !e.Doubtful {
			numbers = append(numbers, e.Type.Number)
		}
	}
	return numbers
}

// find takes in the open findings of an assembly.
func (u *GlanceUnit) find(findings []condition.FindingView) {
	for _, f := range findings {
		if f.Story.Open && f.AssemblyID != nil && *f.AssemblyID == u.AssemblyID {
			u.Findings++
			u.Worst = corecondition.Graver(u.Worst, f.Story.Severity)
		}
	}
}

// builtOf tells when a machine was built, beside its model.
func (s *Service) builtOf(ctx context.Context, actor action.Actor, machine inventory.Machine) (GlanceBuilt, error) {
	b := GlanceBuilt{Spans: []dating.Span{}, Placed: model.Nowhere}
	dated, err := s.subjects.Dating.Dating(ctx, actor, machine.ID)
	if err != nil {
		return b, err
	}
	b.Spans = dated.Result.Estimates
	if machine.ModelID == nil {
		return b, nil
	}
	of, err := library.ModelOf(ctx, s.kernel.Reader(ctx), machine.ID)
	if err != nil {
		return b, err
	}
	b.Made = of.Made
	b.Window = windowOf(of.Made)
	b.Placed = b.Window.place(dated.Result.Estimate)
	return b, nil
}
