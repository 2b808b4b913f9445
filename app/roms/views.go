package roms

import (
	"time"

	storeroms "frugalheron/store/roms"
)

// ChipReading is a chip that a reader on the network reads, or has read: twice, one pass behind the other.
type ChipReading struct {
	ID         int64     `json:"id"`
	AssemblyID int64     `json:"assemblyId"`
	Designator string    `json:"designator"`
	Device     string    `json:"device"`
	Label      string    `json:"label"`
	Exception  string    `json:"exception" says:"text"`
	State      string    `json:"state" enum:"running,stopped,refused,done"`
	Size       int       `json:"size" doc:"Bytes of the device"`
	Done       int       `json:"done" doc:"Bytes read so far, of twice the size"`
	Again      int       `json:"again" doc:"Blocks that had to be read more than once"`
	Note       string    `json:"note" says:"text" doc:"Why it stopped or was refused, or what came of it"`
	At         time.Time `json:"at"`
	UpdatedAt  time.Time `json:"updatedAt"`
}

func chipReadingOf(r storeroms.ChipReading) ChipReading {
	return ChipReading{ID: r.ID, AssemblyID: r.AssemblyID, Designator: r.Designator, Device: r.Device, Label: r.Label,
		Exception: r.Exception, State: r.State, Size: r.Size, Done: r.Done, Again: r.Again, Note: r.Note, At: r.At,
		UpdatedAt: r.UpdatedAt}
}

// RomInput is what people write about the content of a read-only memory.
type RomInput struct {
	Name    string `json:"name" maxLength:"200" required:"false" doc:"What it is, as Monitor; known wherever the content is met"`
	Edition string `json:"romVersion" maxLength:"40" required:"false" doc:"Version of the content, as 1.1"`
	Note    string `json:"note" says:"text" maxLength:"4000" required:"false"`
	Public  bool   `json:"public" required:"false" doc:"Viewers may have the bytes; sums are for everybody"`
}

// RomImage is the content of a read-only memory, known by its SHA-256.
type RomImage struct {
	SHA256    string `json:"sha256"`
	Bytes     int    `json:"bytes"`
	CRC32     string `json:"crc32"`
	SHA1      string `json:"sha1"`
	Effective string `json:"effective" doc:"SHA-256 of one copy of what repeats: it is the same for the same content in a larger device"`
	RomInput
	MadeFrom string    `json:"madeFrom" says:"text" doc:"For one that was put together or taken apart here, from what"`
	Version  int       `json:"version" doc:"Counts changes; a change names the version it started from"`
	At       time.Time `json:"at"`

	ReadFirst string `json:"readFirst" says:"text" doc:"Where it was read first, as U9 of EH-0113, 2026-04-02; empty for one that was read from no chip"`
}

func romImageOf(r storeroms.RomImage) RomImage {
	return RomImage{SHA256: r.SHA256, Bytes: r.Bytes, CRC32: r.CRC32, SHA1: r.SHA1, Effective: r.Effective,
		RomInput: RomInput(r.RomFields), MadeFrom: r.MadeFrom, Version: r.Version, At: r.At,
		ReadFirst: r.ReadFirst}
}

// ListedRom is an image of a list, with where it sits.
type ListedRom struct {
	RomImage
	Sockets int `json:"sockets" doc:"Sockets in which it was read"`
}

func listedRomOf(r storeroms.ListedRom) ListedRom {
	return ListedRom{RomImage: romImageOf(r.RomImage), Sockets: r.Sockets}
}

// RomRead is a reading of the chip in a socket.
type RomRead struct {
	ID         int64     `json:"id"`
	SHA256     string    `json:"sha256"`
	AssemblyID int64     `json:"assemblyId"`
	Designator string    `json:"designator"`
	Label      string    `json:"label" doc:"What stands on the chip"`
	Marking    string    `json:"marking" doc:"What the sheet said of the chip then"`
	Revision   int       `json:"revision" doc:"Of the sheet, then"`
	Method     string    `json:"method" says:"text" doc:"How it was read"`
	ReadOn     string    `json:"readOn" doc:"YYYY-MM-DD"`
	Exception  string    `json:"exception" says:"text" doc:"Why no second reading can be had; empty when one can"`
	By         string    `json:"by"`
	At         time.Time `json:"at"`
}

func romReadOf(r storeroms.RomRead) RomRead {
	return RomRead{ID: r.ID, SHA256: r.SHA256, AssemblyID: r.AssemblyID, Designator: r.Designator, Label: r.Label,
		Marking: r.Marking, Revision: r.Revision, Method: r.Method, ReadOn: r.ReadOn, Exception: r.Exception, By: r.By,
		At: r.At}
}

// RomHolder is a socket in which an image was read last.
type RomHolder struct {
	SHA256     string `json:"sha256"`
	MachineID  *int64 `json:"machineId"`
	Accession  string `json:"accession"`
	Machine    string `json:"machine" says:"text"`
	Model      string `json:"model"`
	AssemblyID int64  `json:"assemblyId"`
	Assembly   string `json:"assembly" says:"text"`
	Part       string `json:"part" doc:"Part number of the assembly"`
	Designator string `json:"designator"`
	Label      string `json:"label"`
	ReadOn     string `json:"readOn"`
}

func romHolderOf(r storeroms.RomHolder) RomHolder { return RomHolder(r) }

// RomSet is all images of a board together, as they belong to one version.
type RomSet struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
	Note string `json:"note" says:"text"`
}

// RomSetImage is an image of a set, and the socket that it belongs in.
type RomSetImage struct {
	SHA256 string `json:"sha256"`
	Place  string `json:"place"`
}

func romSetImageOf(r storeroms.RomSetImage) RomSetImage {
	return RomSetImage{SHA256: r.SHA256, Place: r.Place}
}
