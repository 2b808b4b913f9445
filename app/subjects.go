package app

import "frugalheron/store"

// subject is a kind of records that the history speaks of. Who may read of it there is who may read the records
// themselves; a kind that does not stand here is told to nobody but curators.
type subject struct {
	readBy      Roles
	namesMatter bool // its texts are looked through for names of private persons
}

var subjects = map[string]subject{
	"machine": {MayLook, true}, "assembly": {MayLook, true}, "fitting": {MayLook, true},
	"acquisition": {MayLook, true}, "lot item": {MayLook, true}, "attachment": {MayLook, true},
	"statement": {MayLook, true}, "custody": {MayLook, true}, "question": {MayLook, true},
	"connector": {MayLook, true}, "teardown": {MayLook, true}, "teardown step": {MayLook, true}, "procedure": {MayLook, true},
	"survey": {MayLook, true}, "finding": {MayLook, true}, "measurement": {MayLook, true}, "adjuster": {MayLook, true},
	"rom image": {MayLook, true}, "rom read": {MayLook, true}, "rom set": {MayLook, true}, "chip reading": {MayLook, true},
	"own type": {MayLook, true}, "recognition": {MayLook, false}, "maker": {MayLook, true}, "model": {MayLook, true},
	"ageing class": {MayLook, true}, "place": {MayLook, true}, "collection": {MayLook, true},

	"party": {MayWriteSheets, false}, "personal data": {MayWriteSheets, true}, "mention": {MayWriteSheets, false},
	"account": {MayKeepTheRecord, false},
}

// readerOf says what an actor may read in the history.
func readerOf(actor Actor) store.EventReader {
	reader := store.EventReader{Account: actor.AccountID, Kinds: []string{}, NotDeeds: []string{}, PublicOnly: actor.Hides()}
	for kind, s := range subjects {
		if s.readBy.Include(actor.Role) {
			reader.Kinds = append(reader.Kinds, kind)
		}
	}
	for key, e := range events {
		if e.isStaffs && actor.Hides() {
			reader.NotDeeds = append(reader.NotDeeds, key)
		}
	}
	if MayKeepTheRecord.Include(actor.Role) {
		reader.Kinds = nil // all there are
	}
	return reader
}

// toldCodes are fields of events that hold no text: keys, numbers, words of a list, markings. All others are taken for
// what people wrote.
var toldCodes = map[string]bool{
	"accession": true, "accessionPattern": true, "kind": true, "role": true, "severity": true, "revision": true, "designator": true,
	"grade": true, "cosmetic": true, "outcome": true, "verdict": true, "state": true, "number": true, "marking": true, "fit": true, "class": true,
	"sha256": true, "attribute": true, "decision": true, "method": true, "currency": true, "serial": true, "model": true,
	"part": true, "rev": true, "slot": true, "point": true, "quantity": true, "key": true, "login": true, "sure": true, "romVersion": true,
	"way": true, "trend": true, "subsystem": true, "climate": true, "arrived": true, "dates": true, "saidOn": true, "on": true, "readOn": true,
	"decidedOn": true, "doneOn": true, "taken": true, "captured": true, "language": true, "mediaType": true, "numbers": true, "package": true,
	"currents": true, "function": true, "expected": true, "made": true, "variants": true, "founded": true, "ended": true, "ties": true,
	"since": true, "until": true, "due": true, "pin1": true, "colours": true, "cable": true, "spread": true, "connectors": true,
	"crc32": true, "sha1": true, "effective": true, "look": true, "at": true, "designators": true, "by": true,
}

// rewriteTold rewrites the texts of what an event kept, in place, and returns it.
func rewriteTold(value any, rewrite func(text string) string) any {
	switch v := value.(type) {
	case string:
		return rewrite(v)
	case []any:
		for i := range v {
			v[i] = rewriteTold(v[i], rewrite)
		}
	case map[string]any:
		for key, inner := range v {
			if !toldCodes[key] {
				v[key] = rewriteTold(inner, rewrite)
			}
		}
	}
	return value
}
