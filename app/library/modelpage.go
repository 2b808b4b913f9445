package library

import (
	"context"
	"slices"
	"strings"

	"frugalheron/app/action"
	"frugalheron/core/facts"
	"frugalheron/core/known"
	"frugalheron/core/model"
	"frugalheron/core/sign"
	"frugalheron/store/library"
	"frugalheron/store/pg"
)

// ModelTold is what is known of a model by the library alone.
type ModelTold struct {
	MachineModel
	Told     []ToldFact       `json:"told"`
	Shows    sign.Table       `json:"shows" doc:"The signs, line by line"`
	Boards   []ModelBoard     `json:"boards" doc:"What belongs in it, each with the record that knows it"`
	Fits     []ModelBoard     `json:"fits" doc:"What else is known to fit it"`
	Measured []string         `json:"measured" says:"text" doc:"What is measured and shown, a figure each"`
	Others   []MachineOfModel `json:"others" doc:"Machines that are of it"`
	More     bool             `json:"more" doc:"There are more of them"`
}

// ToldFact is a fact of a model, with who says so.
type ToldFact struct {
	facts.Fact
	Label string       `json:"label"`
	By    []FactSource `json:"by"`
}

// FactSource is who says a fact of a model.
type FactSource struct {
	ID     string `json:"id"`
	Value  string `json:"value" says:"text"`
	Source string `json:"source" says:"text"`
	On     string `json:"on"`
}

// ModelBoard is an assembly of a model.
type ModelBoard struct {
	Expected   *model.Expected `json:"expected" doc:"Null for what only fits it"`
	KnownID    int64           `json:"knownId" doc:"The record that knows it; 0 for none"`
	Name       string          `json:"name" says:"text"`
	Difference string          `json:"difference" says:"text" doc:"What is different in this model"`
	Revisions  []known.Since   `json:"revisions"`
	Faults     []known.Fault   `json:"faults"`
	Remarks    []string        `json:"remarks" says:"text"`
}

// MachineOfModel is a machine that is of a model.
type MachineOfModel struct {
	ID        int64  `json:"id"`
	Accession string `json:"accession"`
	Name      string `json:"name" says:"text"`
	Serial    string `json:"serial"`
}

// mostOfModel bounds the machines that the page of a model shows.
const mostOfModel = 20

// ModelTold reads what the library knows of a model.
func (s *Service) ModelTold(ctx context.Context, actor action.Actor, id int64) (ModelTold, error) {
	t := ModelTold{Told: []ToldFact{}, Boards: []ModelBoard{}, Fits: []ModelBoard{}, Measured: []string{},
		Others: []MachineOfModel{}}
	if err := actor.Must(action.MayLook); err != nil {
		return t, err
	}
	h := s.kernel.Reader(ctx)
	row, err := library.ModelByID(ctx, h, id)
	if err != nil {
		return t, err
	}
	t.MachineModel = machineModelOf(row)
	t.Shows, _ = sign.Parse(row.Signs)
	t.Measured = append(t.Measured, linesOf(row.Figures)...)
	judged, err := t.judged(actor.Today())
	if err != nil {
		return t, err
	}
	for _, f := range judged {
		t.Told = append(t.Told, t.told(f))
	}
	machines, err := library.MachinesOfModel(ctx, h, id, mostOfModel+1)
	if err != nil {
		return t, err
	}
	if len(machines) > mostOfModel {
		machines, t.More = machines[:mostOfModel], true
	}
	t.Others = action.Views(machines, func(r library.MachineOfModel) MachineOfModel { return MachineOfModel(r) })
	return t, s.findBoards(ctx, h, &t)
}

// FactsOfModel judges what is told of a model. When it was made counts as when its machines were built.
func (s *Service) FactsOfModel(ctx context.Context, actor action.Actor, id int64) (MachineModel, []facts.Fact, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return MachineModel{}, nil, err
	}
	row, err := library.ModelByID(ctx, s.kernel.Reader(ctx), id)
	if err != nil {
		return MachineModel{}, nil, err
	}
	m := machineModelOf(row)
	judged, err := m.judged(actor.Today())
	return m, judged, err
}

// judged weighs the facts of a model by the day of today.
func (f ModelInput) judged(today string) ([]facts.Fact, error) {
	told, _ := model.ParseFacts(f.Facts)
	judged, _, err := model.CheckFacts(told, today)
	return judged, err
}

// told lists who says what of a fact.
func (f ModelInput) told(fact facts.Fact) ToldFact {
	one := ToldFact{Fact: fact, Label: facts.AttributeOf(fact.Attribute).Label, By: []FactSource{}}
	told, _ := model.ParseFacts(f.Facts)
	for _, statement := range told {
		if statement.Attribute != fact.Attribute || !strings.EqualFold(statement.Subject, fact.Subject) {
			continue
		}
		by := FactSource{ID: statement.ID, Value: statement.Value, Source: statement.Said}
		if statement.On != nil {
			by.On = *statement.On
		}
		one.By = append(one.By, by)
	}
	return one
}

// findBoards finds the records that know what belongs in a model, and what else fits it.
func (s *Service) findBoards(ctx context.Context, h pg.Handle, t *ModelTold) error {
	now, err := s.knownIn(ctx, h)
	if err != nil {
		return err
	}
	expected, _ := model.Parse(t.Expected)
	told := map[int64]bool{}
	for i := range expected {
		board := ModelBoard{Expected: &expected[i], Name: expected[i].Title, Revisions: []known.Since{},
			Faults: []known.Fault{}, Remarks: []string{}}
		for _, m := range now.find.Recognise(known.Thing{Part: expected[i].Part}) {
			if m.Sure && !told[m.ID] {
				told[m.ID] = true
				board.fill(now.all[m.ID], t.Model)
				break
			}
		}
		t.Boards = append(t.Boards, board)
	}
	for id, k := range now.all {
		fits := strings.Contains(strings.ToLower(k.Details), strings.ToLower(t.Model))
		if board := (ModelBoard{}); fits && !told[id] && board.fill(k, t.Model) {
			t.Fits = append(t.Fits, board)
		}
	}
	slices.SortFunc(t.Fits, func(a, b ModelBoard) int { return strings.Compare(a.Name, b.Name) })
	return nil
}

// fill takes in what a record says, and reports whether it says that it fits the model.
func (b *ModelBoard) fill(k KnownAssembly, called string) (fits bool) {
	read, _ := known.ParseDetails(k.Details)
	b.KnownID, b.Name, b.Revisions, b.Faults, b.Remarks = k.ID, k.Name, read.Revisions, read.Faults, read.SameTime()
	for _, f := range read.Fits {
		if strings.EqualFold(f.Model, called) {
			fits, b.Difference = true, f.Difference
		}
	}
	return fits
}
