package action

import (
	"frugalheron/store/history"
)

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
	"connector": {MayLook, true}, "teardown": {MayLook, true}, "teardown step": {MayLook, true},
	"procedure": {MayLook, true},
	"survey":    {MayLook, true}, "finding": {MayLook, true}, "measurement": {MayLook, true},
	"console": {MayLook, true},
	"supply":  {MayLook, true}, "rung": {MayLook, true}, "power-up": {MayLook, true},
	"job": {MayLook, true}, "diagnosis": {MayLook, true}, "memory layout": {MayLook, true},
	"configuration": {MayLook, true}, "operating card": {MayLook, true}, "backplane": {MayLook, true},
	"memory rules": {MayLook, true},
	"round":        {MayLook, true}, "upkeep rule": {MayLook, true}, "deed": {MayLook, true}, "plan": {MayLook, true},
	"policy":   {MayLook, true},
	"adjuster": {MayLook, true}, "sighting": {MayLook, true}, "service": {MayLook, true},
	"rom image": {MayLook, true}, "rom read": {MayLook, true}, "rom set": {MayLook, true},
	"chip reading": {MayLook, true},
	"own type":     {MayLook, true}, "known assembly": {MayLook, true}, "recognition": {MayLook, false},
	"maker":        {MayLook, true},
	"model":        {MayLook, true},
	"ageing class": {MayLook, true}, "place": {MayLook, true}, "collection": {MayLook, true},

	"stock": {MayWriteSheets, false}, "order": {MayWriteSheets, false},
	"credential": {MayWriteSheets, false},
	"want":       {MayWriteSheets, false}, "offer": {MayWriteSheets, false},
	"party": {MayWriteSheets, false}, "personal data": {MayWriteSheets, true}, "mention": {MayWriteSheets, false},
	"account": {MayKeepTheRecord, false}, "calendar address": {MayKeepTheRecord, false},
}

// NamesMatter reports whether texts of a kind of records are looked through for names of private persons.
func NamesMatter(kind string) bool { return subjects[kind].namesMatter }

// KindsWithNames lists the kinds of which they are.
func KindsWithNames() []string {
	kinds := []string{}
	for kind := range subjects {
		if NamesMatter(kind) {
			kinds = append(kinds, kind)
		}
	}
	return kinds
}

// ReaderOf says what an actor may read in the history.
func ReaderOf(actor Actor) history.EventReader {
	reader := history.EventReader{Account: actor.AccountID, Kinds: []string{}, NotActions: []string{},
		PublicOnly: actor.Hides()}
	for kind, s := range subjects {
		if s.readBy.Include(actor.Role) {
			reader.Kinds = append(reader.Kinds, kind)
		}
	}
	for key, e := range events {
		if e.isStaffs && actor.Hides() {
			reader.NotActions = append(reader.NotActions, key)
		}
	}
	if MayKeepTheRecord.Include(actor.Role) {
		reader.Kinds = nil // all there are
	}
	return reader
}
