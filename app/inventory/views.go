package inventory

import (
	"time"

	"frugalheron/core/custody"
	storeinventory "frugalheron/store/inventory"
)

// AssemblyInput is what people write about an assembly and the way it is fitted.
type AssemblyInput struct {
	Kind    string `json:"kind" enum:"board,card,drive,supply,keyboard,monitor,other,exterior" default:"board" required:"false" doc:"What sort of thing it is"`
	Title   string `json:"title" says:"text" maxLength:"200" doc:"What the board is called" example:"Main board"`
	Part    string `json:"part" maxLength:"100" required:"false" doc:"Part number on the board"`
	Rev     string `json:"rev" maxLength:"100" required:"false" doc:"Revision on the board"`
	Serial  string `json:"serial" maxLength:"100" required:"false"`
	Slot    string `json:"slot" maxLength:"100" required:"false" doc:"Where in the machine it sits"`
	Fit     string `json:"fit" enum:"factory,period,later,modern,unknown" default:"unknown" required:"false" doc:"When it came into the machine"`
	Purpose string `json:"purpose" enum:",main,picture,cache,shared,card" default:"" required:"false" doc:"What its memory is for, where the sheet does not say"`
}

// Assembly is a board or other unit, with where it is fitted today.
type Assembly struct {
	ID        int64  `json:"id"`
	MachineID *int64 `json:"machineId" doc:"The machine it is fitted in, or null"`
	AssemblyInput
	IsVoided  bool      `json:"isVoided" doc:"It was entered by mistake and struck out"`
	Version   int       `json:"version"`
	Revision  int       `json:"revision" doc:"Newest revision of its sheet; 0 before the first"`
	UpdatedAt time.Time `json:"updatedAt"`
}

// IsExterior reports whether it is the one that stands for the outside of its machine.
func (a Assembly) IsExterior() bool { return a.Kind == storeinventory.ExteriorKind }

// AssemblyOf is what goes out of one.
func AssemblyOf(r storeinventory.Assembly) Assembly {
	return Assembly{ID: r.ID, MachineID: r.MachineID, AssemblyInput: AssemblyInput(r.AssemblyFields),
		IsVoided: r.IsVoided, Version: r.Version, Revision: r.Revision, UpdatedAt: r.UpdatedAt}
}

// CollectionInput is the settings of the collection as a whole.
type CollectionInput struct {
	Name             string  `json:"name" maxLength:"200"`
	AccessionPattern string  `json:"accessionPattern" maxLength:"40" example:"EH-{number:4}"`
	Currency         string  `json:"currency" maxLength:"3" example:"EUR" doc:"ISO 4217, in which lots are entered unless they say another"`
	TimeZone         string  `json:"timeZone" maxLength:"60" required:"false" example:"Europe/Lisbon" doc:"Name in the time zone database of the zone in which days are counted. Empty until one is chosen, which counts as UTC; left out, the one that is chosen stays"`
	MainsVolts       float64 `json:"mainsVolts" minimum:"0" maximum:"1000" required:"false" doc:"What comes out of the wall; 0 where nobody said"`
	MainsHz          float64 `json:"mainsHz" minimum:"0" maximum:"1000" required:"false"`
	SupplyMonths     int     `json:"supplyMonths" minimum:"0" maximum:"1200" required:"false" doc:"For how many months an inspection of a supply counts; 0 for the usual 12"`
}

// Collection is the collection as a whole.
type Collection struct {
	CollectionInput
	Version int `json:"version"`
}

func collectionOf(r storeinventory.Collection) Collection {
	return Collection{CollectionInput: CollectionInput(r.CollectionFields), Version: r.Version}
}

// GivenNumber is an accession number that was given once.
type GivenNumber struct {
	Number    string `json:"number"`
	MachineID *int64 `json:"machineId" doc:"The machine it was given to, or null"`
	Accession string `json:"accession" doc:"The number that machine has today"`
	Note      string `json:"note" says:"text" doc:"Why no machine has it"`
}

// FoundAssembly is an assembly that a search found, with where it is.
type FoundAssembly struct {
	ID        int64  `json:"id"`
	Title     string `json:"title" says:"text"`
	Part      string `json:"part"`
	Serial    string `json:"serial"`
	MachineID *int64 `json:"machineId" doc:"The machine it is in, or null"`
	Accession string `json:"accession"`
	Machine   string `json:"machine" says:"text"`
	Place     string `json:"place" says:"text"`
	LentTo    string `json:"lentTo" says:"text"`
}

