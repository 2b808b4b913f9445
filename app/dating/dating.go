package dating

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"

	"frugalheron/app/action"
	"frugalheron/app/input"
	appinventory "frugalheron/app/inventory"
	"frugalheron/app/library"
	"frugalheron/core/calendar"
	"frugalheron/core/dating"
	"frugalheron/core/facts"
	"frugalheron/core/lives"
	"frugalheron/core/model"
	"frugalheron/core/verdict"
	storeevidence "frugalheron/store/evidence"
	"frugalheron/store/inventory"
	storelibrary "frugalheron/store/library"
	"frugalheron/store/pg"
	"frugalheron/store/roms"
	storesheets "frugalheron/store/sheets"
)

// DatedPart is a date that a machine is dated by, with the spot where it stands.
type DatedPart struct {
	dating.Evidence
	Words   string        `json:"words" doc:"What it is"`
	Count   int           `json:"count" doc:"Parts of the line"`
	Verdict string        `json:"verdict" enum:",later,earlier,possibly-later,left-out" doc:"Empty for one that is of the time of the others; left-out for one that was put in later by what somebody wrote or decided"`
	Spot    *verdict.Spot `json:"spot" doc:"The line, or null"`
}

// DatedAssembly is how original an assembly is.
type DatedAssembly struct {
	ID       int64            `json:"id"`
	Title    string           `json:"title" says:"text"`
	Reckoned dating.Judgement `json:"reckoned"`
	Own      string           `json:"own" enum:"factory,period,later,modern,unknown" doc:"What somebody decided; unknown when nobody did"`
	Counts   string           `json:"counts" enum:"factory,period,later,modern,unknown" doc:"Which of both counts: what somebody decided, where there is one"`
}

// DatedMachine is when a machine was built, by all that is known.
type DatedMachine struct {
	Result     dating.Result         `json:"result"`
	Parts      []DatedPart           `json:"parts"`
	Assemblies []DatedAssembly       `json:"assemblies"`
	Model      *library.MachineModel `json:"model" doc:"By maker and model of the machine's record, or null"`
	Holdings   []model.Row           `json:"holdings" doc:"What machines of the model hold beside what this one does; empty without a model"`
}

// Dating dates a machine from its kept sheets, its statements, its read-only memories and its model.
func (s *Service) Dating(ctx context.Context, actor action.Actor, machineID int64) (DatedMachine, error) {
	d := DatedMachine{Parts: []DatedPart{}, Assemblies: []DatedAssembly{}, Holdings: []model.Row{}}
	_, err := s.inventory.Machine(ctx, actor, machineID)
	if err != nil {
		return d, err
	}
	assemblies, err := appinventory.AssembliesOf(ctx, s.kernel.Reader(ctx), machineID)
	if err != nil {
		return d, err
	}
	if d.Parts, err = datedParts(ctx, s.kernel.Reader(ctx), assemblies); err != nil {
		return d, err
	}
	for _, read := range []func() ([]DatedPart, error){
		func() ([]DatedPart, error) { return s.datedStatements(ctx, machineID) },
		func() ([]DatedPart, error) { return s.datedRoms(ctx, assemblies) },
	} {
		more, err := read()
		if err != nil {
			return d, err
		}
		d.Parts = append(d.Parts, more...)
	}
	known, err := library.ModelOf(ctx, s.kernel.Reader(ctx), machineID)
	if err == nil {
		ids, _ := idsOf(assemblies)
		numbers, errOfLibrary := s.library.NumbersOf(ctx, s.kernel.Reader(ctx), ids)
		if errOfLibrary != nil {
			return d, errOfLibrary
		}
		d.useModel(known, assemblies, numbers)
	} else if !errors.Is(err, action.ErrNotFound) {
		return d, err
	}
	return d, d.reckon(assemblies)
}

