package part

import (
	"regexp"
	"slices"
	"strings"
	"unicode"

	"frugalheron/core/device"
)

// plain is how words are spelled before they are read.
var plain = strings.NewReplacer("µ", "u", "μ", "u", "Ω", "ohm", "Ω", "ohm", "ω", "ohm", "–", "-", "−", "-", "×", "x",
	"°", "", "ø", "dia ", "Ø", "dia ", "⌀", "dia ", "≥", " ", "½", "1/2", "¼", "1/4")

var decimalComma = regexp.MustCompile(`(\d),(\d)`)

// form is a property that is written in some way, and what is done with it.
type form struct {
	pattern *regexp.Regexp
	take    func(p *Part, m []string)
}

const edge, end = `(?:^|[\s/,;(])`, `(?:$|[\s/,;)])`

var forms = []form{
	{regexp.MustCompile(`(?i)` + edge + `([XY][1-4](?:\s*/?\s*[XY][1-4])*)` + end), func(p *Part, m []string) {
		p.Safety = append(p.Safety, safetyClasses.FindAllString(strings.ToUpper(m[1]), -1)...)
		p.Kind = Capacitor
	}},
	{regexp.MustCompile(`(?:±|\+/?-|-\d+\s?\+)?\s?(\d+(?:\.\d+)?)\s?%`), func(p *Part, m []string) {
		p.Value.Tolerance = number(m[1]) / 100
	}},
	{regexp.MustCompile(`(?i)` + edge + `(?:(\d+)/(\d+)|(\d*\.?\d+))\s?(m?)W` + end), func(p *Part, m []string) {
		p.Watts = number(m[3])
		if m[1] != "" && number(m[2]) > 0 {
			p.Watts = number(m[1]) / number(m[2])
		}
		if m[4] != "" {
			p.Watts /= 1000
		}
	}},
	{regexp.MustCompile(`(?i)` + edge + `(\d+(?:\.\d+)?)\s?m?Ah` + end), func(p *Part, m []string) {
		p.MAh = number(m[1])
		if !strings.Contains(strings.ToLower(m[0]), "mah") {
			p.MAh *= 1000
		}
	}},
	{regexp.MustCompile(`(?i)` + edge + `(\d{1,2})\s?x\s?(\d+(?:\.\d+)?)\s?V` + end), func(p *Part, m []string) {
		p.Volts = number(m[1]) * number(m[2]) // cells in a row
	}},
	{regexp.MustCompile(`(?i)` + edge + `(\d+(?:\.\d+)?)\s?(?:V\s?AC|VAC|V\s?~|~)` + end), func(p *Part, m []string) {
		p.VoltsAC = number(m[1])
	}},
	{regexp.MustCompile(`(?i)` + edge + `(\d+)V(\d+)` + end), func(p *Part, m []string) {
		p.Volts = number(m[1] + "." + m[2])
	}},
	{regexp.MustCompile(`(?i)` + edge + `(\d+(?:\.\d+)?)\s?(?:V\s?DC|VDC|WV|volts?|V)` + end), func(p *Part, m []string) {
		p.Volts = number(m[1])
	}},
	{regexp.MustCompile(`(?i)` + edge + `(?:-\d+\s?(?:\.\.+|to|/)\s?\+?)?(\d{2,3})\s?C` + end), func(p *Part, m []string) {
		p.Celsius = number(m[1])
	}},
	{regexp.MustCompile(`(?i)` + edge + `(\d+)\s?([KM])\s?x\s?(\d{1,2})` + end), func(p *Part, m []string) {
		p.Organisation = device.Organisation{Words: int(number(m[1])) << 10, Bits: int(number(m[3]))}
		if strings.EqualFold(m[2], "M") {
			p.Organisation.Words <<= 10
		}
		p.Kind = Memory
	}},
	{regexp.MustCompile(`(?i)` + edge + `(?:dia\.?\s*)?(\d+(?:\.\d+)?)\s?x\s?(\d+(?:\.\d+)?)\s?(?:mm)?` + end),
		func(p *Part, m []string) { p.Diameter, p.Height = number(m[1]), number(m[2]) }},
	{regexp.MustCompile(`(?i)` + edge + `(?:pitch|RM|LS|raster|P)\s?=?\s?(\d+(?:\.\d+)?)\s?(?:mm)?` + end),
		func(p *Part, m []string) { p.Pitch = number(m[1]) }},
	{regexp.MustCompile(`(?i)` + edge + `(\d+(?:\.\d+)?)\s?mm\s+pitch` + end),
		func(p *Part, m []string) { p.Pitch = number(m[1]) }},
	{regexp.MustCompile(`(?i)` + edge + `dia\.?\s*(\d+(?:\.\d+)?)\s?(?:mm)?` + end),
		func(p *Part, m []string) { p.Diameter = number(m[1]) }},
	{regexp.MustCompile(`(?i)` + edge + `(\d+)\s?ns` + end), func(p *Part, m []string) {
		p.Nanoseconds = int(number(m[1]))
	}},
	{regexp.MustCompile(`(?i)` + edge + `(\d+(?:\.\d+)?)\s?MHz` + end), func(p *Part, m []string) { p.MHz = number(m[1]) }},
	{regexp.MustCompile(`(?i)` + edge + `(DIP|DIL|PLCC|SOIC|SOP|SOJ|SO|ZIP|SIP|SIMM|DIMM|PGA|QFP|TQFP|TSOP|TO|SOT|LCC|SIL)` +
		`-?\s?(\d{1,3})` + end), func(p *Part, m []string) {
		name := strings.ToUpper(m[1])
		p.Package = map[string]string{"DIL": "DIP", "SIL": "SIP", "SO": "SOIC"}[name]
		if p.Package == "" {
			p.Package = name
		}
		p.Package += "-" + m[2]
	}},
	{regexp.MustCompile(`(?i)` + edge + `(radial|axial|snap-?in|SMD|SMT|0402|0603|0805|1206|1210|1812)` + end),
		func(p *Part, m []string) {
			p.Package = strings.ReplaceAll(strings.ReplaceAll(strings.ToLower(m[1]), "-", ""), "smt", "smd")
		}},
	{regexp.MustCompile(`(?i)` + edge + `((?:1/2\s?)?AAA?|CR\d{3,4}|BR\d{3,4}|LR\d{1,4}|SR\d{2,4}(?:SW|W)?)` + end),
		func(p *Part, m []string) {
			p.Package, p.Kind = strings.ToUpper(strings.ReplaceAll(m[1], " ", "")), Battery
			switch p.Package[:2] {
			case "CR", "BR":
				p.Chemistry = "lithium"
			case "LR":
				p.Chemistry = "alkaline"
			case "SR":
				p.Chemistry = "silver oxide"
			}
		}},
	{regexp.MustCompile(`(?i)` + edge + `(?:(not|never|no|un)[- ]?(?:charged|charge(?: circuit)?|rechargeable)|primary|non-rechargeable)` +
		end), func(p *Part, _ []string) { p.Charge = primary }},
	{regexp.MustCompile(`(?i)` + edge + `(?:(?:on (?:a )?)?charge(?:d| circuit| path)?|rechargeable|trickle(?: charged?)?)` + end),
		func(p *Part, _ []string) { p.Charge = charged }},
}

