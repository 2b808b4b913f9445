package demo

import (
	"fmt"
	"hash/fnv"
	"maps"
	"math/rand/v2"
	"slices"

	"frugalheron/app/roms"
	"frugalheron/core/rom"
)

// Image is the content of a chip of the sample world. Nothing in it is a program: it is made by chance, as
// varied as programs are, with texts where programs have them.
type Image struct {
	Chip   string // accession number and designator, as EH-0142 U9
	Device string
	Data   []byte
}

// code makes content that looks like a program: a few instructions over and over, addresses, small numbers.
func code(name string, size int) []byte {
	sum := fnv.New64a()
	sum.Write([]byte(name))                            //nolint:errcheck // never fails
	chance := rand.New(rand.NewPCG(sum.Sum64(), 1985)) //nolint:gosec // no secret
	usual := make([]byte, 48)
	for i := range usual {
		usual[i] = byte(chance.IntN(256))
	}
	data := make([]byte, size)
	for at := 0; at < size; {
		data[at] = usual[min(chance.IntN(48), chance.IntN(48))]
		at++
		for n := chance.IntN(3); n > 0 && at < size; n-- {
			data[at] = byte(chance.IntN(16) * (1 + 15*chance.IntN(2)))
			if chance.IntN(3) == 0 {
				data[at] = byte(chance.IntN(256))
			}
			at++
		}
	}
	return data
}

// program makes a memory of a size, filled up to a point, with texts and the vectors of a processor that
// starts by one at the very end, low byte first.
func program(name string, size, filled int, texts ...string) []byte {
	data := make([]byte, size)
	for i := range data {
		data[i] = 0xff
	}
	copy(data, code(name, filled))
	at := filled * 2 / 3
	for _, text := range texts {
		copy(data[at:], text+"\x00")
		at += len(text) + 3
	}
	base := 1<<16 - size
	for i, to := range []int{0x20, 0x00, 0x40} { // not masked, start, interrupt
		address := base + to
		data[size-6+2*i], data[size-5+2*i] = byte(address), byte(address>>8)
	}
	data[0] = 0x78
	return data
}

// changed is a later version: a stretch is another, and so is the text.
func changed(data []byte, name, old, now string) []byte {
	later := slices.Clone(data)
	copy(later[len(data)/5:], code(name, len(data)/12))
	for at := range later[:len(later)-len(old)] {
		if string(later[at:at+len(old)]) == old {
			copy(later[at:], now)
		}
	}
	return later
}

// spoiled turns n bits, far from each other: from 0 to 1 as charge goes, or either way.
func spoiled(data []byte, n int, isFading bool) []byte {
	chance := rand.New(rand.NewPCG(uint64(n), 17)) //nolint:gosec // no secret
	worn := slices.Clone(data)
	for n > 0 {
		at, bit := chance.IntN(len(data)), byte(1)<<chance.IntN(8)
		if data[at] == 0xff || worn[at] != data[at] || isFading && data[at]&bit != 0 {
			continue
		}
		worn[at] ^= bit
		n--
	}
	return worn
}

