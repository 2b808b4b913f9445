// Package builtin holds the library that ships with the product: generic device numbers with
// organisation, speeds, package and typical current, each row with its source.
package builtin

import (
	_ "embed"
	"sync"

	"frugalheron/core/device"
)

//go:embed memories.tsv
var memories []byte

//go:embed support.tsv
var support []byte

//go:embed logic-4000.tsv
var logic4000 []byte

//go:embed logic-74.tsv
var logic74 []byte

//go:embed logic-families.tsv
var logicFamilies []byte

//go:embed speeds.tsv
var speeds []byte

//go:embed suffixes.tsv
var suffixes []byte

//go:embed prefixes.tsv
var prefixes []byte

//go:embed processors.tsv
var processors []byte

//go:embed ratings.tsv
var ratings []byte

//go:embed companions.tsv
var companions []byte

// Version changes whenever a row or the way rows are read changes, and what follows from them of a board; totals kept
// elsewhere carry it.
const Version = 9

// Library returns the built-in library, read once. Nothing can be changed in it.
func Library() *device.Library { return readLibrary() }

var readLibrary = sync.OnceValue(func() *device.Library {
	library, err := device.Read(device.Data{
		Types:  [][]byte{memories, processors, support, logic4000},
		Speeds: speeds, LogicFamilies: logicFamilies, LogicNumbers: logic74, Suffixes: suffixes,
		Prefixes: prefixes, Ratings: ratings, Companions: companions,
	})
	if err != nil {
		panic("built-in library: " + err.Error()) // a test reads it, so this cannot ship
	}
	return library
})
