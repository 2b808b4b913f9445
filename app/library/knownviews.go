package library

import (
	"time"

	"frugalheron/core/known"
	"frugalheron/core/sign"
	storelibrary "frugalheron/store/library"
)

// KnownInput is what people write about an assembly that is recognised wherever it is.
type KnownInput struct {
	Kind      string `json:"kind" enum:"board,card,drive,supply,keyboard,monitor,lead,other" default:"card" required:"false" doc:"What sort of thing it is"`
	Name      string `json:"name" says:"text" maxLength:"200" doc:"What it is" example:"Memory card, 384 KB"`
	Maker     string `json:"maker" says:"text" maxLength:"200" required:"false"`
	Numbers   string `json:"numbers" maxLength:"2000" required:"false" doc:"Part numbers that it has, one a line"`
	Revisions string `json:"revisions" maxLength:"200" required:"false" doc:"Of which revisions this is said, as A, C-E; empty for every one"`
	Printed   string `json:"printed" says:"text" maxLength:"2000" required:"false" doc:"Words printed on it that tell it from others, one a line"`
	Chips     string `json:"chips" maxLength:"8000" required:"false" doc:"Types of its chips by which it is known without a number, one a line, as 8x 41256; at least four types"`
	Details   string `json:"details" says:"text" maxLength:"20000" required:"false" doc:"What is known of it, a line each: connectors, jumpers, needs, currents, faults ..."`
	Signs     string `json:"signs" says:"text" maxLength:"20000" required:"false" doc:"What it shows, a sign a line"`
	Note      string `json:"note" says:"text" maxLength:"4000" required:"false"`
	Source    string `json:"source" says:"text" maxLength:"1000" required:"false" doc:"How one knows; without it, it counts as recalled"`
}

// KnownAssembly is an assembly that is recognised wherever it is.
type KnownAssembly struct {
	ID int64 `json:"id"`
	KnownInput
	IsStruck  bool      `json:"isStruck" doc:"It was named by mistake, and is recognised no more"`
	Version   int       `json:"version"`
	UpdatedAt time.Time `json:"updatedAt"`
}

func knownOf(r storelibrary.Known) KnownAssembly {
	return KnownAssembly{ID: r.ID, KnownInput: KnownInput(r.KnownFields), IsStruck: r.Struck, Version: r.Version,
		UpdatedAt: r.UpdatedAt}
}

// KnownPage is a page of known assemblies.
type KnownPage struct {
	Known []KnownAssembly `json:"known"`
	Next  int64           `json:"next" doc:"Give this as after to get the next page; 0 on the last"`
}

// KnownDetail is a known assembly with what it says, and where it is.
type KnownDetail struct {
	KnownAssembly
	Details  known.Details  `json:"read" doc:"The details, line by line"`
	Shows    sign.Table     `json:"shows" doc:"The signs, line by line"`
	Remarks  []string       `json:"remarks" says:"text" doc:"What does not go together in it"`
	Overlaps []KnownOverlap `json:"overlaps" doc:"Other records that claim a number of it for the same revisions"`
	Places   []KnownPlace   `json:"places" doc:"Where it is, surest first"`
	More     bool           `json:"more" doc:"There are more assemblies that it may be than were looked at"`
	Untested []Untested     `json:"untested" doc:"What it is known to suffer from, and where nobody has looked"`
}

// KnownOverlap is another record that claims a number.
type KnownOverlap struct {
	known.Overlap
	Name string `json:"name" says:"text"`
}

// KnownPlace is an assembly that is of a record, or may be.
type KnownPlace struct {
	AssemblyID int64       `json:"assemblyId"`
	Title      string      `json:"title" says:"text"`
	Part       string      `json:"part"`
	Rev        string      `json:"rev"`
	MachineID  *int64      `json:"machineId" doc:"Null for one that is in no machine"`
	Accession  string      `json:"accession"`
	Machine    string      `json:"machine" says:"text"`
	Place      string      `json:"place" says:"text" doc:"Where it lies, when it is in no machine"`
	Match      known.Match `json:"match"`
}

// Untested is a fault that assemblies of the kind are known to have.
type Untested struct {
	known.Fault
	Open  []int64 `json:"open" doc:"Assemblies of which nobody has found out, by id"`
	Have  []int64 `json:"have" doc:"Assemblies that have it"`
	Clear []int64 `json:"clear" doc:"Assemblies that do not have it"`
}

// Recognised is what an assembly is known as.
type Recognised struct {
	AssemblyID int64        `json:"assemblyId"`
	Title      string       `json:"title" says:"text"`
	Claims     []KnownClaim `json:"claims" doc:"Records that say what it is, the one that fits best first; empty where nobody has named one"`
	IsDisputed bool         `json:"isDisputed" doc:"Two records say as firmly what it is"`
	Part       string       `json:"part"`
	Chips      string       `json:"chips" doc:"Its identified chips by which it could be known without a number, one type a line; empty where they are too few"`
}

// KnownClaim is a record that says what an assembly is.
type KnownClaim struct {
	known.Match
	Name    string        `json:"name" says:"text"`
	Kind    string        `json:"kind"`
	Maker   string        `json:"maker" says:"text"`
	Source  string        `json:"source" says:"text"`
	Details known.Details `json:"read"`
	Differs []string      `json:"differs" says:"text" doc:"Where this one is not as the record says"`
	Suspect []Suspicion   `json:"suspect" doc:"What assemblies of the kind are known to suffer from"`
}

// Suspicion is a fault that assemblies of a kind are known to have, and what was found out of this one.
type Suspicion struct {
	known.Fault
	State string `json:"state" enum:"open,has it,clear"`
	On    string `json:"on" doc:"When somebody found out; empty while it is open"`
	By    string `json:"by"`
	Note  string `json:"note" says:"text"`
}
