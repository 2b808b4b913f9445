package inventory

import (
	"context"
	"fmt"
	"strings"

	"frugalheron/store/library"
	"frugalheron/store/people"
	"frugalheron/store/pg"
)

// FoundAssembly is an assembly that a search found, with where it is.
type FoundAssembly struct {
	ID        int64  `db:"id"`
	Title     string `db:"title"`
	Part      string `db:"part"`
	Serial    string `db:"serial"`
	MachineID *int64 `db:"machine_id"` // the machine it is in, or null
	Accession string `db:"accession"`
	Machine   string `db:"machine"`
	Place     string `db:"place"`
	LentTo    string `db:"lent_to"`
}

// FindAssemblies finds assemblies with all words in what is said of them, wherever they are; with public only in
// what others than staff may see of it.
func FindAssemblies(ctx context.Context, h pg.Handle, words []string, public bool, limit int) ([]FoundAssembly, error) {
	found := []FoundAssembly{}
	where, args := pg.LikeAll("a.search", words, nil)
	if public {
		where, args = people.LikeAllPublic(people.PublicAssembly, "a.id", "a.search", words, nil)
	}
	args = append(args, limit)
	err := h.SelectContext(ctx, &found,
		fmt.Sprintf(`SELECT a.id, a.title, a.part, a.serial, f.machine_id, COALESCE(m.accession, '') AS accession,
			COALESCE(m.name, '') AS machine, COALESCE(p.name, '') AS place, f.lent_to
		FROM assembly a JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
		LEFT JOIN machine m ON m.id = f.machine_id LEFT JOIN place p ON p.id = f.place_id
		WHERE a.kind <> 'exterior' AND %s LIMIT $%d`, where, len(args)), args...)
	return found, err
}

// FindChips finds lines of sheets with all words in the marking, or of a type whose number is the
// only word. Markings are compared without regard to case.
func FindChips(ctx context.Context, h pg.Handle, words []string, limit int) ([]library.Occurrence, error) {
	found := []library.Occurrence{}
	upper := make([]string, len(words))
	for i, word := range words {
		upper[i] = strings.ToUpper(word)
	}
	where, args := []string{}, []any{}
	for _, word := range upper {
		args = append(args, "%"+pg.LikeEscaper.Replace(word)+"%")
		where = append(where, fmt.Sprintf(`upper(translate(e.marking, 'µμ', 'UU')) LIKE $%d`, len(args)))
	}
	condition := strings.Join(where, " AND ")
	if len(upper) == 1 {
		args = append(args, upper[0])
		condition = fmt.Sprintf(`(%s OR e.type_number = $%d)`, condition, len(args))
	}
	args = append(args, limit)
	err := h.SelectContext(ctx, &found,
		fmt.Sprintf(`SELECT f.machine_id, COALESCE(m.accession, '') AS accession, COALESCE(m.name, '') AS machine,
			e.assembly_id, a.title AS assembly, e.line, e.count, e.marking
		FROM (SELECT * FROM entry e WHERE %s LIMIT $%d) e
		JOIN assembly a ON a.id = e.assembly_id JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
		LEFT JOIN machine m ON m.id = f.machine_id
		ORDER BY m.accession NULLS LAST, e.assembly_id, e.line`, condition, len(args)), args...)
	return found, err
}

// MachineByAccession finds a machine by its number, without regard to case.
func MachineByAccession(ctx context.Context, h pg.Handle, accession string) (Machine, error) {
	var m Machine
	err := pg.Get(ctx, h, &m, "machine "+accession,
		`SELECT `+machineColumns+
			` FROM machine m LEFT JOIN place p ON p.id = m.place_id WHERE m.accession = ANY (CAST($1 AS text[]))
				LIMIT 1`,
		[]string{accession, strings.ToUpper(accession)})
	return m, err
}
