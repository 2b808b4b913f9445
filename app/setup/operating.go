package setup

import (
	"context"

	"frugalheron/app/action"
	"frugalheron/app/input"
	"frugalheron/core/panel"
	"frugalheron/store/setup"
)

// OperatingCardInput is how a machine is operated.
type OperatingCardInput struct {
	Start       string      `json:"start" says:"text" maxLength:"4000" required:"false" doc:"How it is started, a step a line"`
	Stop        string      `json:"stop" says:"text" maxLength:"4000" required:"false" doc:"How it is stopped, a step a line"`
	SignOn      string      `json:"signOn" says:"text" maxLength:"2000" required:"false" doc:"How one signs on; what for, not with what"`
	Keys        string      `json:"keys" says:"text" maxLength:"4000" required:"false" doc:"Keys that matter, a line each: Break = stops the program"`
	Radix       panel.Radix `json:"radix" enum:"octal,hex,split octal,binary" default:"octal" required:"false" doc:"In which the papers of its panel write words"`
	AddressBits int         `json:"addressBits" minimum:"1" maximum:"64" default:"16" required:"false"`
	DataBits    int         `json:"dataBits" minimum:"1" maximum:"64" default:"16" required:"false"`
	Advance     int         `json:"advance" minimum:"0" maximum:"8" required:"false" doc:"By how much the address goes on at a deposit or an examine"`
	Panel       string      `json:"panel" says:"text" maxLength:"8000" required:"false" doc:"What is done at the panel, a step a line: address 0100, deposit 016701, examine 0100 = 016701, press start"`
	Note        string      `json:"note" says:"text" maxLength:"2000" required:"false"`
}

// OperatingCard is that, with the lamps of its panel.
type OperatingCard struct {
	MachineID int64 `json:"machineId"`
	OperatingCardInput
	Lamps   []panel.Shown `json:"lamps" doc:"The steps at the panel, with what its lamps show"`
	Version int           `json:"version" doc:"0 while nobody wrote one"`
}

// OfferedOperatingCard is that of another machine of the same model.
type OfferedOperatingCard struct {
	Accession string `json:"accession"`
	OperatingCardInput
}

// Operating is how a machine is operated, and how others of its model are while nobody wrote that.
type Operating struct {
	Card    OperatingCard          `json:"card"`
	Offered []OfferedOperatingCard `json:"offered"`
}

const mostOffers = 5

var operatingCards = documentsOf(setup.OperatingCard, "the operating card", eventChangeCard, tellCard,
	func(v OperatingCard) any { return v.OperatingCardInput })

func (in *OperatingCardInput) tidy() {
	if in.Radix == "" {
		in.Radix = panel.Octal
	}
	if in.AddressBits == 0 {
		in.AddressBits = 16
	}
	if in.DataBits == 0 {
		in.DataBits = 16
	}
}

func (in OperatingCardInput) lamps() ([]panel.Shown, error) {
	steps, err := panel.Panel{Radix: in.Radix, AddressBits: in.AddressBits, DataBits: in.DataBits,
		Advance: in.Advance}.Read(in.Panel)
	return append([]panel.Shown{}, steps...), err
}

func tellCard(row setup.Document) OperatingCard {
	kept, _ := action.ReadKept[OperatingCardInput](row.Body) // written by this package alone
	kept.tidy()
	lamps, _ := kept.lamps() // what is kept was checked
	return OperatingCard{row.MachineID, kept, lamps, row.Version}
}

// Operating tells how a machine is operated.
func (s *Service) Operating(ctx context.Context, actor action.Actor, machineID int64) (Operating, error) {
	told := Operating{Offered: []OfferedOperatingCard{}}
	if _, err := s.inventory.Machine(ctx, actor, machineID); err != nil {
		return told, err
	}
	h := s.kernel.Reader(ctx)
	row, err := setup.DocumentOf(ctx, h, setup.OperatingCard, machineID)
	if told.Card = tellCard(row); err != nil || told.Card.Version > 0 {
		return told, err
	}
	rows, err := setup.DocumentsOfModel(ctx, h, setup.OperatingCard, machineID, mostOffers)
	for _, one := range rows {
		kept := tellCard(setup.Document{Body: one.Body})
		told.Offered = append(told.Offered, OfferedOperatingCard{one.Accession, kept.OperatingCardInput})
	}
	return told, err
}

func (in *OperatingCardInput) check() error {
	in.tidy()
	err := input.CheckAll(input.Lines("start", &in.Start), input.Lines("stop", &in.Stop),
		input.Lines("signOn", &in.SignOn), input.Lines("keys", &in.Keys), input.NoControl("panel", in.Panel, "\n\r\t"),
		input.Lines("note", &in.Note))
	if err != nil {
		return err
	}
	_, err = in.lamps()
	return refusedIn("panel", err)
}

// ChangeOperatingCard writes how a machine is operated, from the version that somebody saw.
func (s *Service) ChangeOperatingCard(ctx context.Context, actor action.Actor, machineID int64, version int,
	in OperatingCardInput) (OperatingCard, error) {
	if err := in.check(); err != nil {
		return OperatingCard{}, err
	}
	return operatingCards.change(ctx, s.kernel, actor, machineID, version, in)
}

// ReadPanel tells what the lamps show while somebody writes a procedure.
func (s *Service) ReadPanel(actor action.Actor, in OperatingCardInput) (OperatingCard, error) {
	if err := actor.Must(action.MayLook); err != nil {
		return OperatingCard{}, err
	}
	err := in.check()
	lamps, _ := in.lamps()
	return OperatingCard{OperatingCardInput: in, Lamps: lamps}, err
}