func foundAssemblyOf(r storeinventory.FoundAssembly) FoundAssembly { return FoundAssembly(r) }

// Fitting is where an assembly is or was: in a machine, at a place, or lent to somebody.
type Fitting struct {
	ID         int64   `json:"id"`
	AssemblyID int64   `json:"assemblyId"`
	MachineID  *int64  `json:"machineId"`
	Accession  string  `json:"accession" doc:"Of the machine, when it is in one"`
	Place      string  `json:"place" says:"text" doc:"The place, when it is at one"`
	LentTo     string  `json:"lentTo" says:"text" doc:"Who has it, when it is lent"`
	Due        *string `json:"due" doc:"Day by which a loan is to be back, YYYY-MM-DD, or null"`
	Slot       string  `json:"slot"`
	Fit        string  `json:"fit"`
	Note       string  `json:"note" says:"text"`
	Since      string  `json:"since" doc:"Day on which it came there, YYYY-MM-DD"`
	Until      *string `json:"until" doc:"Day on which it left; null for where it is today"`
}

// Where says it in words, as "EH-0142, slot 3".
func (f Fitting) Where() string {
	return custody.Whereabouts{LentTo: f.LentTo, Place: f.Place, Accession: f.Accession, Slot: f.Slot}.InWords()
}

func fittingOf(r storeinventory.Fitting) Fitting { return Fitting(r) }

// LooseAssembly is an assembly that is in no machine: in store, or lent.
type LooseAssembly struct {
	Assembly
	Place    string  `json:"place" says:"text"`
	LentTo   string  `json:"lentTo" says:"text"`
	Due      *string `json:"due" doc:"Day by which a loan is to be back, or null"`
	Since    string  `json:"since"`
	From     string  `json:"from" doc:"Accession number of the machine it was in last, or empty"`
	Chips    int     `json:"chips"`
	RAMBytes int64   `json:"ramBytes"`
	ROMBytes int64   `json:"romBytes"`
	RAM      string  `json:"ram" doc:"In KB of 1,024 bytes with one decimal; empty when none is known"`
	ROM      string  `json:"rom"`
}

func looseAssemblyOf(r storeinventory.LooseAssembly) LooseAssembly {
	return LooseAssembly{Assembly: AssemblyOf(r.Assembly), Place: r.Place, LentTo: r.LentTo, Due: r.Due, Since: r.Since,
		From: r.From, Chips: r.Chips, RAMBytes: r.RAMBytes, ROMBytes: r.ROMBytes, RAM: inKB(r.RAMBytes),
		ROM: inKB(r.ROMBytes)}
}

// Location is where a machine is or was: at a place, lent, or on its way.
type Location struct {
	ID        int64   `json:"id"`
	MachineID int64   `json:"machineId"`
	Place     string  `json:"place" says:"text"`
	LentTo    string  `json:"lentTo" says:"text"`
	BoundFor  string  `json:"boundFor" says:"text" doc:"Where it is going, while it is on its way"`
	Due       *string `json:"due" doc:"Day by which a loan is to be back, YYYY-MM-DD, or null"`
	Note      string  `json:"note" says:"text"`
	Since     string  `json:"since" doc:"YYYY-MM-DD"`
	Until     *string `json:"until" doc:"Day on which it left; null for where it is today"`
}

// Where says it in words.
func (l Location) Where() string {
	return custody.Whereabouts{LentTo: l.LentTo, BoundFor: l.BoundFor, Place: l.Place}.InWords()
}

func locationOf(r storeinventory.Location) Location { return Location(r) }

// PlaceCount is a place with what is there today.
type PlaceCount struct {
	Name       string `json:"name" says:"text"`
	Climate    string `json:"climate" enum:",kept,room,damp,hot,outside" doc:"How it treats what stands there; empty while nobody said"`
	Machines   int    `json:"machines"`
	Assemblies int    `json:"assemblies" doc:"That are in no machine"`
	Parts      int    `json:"parts" doc:"Drawers of the stores"`
}

