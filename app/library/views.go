package library

import (
	"time"

	storelibrary "frugalheron/store/library"
)

// MakerInput is what people write about who made machines and parts.
type MakerInput struct {
	Name    string `json:"name" maxLength:"200"`
	Founded string `json:"founded" maxLength:"40" required:"false" doc:"EDTF"`
	Ended   string `json:"ended" maxLength:"40" required:"false" doc:"EDTF; empty while it goes on, or where it is not known"`
	Place   string `json:"place" maxLength:"200" required:"false"`
	Ties    string `json:"ties" maxLength:"8000" required:"false" doc:"How it stands to others, a line each: renamed | Brackwater Systems | 1986 | source"`
	Note    string `json:"note" says:"text" maxLength:"4000" required:"false"`
	Source  string `json:"source" says:"text" maxLength:"1000" required:"false" doc:"How one knows"`
}

// Maker is who made machines and parts.
type Maker struct {
	ID int64 `json:"id"`
	MakerInput
	Machines  int       `json:"machines" doc:"Machines of the collection that name it"`
	Version   int       `json:"version"`
	UpdatedAt time.Time `json:"updatedAt"`
}

func makerOf(r storelibrary.Maker) Maker {
	return Maker{ID: r.ID, MakerInput: MakerInput(r.MakerFields), Machines: r.Machines, Version: r.Version,
		UpdatedAt: r.UpdatedAt}
}

// ModelInput is what people write about a model of machines.
type ModelInput struct {
	Maker    string `json:"maker" maxLength:"200"`
	Model    string `json:"model" maxLength:"200"`
	Made     string `json:"made" maxLength:"60" required:"false" doc:"When it was made, EDTF, as 1984/1988"`
	Variants string `json:"variants" maxLength:"4000" required:"false" doc:"One a line"`
	Expected string `json:"expected" maxLength:"20000" required:"false" doc:"What a machine of the model holds, an assembly a line, as Main board | part 4410-2 | option | from 1985"`
	Figures  string `json:"figures" maxLength:"8000" required:"false" doc:"What is measured and shown, a figure a line"`
	Facts    string `json:"facts" says:"text" maxLength:"20000" required:"false" doc:"What is told of it, a fact a line: processor = HX8810 | service handbook of 1985"`
	Signs    string `json:"signs" says:"text" maxLength:"20000" required:"false" doc:"What it shows, a sign a line: lamps 1101 | self-test | what it means | look at next | source"`
	Note     string `json:"note" says:"text" maxLength:"4000" required:"false"`
	Source   string `json:"source" says:"text" maxLength:"1000" required:"false" doc:"How one knows"`
}

// MachineModel is a model of machines.
type MachineModel struct {
	ID int64 `json:"id"`
	ModelInput
	Machines  int       `json:"machines" doc:"Machines of the model in the collection"`
	Version   int       `json:"version"`
	UpdatedAt time.Time `json:"updatedAt"`
}

func machineModelOf(r storelibrary.MachineModel) MachineModel {
	return MachineModel{ID: r.ID, ModelInput: ModelInput(r.ModelFields), Machines: r.Machines, Version: r.Version,
		UpdatedAt: r.UpdatedAt}
}

// OwnTypeInput is what people write about a type that the collection named itself.
type OwnTypeInput struct {
	Number      string  `json:"number" maxLength:"30" doc:"Device number without speed and package, as HX9040"`
	Class       string  `json:"class" enum:"dram,sram,eprom,eeprom,flash,mask-rom,prom,logic,processor,support,own" default:"own" required:"false"`
	Function    string  `json:"function" maxLength:"200" doc:"What the device does"`
	Words       int     `json:"words" minimum:"0" maximum:"1073741824" required:"false" doc:"Words a memory holds; 0 for other devices"`
	Bits        int     `json:"bits" minimum:"0" maximum:"64" required:"false"`
	Package     string  `json:"package" maxLength:"40" required:"false" doc:"Package and pins, as DIP-40"`
	ClockMHz    float64 `json:"clockMHz" minimum:"0" maximum:"100000" required:"false" doc:"Rated clock in megahertz; 0 when not known"`
	TypicalMA   float64 `json:"typicalMilliamps" minimum:"0" maximum:"100000" required:"false" doc:"Typical +5 V current in milliamperes; 0 when not known"`
	Notes       string  `json:"notes" says:"text" maxLength:"4000" required:"false"`
	Maker       string  `json:"maker" maxLength:"200" required:"false"`
	Currents    string  `json:"currents" maxLength:"400" required:"false" doc:"What it draws by rail, in milliamperes typically and at most, as +5 180/260, +12 20"`
	Ageing      string  `json:"ageing" maxLength:"200" required:"false" doc:"How it ages, as: loses its charge"`
	Substitutes string  `json:"substitutes" maxLength:"400" required:"false" doc:"Numbers that can take its place, with commas between"`
	Documents   string  `json:"documents" says:"text" maxLength:"4000" required:"false" doc:"Data sheets and the like, one a line"`
}

// OwnType is a type that the collection named itself.
type OwnType struct {
	ID int64 `json:"id"`
	OwnTypeInput
	Version   int       `json:"version"`
	UpdatedAt time.Time `json:"updatedAt"`
}

func ownTypeOf(r storelibrary.OwnType) OwnType {
	return OwnType{ID: r.ID, OwnTypeInput: OwnTypeInput(r.OwnTypeFields), Version: r.Version, UpdatedAt: r.UpdatedAt}
}

// Occurrence is a line of a sheet on which a type occurs.
type Occurrence struct {
	MachineID  *int64 `json:"machineId" doc:"Null for an assembly that is in no machine"`
	Accession  string `json:"accession"`
	Machine    string `json:"machine" says:"text"`
	AssemblyID int64  `json:"assemblyId"`
	Assembly   string `json:"assembly" says:"text"`
	Line       int    `json:"line"`
	Count      int    `json:"count"`
	Marking    string `json:"marking"`
}

// OccurrenceOf is what goes out of one.
func OccurrenceOf(r storelibrary.Occurrence) Occurrence { return Occurrence(r) }
