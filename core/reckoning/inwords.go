package reckoning

import (
	"regexp"
	"slices"
	"strings"

	"frugalheron/core/device"
	"frugalheron/core/memory"
)

// memoryWords are the words in which people say what sort of memory a part is.
var memoryWords = map[string]device.Class{
	"ram": device.DRAM, "dram": device.DRAM, "memory": device.DRAM, "sram": device.SRAM, "cache": device.SRAM,
	"rom": device.MaskROM, "roms": device.MaskROM, "eprom": device.EPROM, "eeprom": device.EEPROM,
	"prom": device.PROM, "flash": device.Flash,
}

// notMemory are words beside which such a word says what a part is for: a RAM controller holds no memory.
var notMemory = map[string]bool{
	"controller": true, "refresh": true, "decoder": true, "select": true, "driver": true, "buffer": true,
	"multiplexer": true, "timing": true, "socket": true, "no": true, "without": true,
}

var (
	bitsOnly = regexp.MustCompile(`(?i)^(\d{1,6})\s?([km])bits?$`)
	sizeUnit = regexp.MustCompile(`(?i)^(k|kb|kib|m|mb|mib|bytes?|kbits?|mbits?)$`)
)

// memoryInWords reads memory that is said in words, as 8K RAM or ROM 4MB: its sort and its size. A size without a width
// is bytes.
func memoryInWords(words []string) (device.Type, bool) {
	class := device.Class("")
	for _, word := range words {
		bare := plainWord(word)
		if notMemory[bare] {
			return device.Type{}, false
		}
		// memory stays silent beside a word that says more, as in flash memory.
		if said, ok := memoryWords[bare]; ok && (class == "" || class == device.DRAM) {
			class = said
		}
	}
	if class == "" {
		return device.Type{}, false
	}
	for i, word := range words {
		word = strings.Trim(word, ",;()")
		if i+1 < len(words) && plainNumber.MatchString(word) && sizeUnit.MatchString(words[i+1]) {
			word += words[i+1]
		}
		organisation, ok := memory.ParseModule(word)
		if m := bitsOnly.FindStringSubmatch(word); m != nil {
			organisation, ok = memory.ParseModule(m[1] + m[2] + "x1")
		}
		if ok {
			return device.Type{Number: word + " " + string(class), Class: class, Organisation: organisation,
				Function: "memory, said in words", Source: "as written on the sheet"}, true
		}
	}
	return device.Type{}, false
}

// isMemoryModule reports whether words that say module are about memory: a power module is not.
func isMemoryModule(words []string) bool {
	return slices.ContainsFunc(words, func(word string) bool { return memoryWords[plainWord(word)] != "" })
}
