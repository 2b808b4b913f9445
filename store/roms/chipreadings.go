package roms

import (
	"context"
	"fmt"
	"time"

	"frugalheron/store/pg"
)

// ChipReading is a chip that a reader on the network reads, or has read: twice, one pass behind the other.
type ChipReading struct {
	ID         int64     `db:"id"`
	AssemblyID int64     `db:"assembly_id"`
	Designator string    `db:"designator"`
	Device     string    `db:"device"`
	Label      string    `db:"label"`
	Exception  string    `db:"exception"`
	State      string    `db:"state"`
	Size       int       `db:"size"`  // bytes of the device
	Done       int       `db:"done"`  // bytes read so far, of twice the size
	Again      int       `db:"again"` // blocks that had to be read more than once
	Note       string    `db:"note"`  // why it stopped or was refused, or what came of it
	At         time.Time `db:"at"`
	UpdatedAt  time.Time `db:"updated_at"`
	AccountID  *int64    `db:"account_id"`
}

const chipReadingSelect = `SELECT id, assembly_id, designator, device, label, exception, state, size,
	length(got) AS done, again, note, at, updated_at, account_id FROM chip_reading `

// InsertChipReading starts one and returns its id.
func InsertChipReading(ctx context.Context, h pg.Handle, by *int64, r ChipReading) (int64, error) {
	var id int64
	err := h.GetContext(ctx, &id,
		`INSERT INTO chip_reading (assembly_id, designator, device, label, exception, state, size, account_id)
		VALUES ($1, $2, $3, $4, $5, 'running', $6, $7) RETURNING id`, r.AssemblyID, r.Designator, r.Device, r.Label,
		r.Exception, r.Size, by)
	return id, err
}

// ChipReadingByID reads one.
func ChipReadingByID(ctx context.Context, h pg.Handle, id int64) (ChipReading, error) {
	var r ChipReading
	err := pg.Get(ctx, h, &r, fmt.Sprintf("reading %d", id), chipReadingSelect+`WHERE id = $1`, id)
	return r, err
}

// RunningChipReadings lists those that went on within the last seconds.
func RunningChipReadings(ctx context.Context, h pg.Handle, seconds int) ([]ChipReading, error) {
	found := []ChipReading{}
	err := h.SelectContext(ctx, &found,
		chipReadingSelect+`WHERE state = 'running' AND updated_at > now() - make_interval(secs => $1)`, seconds)
	return found, err
}

// AppendToChipReading keeps what was read since, behind the bytes that were there, unless the reading was
// stopped meanwhile or somebody else went on with it.
func AppendToChipReading(ctx context.Context, h pg.Handle, id int64, behind int, more []byte,
	again int) (running bool, err error) {
	result, err := h.ExecContext(ctx, `UPDATE chip_reading SET got = got || $3, again = again + $4, updated_at = now()
		WHERE id = $1 AND state = 'running' AND length(got) = $2`, id, behind, more, again)
	if err != nil {
		return false, err
	}
	n, err := result.RowsAffected()
	return n > 0, err
}

// BytesOfChipReading reads what was read so far.
func BytesOfChipReading(ctx context.Context, h pg.Handle, id int64) ([]byte, error) {
	var got []byte
	err := pg.Get(ctx, h, &got, fmt.Sprintf("reading %d", id), `SELECT got FROM chip_reading WHERE id = $1`, id)
	return got, err
}

// EndChipReading sets how a running one ended, and reports whether it was still running.
func EndChipReading(ctx context.Context, h pg.Handle, id int64, state, note string) (bool, error) {
	result, err := h.ExecContext(ctx,
		`UPDATE chip_reading SET state = $2, note = $3, updated_at = now() WHERE id = $1 AND state = 'running'`, id,
		state, note)
	if err != nil {
		return false, err
	}
	n, err := result.RowsAffected()
	return n > 0, err
}

// ResumeChipReading lets a stopped one go on, or a running one that nobody went on with for some seconds.
func ResumeChipReading(ctx context.Context, h pg.Handle, id int64, seconds int) (bool, error) {
	result, err := h.ExecContext(ctx, `UPDATE chip_reading SET state = 'running', note = '', updated_at = now()
		WHERE id = $1 AND (state = 'stopped' OR state = 'running' AND updated_at <= now() - make_interval(secs => $2))`,
		id, seconds)
	if err != nil {
		return false, err
	}
	n, err := result.RowsAffected()
	return n > 0, err
}
