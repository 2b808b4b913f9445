package bench

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/app/evidence"
	"frugalheron/app/library"
	"frugalheron/app/teardown"
	"frugalheron/core/calendar"
	"frugalheron/core/facts"
	"frugalheron/core/model"
	"frugalheron/store/roms"
)

// ModelPage is all that is known of a model.
type ModelPage struct {
	library.ModelTold
	Window
	Built      []BuiltMachine       `json:"built" doc:"Machines that are of it, each with when it was built"`
	Procedures []teardown.Procedure `json:"procedures"`
	Roms       []ModelRom           `json:"roms" doc:"What was read on its machines"`
}

// BuiltMachine is a machine of a model, placed in the time in which the model was made.
type BuiltMachine struct {
	library.MachineOfModel
	From   *calendar.Date `json:"from" doc:"First day on which it can have been built, or null"`
	To     *calendar.Date `json:"to"`
	Placed model.Placed   `json:"placed" enum:"within,before,after,partly,unknown"`
}

// ModelRom is an image that was read on machines of a model.
type ModelRom struct {
	SHA256   string `json:"sha256"`
	Name     string `json:"name"`
	Version  string `json:"version"`
	Bytes    int64  `json:"bytes"`
	Machines string `json:"machines" doc:"Their accession numbers"`
}

// mostRoms bounds the images that the page of a model shows.
const mostRoms = 100

// ModelPage puts together all that is known of a model.
func (s *Service) ModelPage(ctx context.Context, actor action.Actor, id int64) (ModelPage, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (ModelPage, error) {
		p := ModelPage{Built: []BuiltMachine{}}
		var err error
		if p.ModelTold, err = s.subjects.Library.ModelTold(ctx, actor, id); err != nil {
			return p, err
		}
		if err := s.placeMachines(ctx, actor, &p); err != nil {
			return p, err
		}
		if p.Procedures, err = s.subjects.Teardown.ProceduresOf(ctx, actor, p.Maker, p.Model); err != nil {
			return p, err
		}
		images, err := roms.ImagesOfModel(ctx, s.kernel.Reader(ctx), id, mostRoms)
		p.Roms = action.Views(images, func(r roms.ImageOfModel) ModelRom { return ModelRom(r) })
		return p, err
	})
}

// placeMachines tells of each machine when it was built, within the time in which its model was made.
func (s *Service) placeMachines(ctx context.Context, actor action.Actor, p *ModelPage) error {
	p.Window = windowOf(p.Made)
	for _, machine := range p.Others {
		built := BuiltMachine{MachineOfModel: machine}
		dated, err := s.subjects.Dating.Dating(ctx, actor, machine.ID)
		if err != nil {
			return err
		}
		if e := dated.Result.Estimate; e != nil {
			built.From, built.To = &e.From, &e.To
		}
		built.Placed = p.place(dated.Result.Estimate)
		p.Built = append(p.Built, built)
	}
	return nil
}

// Compared is a model beside another, or beside a machine.
type Compared struct {
	First  string         `json:"first" says:"text"`
	Second string         `json:"second" says:"text"`
	Rows   []facts.Beside `json:"rows"`
}

// ModelBesideModel compares two models by what is told of them.
func (s *Service) ModelBesideModel(ctx context.Context, actor action.Actor, id, other int64) (Compared, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Compared, error) {
		first, told, err := s.subjects.Library.FactsOfModel(ctx, actor, id)
		if err != nil {
			return Compared{}, err
		}
		second, toldOfOther, err := s.subjects.Library.FactsOfModel(ctx, actor, other)
		return Compared{first.Maker + " " + first.Model, second.Maker + " " + second.Model,
			facts.LayBeside(withRecord(told, first, "made"), withRecord(toldOfOther, second, "made"))}, err
	})
}

// ModelBesideMachine compares a model with a machine, by what is told of the one and known of the other.
func (s *Service) ModelBesideMachine(ctx context.Context, actor action.Actor, id, machineID int64) (Compared, error) {
	return action.InSnapshot(ctx, s.kernel, func(ctx context.Context) (Compared, error) {
		of, told, err := s.subjects.Library.FactsOfModel(ctx, actor, id)
		if err != nil {
			return Compared{}, err
		}
		machine, err := s.subjects.Inventory.Machine(ctx, actor, machineID)
		if err != nil {
			return Compared{}, err
		}
		dossier, err := s.dossier(ctx, actor, machineID)
		// When the model was made is when its machines were built.
		told = withRecord(told, of, "built")
		known := evidence.FactsOf(dossier.Known)
		return Compared{of.Maker + " " + of.Model, machine.Accession + " " + machine.Name, facts.LayBeside(told, known)}, err
	})
}

// withRecord adds what the record of a model says beside its facts.
func withRecord(told []facts.Fact, of library.MachineModel, made string) []facts.Fact {
	for attribute, value := range map[string]string{"maker": of.Maker, "model": of.Model, made: of.Made} {
		if value != "" {
			told = append(told, facts.Fact{Attribute: attribute, State: facts.Settled, Now: &facts.Value{Value: value}})
		}
	}
	return told
}
