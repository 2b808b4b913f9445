package action

import "encoding/json"

// formerNames are names of fields in old histories, which are never rewritten, with what they are called today.
var formerNames = map[string]string{"saidOn": "statedOn", "withdrawn": "retracted", "struck": "voided"}

// FieldsIn reads the fields that an event kept, by their names of today; none where it kept none.
func FieldsIn(encoded *json.RawMessage) map[string]any {
	fields := map[string]any{}
	if encoded != nil {
		json.Unmarshal(*encoded, &fields) //nolint:errcheck // written by us; a row that is not gives no fields
	}
	for former, name := range formerNames {
		if value, ok := fields[former]; ok {
			delete(fields, former)
			fields[name] = value
		}
	}
	return fields
}

// toldCodes are fields of events that hold no text: keys, numbers, words of a list, markings. All others are taken for
// what people wrote.
var toldCodes = map[string]bool{
	"accession": true, "accessionPattern": true, "kind": true, "role": true, "severity": true, "revision": true,
	"designator": true,
	"grade":      true, "cosmetic": true, "outcome": true, "verdict": true, "state": true, "number": true,
	"marking": true, "fit": true, "class": true,
	"sha256": true, "attribute": true, "decision": true, "method": true, "currency": true, "serial": true,
	"model": true,
	"part":  true, "rev": true, "slot": true, "point": true, "quantity": true, "key": true, "login": true, "sure": true,
	"romVersion": true,
	"way":        true, "trend": true, "subsystem": true, "climate": true, "arrived": true, "dates": true,
	"statedOn": true, "on": true, "readOn": true,
	"decidedOn": true, "doneOn": true, "taken": true, "captured": true, "language": true, "mediaType": true,
	"numbers": true, "package": true,
	"currents": true, "function": true, "expected": true, "made": true, "variants": true, "founded": true,
	"ended": true, "ties": true,
	"since": true, "until": true, "due": true, "pin1": true, "colours": true, "cable": true, "spread": true,
	"connectors": true,
	"crc32":      true, "sha1": true, "effective": true, "look": true, "at": true, "designators": true, "by": true,
}

// RewriteTold rewrites the texts of what an event kept, in place, and returns it.
func RewriteTold(value any, rewrite func(text string) string) any {
	switch v := value.(type) {
	case string:
		return rewrite(v)
	case []any:
		for i := range v {
			v[i] = RewriteTold(v[i], rewrite)
		}
	case map[string]any:
		for key, inner := range v {
			if !toldCodes[key] {
				v[key] = RewriteTold(inner, rewrite)
			}
		}
	}
	return value
}
