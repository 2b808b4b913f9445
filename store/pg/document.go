package pg

// KeptDocument is a record that is kept whole, as JSON: its parts are never looked for by themselves.
type KeptDocument struct {
	Body    string `db:"body"`
	Version int    `db:"version"`
}