// datedParts lists the dated lines of boards. Parts of one line are one piece of evidence.
func datedParts(ctx context.Context, h pg.Handle, assemblies []inventory.Assembly) ([]DatedPart, error) {
	ids, byID := idsOf(assemblies)
	lines, err := storelibrary.DatedEntriesOf(ctx, h, ids)
	if err != nil {
		return nil, err
	}
	stories, err := storiesOf(ctx, h, ids)
	if err != nil {
		return nil, err
	}
	parts := []DatedPart{}
	for _, line := range lines {
		assembly := byID[line.AssemblyID]
		part := DatedPart{Words: line.Marking, Count: line.Count,
			Spot: &verdict.Spot{Assembly: line.AssemblyID, Line: line.Line}}
		part.ID, part.Kind, part.Mounting = fmt.Sprintf("%s, %s", assembly.Title, nameOf(line)), dating.DateCode,
			dating.Soldered
		part.New = line.New || isLater(stories[line.AssemblyID], strings.Fields(line.Designators))
		part.isOn(assembly)
		switch {
		case assembly.Kind == "card":
			part.Mounting = dating.Card
		case line.Socketed:
			part.Mounting = dating.Socketed
		}
		if part.From, err = calendar.Parse(line.From); err != nil {
			return nil, err
		}
		if part.To, err = calendar.Parse(line.To); err != nil {
			return nil, err
		}
		parts = append(parts, part)
	}
	return parts, nil
}

func storiesOf(ctx context.Context, h pg.Handle, ids []int64) (map[int64]lives.Story, error) {
	rows, err := storesheets.StoriesOf(ctx, h, ids)
	if err != nil {
		return nil, err
	}
	stories := make(map[int64]lives.Story, len(rows))
	for _, row := range rows {
		if stories[row.AssemblyID], err = action.ReadKept[lives.Story](row.Story); err != nil {
			return nil, err
		}
	}
	return stories, nil
}

// isLater reports whether all parts of a line came after others, or where nothing was: they tell nothing of when the
// machine was built.
func isLater(story lives.Story, designators []string) bool {
	for _, designator := range designators {
		if life, changed := story.Now(designator); !changed || life.Came == "" {
			return false
		}
	}
	return len(designators) > 0
}

func idsOf(assemblies []inventory.Assembly) (ids []int64, byID map[int64]inventory.Assembly) {
	byID = map[int64]inventory.Assembly{}
	for _, assembly := range assemblies {
		ids, byID[assembly.ID] = append(ids, assembly.ID), assembly
	}
	return ids, byID
}

// isOn says on what the part is, and what somebody decided about that.
func (p *DatedPart) isOn(assembly inventory.Assembly) {
	p.Assembly = assembly.Title
	p.Decided = dating.Originality(assembly.Fit)
}

// nameOf names the parts of a line, as U40-U48.
func nameOf(line storelibrary.DatedEntry) string {
	designators := strings.Fields(line.Designators)
	switch len(designators) {
	case 0:
		return fmt.Sprintf("line %d", line.Line)
	case 1:
		return designators[0]
	}
	return designators[0] + "-" + designators[len(designators)-1]
}

// datedStatements lists what plates and papers say of the building of a machine.
func (s *Service) datedStatements(ctx context.Context, machineID int64) ([]DatedPart, error) {
	statements, err := action.Once(ctx, "statements", machineID, func() ([]storeevidence.Statement, error) {
		return storeevidence.StatementsOf(ctx, s.kernel.Reader(ctx), machineID)
	})
	if err != nil {
		return nil, err
	}
	parts := []DatedPart{}
	for _, said := range statements {
		d := input.DateOf(said.Value)
		if said.Attribute != "built" || said.Retracted != "" || d == nil {
			continue
		}
		kind := dating.Kind("")
		switch facts.Source(said.Kind) {
		case facts.Label, facts.Seen:
			kind = dating.Label
		case facts.Document:
			kind = dating.Document
		default:
			continue // what people say is weighed elsewhere, and dates nothing
		}
		part := DatedPart{Words: "built " + said.Value, Count: 1}
		part.ID, part.Kind, part.From, part.To = cmp.Or(said.Cited, facts.Source(said.Kind).Words()), kind,
			d.Earliest(), d.Latest()
		if !part.From.IsZero() && !part.To.IsZero() {
			parts = append(parts, part)
		}
	}
	return parts, nil
}

