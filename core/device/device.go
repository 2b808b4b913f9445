// Package device answers: which type of chip does this number stand for, and what is known of
// the type? It reads reference data given as bytes and recognises a generic device number
// inside a marking whatever the maker's prefix and the package's suffix are.
package device

// Class says what a device is for.
type Class string

// The classes of devices. Own is a type that the collection named itself.
const (
	DRAM      Class = "dram"
	SRAM      Class = "sram"
	EPROM     Class = "eprom"
	EEPROM    Class = "eeprom"
	Flash     Class = "flash"
	MaskROM   Class = "mask-rom"
	PROM      Class = "prom"
	Logic     Class = "logic"
	Processor Class = "processor"
	Support   Class = "support"
	Own       Class = "own"
)

// Classes are all of them.
func Classes() []Class {
	return []Class{DRAM, SRAM, EPROM, EEPROM, Flash, MaskROM, PROM, Logic, Processor, Support, Own}
}

// IsRAM reports whether devices of the class hold working memory.
func (c Class) IsRAM() bool { return c == DRAM || c == SRAM }

// IsROM reports whether devices of the class hold fixed content.
func (c Class) IsROM() bool {
	return c == EPROM || c == EEPROM || c == Flash || c == MaskROM || c == PROM
}

// IsMemory reports whether the class has an organisation.
func (c Class) IsMemory() bool { return c.IsRAM() || c.IsROM() }

// Organisation is how a memory is divided: so many words of so many bits. The zero value is
// that of a device without memory.
type Organisation struct {
	Words int `json:"words" doc:"Words a memory holds; 0 for other devices"`
	Bits  int `json:"bits" doc:"Bits in a word; 0 for other devices"`
}

// ImageBytes is how many bytes a reading of the device has: each word takes whole ones.
func (o Organisation) ImageBytes() int { return o.Words * ((o.Bits + 7) / 8) }

// TotalBits is the capacity in bits.
func (o Organisation) TotalBits() int64 { return int64(o.Words) * int64(o.Bits) }

// Type is what a device number stands for.
type Type struct {
	Number string `json:"number" doc:"Generic number, as 27128 or 74LS245"`
	Class  Class  `json:"class" enum:"dram,sram,eprom,eeprom,flash,mask-rom,prom,logic,processor,support,own"`
	Organisation
	Function string `json:"function" doc:"What the device does"`
	Family   string `json:"family" doc:"How logic is made, as low-power Schottky TTL; else empty"`
	Package  string `json:"package" doc:"Usual package and pins, as DIP-28"`
	// TypicalMilliamps is the typical +5 V supply current of one active device, a rule of
	// thumb for its family; 0 when none is known.
	TypicalMilliamps float64 `json:"typicalMilliamps" doc:"Typical +5 V current, a rule of thumb for the family; 0 when not known"`
	// Ages says how it ages: the class of ageing parts that it belongs to, or words that tell it.
	Ages   string `json:"ages" doc:"Class of ageing parts that it belongs to, or how it ages in words; empty where nothing is known"`
	Source string `json:"source" doc:"Where the figures come from"`
	Supply string `json:"supply,omitempty" doc:"Supply voltages, as +5 -5 +12; empty where they are not known"`
	// ClockMHz is the highest clock of a part without a grade.
	ClockMHz float64 `json:"clockMHz,omitempty" doc:"Highest clock of a part without a grade, in MHz, where it is known"`

	speeds map[string]int
	clocks map[string]float64 // highest clock in MHz by grade
	// letters are those that may stand before the number; nil where any may.
	letters map[string]bool
}

// hasLetters reports whether a number of the type is written with such letters before it.
func (t *Type) hasLetters(prefix string) bool {
	return t.letters == nil || prefix == "" || t.letters[prefix]
}

// suffixGroup names the table of suffix letters that applies to the type.
func (t *Type) suffixGroup() string {
	switch {
	case t.Class.IsMemory():
		return "memory"
	case t.Class == Logic:
		return "logic"
	}
	return "support"
}
