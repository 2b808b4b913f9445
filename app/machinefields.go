package app

import (
	"frugalheron/core/datecode"
	"frugalheron/store"
)

func checkMachine(m *store.MachineFields) error {
	err := checkAll(
		oneLine("accession", &m.Accession), oneLine("name", &m.Name), oneLine("maker", &m.Maker),
		oneLine("model", &m.Model), oneLine("serial", &m.Serial), oneLine("place", &m.Place), lines("provenance", &m.Provenance),
	)
	switch {
	case err != nil:
		return err
	case m.Accession == "":
		return &Invalid{"accession", "give the accession number, as EH-0142"}
	case m.Name == "":
		return &Invalid{"name", "give the machine a name"}
	case m.EraFrom == nil && m.EraTo != nil:
		return &Invalid{"eraFrom", "give the first year as well as the last"}
	case m.EraFrom != nil && m.EraTo == nil:
		return &Invalid{"eraTo", "give the last year as well as the first"}
	case m.EraFrom != nil && *m.EraTo < *m.EraFrom:
		return &Invalid{"eraTo", "lies before the first year"}
	}
	return nil
}

func eraOf(m store.Machine) datecode.Era {
	if m.EraFrom == nil || m.EraTo == nil {
		return datecode.Era{}
	}
	return datecode.Era{From: *m.EraFrom, To: *m.EraTo}
}

func accessionTaken(err error, accession string) error {
	if store.Violates(err, "machine_accession_key") {
		return &Invalid{"accession", accession + " is in use by another machine"}
	}
	return err
}