func placeCountOf(r storeinventory.PlaceCount) PlaceCount { return PlaceCount(r) }

// MachineInput is what people write about a machine.
type MachineInput struct {
	Accession  string `json:"accession" maxLength:"40" doc:"Accession number" example:"EH-0142"`
	Name       string `json:"name" says:"text" maxLength:"200" doc:"What the machine is called"`
	Maker      string `json:"maker" says:"text" maxLength:"200" required:"false"`
	Model      string `json:"model" maxLength:"200" required:"false"`
	ModelID    *int64 `json:"modelId" required:"false" nullable:"true" doc:"The model that it is of; left out or null, it is the one that maker and model name, if there is one"`
	Serial     string `json:"serial" maxLength:"200" required:"false"`
	EraFrom    *int   `json:"eraFrom" minimum:"1900" maximum:"2100" required:"false" nullable:"true" doc:"First year in which its parts are expected; settles date codes with an open decade"`
	EraTo      *int   `json:"eraTo" minimum:"1900" maximum:"2100" required:"false" nullable:"true" doc:"Last year in which its parts are expected"`
	Place      string `json:"place" says:"text" maxLength:"200" required:"false" doc:"Where it stands"`
	Provenance string `json:"provenance" says:"text" maxLength:"4000" required:"false" doc:"Where it comes from"`
}

// Machine is a machine of the collection.
type Machine struct {
	ID int64 `json:"id"`
	MachineInput
	Version   int       `json:"version" doc:"Counts changes; a change names the version it started from"`
	UpdatedAt time.Time `json:"updatedAt"`
}

// MachineOf is what goes out of one.
func MachineOf(r storeinventory.Machine) Machine {
	return Machine{ID: r.ID, MachineInput: MachineInput(r.MachineFields), Version: r.Version, UpdatedAt: r.UpdatedAt}
}

// ListedMachine is what lists show of a machine, with the sums of the boards fitted today.
type ListedMachine struct {
	ID             int64  `json:"id"`
	Accession      string `json:"accession"`
	Name           string `json:"name" says:"text"`
	Maker          string `json:"maker" says:"text"`
	Model          string `json:"model"`
	Place          string `json:"place" says:"text"`
	EraFrom        *int   `json:"eraFrom" doc:"First year in which its parts are expected"`
	Boards         int    `json:"boards"`
	Chips          int    `json:"chips"`
	Unidentified   int    `json:"unidentified"`
	RAMBytes       int64  `json:"ramBytes" doc:"Data without parity"`
	ROMBytes       int64  `json:"romBytes"`
	Stage          string `json:"stage" enum:"untouched,in hand,needs attention,settled" doc:"How far taking stock has come"`
	Attention      int    `json:"attention" doc:"What needs attention: problems and unknown chips"`
	Disputed       int    `json:"disputed" doc:"Attributes about which equally strong sources differ"`
	MemoryDisputed bool   `json:"memoryDisputed" doc:"How much memory it has is one of them"`
	PictureID      int64  `json:"pictureId" doc:"The picture by which it is known: the one chosen last, else one of its outside, the front first, else the first; 0 for none"`
	RAM            string `json:"ram" doc:"In KB of 1,024 bytes with one decimal; empty when none is known"`
	ROM            string `json:"rom"`
}

func listedMachineOf(r storeinventory.ListedMachine) ListedMachine {
	return ListedMachine{ID: r.ID, Accession: r.Accession, Name: r.Name, Maker: r.Maker, Model: r.Model, Place: r.Place,
		EraFrom: r.EraFrom, Boards: r.Boards, Chips: r.Chips, Unidentified: r.Unidentified, RAMBytes: r.RAMBytes,
		ROMBytes: r.ROMBytes, Stage: r.Stage, Attention: r.Attention, Disputed: r.Disputed,
		MemoryDisputed: r.MemoryDisputed, PictureID: r.PictureID, RAM: inKB(r.RAMBytes), ROM: inKB(r.ROMBytes)}
}

// FacetCount is how many machines have a value, with all filters but those on the same facet.
type FacetCount struct {
	Value string `json:"value" doc:"Empty for machines of which it is not known"`
	Count int    `json:"count"`
}

func facetCountOf(r storeinventory.FacetCount) FacetCount {
	return FacetCount{Value: r.Value, Count: r.Count}
}