var safetyClasses = regexp.MustCompile(`[XY][1-4]`)

// chemistryWords tell a chemistry; a primary one is not to be charged.
type chemistryWords struct {
	pattern *regexp.Regexp
	name    string
	primary bool
}

var chemistries = []chemistryWords{
	{regexp.MustCompile(`(?i)` + edge + `(?:li-?ion|lithium[- ]ion|li-?po|lithium[- ]polymer)` + end), "lithium-ion", false},
	{regexp.MustCompile(`(?i)` + edge + `(?:li-?socl2|thionyl|lithium thionyl(?: chloride)?)` + end), "lithium thionyl", true},
	{regexp.MustCompile(`(?i)` + edge + `(?:ni-?mh)` + end), "NiMH", false},
	{regexp.MustCompile(`(?i)` + edge + `(?:ni-?cd|nicad)` + end), "NiCd", false},
	{regexp.MustCompile(`(?i)` + edge + `(?:lead(?:[- ]acid)?|gel|SLA)` + end), "lead", false},
	{regexp.MustCompile(`(?i)` + edge + `(?:lithium)` + end), "lithium", true},
	{regexp.MustCompile(`(?i)` + edge + `(?:alkaline)` + end), "alkaline", true},
	{regexp.MustCompile(`(?i)` + edge + `(?:silver oxide)` + end), "silver oxide", true},
	{regexp.MustCompile(`(?i)` + edge + `(?:zinc[- ]carbon)` + end), "zinc-carbon", true},
}

// besides are the words for what holds or serves a part, and is none itself: a holder for cells is no cell.
var besides = []string{"holder", "holders", "clip", "clips", "socket", "sockets", "charger", "tester", "eraser",
	"bracket",
	"extractor", "plug"}

// dielectrics by the words for them.
var dielectrics = map[string]string{"electrolytic": "electrolytic", "elko": "electrolytic", "elco": "electrolytic",
	"aluminium": "electrolytic", "elyt": "electrolytic", "tantalum": "tantalum", "tant": "tantalum",
	"ceramic": "ceramic", "mlcc": "ceramic", "film": "film", "foil": "film", "polyester": "film",
	"polypropylene": "film", "mkt": "film", "mkp": "film", "paper": "paper", "mica": "mica"}