// Images are the contents of the chips of the sample world, by chip.
func Images() map[string]Image {
	images := map[string]Image{}
	add := func(machine, device string, contents map[string][]byte) {
		for designator, data := range contents {
			images[machine+" "+designator] = Image{machine + " " + designator, device, data}
		}
	}
	lanes := func(machine, device string, whole []byte, designators ...string) {
		dealt, err := rom.Split(whole, len(designators))
		if err != nil {
			panic(err) // sizes are multiples of the lanes, by the table below
		}
		for i, designator := range designators {
			add(machine, device, map[string][]byte{designator: dealt[i]})
		}
	}
	harbour := program("harbour 7", 4096, 3900, "TARN & VOLE HARBOUR BASIC 1.1", "(C) 1981, 82 TARN & VOLE")
	add("EH-0101", "2732",
		map[string][]byte{"U6": program("harbour 6", 4096, 4000, "READY"), "U7": harbour,
			"U8": program("harbour 8", 4096, 2600, "ERROR IN LINE ")})
	add("EH-0139", "2732",
		map[string][]byte{"U6": images["EH-0101 U6"].Data,
			"U7": changed(harbour, "harbour 7, 1.0", "BASIC 1.1", "BASIC 1.0"), "U8": images["EH-0101 U8"].Data})
	for i, designator := range []string{"U7", "U8", "U9", "U10"} {
		add("EH-0107", "2716",
			map[string][]byte{
				designator: program("sorter "+designator, 2048, 2000-300*i, fmt.Sprintf("SORTER 80 PART %d", i+1)),
			})
	}
	add("EH-0113", "27C16",
		map[string][]byte{"U19": program("tide 19", 2048, 1900, "TIDEMARK 2.0"),
			"U20": program("tide 20", 2048, 1700, "COPYRIGHT 1983 BRACKWATER MICRO")})
	half := program("valve 6", 16384, 13600, "VALVE TABLE")
	add("EH-0118", "27256",
		map[string][]byte{"U5": program("valve 5", 32768, 29000, "HOPBOARD V2.3", "(C) 1985 HOLLIN ELECTRONICS"),
			"U6": append(slices.Clone(half), half...)})
	add("EH-0118", "2716", map[string][]byte{"U27": program("keypad 27", 2048, 1700, "KEYPAD 1")})
	add("EH-0121", "27256",
		map[string][]byte{"U7": program("light 7", 32768, 21000, "LIGHT DESK 40 REV 3", "(C) 1986 HOLLIN ELECTRONICS"),
			"U8": program("light 8", 32768, 9000, "CUE ")})
	dosing := program("dosing 12", 16384, 15000, "POOL 1", "POOL 2")
	add("EH-0126", "27128",
		map[string][]byte{"U11": program("dosing 11", 16384, 14000, "LIDO 32 V4.1", "(C) 1988 BRACKWATER MICRO"),
			"U12": dosing})
	lanes("EH-0133", "27256",
		program("office", 65536, 52000, "QUENNELL DESK FIRMWARE V1.4", "COPYRIGHT 1986 QUENNELL SYSTEMS"), "U24", "U25")
	lanes("EH-0142", "27128", program("meridian", 32768, 30000, "MERIDIAN MONITOR V1.2", "(C) 1985 TARN & VOLE"), "U9",
		"U10")
	add("EH-0142", "27128",
		map[string][]byte{"U11": program("video", 16384, 8200, "VIDEO CARD V2.0", "(C) 1984 TARN & VOLE")})
	table := make([]byte, 256) // four bits a word: the upper half of each byte is nothing
	for i := range table {
		table[i] = byte(i>>4^i) & 0x0f
	}
	add("EH-0142", "82S129", map[string][]byte{"U38": table})
	ledger := program("ledger", 32768, 31000, "LEDGER SUPERVISOR REL 5", "(C) 1982 OSTRAND & PIKE")
	for i, designator := range []string{"U58", "U59", "U60", "U61"} {
		part := slices.Clone(ledger[8192*i : 8192*(i+1)])
		add("EH-0147", "2764", map[string][]byte{designator: part})
	}
	add("EH-0147", "2732A", map[string][]byte{"U56": program("ledger letters", 4096, 1500)})
	add("EH-0147", "82S123", map[string][]byte{"U54": code("decoder 54", 32), "U55": code("decoder 55", 32)})
	lanes("EH-0150", "27C010",
		program("drawing", 1<<19, 410_000, "QG DRAWING SYSTEM V3.02", "(C) 1987, 89, 90 QUENNELL SYSTEMS"), "U56",
		"U57", "U58", "U59")
	add("EH-0150", "27C256", map[string][]byte{"U46": program("picture", 32768, 28000, "PICTURE CARD V1.0")})
	add("EH-0155", "2716",
		map[string][]byte{"U3": program("terminal 3", 2048, 1990, "PT-2"), "U4": program("terminal 4", 2048, 900)})
	add("EH-0161", "27C040",
		map[string][]byte{
			"U16": program("kiosk 16", 1<<19, 300_000, "TICKET KIOSK V2.2", "(C) 1992 HOLLIN ELECTRONICS"),
			"U17": program("kiosk 17", 1<<19, 120_000, "FARE TABLE 1996"),
		})
	return images
}

// toldRead is what differs from two plain readings of a chip.
type toldRead struct {
	label string
	reads []rereading
}

type rereading struct {
	on    string
	spoil func(data []byte) []byte // nil for a good reading
	alone string                   // why one reading is enough
}

// usualReads are two good readings of the inventory of 2024.
var usualReads = []rereading{{on: "2024-10-05"}, {on: "2024-10-05"}}

