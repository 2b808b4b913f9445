package packs

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"frugalheron/app/library"
	"frugalheron/app/teardown"
	"frugalheron/core/device"
	"frugalheron/core/known"
	"frugalheron/core/pack"
)

// fieldsOf are the fields of an entry as texts, by the names that they have in the file; a number that is not told is
// empty.
func fieldsOf(entry any) pack.Fields {
	fields := pack.Fields{}
	text, _ := json.Marshal(entry) //nolint:errcheck,errchkjson // texts and numbers
	read := map[string]any{}
	d := json.NewDecoder(bytes.NewReader(text))
	d.UseNumber()
	_ = d.Decode(&read) //nolint:errcheck // what was just written
	for name, value := range read {
		if fields[name] = fmt.Sprint(value); fields[name] == "0" {
			fields[name] = ""
		}
	}
	return fields
}

// entryOf writes fields back into an entry.
func entryOf[Entry any](base Entry, fields pack.Fields) (Entry, error) {
	text, err := json.Marshal(base)
	if err != nil {
		return base, err
	}
	read := map[string]any{}
	if err := json.Unmarshal(text, &read); err != nil {
		return base, err
	}
	for name, value := range fields {
		switch _, isText := read[name].(string); {
		case isText:
			read[name] = value
		case value != "":
			read[name] = json.Number(value)
		}
	}
	if text, err = json.Marshal(read); err != nil {
		return base, err
	}
	var entry Entry
	err = json.Unmarshal(text, &entry)
	return entry, err
}

// here is what the library of this collection holds, by what entries of a pack are found.
type here struct {
	types      map[string]library.OwnType
	known      []library.KnownAssembly
	byNumber   map[string][]int // of known, by folded number
	models     map[string]library.MachineModel
	procedures map[string]teardown.Procedure
}

func hereOf(w library.Whole, procedures []teardown.Procedure) here {
	h := here{map[string]library.OwnType{}, w.Known, map[string][]int{}, map[string]library.MachineModel{},
		map[string]teardown.Procedure{}}
	for _, t := range w.Types {
		h.types[device.Normal(t.Number)] = t
	}
	for i, k := range w.Known {
		for _, key := range keysOf(k.Numbers) {
			h.byNumber[key] = append(h.byNumber[key], i)
		}
	}
	for _, m := range w.Models {
		h.models[nameOf(m.Maker, m.Model)] = m
	}
	for _, p := range procedures {
		h.procedures[nameOf(p.Maker, p.Model, p.Title)] = p
	}
	return h
}

func nameOf(words ...string) string {
	return strings.ToLower(strings.Join(strings.Fields(strings.Join(words, " | ")), " "))
}

func keysOf(numbers string) []string {
	keys := []string{}
	for number := range strings.SplitSeq(numbers, "\n") {
		if key := known.Fold(number); key != "" && !slices.Contains(keys, key) {
			keys = append(keys, key)
		}
	}
	return keys
}

// knownLike finds the known assembly here that an entry is about: one with a number of it for the same revisions, the
// one that it contradicts least; else, where it has no number, one that is called so and is of the same maker.
func (h here) knownLike(f library.KnownInput) *library.KnownAssembly {
	var best *library.KnownAssembly
	least := 0
	consider := func(k *library.KnownAssembly) {
		_, differences, _ := pack.Compare(pack.Known, fieldsOf(k.KnownInput), fieldsOf(f))
		n := 0
		for _, d := range differences {
			if d.Contradicts() {
				n++
			}
		}
		if best == nil || n < least {
			best, least = k, n
		}
	}
	revisions, _ := known.ParseRevisions(f.Revisions) //nolint:errcheck // checked before
	for _, key := range keysOf(f.Numbers) {
		for _, i := range h.byNumber[key] {
			ours, _ := known.ParseRevisions(h.known[i].Revisions) //nolint:errcheck // checked when it was written
			if ours.Overlap(revisions) != "" {
				consider(&h.known[i])
			}
		}
	}
	if f.Numbers != "" {
		return best
	}
	for i, k := range h.known {
		if k.Numbers == "" && nameOf(k.Maker, k.Name) == nameOf(f.Maker, f.Name) {
			consider(&h.known[i])
		}
	}
	return best
}
