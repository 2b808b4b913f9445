package packs

import (
	"frugalheron/app/library"
	"frugalheron/app/teardown"
	"frugalheron/core/pack"
)

// Format and Version name the file.
const (
	Format  = "heron-library"
	Version = 1
)

// Pack is a library as a file, for another collection.
type Pack struct {
	Format          string                    `json:"format"`
	Version         int                       `json:"version"`
	Of              string                    `json:"of" says:"text"`
	Types           []library.OwnTypeInput    `json:"types"`
	KnownAssemblies []library.KnownInput      `json:"knownAssemblies"`
	Models          []library.ModelInput      `json:"models"`
	Procedures      []teardown.ProcedureInput `json:"procedures"`
}

// LibraryPackRow is an entry of a pack, and how it stands to what is here.
type LibraryPackRow struct {
	N           int           `json:"n" doc:"Number in the pack, from 1"`
	Sort        pack.Sort     `json:"sort" enum:"known assembly,model,procedure,type"`
	Name        string        `json:"name" says:"text"`
	State       pack.State    `json:"state" enum:"new,same,adds,beside,wrong"`
	Why         string        `json:"why" says:"text" doc:"What is wrong in it, or what taking it does"`
	HereID      int64         `json:"hereId" doc:"Of the one here that it is about; 0 for none"`
	Differences []pack.Unlike `json:"differences" doc:"In what it is not as the one here"`
	CanBeTaken  bool          `json:"canBeTaken"`
	Taken       bool          `json:"taken"`
}

// PackChoice is an entry that is to be taken, and how it stood when somebody chose it.
type PackChoice struct {
	N     int        `json:"n" minimum:"1"`
	State pack.State `json:"state" enum:"new,same,adds,beside,wrong"`
}

// LibraryPackTaken is what a pack does, or did.
type LibraryPackTaken struct {
	Of    string           `json:"of" says:"text" doc:"The collection that it is of"`
	Rows  []LibraryPackRow `json:"rows"`
	Taken int              `json:"taken" doc:"How many entries were taken"`
}