var toldReads = map[string]toldRead{
	"EH-0113 U20": {"TM 2.0",
		[]rereading{{on: "2019-05-18"}, {on: "2019-05-18"},
			{on: "2026-09-12", spoil: func(d []byte) []byte { return spoiled(d, 9, true) }}}},
	"EH-0121 U8": {"LD 40 CUES", []rereading{{on: "2026-10-02"}}},
	"EH-0126 U12": {"", []rereading{
		{on: "2023-03-11", alone: "the chip cracked while it was taken out; one reading is all there is"},
	}},
	"EH-0133 U25": {"", []rereading{{on: "2024-10-05"},
		{on: "2024-10-05", spoil: func(d []byte) []byte { return spoiled(d, 31, false) }}}},
	"EH-0142 U11": {"VIDEO V2.1", usualReads},
	"EH-0142 U9":  {"MON V1.2 EVEN", usualReads},
	"EH-0142 U10": {"MON V1.2 ODD", usualReads},
	"EH-0101 U7":  {"BASIC V1.1", usualReads},
	"EH-0139 U7":  {"BASIC V1.0", usualReads},
	"EH-0155 U4":  {"", nil},
	"EH-0142 U38": {"", nil},
}

// namedRoms are contents that somebody has named.
var namedRoms = map[string]roms.RomInput{
	"EH-0101 U7":  {Name: "Harbour BASIC", Edition: "1.1", Public: true, Note: "Mends the rounding of 1.0."},
	"EH-0139 U7":  {Name: "Harbour BASIC", Edition: "1.0", Public: true},
	"EH-0142 U11": {Name: "Video card firmware", Edition: "2.0"},
	"EH-0118 U5":  {Name: "Hopboard", Edition: "2.3"},
	"EH-0113 U19": {Name: "Tidemark recorder", Edition: "2.0"},
}

// roms notes what was read out of the chips.
func (t teller) roms() error {
	if !t.actions.Files.KeepsFiles() {
		return nil
	}
	images := Images()
	for _, accession := range slices.Sorted(maps.Keys(t.machines)) {
		sockets, err := t.actions.Roms.Roms(t.ctx, t.curator, t.machines[accession])
		if err != nil {
			return err
		}
		for _, s := range sockets {
			image, ok := images[accession+" "+s.Designator]
			if !ok || len(s.Reads) > 0 {
				continue
			}
			if err := t.readOut(image, s); err != nil {
				return fmt.Errorf("%s: %w", image.Chip, err)
			}
		}
	}
	if err := t.romSets(); err != nil {
		return err
	}
	for _, chip := range slices.Sorted(maps.Keys(namedRoms)) {
		sum := rom.SumsOf(images[chip].Data).SHA256
		now, err := t.actions.Roms.Rom(t.ctx, t.curator, sum)
		if err != nil {
			return fmt.Errorf("%s: %w", chip, err)
		}
		if now.Name == "" {
			if _, err := t.actions.Roms.NameRom(t.ctx, t.curator, sum, now.Version, namedRoms[chip]); err != nil {
				return fmt.Errorf("%s: %w", chip, err)
			}
		}
	}
	return nil
}

// romSets names the contents of two boards as sets.
func (t teller) romSets() error {
	there, err := t.actions.Roms.RomSets(t.ctx, t.curator)
	if err != nil || len(there) > 0 {
		return err
	}
	for accession, name := range map[string]string{"EH-0101": "Harbour BASIC 1.1", "EH-0107": "Sorter 80"} {
		fitted, err := t.actions.Sheets.Contents(t.ctx, t.curator, t.machines[accession])
		if err != nil {
			return err
		}
		if _, err := t.actions.Roms.NameRomSet(t.ctx, t.curator, fitted[0].ID, name, ""); err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
	}
	return nil
}

func (t teller) readOut(image Image, s roms.RomSocket) error {
	told, ok := toldReads[image.Chip]
	if !ok {
		told.reads = usualReads
	}
	for i, r := range told.reads {
		data := image.Data
		if r.spoil != nil {
			data = r.spoil(data)
		}
		of := roms.RomReading{Designator: s.Designator, Label: told.label, Method: "by the bench reader", ReadOn: r.on,
			Exception: r.alone}
		if _, err := t.actions.Roms.AddRomFile(t.ctx, t.curator, s.AssemblyID, of,
			fmt.Sprintf("%s-%d.bin", s.Designator, i+1), data); err != nil {
			return err
		}
	}
	return nil
}
