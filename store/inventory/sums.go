package inventory

import (
	"context"
	"slices"

	"frugalheron/store/pg"
)

// LockMachineSums keeps others from writing the sums of machines until the transaction ends. Whoever
// writes them locks them first, all at once: what is summed is then what others have committed.
func LockMachineSums(ctx context.Context, h pg.Handle, machineIDs ...int64) error {
	slices.Sort(machineIDs)
	for _, id := range slices.Compact(machineIDs) {
		if _, err := h.ExecContext(ctx, `SELECT 1 FROM machine_sum WHERE machine_id = $1 FOR UPDATE`, id); err != nil {
			return err
		}
	}
	return nil
}

// InsertMachineSum starts the sums of a machine without boards.
func InsertMachineSum(ctx context.Context, h pg.Handle, machineID int64) error {
	_, err := h.ExecContext(ctx, `INSERT INTO machine_sum (machine_id, place_id, maker, era_from)
		SELECT id, place_id, maker, era_from FROM machine WHERE id = $1`, machineID)
	return err
}

// BoardCount is what the stage of a machine depends on, for one of its boards.
type BoardCount struct {
	Entries      int `db:"entries"`
	Problems     int `db:"problems"`
	Unidentified int `db:"unidentified"`
}

// BoardCountsOf counts the boards fitted in a machine today.
func BoardCountsOf(ctx context.Context, h pg.Handle, machineID int64) ([]BoardCount, error) {
	counts := []BoardCount{}
	err := h.SelectContext(ctx, &counts, `SELECT COALESCE(t.entries, 0) AS entries, COALESCE(t.problems, 0) AS problems,
			COALESCE(CAST(t.totals->>'unidentified' AS integer), 0) AS unidentified
		FROM fitting f JOIN assembly a ON a.id = f.assembly_id LEFT JOIN sheet_total t ON t.assembly_id = f.assembly_id
		WHERE f.machine_id = $1 AND f.until IS NULL AND a.kind <> 'exterior'`, machineID)
	return counts, err
}

// BoardTotalsOf reads the totals of the boards fitted in a machine today, as JSON.
func BoardTotalsOf(ctx context.Context, h pg.Handle, machineID int64) ([]string, error) {
	totals := []string{}
	err := h.SelectContext(ctx, &totals,
		`SELECT CAST(t.totals AS text) FROM fitting f JOIN assembly a ON a.id = f.assembly_id
		JOIN sheet_total t ON t.assembly_id = f.assembly_id WHERE f.machine_id = $1 AND f.until IS NULL
		AND a.kind <> 'exterior'`, machineID)
	return totals, err
}

// PutDisputed notes how many attributes of a machine are disputed, and whether its memory is.
func PutDisputed(ctx context.Context, h pg.Handle, machineID int64, disputed int, memory bool) error {
	_, err := h.ExecContext(ctx,
		`UPDATE machine_sum SET disputed = $2, memory_disputed = $3 WHERE machine_id = $1
			AND (disputed, memory_disputed) <> ($2, $3)`,
		machineID, disputed, memory)
	return err
}

// PutMachineSum sums up the boards fitted in a machine today, and the types on them, and notes what
// filters need of its record. The caller holds the lock.
func PutMachineSum(ctx context.Context, h pg.Handle, machineID int64, stage string, attention int) error {
	_, err := h.ExecContext(ctx,
		`UPDATE machine_sum SET boards = s.boards, chips = s.chips, unidentified = s.unidentified,
			ram_bytes = s.ram_bytes, rom_bytes = s.rom_bytes, stage = $2, attention = $3,
			place_id = m.place_id, maker = m.maker, era_from = m.era_from
		FROM machine m, (SELECT count(*) AS boards,
				COALESCE(sum(CAST(t.totals->>'chips' AS bigint)), 0) AS chips,
				COALESCE(sum(CAST(t.totals->>'unidentified' AS bigint)), 0) AS unidentified,
				COALESCE(sum(CAST(t.totals->>'ramBytes' AS bigint)), 0) AS ram_bytes,
				COALESCE(sum(CAST(t.totals->>'romBytes' AS bigint)), 0) AS rom_bytes
			FROM fitting f JOIN assembly a ON a.id = f.assembly_id LEFT
			JOIN sheet_total t ON t.assembly_id = f.assembly_id
			WHERE f.machine_id = $1 AND f.until IS NULL AND a.kind <> 'exterior') s
		WHERE machine_id = $1 AND m.id = $1`, machineID, stage, attention)
	if err != nil {
		return err
	}
	if _, err := h.ExecContext(ctx, `DELETE FROM machine_type WHERE machine_id = $1`, machineID); err != nil {
		return err
	}
	_, err = h.ExecContext(ctx, `INSERT INTO machine_type (type_number, machine_id, parts)
		SELECT e.type_number, $1, sum(e.count) FROM fitting f JOIN entry e ON e.assembly_id = f.assembly_id
		WHERE f.machine_id = $1 AND f.until IS NULL AND e.type_number <> '' AND NOT e.empty GROUP BY e.type_number`,
		machineID)
	return err
}