// kinds by the words for them.
var kindWords = map[string]Kind{"capacitor": Capacitor, "capacitors": Capacitor, "cap": Capacitor, "caps": Capacitor,
	"resistor": Resistor, "resistors": Resistor, "battery": Battery, "cell": Battery, "cells": Battery, "pack": Battery,
	"accu": Battery}

// ownWords say nothing that is compared.
var ownWords = []string{"a", "the", "of", "and", "for", "with", "new", "chip", "ic", "type", "or", "safety",
	"class", "mm"}

// classWords name sorts of memory.
var classWords = map[string]device.Class{"dram": device.DRAM, "sram": device.SRAM, "eprom": device.EPROM,
	"eeprom": device.EEPROM, "flash": device.Flash, "prom": device.PROM}

// Read reads what the words of a part say. It never fails: what cannot be read stays among its words.
func Read(library *device.Library, text string) Part {
	p := Part{Text: strings.TrimSpace(text), lower: strings.ToLower(strings.TrimSpace(text))}
	words := decimalComma.ReplaceAllString(plain.Replace(" "+text+" "), "$1.$2")
	if isBeside(words) {
		p.Words, p.beside = strings.Fields(strings.ToLower(words)), true
		return p
	}
	for _, c := range chemistries {
		if at := c.pattern.FindStringIndex(words); at != nil {
			words = words[:at[0]] + " " + words[at[1]:]
			p.Kind, p.Chemistry = Battery, c.name
			break
		}
	}
	for word := range strings.FieldsSeq(strings.ToLower(words)) {
		if kind, known := kindWords[word]; known && p.Kind == Other {
			p.Kind = kind
		} else if _, known := dielectrics[word]; known && p.Kind == Other {
			p.Kind = Capacitor
		}
	}
	for _, f := range forms {
		if at := f.pattern.FindStringIndex(words); at != nil {
			f.take(&p, f.pattern.FindStringSubmatch(words))
			words = words[:at[0]] + " " + words[at[1]:]
		}
	}
	words = strings.NewReplacer("/", " ", ",", " ", ";", " ", "(", " ", ")", " ", "=", " ").Replace(words)
	if p.Kind == Other || p.Kind == Capacitor || p.Kind == Resistor {
		words = p.takeValue(words)
	}
	for word := range strings.FieldsSeq(words) {
		p.takeWord(library, word)
	}
	if name, _, _ := strings.Cut(p.lower, " "); p.Kind == Other && p.Value.bare != "" && slices.Contains(p.Words,
		name) {
		// A thing that is named first, as belt 120 mm: its figure is no value.
		p.Words, p.Value = append(p.Words, strings.ToLower(p.Value.bare)), Value{}
	}
	if p.Kind == Other && p.Value.bare != "" && (p.Volts > 0 || p.VoltsAC > 0 || p.Celsius > 0) {
		p.Kind = Capacitor
	}
	return p
}

func isBeside(words string) bool {
	for word := range strings.FieldsFuncSeq(strings.ToLower(words), func(r rune) bool { return !unicode.IsLetter(r) }) {
		if slices.Contains(besides, word) {
			return true
		}
	}
	return false
}

func (p *Part) takeWord(library *device.Library, word string) {
	lower := strings.ToLower(word)
	switch dielectric, isDielectric := dielectrics[lower]; {
	case isDielectric:
		p.Dielectric = dielectric
		return
	case lower == "bipolar", lower == "np", lower == "bp", lower == "non-polar", lower == "nonpolar",
		lower == "unpolar":
		p.Unpolar = true
		return
	case kindWords[lower] != Other, slices.Contains(ownWords, lower):
		return
	case classWords[lower] != "":
		p.Class, p.Kind = classWords[lower], Memory
		return
	case len(word) <= 3 && p.takeBare(word):
		return
	}
	if found, ok := library.Recognise(word); ok && p.Number == "" && (p.Kind == Other || p.Kind == Memory || p.Kind == Chip) {
		p.takeType(library, found)
		return
	}
	if !p.takeBare(word) {
		p.Words = append(p.Words, lower)
	}
}

func (p *Part) takeType(library *device.Library, found device.Recognition) {
	p.Number, p.Function, p.Family, p.Class = found.Number, found.Function, found.Family, found.Type.Class
	if p.Kind = Chip; found.Words > 0 {
		p.Kind, p.Organisation = Memory, found.Organisation
	}
	if p.Nanoseconds == 0 {
		p.Nanoseconds = library.ReadSuffix(found.Type, found.Suffix).SpeedNs
	}
	if p.MHz == 0 {
		p.MHz = found.MaxMHz()
	}
}