// datedRoms lists the years that stand in the contents of read-only memories.
func (s *Service) datedRoms(ctx context.Context, assemblies []inventory.Assembly) ([]DatedPart, error) {
	ids, byID := idsOf(assemblies)
	reads, err := s.roms.ReadsOf(ctx, ids)
	if err != nil {
		return nil, err
	}
	newest := map[string]roms.RomRead{}
	for _, r := range reads {
		newest[fmt.Sprintf("%s, %s", byID[r.AssemblyID].Title, r.Designator)] = r
	}
	parts := []DatedPart{}
	for _, id := range slices.Sorted(maps.Keys(newest)) {
		inspection, err := s.roms.InspectionOf(ctx, newest[id].SHA256)
		if err != nil {
			return nil, err
		}
		if len(inspection.Years) == 0 {
			continue
		}
		// The newest year is that of the version in the chip.
		year := inspection.Years[len(inspection.Years)-1]
		part := DatedPart{Words: fmt.Sprintf("a text in it claims %d", year), Count: 1}
		part.ID, part.Kind = "text in "+id, dating.Copyright
		part.isOn(byID[newest[id].AssemblyID])
		part.From, part.To = calendar.Date{Year: year, Month: 1, Day: 1}, calendar.Date{Year: year, Month: 12, Day: 31}
		parts = append(parts, part)
	}
	return parts, nil
}

// useModel takes in when the model was made and what machines of it hold.
func (d *DatedMachine) useModel(known library.MachineModel, assemblies []inventory.Assembly,
	numbers map[int64][]string) {
	d.Model = &known
	if made := input.DateOf(known.Made); made != nil {
		part := DatedPart{Words: "made " + known.Made, Count: 1}
		part.ID, part.Kind, part.From, part.To = known.Maker+" "+known.Model, dating.Window, made.Earliest(),
			made.Latest()
		d.Parts = append(d.Parts, part)
	}
	expected, _ := model.Parse(known.Expected)
	if len(expected) == 0 {
		return
	}
	fitted := make([]model.Fitted, len(assemblies))
	for i, assembly := range assemblies {
		fitted[i] = model.Fitted{ID: assembly.ID, Title: assembly.Title, Part: assembly.Part, Fit: assembly.Fit,
			KnownAs: numbers[assembly.ID]}
	}
	d.Holdings = model.Compare(expected, fitted)
}

// reckon dates the machine, and each of its assemblies by it.
func (d *DatedMachine) reckon(assemblies []inventory.Assembly) error {
	all := make([]dating.Evidence, len(d.Parts))
	for i, part := range d.Parts {
		all[i] = part.Evidence
	}
	var err error
	if d.Result, err = dating.Date(all, dating.DefaultRules()); err != nil {
		return err
	}
	for i, part := range d.Parts {
		if part.NeverDates() {
			d.Parts[i].Verdict = "left-out"
		}
		for _, o := range d.Result.Outliers {
			if o.ID == part.ID {
				d.Parts[i].Verdict = o.Verdict
			}
		}
	}
	for _, assembly := range assemblies {
		own := []dating.Evidence{}
		for _, part := range d.Parts {
			if part.Spot != nil && part.Spot.Assembly == assembly.ID {
				own = append(own, part.Evidence)
			}
		}
		judged := DatedAssembly{ID: assembly.ID, Title: assembly.Title,
			Reckoned: dating.JudgeAssembly(own, d.Result.Estimate, dating.DefaultRules()), Own: assembly.Fit}
		judged.Counts = judged.Own
		if judged.Own == "unknown" {
			judged.Counts = string(judged.Reckoned.Originality)
		}
		d.Assemblies = append(d.Assemblies, judged)
	}
	return nil
}
