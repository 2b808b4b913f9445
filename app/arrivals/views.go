package arrivals

import (
	"time"

	"frugalheron/app/action"
	"frugalheron/app/evidence"
	storearrivals "frugalheron/store/arrivals"
)

// ExtraCost is a cost beside the price of a lot.
type ExtraCost struct {
	What  string `json:"what" says:"text" maxLength:"100" example:"carriage"`
	Cents int64  `json:"cents" minimum:"0" maximum:"1000000000000"`
}

// AcquisitionInput is what people write about an arrival: how things came, from whom, for how much.
type AcquisitionInput struct {
	Title      string      `json:"title" says:"text" maxLength:"200" example:"Clear-out of the seed-testing station"`
	Method     string      `json:"method" enum:"purchase,auction,gift,loan in,found,transfer,exchange"`
	Arrived    string      `json:"arrived" maxLength:"40" required:"false" doc:"EDTF, as 2025-03-14 or 2025~"`
	PartyID    *int64      `json:"partyId" required:"false" nullable:"true" doc:"From whom"`
	PriceCents *int64      `json:"priceCents" minimum:"0" maximum:"1000000000000" required:"false" nullable:"true" doc:"Without extra costs; null when unknown"`
	Currency   string      `json:"currency" maxLength:"3" required:"false" doc:"ISO 4217; empty for the collection's own"`
	Costs      []ExtraCost `json:"costs" maxItems:"20" required:"false" nullable:"false" doc:"Carriage, fees and the like"`
	Spread     string      `json:"spread" enum:"estimate,equal,hand" default:"estimate" required:"false" doc:"How the cost is spread over the items"`
	Condition  string      `json:"condition" says:"text" maxLength:"4000" required:"false" doc:"As received"`
	Powered    string      `json:"powered" says:"text" maxLength:"1000" required:"false" doc:"When it last ran, and whether anybody powered it since, as it was said"`
	CameWith   string      `json:"cameWith" says:"text" maxLength:"4000" required:"false" doc:"What else came"`
	Note       string      `json:"note" says:"text" maxLength:"4000" required:"false"`
}

func acquisitionInputOf(r storearrivals.AcquisitionFields) AcquisitionInput {
	return AcquisitionInput{Title: r.Title, Method: r.Method, Arrived: r.Arrived, PartyID: r.PartyID,
		PriceCents: r.PriceCents, Currency: r.Currency,
		Costs:  action.Views(r.Costs, func(c storearrivals.ExtraCost) ExtraCost { return ExtraCost(c) }),
		Spread: r.Spread, Condition: r.Condition, Powered: r.Powered, CameWith: r.CameWith, Note: r.Note}
}

func (in AcquisitionInput) row() storearrivals.AcquisitionFields {
	return storearrivals.AcquisitionFields{Title: in.Title, Method: in.Method, Arrived: in.Arrived, PartyID: in.PartyID,
		PriceCents: in.PriceCents, Currency: in.Currency,
		Costs:  action.Views(in.Costs, func(c ExtraCost) storearrivals.ExtraCost { return storearrivals.ExtraCost(c) }),
		Spread: in.Spread, Condition: in.Condition, Powered: in.Powered, CameWith: in.CameWith, Note: in.Note}
}

// Acquisition is an arrival of one thing or of many.
type Acquisition struct {
	ID int64 `json:"id"`
	AcquisitionInput
	Party   string `json:"party" says:"text" doc:"From whom, or empty"`
	Lot     *int   `json:"lot" doc:"Number of the lot within its year, once a thing of it was numbered"`
	Items   int    `json:"items"`
	Version int    `json:"version"`
}

func acquisitionOf(r storearrivals.Acquisition) Acquisition {
	return Acquisition{ID: r.ID, AcquisitionInput: acquisitionInputOf(r.AcquisitionFields), Party: r.Party, Lot: r.Lot,
		Items: r.Items, Version: r.Version}
}

