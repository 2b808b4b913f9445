package demo

import (
	"fmt"
	"maps"
	"slices"

	"frugalheron/app/inventory"
	"frugalheron/app/unknowns"
	"frugalheron/core/annotation"
	"frugalheron/core/identification"
	"frugalheron/demo/drawn"
)

// toldIdentification is what is thought about a board in store, with weights in the order of the explanations.
type toldIdentification struct {
	Hypotheses []string
	Evidence   []struct {
		Text, HowTo string
		Seen        identification.Presence
		W           []int
	}
}

// mysteries writes what is thought about boards without a name.
func (t teller) identifications() error {
	told, err := readWorld[map[string]toldIdentification]("identifications.json")
	if err != nil {
		return err
	}
	loose, err := t.actions.Inventory.ListLoose(t.ctx, t.curator, "", 0, 200)
	if err != nil {
		return err
	}
	for _, assembly := range loose.Assemblies {
		puzzle, ok := told[assembly.Title]
		if !ok {
			continue
		}
		now, err := t.actions.Unknowns.Identification(t.ctx, t.curator, assembly.ID)
		if err != nil || now.Version > 0 {
			return err
		}
		if _, err := t.actions.Unknowns.WeighIdentification(t.ctx, t.curator, assembly.ID, 0,
			puzzle.fields()); err != nil {
			return fmt.Errorf("%s: %w", assembly.Title, err)
		}
	}
	return nil
}

func (m toldIdentification) fields() unknowns.IdentificationInput {
	f := unknowns.IdentificationInput{}
	for i, text := range m.Hypotheses {
		f.Hypotheses = append(f.Hypotheses, identification.Hypothesis{ID: int64(i + 1), Text: text})
	}
	for i, e := range m.Evidence {
		one := unknowns.IdentificationEvidence{ID: int64(i + 1), Text: e.Text, Presence: e.Seen, HowTo: e.HowTo}
		for n, weight := range e.W {
			one.Weights = append(one.Weights, unknowns.IdentificationWeight{HypothesisID: int64(n + 1), Weight: weight})
		}
		f.Evidence = append(f.Evidence, one)
	}
	return f
}

// toldQuestions are what was thought about unknown chips so far.
var toldQuestions = []struct {
	machine string // accession number, for what is on one machine only
	fields  unknowns.QuestionInput
	guesses [][2]string
}{
	{"", unknowns.QuestionInput{Sort: "chip", Subject: "HX9041",
		Text: "40 pins, beside the processor of the same family.", Asked: "Saltmarsh Repair Club, 2026-10-02"},
		[][2]string{{"a bus unit for the HX9040",
			"its number follows that of the processor, and the address lines go through it"}}},
	{"EH-0126", unknowns.QuestionInput{Sort: "connector", Subject: "six pins beside the keyboard socket",
		Text: "Two of them go to +5 V and ground, the others to U4."}, nil},
}

func (t teller) questions() error {
	there, err := t.actions.Unknowns.Unknowns(t.ctx, t.curator, 0)
	if err != nil {
		return err
	}
	if slices.ContainsFunc(there.Open, func(u unknowns.Unknown) bool { return u.Question != nil }) ||
		len(there.Answered) > 0 {
		return nil
	}
	for _, told := range toldQuestions {
		if told.machine != "" {
			id := t.machines[told.machine]
			told.fields.MachineID = &id
		}
		asked, err := t.actions.Unknowns.Ask(t.ctx, t.curator, told.fields)
		if err != nil {
			return fmt.Errorf("%s: %w", told.fields.Subject, err)
		}
		for _, guess := range told.guesses {
			if err := t.actions.Unknowns.GuessAt(t.ctx, t.curator, asked.ID, guess[0], guess[1]); err != nil {
				return err
			}
		}
	}
	return nil
}

// numbered are the machines whose board has numbers on its picture, with outlines by the designators in them.
var numbered = map[string][]annotation.Block{
	"EH-0142": {
		{Name: "memory", Members: []string{"U50", "U58", "U59", "U67"}},
		{Name: "firmware", Members: []string{"U9", "U10"}},
		{Name: "processor", Members: []string{"U1", "U2"}, Reaches: []string{"memory", "firmware"}},
	},
	"EH-0126": {},
}

// number puts numbers on the picture of a board, but for a few parts that nobody has placed yet.
func (t teller) number(machine inventory.Machine, assemblyID, pictureID int64, board drawn.Board) error {
	blocks, ok := numbered[machine.Accession]
	if !ok {
		return nil
	}
	now, err := t.actions.Files.Annotation(t.ctx, t.curator, pictureID)
	if err != nil || now.Version > 0 {
		return err
	}
	places := board.Places()
	drawing := annotation.Annotation{Callouts: []annotation.Callout{}, Blocks: blocks}
	for _, designator := range slices.Sorted(maps.Keys(places)) {
		if designator[0] == 'U' {
			drawing.Callouts = append(drawing.Callouts,
				annotation.Callout{Designator: designator, X: places[designator].X, Y: places[designator].Y})
		}
	}
	_, err = t.actions.Files.Annotate(t.ctx, t.curator, pictureID, 0, assemblyID, drawing, nil)
	return err
}