// CustodyInput is what one source says of a machine's past: who had it, when, where.
type CustodyInput struct {
	Role    string `json:"role" maxLength:"40" doc:"Key of a role, as used-by"`
	Who     string `json:"who" says:"text" maxLength:"200" required:"false" doc:"Where no party is named"`
	Place   string `json:"place" says:"text" maxLength:"200" required:"false"`
	Dates   string `json:"dates" maxLength:"40" required:"false" doc:"EDTF, as 1983/1985" example:"1983/1985"`
	UsedFor string `json:"usedFor" says:"text" maxLength:"1000" required:"false" doc:"What it was used for"`
	evidence.Citation
}

func custodyInputOf(r storearrivals.CustodyFields) CustodyInput {
	return CustodyInput{Role: r.Role, Who: r.Who, Place: r.Place, Dates: r.Dates, UsedFor: r.UsedFor,
		Citation: evidence.CitationOf(r.Citation)}
}

func (in CustodyInput) row() storearrivals.CustodyFields {
	return storearrivals.CustodyFields{Role: in.Role, Who: in.Who, Place: in.Place, Dates: in.Dates,
		UsedFor: in.UsedFor, Citation: in.Citation.Row()}
}

// Custody is a statement about a machine's past that was kept. Its party is whom it is about.
type Custody struct {
	ID        int64 `json:"id"`
	MachineID int64 `json:"machineId"`
	CustodyInput
	Party     string    `json:"party" says:"text" doc:"Name of the party, or empty"`
	Retracted string    `json:"retracted" says:"text" doc:"Why it does not count any more, or empty"`
	By        string    `json:"by" doc:"Who noted it"`
	At        time.Time `json:"at"`
	Version   int       `json:"version"`
}

func custodyOf(r storearrivals.Custody) Custody {
	return Custody{ID: r.ID, MachineID: r.MachineID, CustodyInput: custodyInputOf(r.CustodyFields), Party: r.Party,
		Retracted: r.Retracted, By: r.By, At: r.At, Version: r.Version}
}

// LotItemInput is what people write about a thing of a lot.
type LotItemInput struct {
	Kind           string `json:"kind" enum:"machine,board,peripheral,part,media,document"`
	Title          string `json:"title" says:"text" maxLength:"200" example:"Memory card, 384 KB"`
	EstimateCents  *int64 `json:"estimateCents" minimum:"0" maximum:"1000000000000" required:"false" nullable:"true" doc:"What it was thought to be worth when the lot came"`
	HandCents      *int64 `json:"handCents" minimum:"0" maximum:"1000000000000" required:"false" nullable:"true" doc:"Its share of the cost, where shares are given by hand"`
	ValueCents     *int64 `json:"valueCents" minimum:"0" maximum:"1000000000000" required:"false" nullable:"true" doc:"What it is worth today"`
	ValueNote      string `json:"valueNote" says:"text" maxLength:"400" required:"false" doc:"How one knows"`
	PassedTo       *int64 `json:"passedTo" required:"false" nullable:"true" doc:"To whom it was passed on"`
	PassedOn       string `json:"passedOn" maxLength:"40" required:"false" doc:"When it was passed on, EDTF; empty while it is here"`
	PassedForCents *int64 `json:"passedForCents" minimum:"0" maximum:"1000000000000" required:"false" nullable:"true" doc:"For how much"`
	Note           string `json:"note" says:"text" maxLength:"1000" required:"false"`
}

// LotItem is a thing of a lot.
type LotItem struct {
	ID            int64 `json:"id"`
	AcquisitionID int64 `json:"acquisitionId"`
	LotItemInput
	MachineID  *int64 `json:"machineId" doc:"The machine it became, or null"`
	Accession  string `json:"accession"`
	AssemblyID *int64 `json:"assemblyId" doc:"The assembly it became, or null"`
	Party      string `json:"party" says:"text" doc:"To whom it was passed on"`
	Voided     bool   `json:"voided"`
	Version    int    `json:"version"`
}

func lotItemOf(r storearrivals.LotItem) LotItem {
	return LotItem{ID: r.ID, AcquisitionID: r.AcquisitionID, LotItemInput: LotItemInput(r.LotItemFields),
		MachineID: r.MachineID, Accession: r.Accession, AssemblyID: r.AssemblyID, Party: r.Party, Voided: r.Voided,
		Version: r.Version}
}
